import type { PlantKind } from './kinds.ts'

/**
 * What a kind weighs when it fills its frame, kilograms per square metre of frame: in leaf with its own wood,
 * the water that its leaves hold after rain, and its crop or flower. Round figures for planning, from
 * weighing prunings and crops.
 */
export interface PlantWeight {
  readonly leafKgPerM2: number
  readonly wetKgPerM2: number
  readonly cropKgPerM2: number
}

/**
 * Which way the stem turns as seen from above, going up; fixed by species. `null` for what does not twine.
 */
export type Winding = 'clockwise' | 'anticlockwise'

const weights: Readonly<Record<string, readonly [leaf: number, wet: number, crop: number]>> = {
  pear: [4, 0.6, 4],
  apple: [4, 0.6, 5],
  fig: [5, 0.8, 2],
  peach: [4, 0.6, 4],
  gooseberry: [2.5, 0.4, 2],
  tayberry: [3, 0.6, 2.5],
  raspberry: [2.5, 0.5, 1.5],
  'wine-grape': [3, 0.7, 2.5],
  'table-grape': [3.5, 0.8, 4],
  'hardy-kiwi': [8, 1.5, 6],
  wisteria: [10, 2, 2],
  'climbing-rose': [5, 1, 0.5],
  'rambling-rose': [7, 1.4, 0.8],
  clematis: [2.5, 0.8, 0.3],
  'star-jasmine': [5, 1.2, 0.2],
  honeysuckle: [5, 1.2, 0.3],
  ivy: [7, 1.5, 0],
  'climbing-hydrangea': [9, 1.6, 0.6],
  hop: [3, 0.8, 1.2],
  'sweet-pea': [1.2, 0.4, 0.2],
  vanilla: [3, 0.2, 0.2],
  hoya: [3, 0.2, 0.1],
  'satin-pothos': [1.5, 0.2, 0],
}

const windings: Readonly<Record<string, Winding>> = {
  'hardy-kiwi': 'anticlockwise',
  wisteria: 'anticlockwise',
  'star-jasmine': 'anticlockwise',
  hoya: 'anticlockwise',
  hop: 'clockwise',
  honeysuckle: 'clockwise',
}

/** A kind without a figure of its own counts as a middling climber. */
const MIDDLING = [4, 0.8, 1] as const

export function plantWeight(kind: Pick<PlantKind, 'id'>): PlantWeight {
  const [leafKgPerM2, wetKgPerM2, cropKgPerM2] = weights[kind.id] ?? MIDDLING
  return { leafKgPerM2, wetKgPerM2, cropKgPerM2 }
}

export function windingOf(kind: Pick<PlantKind, 'id'>): Winding | null {
  return windings[kind.id] ?? null
}
