import type { Place, Plant } from '@klados/contract'
import { budTarget } from '@klados/core/budget'
import { replayChoices, replayPlants } from '@klados/core/journal'
import type { JournalEntry } from '@klados/core/journal'
import { daysBetween } from '@klados/core/season'
import { countOfWinter } from '@klados/core/tally'
import type { Counted, RowPlant } from '@klados/core/tally'
import { usualSettings } from '@klados/core/training'
import { useMemo, useState } from 'react'
import { shallowEqual as isShallowEqual } from 'react-redux'
import { selectByPlant } from '../../../data/entries.ts'
import { standsOn } from '../../../data/standing.ts'
import { useAppSelector } from '../../../data/store.ts'
import type { WoodBenchData } from '../use-bench.ts'

/** A plant of the row with its number from the end that one looks from. */
export interface RowLine extends RowPlant {
  readonly plant: Plant
  readonly n: number
}

/** Younger than this a vine has a budget of its own: a share of a grown one's. */
const YOUNG_YEARS = 3
const YOUNG_SHARE = 0.3
const DAYS_A_YEAR = 365.25
/** Choices of this winter say what a drawn plant keeps. */
const WINTER_DAYS = 200
const NEAR = 0.1

/** What was counted, and where nothing was, what the choice came to. */
const both = (tally: Counted | null, choice: Counted | undefined): Counted => ({
  canes: tally?.canes ?? choice?.canes ?? null,
  spurs: tally?.spurs ?? choice?.spurs ?? null,
  buds: tally?.buds ?? choice?.buds ?? null,
  ties: tally?.ties ?? choice?.ties ?? null,
  minutes: tally?.minutes ?? choice?.minutes ?? null,
  pruningsKg: null,
})

/** What a line is told by: while none of it changes, the line is the one that it was. */
interface Told {
  readonly plant: Plant
  readonly n: number
  readonly entries: readonly JournalEntry[]
  readonly isDrawn: boolean
  readonly on: string
}

/** Lines of a row; of hundreds only those whose plant was written of are made anew. */
function rowMaker(): (told: readonly Told[]) => readonly RowLine[] {
  let known = new Map<string, { readonly told: Told; readonly line: RowLine }>()
  return (tolds) => {
    const made = tolds.map((told) => {
      const old = known.get(told.plant.id)
      return old && isShallowEqual(old.told, told) ? old : { told, line: lineOf(told) }
    })
    known = new Map(made.map((one) => [one.told.plant.id, one]))
    return made.map(({ line }) => line)
  }
}

function lineOf({ plant, n, entries, isDrawn, on }: Told): RowLine {
  const record = replayPlants(entries, on).get(plant.id)
  const tally = countOfWinter(record?.tallies ?? [], on)
  // Weighed at the row or at the plant's own bench: it is one heap of prunings.
  const weighed = record?.readings.findLast(
    ({ what, on: day }) => what === 'prunings' && daysBetween(day, on) <= WINTER_DAYS,
  )
  const pruningsKg = tally?.pruningsKg ?? weighed?.value ?? null
  const choice = [...replayChoices(entries, on).values()].findLast(
    ({ state, madeOn }) => state !== 'dropped' && daysBetween(madeOn, on) <= WINTER_DAYS,
  )
  const isYoung = daysBetween(plant.body.plantedOn, on) < YOUNG_YEARS * DAYS_A_YEAR
  const usual = budTarget(plant.body.budGoal ?? usualSettings.goal, pruningsKg)
  const aim = Math.round(usual.aim * YOUNG_SHARE)
  const young = { aim, min: Math.floor(aim * (1 - NEAR)), max: Math.ceil(aim * (1 + NEAR)) }
  const fromChoice = choice && {
    canes: choice.decided.filter(({ deed }) => deed === 'lay').length,
    spurs: choice.decided.filter(({ deed }) => deed === 'spur').length,
    buds: choice.buds,
    ties: choice.ties,
    minutes: Math.round(choice.tookMinutes ?? choice.minutes),
    pruningsKg: null,
  }
  return {
    id: plant.id,
    plant,
    n,
    is: !standsOn(plant, on) ? 'missing' : isDrawn ? 'portrait' : isYoung ? 'young' : 'counted',
    // A young plant that was given a budget goes by that.
    target: isYoung && plant.body.budGoal === null ? young : usual,
    counted: tally || fromChoice || pruningsKg !== null ? { ...both(tally, fromChoice), pruningsKg } : null,
  }
}

const NONE: readonly JournalEntry[] = []
const NO_LINES: readonly RowLine[] = []

/** The plants of a place in order along it, with what is counted or drawn of each this winter. */
export function useRow(place: Place, data: WoodBenchData, on: string, isAsked: boolean): readonly RowLine[] {
  const { plants, gone, pieces } = data
  const byPlant = useAppSelector(selectByPlant)
  const [makeRow] = useState(rowMaker)
  const inOrder = useMemo(() => {
    const isFromLeft = place.body.viewingEnd === 'left'
    return [...plants, ...gone].sort((a, b) => (isFromLeft ? a.body.xM - b.body.xM : b.body.xM - a.body.xM))
  }, [plants, gone, place])
  const drawn = useMemo(
    () => new Set(pieces.filter(({ removedOn }) => removedOn === null).map(({ plantId }) => plantId)),
    [pieces],
  )
  return useMemo(() => {
    if (!isAsked) return NO_LINES
    return makeRow(
      inOrder.map((plant, i) => ({
        plant,
        n: i + 1,
        entries: byPlant.get(plant.id) ?? NONE,
        isDrawn: drawn.has(plant.id),
        on,
      })),
    )
  }, [makeRow, inOrder, byPlant, drawn, on, isAsked])
}
