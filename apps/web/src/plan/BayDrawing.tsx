import { drawBay } from '@klados/core/drawing'
import type { FramePlan } from '@klados/core/plan'
import type { Place } from '@klados/contract'
import { memo, useMemo } from 'react'
import { useTranslation } from '../i18n/use-translation.tsx'
import { useCatalogue } from '../data/catalogue.ts'
import { StillElevation } from '../elevation/StillElevation.tsx'
import { drawLaid, isLong } from './lay-out.ts'

interface BayDrawingProps {
  readonly gardenId: string
  readonly place: Place
  readonly plan: FramePlan
}

/** Of a long frame its end and first bay, at a scale where posts, wires and their sag can be seen. */
export const BayDrawing = memo(function BayDrawing({
  gardenId,
  place,
  plan: { frame, lines },
}: BayDrawingProps) {
  const { t } = useTranslation()
  const catalogue = useCatalogue(gardenId)
  const bay = useMemo(
    () => (frame && isLong(place.body) ? drawBay(frame, drawLaid(frame, catalogue), lines) : null),
    [frame, lines, place, catalogue],
  )
  if (!bay) return null
  const room = {
    widthM: bay.widthM,
    usableHeightM: bay.heightM,
    firstForkM: 0,
    viewingEnd: 'left',
    avoid: [],
  } as const
  return (
    <figure className="m-0 max-w-xl">
      <figcaption className="text-[0.8125rem] text-slate">{t('frame.bay')}</figcaption>
      <StillElevation
        label={t('frame.bay')}
        wall={room}
        surface="open"
        list={bay.list}
        maxHeight="190px"
        tapeAlong
      />
    </figure>
  )
})
