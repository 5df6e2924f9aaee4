import { choiceOf } from '@klados/core/bill'
import { findStock, findWire, stockWidthM } from '@klados/core/catalogue'
import type { Catalogue } from '@klados/core/catalogue'
import type { Place, Plant } from '@klados/contract'
import { frameKinds, roundOf } from '@klados/core/frame'
import type { Frame, RoundFrame } from '@klados/core/frame'
import type { Point } from '@klados/core/geometry'
import type { JournalEntry, WoodState } from '@klados/core/journal'
import type { CalendarDate, Hemisphere } from '@klados/core/season'
import { frameTracks, liesNow, tieSupports, trackFinder } from '@klados/core/wood'
import type { FrameTrack, Piece, Tie, TieSupport } from '@klados/core/wood'
import { useMemo } from 'react'
import { tieStates, useAgenda, useHemisphere } from '../../data/agenda.ts'
import { useFrames, useGarden, usePlants } from '../../data/documents.ts'
import { useCatalogue } from '../../data/catalogue.ts'
import { todayHere } from '../../data/dates.ts'
import { selectByPlace } from '../../data/entries.ts'
import { plantKey } from '../../data/parts.ts'
import { goneAt, standingAt } from '../../data/standing.ts'
import { joinedWood, selectWoodByPlant } from '../../data/readings.ts'
import { useAppSelector } from '../../data/store.ts'
import { layOut, stockWidths } from '../../plan/lay-out.ts'
import { useSame } from '../../ui/use-same.ts'
import type { Urgency } from '@klados/core/season'

/** What a tie is taken to go round where the catalogue does not say. */
const USUAL_WIRE_MM = 2.5

/** Nodes and runs of all frames of a place, for drawing along them. */
export interface Snaps {
  readonly nodes: readonly Point[]
  readonly runs: readonly (readonly [Point, Point])[]
}

export interface WoodBenchData {
  /** Those that stand on the day shown. */
  readonly plants: readonly Plant[]
  /** Those that were dead or taken out by then. */
  readonly gone: readonly Plant[]
  /** Those that were entered by mistake and taken off the drawing. */
  readonly removed: readonly Plant[]
  readonly frames: readonly Frame[]
  /** The frame that plants are trained on: the one that stands, else the one chosen, else what there is. */
  readonly trainedOn: readonly { readonly frameId: string; readonly frame: Frame }[]
  /** What is meant to grow, or most often grows, on what stands here; `null` without a frame. */
  readonly usualKindId: string | null
  readonly catalogue: Catalogue
  readonly snaps: Snaps
  /** What wood can be tied to here. */
  readonly supports: readonly TieSupport[]
  /** Everything here that wood can be led along. */
  readonly tracks: readonly FrameTrack[]
  /** What the frame that plants are trained on stands round; `null` for one that is flat. */
  readonly round: RoundFrame | null
  /** Frames as they are now, by id: what ties hold on to. */
  readonly standing: ReadonlyMap<string, Frame>
  /** Wood and ties where they lie on the frames of now. */
  readonly state: WoodState
  /** Pieces that have lost what they ran along. */
  readonly loose: ReadonlySet<string>
  readonly pieces: readonly Piece[]
  readonly ties: readonly Tie[]
  readonly entries: readonly JournalEntry[]
  readonly hemisphere: Hemisphere
  readonly latitudeDeg: number | null
  readonly urgencies: ReadonlyMap<string, Urgency>
}

const NONE: readonly JournalEntry[] = []

/** Everything the wood bench shows of a place on a day. */
export function useWoodBench(gardenId: string, place: Place, on: CalendarDate): WoodBenchData | null {
  const allPlants = usePlants(gardenId)
  const allFrames = useFrames(gardenId)
  const hemisphere = useHemisphere(gardenId)
  const latitudeDeg = useGarden(gardenId)?.latitudeDeg ?? null
  const { items } = useAgenda(gardenId)
  const catalogue = useCatalogue(gardenId)
  const entries = useAppSelector(selectByPlace).get(place.id) ?? NONE
  const woods = useAppSelector(selectWoodByPlant)
  const isToday = on === todayHere()
  const keys = useMemo(() => {
    // Also where what was written of them is not at hand: what stands is.
    const here = (allPlants ?? []).filter(({ body }) => body.placeId === place.id)
    return [...new Set([...entries.map(plantKey), ...here.map(({ id }) => id), `place ${place.id}`])]
  }, [entries, allPlants, place.id])
  const states = useSame(
    keys.flatMap((key) => {
      const part = woods.get(key)
      return (isToday ? part?.now() : part?.on(on)) ?? []
    }),
  )
  const state = useMemo(() => joinedWood(states), [states])
  const frames = useMemo(
    () => (allFrames ?? []).filter((frame) => !frame.isRemoved && frame.body.placeId === place.id),
    [allFrames, place.id],
  )
  const laid = useMemo(
    () =>
      frames.flatMap(({ id, body }) => {
        const frame = layOut(place.body, body.design, catalogue)
        return frame ? [{ frameId: id, frame, design: body.design, stage: body.stage }] : []
      }),
    [frames, place, catalogue],
  )
  const trainedOn = useMemo(() => {
    const at = (stage: string) => laid.filter((one) => one.stage === stage)
    return [at('stands'), at('chosen'), laid.slice(0, 1)].find((some) => some.length > 0) ?? []
  }, [laid])
  const [first] = trainedOn
  const usualKindId = first ? (first.design.plantKindId ?? frameKinds[first.frame.kind].usualPlant) : null
  const built = useMemo(() => laid.map(({ frame }) => frame), [laid])
  const standing = useMemo(() => new Map(laid.map(({ frameId, frame }) => [frameId, frame])), [laid])
  const snaps = useMemo(
    (): Snaps => ({
      nodes: built.flatMap((frame) => frame.nodes.map((node) => node.at)),
      runs: built.flatMap((frame) =>
        frame.runs.map((run) => [frame.nodes[run.from]!.at, frame.nodes[run.to]!.at] as const),
      ),
    }),
    [built],
  )
  const find = useMemo(() => trackFinder(standing), [standing])
  const lying = useMemo(() => liesNow(state, find), [state, find])
  const tracks = useMemo(() => frameTracks(laid), [laid])
  const round = useMemo(
    () => (first ? roundOf(first.frame, stockWidths(catalogue)) : null),
    [first, catalogue],
  )
  const supports = useMemo(() => {
    const designs = new Map(laid.map(({ frameId, design }) => [frameId, design]))
    return tieSupports(laid, {
      wireMm: (frameId, wire) =>
        findWire(catalogue, choiceOf(designs.get(frameId)!, wire).wireId)?.diameterMm ?? USUAL_WIRE_MM,
      stockM: (stockId) => {
        const stock = findStock(catalogue, stockId)
        return stock ? stockWidthM(stock) : USUAL_WIRE_MM / 1000
      },
    })
  }, [laid, catalogue])
  const urgencies = useMemo(() => tieStates(items), [items])
  return useMemo(() => {
    if (!allPlants || !allFrames) return null
    return {
      plants: standingAt(allPlants, place.id, on),
      gone: goneAt(allPlants, place.id, on),
      removed: allPlants.filter(({ isRemoved, body }) => isRemoved && body.placeId === place.id),
      frames: built,
      trainedOn,
      usualKindId,
      catalogue,
      snaps,
      supports,
      tracks,
      round,
      standing,
      state: { ...state, pieces: new Map(lying.pieces), ties: new Map(lying.ties) },
      loose: lying.loose,
      pieces: [...lying.pieces.values()],
      ties: [...lying.ties.values()],
      entries,
      hemisphere,
      latitudeDeg,
      urgencies: isToday ? urgencies : new Map(),
    }
  }, [
    allPlants,
    allFrames,
    place.id,
    on,
    built,
    trainedOn,
    usualKindId,
    catalogue,
    snaps,
    supports,
    tracks,
    round,
    standing,
    state,
    lying,
    entries,
    hemisphere,
    latitudeDeg,
    urgencies,
    isToday,
  ])
}
