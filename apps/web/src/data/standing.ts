import type { Plant } from '@klados/contract'
import type { CalendarDate } from '@klados/core/season'
import { todayHere } from './dates.ts'

/** Whether a plant is there on a day: not entered by mistake, and neither dead nor taken out by then. */
export const standsOn = ({ isRemoved, body: { ended } }: Plant, on: CalendarDate): boolean =>
  !isRemoved && (ended === null || on < ended.on)

/** The plants of a place that are there on a day, today if no other is said. */
export const standingAt = (
  plants: readonly Plant[] | undefined,
  placeId: string,
  on: CalendarDate = todayHere(),
): readonly Plant[] => plants?.filter((plant) => plant.body.placeId === placeId && standsOn(plant, on)) ?? []

/** The plants that stood at a place once and were dead or taken out by a day. */
export const goneAt = (plants: readonly Plant[], placeId: string, on: CalendarDate): readonly Plant[] =>
  plants.filter((plant) => plant.body.placeId === placeId && !plant.isRemoved && !standsOn(plant, on))
