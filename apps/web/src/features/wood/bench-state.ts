import type { DeepPoint, Point } from '@klados/core/geometry'
import type { Hit } from '../../elevation/Elevation.tsx'
import type { Under } from './enter/GetWoodIn.tsx'
import type { LookName } from './looks.ts'
import type { Reading } from './use-reading-keys.ts'

export const woodTools = ['choose', 'draw', 'stand'] as const
export type WoodTool = (typeof woodTools)[number]

/** What is in the hand, and how far one has got with it: another object each time that something is taken up. */
export interface Hand {
  /** `null` while nothing was taken up yet. */
  readonly tool: WoodTool | null
  /** Of a stem that is drawn, as far as they are set. */
  readonly points: readonly DeepPoint[]
  /** Where the pressed hand has been on the sheet. */
  readonly stroke: readonly Point[] | null
  readonly hover: DeepPoint | null
  /** Where the plant in the hand is to stand, along the place. */
  readonly standAtM: number | null
  /** How many lines were drawn at one go: each asks for its figures. */
  readonly strokes: number
}

/** Everything that the bench is doing, whatever way it was told: by keys, pointer or touch. */
export interface BenchState {
  readonly reading: Reading
  /** From where one looks; `null` leaves that to the system of the plant. */
  readonly look: LookName | null
  /** What is pointed at, and whose plant it is where that was said by itself. */
  readonly chosen: Hit | null
  readonly plantId: string | null
  /** What new wood is to grow from. */
  readonly under: Under | null
  /** Wood that is about to be put there. */
  readonly expected: readonly (readonly DeepPoint[])[]
  /** The question asked for, where it is not the first; and the plant that is asked again what it has answered. */
  readonly asked: string | null
  readonly againId: string | null
  readonly hand: Hand
}

export const EMPTY_HAND: Hand = {
  tool: null,
  points: [],
  stroke: null,
  hover: null,
  standAtM: null,
  strokes: 0,
}

export const benchAtFirst = (tieId: string | null, plantId: string | null): BenchState => ({
  reading: 'look',
  look: null,
  chosen: tieId ? { kind: 'tie', id: tieId } : null,
  plantId,
  under: null,
  expected: [],
  asked: null,
  againId: null,
  hand: EMPTY_HAND,
})

export type HandEvent =
  | { readonly do: 'take'; readonly tool: WoodTool }
  /** The plant stands: whoever has taken up something else by then keeps that. */
  | { readonly do: 'stood'; readonly hand: Hand }
  | { readonly do: 'stand-at'; readonly atM: number }
  | { readonly do: 'set-point'; readonly point: DeepPoint }
  | { readonly do: 'take-point-back' }
  | { readonly do: 'drawn' }
  | { readonly do: 'hover'; readonly at: DeepPoint }
  | { readonly do: 'stroke'; readonly at: Point }
  /** What was drawn at one go; of a press that did not move nothing. */
  | { readonly do: 'end-stroke'; readonly points: readonly DeepPoint[] | null }

export type BenchEvent =
  | HandEvent
  | { readonly do: 'read'; readonly reading: Reading; readonly plantId: string | null }
  | { readonly do: 'look'; readonly from: LookName }
  | { readonly do: 'point'; readonly at: Hit | null; readonly under: Under | null }
  | { readonly do: 'choose'; readonly at: Hit | null }
  | { readonly do: 'grow-from'; readonly under: Under | null }
  | { readonly do: 'expect'; readonly paths: BenchState['expected'] }
  | { readonly do: 'go-to'; readonly plantId: string }
  | { readonly do: 'pick-plant'; readonly plantId: string | null }
  | { readonly do: 'ask'; readonly question: string }
  | { readonly do: 'ask-again'; readonly plantId: string }
  | { readonly do: 'answered' }

/** What the bench does after something was told it. */
export function benchAfter(state: BenchState, event: BenchEvent): BenchState {
  switch (event.do) {
    case 'read':
      return {
        ...state,
        reading: event.reading,
        expected: [],
        // Whoever chooses looks at the plant and not at a part of it.
        chosen:
          event.reading === 'choose'
            ? event.plantId === null
              ? null
              : { kind: 'foot', id: event.plantId }
            : state.chosen,
      }
    case 'look':
      // Points that were set from one side are not gone on with from another.
      return { ...state, look: event.from, hand: { ...state.hand, stroke: null, hover: null } }
    case 'point':
      return { ...state, chosen: event.at, under: event.under }
    case 'choose':
      return { ...state, chosen: event.at }
    case 'grow-from':
      return { ...state, under: event.under }
    case 'expect':
      return { ...state, expected: event.paths }
    case 'go-to':
      return { ...state, plantId: event.plantId, chosen: null }
    case 'pick-plant':
      return { ...state, plantId: event.plantId }
    case 'ask':
      return { ...state, asked: event.question }
    case 'ask-again':
      return { ...state, againId: event.plantId }
    case 'answered':
      return { ...state, againId: null }
    default: {
      const hand = handAfter(state.hand, event)
      return hand === state.hand ? state : { ...state, hand }
    }
  }
}

function handAfter(hand: Hand, event: HandEvent): Hand {
  switch (event.do) {
    case 'take':
      return { ...EMPTY_HAND, tool: event.tool, strokes: hand.strokes }
    case 'stood':
      return hand === event.hand ? { ...EMPTY_HAND, tool: 'choose', strokes: hand.strokes } : hand
    case 'stand-at':
      return { ...hand, standAtM: event.atM }
    case 'set-point':
      return { ...hand, points: [...hand.points, event.point] }
    case 'take-point-back':
      return { ...hand, points: hand.points.slice(0, -1) }
    case 'drawn':
      return { ...hand, points: [] }
    case 'hover':
      return { ...hand, hover: event.at }
    case 'stroke':
      return { ...hand, stroke: [...(hand.stroke ?? []), event.at] }
    case 'end-stroke':
      return event.points === null
        ? { ...hand, stroke: null, hover: null }
        : {
            ...hand,
            stroke: null,
            hover: null,
            points: [...hand.points, ...event.points],
            strokes: hand.strokes + 1,
          }
  }
}
