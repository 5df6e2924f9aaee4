import type { FrameDocument, Place } from '@klados/contract'
import { weatherAt } from '@klados/core/design'
import { strainDue } from '@klados/core/loads'
import type { StrainReason, WireLine } from '@klados/core/loads'
import { checkDesign } from '@klados/core/plan'
import { urgencyOf } from '@klados/core/season'
import type { Due, Urgency } from '@klados/core/season'
import { useMemo } from 'react'
import { useCatalogue } from './catalogue.ts'
import { todayHere } from './dates.ts'
import { useFrames, usePlaces } from './documents.ts'
import { selectFramesNow } from './readings.ts'
import { useAppSelector } from './store.ts'

/** Wires of a frame that are due for straining on one day, the first of them. */
export interface WireItem {
  readonly frame: FrameDocument
  readonly place: Place
  readonly line: WireLine
  /** How many wires of the frame are due as soon or sooner than they are soon. */
  readonly count: number
  readonly due: Due<StrainReason>
  readonly urgency: Urgency
}

/** Frames whose wires somebody has strained, with the day the first of them wants it again; soonest first. */
export function useWireAgenda(gardenId: string): readonly WireItem[] {
  const frames = useFrames(gardenId)
  const places = usePlaces(gardenId)
  const built = useAppSelector(selectFramesNow)
  const catalogue = useCatalogue(gardenId)
  const today = todayHere()
  return useMemo(() => {
    const placeById = new Map(places?.filter((one) => !one.isRemoved).map((one) => [one.id, one]))
    const items = (frames ?? []).flatMap((frame): WireItem[] => {
      const place = placeById.get(frame.body.placeId)
      const log = built.get(frame.id)?.tensions
      if (!place || frame.isRemoved || !log?.size) return []
      const { lines, loads } = checkDesign(place.body, frame.body.design, { catalogue })
      const { hottestC } = weatherAt(place.body)
      const dues = lines.flatMap((line) =>
        line.ids.flatMap((id) => {
          const due = strainDue(line, log.get(id) ?? [], { loads, hottestC })
          return due ? [{ line, due }] : []
        }),
      )
      const [first, ...rest] = dues.sort((a, b) => (a.due.dueOn < b.due.dueOn ? -1 : 1))
      if (!first) return []
      const urgency = urgencyOf(first.due.dueOn, today)
      const count = 1 + rest.filter(({ due }) => urgencyOf(due.dueOn, today) !== 'later').length
      return [{ frame, place, count, urgency, ...first }]
    })
    return items.sort((a, b) => (a.due.dueOn < b.due.dueOn ? -1 : 1))
  }, [frames, places, built, catalogue, today])
}
