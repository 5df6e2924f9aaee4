import { requireRange } from '../errors/index.ts'

export type Hold =
  'aerial-roots' | 'tendrils' | 'leaf-stalks' | 'twining' | 'leaning' | 'trained-wood' | 'none'
export type Light = 'full-sun' | 'half-sun' | 'shade-too' | 'bright-indoors'
/** When it is pruned, by stage and not by date. */
export type PruningStage =
  'dormant' | 'dormant-and-summer' | 'after-flowering' | 'after-harvest' | 'before-budburst' | 'any-time'
export type Hazard =
  'thorns' | 'irritant-sap' | 'toxic-parts' | 'invasive' | 'wall-damaging' | 'heavy' | 'hairs-irritate'

/** Which way the stem turns as seen from above, going up; fixed by species. */
export type Winding = 'clockwise' | 'anticlockwise'

/**
 * What a kind weighs when it fills its frame, kilograms per square metre of frame: in leaf with its own wood,
 * the water that its leaves hold after rain, and its crop or flower.
 */
export interface PlantWeight {
  readonly leafKgPerM2: number
  readonly wetKgPerM2: number
  readonly cropKgPerM2: number
}

/**
 * What Klados knows of a kind of plant: ordinary practice as a default, every figure a range where practice
 * ranges. Holds and pruning by stage are from the craft; windings by species from floras; weights are round
 * figures from weighing prunings and crops; thickening, in millimetres of diameter a year, is that of garden
 * plants in ordinary soil, for wood in its first two seasons and for older wood.
 */
export interface PlantKind {
  readonly id: string
  readonly botanical: string
  readonly holds: Hold
  /** `null` for what does not twine. */
  readonly winding: Winding | null
  readonly light: Light
  readonly prunedAt: PruningStage
  readonly hazards: readonly Hazard[]
  readonly spacingM: number
  /** How long a cane grows in one season, where canes are led over a roof; `null` or left out where they are not. */
  readonly caneM?: readonly [low: number, high: number] | null
  /** Between buds on one-year wood. */
  readonly internodeM: number
  readonly youngThickeningMm: readonly [slow: number, quick: number]
  readonly olderThickeningMm: readonly [slow: number, quick: number]
  /** Under glass or indoors it thickens all the year round. */
  readonly growsAllYear: boolean
  readonly weight: PlantWeight
  /** Plum, cherry, apricot, peach: a cut in winter lets silver leaf and canker in. */
  readonly isStoneFruit?: boolean
  /** Cut when the sap rises it bleeds, without harm. */
  readonly bleeds?: boolean
}

/** As what a plant came. */
export const formsPlanted = [
  'seedling',
  'cutting',
  'layer',
  'division',
  'bare-root',
  'potted',
  'maiden',
  'formed',
] as const

const kinds = [
  {
    id: 'pear',
    botanical: 'Pyrus communis',
    holds: 'trained-wood',
    winding: null,
    light: 'full-sun',
    prunedAt: 'dormant-and-summer',
    hazards: [],
    spacingM: 4,
    internodeM: 0.035,
    youngThickeningMm: [5, 9],
    olderThickeningMm: [3, 6],
    growsAllYear: false,
    weight: { leafKgPerM2: 4, wetKgPerM2: 0.6, cropKgPerM2: 4 },
  },
  {
    id: 'apple',
    botanical: 'Malus domestica',
    holds: 'trained-wood',
    winding: null,
    light: 'full-sun',
    prunedAt: 'dormant-and-summer',
    hazards: [],
    spacingM: 3.6,
    internodeM: 0.03,
    youngThickeningMm: [5, 10],
    olderThickeningMm: [3, 7],
    growsAllYear: false,
    weight: { leafKgPerM2: 4, wetKgPerM2: 0.6, cropKgPerM2: 5 },
  },
  {
    id: 'fig',
    botanical: 'Ficus carica',
    holds: 'trained-wood',
    winding: null,
    light: 'full-sun',
    prunedAt: 'before-budburst',
    hazards: ['irritant-sap'],
    spacingM: 3,
    internodeM: 0.04,
    youngThickeningMm: [7, 14],
    olderThickeningMm: [4, 9],
    growsAllYear: false,
    weight: { leafKgPerM2: 5, wetKgPerM2: 0.8, cropKgPerM2: 2 },
  },
  {
    id: 'peach',
    botanical: 'Prunus persica',
    holds: 'trained-wood',
    winding: null,
    light: 'full-sun',
    prunedAt: 'after-harvest',
    hazards: [],
    spacingM: 4,
    internodeM: 0.03,
    youngThickeningMm: [7, 12],
    olderThickeningMm: [4, 9],
    growsAllYear: false,
    isStoneFruit: true,
    weight: { leafKgPerM2: 4, wetKgPerM2: 0.6, cropKgPerM2: 4 },
  },
  {
    id: 'gooseberry',
    botanical: 'Ribes uva-crispa',
    holds: 'trained-wood',
    winding: null,
    light: 'half-sun',
    prunedAt: 'dormant-and-summer',
    hazards: ['thorns'],
    spacingM: 1.5,
    internodeM: 0.02,
    youngThickeningMm: [3, 5],
    olderThickeningMm: [2, 4],
    growsAllYear: false,
    weight: { leafKgPerM2: 2.5, wetKgPerM2: 0.4, cropKgPerM2: 2 },
  },
  {
    id: 'tayberry',
    botanical: 'Rubus (Tayberry Group)',
    holds: 'leaning',
    winding: null,
    light: 'half-sun',
    prunedAt: 'after-harvest',
    hazards: ['thorns'],
    spacingM: 2.4,
    caneM: [2, 3.5],
    internodeM: 0.06,
    youngThickeningMm: [3, 6],
    olderThickeningMm: [0, 1],
    growsAllYear: false,
    weight: { leafKgPerM2: 3, wetKgPerM2: 0.6, cropKgPerM2: 2.5 },
  },
  {
    id: 'raspberry',
    botanical: 'Rubus idaeus',
    holds: 'leaning',
    winding: null,
    light: 'half-sun',
    prunedAt: 'after-harvest',
    hazards: ['thorns'],
    spacingM: 0.5,
    caneM: [1.2, 2.2],
    internodeM: 0.04,
    youngThickeningMm: [2, 5],
    olderThickeningMm: [0, 1],
    growsAllYear: false,
    weight: { leafKgPerM2: 2.5, wetKgPerM2: 0.5, cropKgPerM2: 1.5 },
  },
  {
    id: 'wine-grape',
    botanical: 'Vitis (mildew-resistant hybrids)',
    holds: 'tendrils',
    winding: null,
    light: 'full-sun',
    prunedAt: 'dormant',
    hazards: [],
    spacingM: 1.2,
    caneM: [1.5, 4],
    internodeM: 0.08,
    youngThickeningMm: [3, 7],
    olderThickeningMm: [3, 7],
    growsAllYear: false,
    bleeds: true,
    weight: { leafKgPerM2: 3, wetKgPerM2: 0.7, cropKgPerM2: 2.5 },
  },
  {
    id: 'table-grape',
    botanical: 'Vitis vinifera',
    holds: 'tendrils',
    winding: null,
    light: 'full-sun',
    prunedAt: 'dormant',
    hazards: [],
    spacingM: 1.5,
    caneM: [1.5, 4],
    internodeM: 0.09,
    youngThickeningMm: [4, 8],
    olderThickeningMm: [3, 8],
    growsAllYear: false,
    bleeds: true,
    weight: { leafKgPerM2: 3.5, wetKgPerM2: 0.8, cropKgPerM2: 4 },
  },
  {
    id: 'hardy-kiwi',
    botanical: 'Actinidia arguta',
    holds: 'twining',
    winding: 'anticlockwise',
    light: 'full-sun',
    prunedAt: 'dormant',
    hazards: ['heavy'],
    spacingM: 3,
    caneM: [2, 5],
    internodeM: 0.07,
    youngThickeningMm: [5, 11],
    olderThickeningMm: [5, 10],
    growsAllYear: false,
    bleeds: true,
    weight: { leafKgPerM2: 8, wetKgPerM2: 1.5, cropKgPerM2: 6 },
  },
  {
    id: 'wisteria',
    botanical: 'Wisteria sinensis',
    holds: 'twining',
    winding: 'anticlockwise',
    light: 'full-sun',
    prunedAt: 'dormant-and-summer',
    hazards: ['toxic-parts', 'heavy', 'wall-damaging'],
    spacingM: 3,
    caneM: [2, 5],
    internodeM: 0.08,
    youngThickeningMm: [6, 14],
    olderThickeningMm: [6, 14],
    growsAllYear: false,
    weight: { leafKgPerM2: 10, wetKgPerM2: 2, cropKgPerM2: 2 },
  },
  {
    id: 'wisteria-floribunda',
    botanical: 'Wisteria floribunda',
    holds: 'twining',
    winding: 'clockwise',
    light: 'full-sun',
    prunedAt: 'dormant-and-summer',
    hazards: ['toxic-parts', 'heavy', 'wall-damaging'],
    spacingM: 3,
    internodeM: 0.08,
    youngThickeningMm: [6, 14],
    olderThickeningMm: [6, 14],
    growsAllYear: false,
    weight: { leafKgPerM2: 10, wetKgPerM2: 2, cropKgPerM2: 2 },
  },
  {
    id: 'climbing-rose',
    botanical: 'Rosa (climbing)',
    holds: 'leaning',
    winding: null,
    light: 'full-sun',
    prunedAt: 'dormant',
    hazards: ['thorns'],
    spacingM: 2.4,
    caneM: [1.5, 3.5],
    internodeM: 0.05,
    youngThickeningMm: [3, 7],
    olderThickeningMm: [2, 5],
    growsAllYear: false,
    weight: { leafKgPerM2: 5, wetKgPerM2: 1, cropKgPerM2: 0.5 },
  },
  {
    id: 'rambling-rose',
    botanical: 'Rosa (rambling)',
    holds: 'leaning',
    winding: null,
    light: 'half-sun',
    prunedAt: 'after-flowering',
    hazards: ['thorns'],
    spacingM: 3,
    caneM: [2, 5],
    internodeM: 0.06,
    youngThickeningMm: [4, 8],
    olderThickeningMm: [3, 6],
    growsAllYear: false,
    weight: { leafKgPerM2: 7, wetKgPerM2: 1.4, cropKgPerM2: 0.8 },
  },
  {
    id: 'clematis',
    botanical: 'Clematis (late flowering)',
    holds: 'leaf-stalks',
    winding: null,
    light: 'half-sun',
    prunedAt: 'before-budburst',
    hazards: ['irritant-sap'],
    spacingM: 1.2,
    internodeM: 0.12,
    youngThickeningMm: [1, 3],
    olderThickeningMm: [1, 2],
    growsAllYear: false,
    weight: { leafKgPerM2: 2.5, wetKgPerM2: 0.8, cropKgPerM2: 0.3 },
  },
  {
    id: 'star-jasmine',
    botanical: 'Trachelospermum jasminoides',
    holds: 'twining',
    winding: 'anticlockwise',
    light: 'half-sun',
    prunedAt: 'after-flowering',
    hazards: ['irritant-sap'],
    spacingM: 1.8,
    internodeM: 0.06,
    youngThickeningMm: [2, 4],
    olderThickeningMm: [2, 4],
    growsAllYear: false,
    weight: { leafKgPerM2: 5, wetKgPerM2: 1.2, cropKgPerM2: 0.2 },
  },
  {
    id: 'akebia',
    botanical: 'Akebia quinata',
    holds: 'twining',
    winding: 'anticlockwise',
    light: 'shade-too',
    prunedAt: 'after-flowering',
    hazards: ['invasive'],
    spacingM: 1.6,
    caneM: [1.5, 3],
    internodeM: 0.07,
    youngThickeningMm: [2, 4],
    olderThickeningMm: [2, 4],
    growsAllYear: false,
    weight: { leafKgPerM2: 4, wetKgPerM2: 1, cropKgPerM2: 0.2 },
  },
  {
    id: 'honeysuckle',
    botanical: 'Lonicera periclymenum',
    holds: 'twining',
    winding: 'clockwise',
    light: 'half-sun',
    prunedAt: 'after-flowering',
    hazards: ['toxic-parts'],
    spacingM: 1.5,
    internodeM: 0.08,
    youngThickeningMm: [2, 5],
    olderThickeningMm: [2, 5],
    growsAllYear: false,
    weight: { leafKgPerM2: 5, wetKgPerM2: 1.2, cropKgPerM2: 0.3 },
  },
  {
    id: 'ivy',
    botanical: 'Hedera helix',
    holds: 'aerial-roots',
    winding: null,
    light: 'shade-too',
    prunedAt: 'any-time',
    hazards: ['irritant-sap', 'toxic-parts', 'wall-damaging', 'invasive'],
    spacingM: 0.8,
    internodeM: 0.04,
    youngThickeningMm: [1, 3],
    olderThickeningMm: [2, 4],
    growsAllYear: false,
    weight: { leafKgPerM2: 7, wetKgPerM2: 1.5, cropKgPerM2: 0 },
  },
  {
    id: 'climbing-hydrangea',
    botanical: 'Hydrangea petiolaris',
    holds: 'aerial-roots',
    winding: null,
    light: 'shade-too',
    prunedAt: 'after-flowering',
    hazards: ['toxic-parts', 'wall-damaging'],
    spacingM: 2.4,
    internodeM: 0.08,
    youngThickeningMm: [2, 4],
    olderThickeningMm: [3, 6],
    growsAllYear: false,
    weight: { leafKgPerM2: 9, wetKgPerM2: 1.6, cropKgPerM2: 0.6 },
  },
  {
    id: 'hop',
    botanical: 'Humulus lupulus',
    holds: 'twining',
    winding: 'clockwise',
    light: 'full-sun',
    prunedAt: 'dormant',
    hazards: ['hairs-irritate'],
    spacingM: 0.9,
    caneM: [5, 8],
    internodeM: 0.2,
    youngThickeningMm: [3, 6],
    olderThickeningMm: [0, 1],
    growsAllYear: false,
    weight: { leafKgPerM2: 3, wetKgPerM2: 0.8, cropKgPerM2: 1.2 },
  },
  {
    id: 'sweet-pea',
    botanical: 'Lathyrus odoratus',
    holds: 'tendrils',
    winding: null,
    light: 'full-sun',
    prunedAt: 'any-time',
    hazards: ['toxic-parts'],
    spacingM: 0.25,
    internodeM: 0.08,
    youngThickeningMm: [1, 3],
    olderThickeningMm: [0, 1],
    growsAllYear: false,
    weight: { leafKgPerM2: 1.2, wetKgPerM2: 0.4, cropKgPerM2: 0.2 },
  },
  {
    id: 'vanilla',
    botanical: 'Vanilla planifolia',
    holds: 'aerial-roots',
    winding: null,
    light: 'bright-indoors',
    prunedAt: 'after-flowering',
    hazards: ['irritant-sap'],
    spacingM: 1,
    internodeM: 0.1,
    youngThickeningMm: [1, 3],
    olderThickeningMm: [0, 1],
    growsAllYear: true,
    weight: { leafKgPerM2: 3, wetKgPerM2: 0.2, cropKgPerM2: 0.2 },
  },
  {
    id: 'hoya',
    botanical: 'Hoya carnosa',
    holds: 'twining',
    winding: 'anticlockwise',
    light: 'bright-indoors',
    prunedAt: 'any-time',
    hazards: ['irritant-sap'],
    spacingM: 0.4,
    internodeM: 0.09,
    youngThickeningMm: [0.5, 1.5],
    olderThickeningMm: [0.3, 1],
    growsAllYear: true,
    weight: { leafKgPerM2: 3, wetKgPerM2: 0.2, cropKgPerM2: 0.1 },
  },
  {
    id: 'satin-pothos',
    botanical: 'Scindapsus pictus',
    holds: 'aerial-roots',
    winding: null,
    light: 'bright-indoors',
    prunedAt: 'any-time',
    hazards: ['irritant-sap', 'toxic-parts'],
    spacingM: 0.3,
    internodeM: 0.06,
    youngThickeningMm: [0.5, 1.5],
    olderThickeningMm: [0.2, 0.8],
    growsAllYear: true,
    weight: { leafKgPerM2: 1.5, wetKgPerM2: 0.2, cropKgPerM2: 0 },
  },
] as const satisfies readonly PlantKind[]

export type PlantKindId = (typeof kinds)[number]['id']
export type KnownPlantKind = PlantKind & { readonly id: PlantKindId }
export const plantKinds: readonly KnownPlantKind[] = kinds

export function findKind(id: string): KnownPlantKind | undefined {
  return plantKinds.find((kind) => kind.id === id)
}

/**
 * Plants that fit along `widthM` at the kind's spacing, at least one, half a spacing from each end. Metres
 * from the left. Throws `core/*`.
 */
export function spacedAlong(widthM: number, spacingM: number): number[] {
  const count = Math.max(
    1,
    Math.round(requireRange('widthM', widthM, 0, 1e5) / requireRange('spacingM', spacingM, 0.01, 1e5)),
  )
  return Array.from({ length: count }, (_, i) => ((i + 0.5) * widthM) / count)
}
