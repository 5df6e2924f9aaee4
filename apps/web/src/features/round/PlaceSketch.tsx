import { drawWood } from '@klados/core/drawing'
import { memo, useDeferredValue, useMemo } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useHemisphere } from '../../data/agenda.ts'
import type { AgendaItem } from '../../data/agenda.ts'
import { useFrames, usePlants } from '../../data/documents.ts'
import { useCatalogue } from '../../data/catalogue.ts'
import { todayHere } from '../../data/dates.ts'
import { standingAt } from '../../data/standing.ts'
import { useWoodOfLater } from '../../data/use-wood-of.ts'
import { StillElevation } from '../../elevation/StillElevation.tsx'
import { drawPlace, layOut } from '../../plan/lay-out.ts'

const Drawn = memo(StillElevation)

interface PlaceSketchProps {
  readonly gardenId: string
  readonly items: readonly AgendaItem[]
}

/**
 * The place drawn small, with only the ties to go to: where on the wall to walk. It follows a tap a breath later: the
 * thumb waits for the line that it pressed, not for the drawing above it.
 */
export function PlaceSketch({ gardenId, items: itemsNow }: PlaceSketchProps) {
  const { t } = useTranslation()
  const items = useDeferredValue(itemsNow)
  const { place } = items[0]!
  const frames = useFrames(gardenId)
  const plants = usePlants(gardenId)
  const kinds = useMemo(
    () => new Map(standingAt(plants, place.id).map(({ id, body }) => [id, body.kindId] as const)),
    [plants, place.id],
  )
  const wood = useWoodOfLater(useMemo(() => [...kinds.keys()], [kinds]))
  const hemisphere = useHemisphere(gardenId)
  const catalogue = useCatalogue(gardenId)
  const built = useMemo(() => {
    const here = frames?.filter((frame) => !frame.isRemoved && frame.body.placeId === place.id) ?? []
    const laid = here.map((frame) => layOut(place.body, frame.body.design, catalogue))
    return drawPlace(place.body, laid, catalogue).filter(
      (mark) => mark.kind !== 'node' && mark.kind !== 'joint',
    )
  }, [place, frames, catalogue])
  const list = useMemo(() => {
    const pieces = [...wood.pieces.values()].filter((piece) => kinds.has(piece.plantId))
    const urgency = new Map(items.map((item) => [item.tie.id, item.urgency]))
    return [
      ...built,
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
  }, [items, wood, built, kinds, hemisphere])
  return (
    <Drawn
      label={t('place.drawing', { name: place.body.name })}
      wall={place.body}
      surface={place.body.surface}
      list={list}
      maxHeight="180px"
    />
  )
}
