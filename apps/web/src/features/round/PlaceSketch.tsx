import { drawWood } from '@klados/core/drawing'
import { useMemo } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useHemisphere } from '../../data/agenda.ts'
import type { AgendaItem } from '../../data/agenda.ts'
import { useFrames, usePlants } from '../../data/documents.ts'
import { useCatalogue } from '../../data/catalogue.ts'
import { todayHere } from '../../data/dates.ts'
import { useWoodOf } from '../../data/use-wood-of.ts'
import { StillElevation } from '../../elevation/StillElevation.tsx'
import { drawPlace, layOut } from '../../plan/lay-out.ts'

/** The place drawn small, with only the ties to go to: where on the wall to walk. */
export function PlaceSketch({ gardenId, items }: { gardenId: string; items: readonly AgendaItem[] }) {
  const { t } = useTranslation()
  const { place } = items[0]!
  const frames = useFrames(gardenId)
  const plants = usePlants(gardenId)
  const kinds = useMemo(
    () =>
      new Map(plants?.filter((p) => p.body.placeId === place.id).map((p) => [p.id, p.body.kindId] as const)),
    [plants, place.id],
  )
  const wood = useWoodOf([...kinds.keys()])
  const hemisphere = useHemisphere(gardenId)
  const catalogue = useCatalogue(gardenId)
  const list = useMemo(() => {
    const here = frames?.filter((frame) => !frame.isRemoved && frame.body.placeId === place.id) ?? []
    const laid = here.map((frame) => layOut(place.body, frame.body.design, catalogue))
    const pieces = [...wood.pieces.values()].filter((piece) => kinds.has(piece.plantId))
    const urgency = new Map(items.map((item) => [item.tie.id, item.urgency]))
    return [
      ...drawPlace(place.body, laid, catalogue).filter(
        (mark) => mark.kind !== 'node' && mark.kind !== 'joint',
      ),
      ...drawWood(
        pieces,
        items.map((item) => item.tie),
        {
          on: todayHere(),
          hemisphere,
          kindOf: (id) => kinds.get(id) ?? '',
          tieState: (tie) => (urgency.get(tie.id) === 'overdue' ? 'overdue' : 'due'),
        },
      ),
    ]
  }, [place, items, wood, frames, kinds, hemisphere, catalogue])
  return (
    <StillElevation
      label={t('place.drawing', { name: place.body.name })}
      wall={place.body}
      surface={place.body.surface}
      list={list}
      maxHeight="180px"
    />
  )
}
