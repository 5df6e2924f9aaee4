import { findWire } from '@klados/core/catalogue'
import type { Catalogue } from '@klados/core/catalogue'
import type { Place, Plant } from '@klados/contract'
import type { Frame } from '@klados/core/frame'
import type { Point } from '@klados/core/geometry'
import { replay } from '@klados/core/journal'
import type { JournalEntry, WoodState } from '@klados/core/journal'
import type { CalendarDate, Hemisphere } from '@klados/core/season'
import type { Stem, Tie } from '@klados/core/wood'
import { useMemo } from 'react'
import { tieStates, useAgenda, useHemisphere } from '../../data/agenda.ts'
import type { AgendaItem } from '../../data/agenda.ts'
import { useFrames, usePlants } from '../../data/documents.ts'
import { useCatalogue } from '../../data/catalogue.ts'
import { todayHere } from '../../data/dates.ts'
import { selectEntries } from '../../data/journal.ts'
import { useAppSelector } from '../../data/store.ts'
import { layOut } from '../../plan/lay-out.ts'
import type { Urgency } from '@klados/core/ties'

/** Nodes and runs of all frames of a place, for snapping and tying. */
export interface Supports {
  readonly nodes: readonly Point[]
  readonly runs: readonly (readonly [Point, Point])[]
  /** Of the first frame's wire: what a tie goes round. */
  readonly wireMm: number
}

export interface WoodBenchData {
  readonly plants: readonly Plant[]
  readonly frames: readonly Frame[]
  readonly catalogue: Catalogue
  readonly supports: Supports
  readonly state: WoodState
  readonly stems: readonly Stem[]
  readonly ties: readonly Tie[]
  readonly entries: readonly JournalEntry[]
  readonly hemisphere: Hemisphere
  readonly agenda: readonly AgendaItem[]
  readonly urgencies: ReadonlyMap<string, Urgency>
}

/** Everything the wood bench shows of a place on a day. */
export function useWoodBench(gardenId: string, place: Place, on: CalendarDate): WoodBenchData | null {
  const allPlants = usePlants(gardenId)
  const allFrames = useFrames(gardenId)
  const allEntries = useAppSelector(selectEntries)
  const hemisphere = useHemisphere(gardenId)
  const agenda = useAgenda(gardenId)
  const catalogue = useCatalogue(gardenId)
  const entries = useMemo(
    () => allEntries.filter((entry) => entry.placeId === place.id),
    [allEntries, place.id],
  )
  const state = useMemo(() => replay(entries, on), [entries, on])
  const frames = useMemo(
    () => (allFrames ?? []).filter((frame) => !frame.isRemoved && frame.body.placeId === place.id),
    [allFrames, place.id],
  )
  const built = useMemo(
    () => frames.flatMap((frame) => layOut(place.body, frame.body.design, catalogue) ?? []),
    [frames, place, catalogue],
  )
  const supports = useMemo(
    (): Supports => ({
      nodes: built.flatMap((frame) => frame.nodes.map((node) => node.at)),
      runs: built.flatMap((frame) =>
        frame.runs.map((run) => [frame.nodes[run.from]!.at, frame.nodes[run.to]!.at] as const),
      ),
      wireMm: findWire(catalogue, frames[0]?.body.design.wireId ?? '')?.diameterMm ?? 2.5,
    }),
    [built, frames, catalogue],
  )
  const urgencies = useMemo(() => tieStates(agenda), [agenda])
  return useMemo(() => {
    if (!allPlants || !allFrames) return null
    return {
      plants: allPlants.filter((plant) => !plant.isRemoved && plant.body.placeId === place.id),
      frames: built,
      catalogue,
      supports,
      state,
      stems: [...state.stems.values()],
      ties: [...state.ties.values()],
      entries,
      hemisphere,
      agenda,
      urgencies: on === todayHere() ? urgencies : new Map(),
    }
  }, [
    allPlants,
    allFrames,
    place.id,
    built,
    catalogue,
    supports,
    state,
    entries,
    hemisphere,
    agenda,
    urgencies,
    on,
  ])
}
