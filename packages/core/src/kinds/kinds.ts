export type Hold =
  'aerial-roots' | 'tendrils' | 'leaf-stalks' | 'twining' | 'leaning' | 'trained-wood' | 'none'
export type Light = 'full-sun' | 'half-sun' | 'shade-too' | 'bright-indoors'
/** When it is pruned, by stage and not by date. */
export type PruningStage =
  'dormant' | 'dormant-and-summer' | 'after-flowering' | 'after-harvest' | 'before-budburst' | 'any-time'
export type Hazard =
  'thorns' | 'irritant-sap' | 'toxic-parts' | 'invasive' | 'wall-damaging' | 'heavy' | 'hairs-irritate'

/**
 * What Klados knows of a kind of plant: ordinary practice as a default, every figure a range where practice
 * ranges. Thickening is growth of a stem's diameter in a year, for wood in its first two seasons and for
 * older wood.
 */
export interface PlantKind {
  readonly id: string
  readonly botanical: string
  readonly holds: Hold
  readonly light: Light
  readonly prunedAt: PruningStage
  readonly hazards: readonly Hazard[]
  readonly spacingM: number
  readonly youngThickeningMm: readonly [number, number]
  readonly olderThickeningMm: readonly [number, number]
  /** Between buds on one-year wood. */
  readonly internodeM: number
  /** Under glass or indoors it thickens all the year round. */
  readonly growsAllYear: boolean
}

type Row = readonly [
  id: string,
  botanical: string,
  holds: Hold,
  light: Light,
  prunedAt: PruningStage,
  hazards: readonly Hazard[],
  spacingM: number,
  young: readonly [number, number],
  older: readonly [number, number],
  internodeM: number,
  growsAllYear?: boolean,
]

const rows: readonly Row[] = [
  ['pear', 'Pyrus communis', 'trained-wood', 'full-sun', 'dormant-and-summer', [], 4, [5, 9], [3, 6], 0.035],
  [
    'apple',
    'Malus domestica',
    'trained-wood',
    'full-sun',
    'dormant-and-summer',
    [],
    3.6,
    [5, 10],
    [3, 7],
    0.03,
  ],
  [
    'fig',
    'Ficus carica',
    'trained-wood',
    'full-sun',
    'before-budburst',
    ['irritant-sap'],
    3,
    [7, 14],
    [4, 9],
    0.04,
  ],
  ['peach', 'Prunus persica', 'trained-wood', 'full-sun', 'after-harvest', [], 4, [7, 12], [4, 9], 0.03],
  [
    'gooseberry',
    'Ribes uva-crispa',
    'trained-wood',
    'half-sun',
    'dormant-and-summer',
    ['thorns'],
    1.5,
    [3, 5],
    [2, 4],
    0.02,
  ],
  [
    'tayberry',
    'Rubus Loganberry Group',
    'leaning',
    'half-sun',
    'after-harvest',
    ['thorns'],
    2.4,
    [3, 6],
    [0, 1],
    0.06,
  ],
  [
    'raspberry',
    'Rubus idaeus',
    'leaning',
    'half-sun',
    'after-harvest',
    ['thorns'],
    0.5,
    [2, 5],
    [0, 1],
    0.04,
  ],
  [
    'wine-grape',
    'Vitis vinifera (mildew-resistant)',
    'tendrils',
    'full-sun',
    'dormant',
    [],
    1.2,
    [3, 7],
    [3, 7],
    0.08,
  ],
  ['table-grape', 'Vitis vinifera', 'tendrils', 'full-sun', 'dormant', [], 1.5, [4, 8], [3, 8], 0.09],
  ['hardy-kiwi', 'Actinidia arguta', 'twining', 'full-sun', 'dormant', ['heavy'], 3, [5, 11], [5, 10], 0.07],
  [
    'wisteria',
    'Wisteria sinensis',
    'twining',
    'full-sun',
    'dormant-and-summer',
    ['toxic-parts', 'heavy', 'wall-damaging'],
    3,
    [6, 14],
    [6, 14],
    0.08,
  ],
  [
    'climbing-rose',
    'Rosa (climbing)',
    'leaning',
    'full-sun',
    'dormant',
    ['thorns'],
    2.4,
    [3, 7],
    [2, 5],
    0.05,
  ],
  [
    'rambling-rose',
    'Rosa (rambling)',
    'leaning',
    'half-sun',
    'after-flowering',
    ['thorns'],
    3,
    [4, 8],
    [3, 6],
    0.06,
  ],
  [
    'clematis',
    'Clematis (late flowering)',
    'leaf-stalks',
    'half-sun',
    'before-budburst',
    ['irritant-sap'],
    1.2,
    [1, 3],
    [1, 2],
    0.12,
  ],
  [
    'star-jasmine',
    'Trachelospermum jasminoides',
    'twining',
    'half-sun',
    'after-flowering',
    ['irritant-sap'],
    1.8,
    [2, 4],
    [2, 4],
    0.06,
  ],
  [
    'honeysuckle',
    'Lonicera periclymenum',
    'twining',
    'half-sun',
    'after-flowering',
    ['toxic-parts'],
    1.5,
    [2, 5],
    [2, 5],
    0.08,
  ],
  [
    'ivy',
    'Hedera helix',
    'aerial-roots',
    'shade-too',
    'any-time',
    ['irritant-sap', 'toxic-parts', 'wall-damaging', 'invasive'],
    0.8,
    [1, 3],
    [2, 4],
    0.04,
  ],
  [
    'climbing-hydrangea',
    'Hydrangea petiolaris',
    'aerial-roots',
    'shade-too',
    'after-flowering',
    ['toxic-parts', 'wall-damaging'],
    2.4,
    [2, 4],
    [3, 6],
    0.08,
  ],
  ['hop', 'Humulus lupulus', 'twining', 'full-sun', 'dormant', ['hairs-irritate'], 0.9, [3, 6], [0, 1], 0.2],
  [
    'sweet-pea',
    'Lathyrus odoratus',
    'tendrils',
    'full-sun',
    'any-time',
    ['toxic-parts'],
    0.25,
    [1, 3],
    [0, 1],
    0.08,
  ],
  [
    'vanilla',
    'Vanilla planifolia',
    'aerial-roots',
    'bright-indoors',
    'after-flowering',
    ['irritant-sap'],
    1,
    [1, 3],
    [0, 1],
    0.1,
    true,
  ],
  [
    'hoya',
    'Hoya carnosa',
    'twining',
    'bright-indoors',
    'any-time',
    ['irritant-sap'],
    0.4,
    [0.5, 1.5],
    [0.3, 1],
    0.09,
    true,
  ],
  [
    'satin-pothos',
    'Scindapsus pictus',
    'aerial-roots',
    'bright-indoors',
    'any-time',
    ['irritant-sap', 'toxic-parts'],
    0.3,
    [0.5, 1.5],
    [0.2, 0.8],
    0.06,
    true,
  ],
]

export const plantKinds: readonly PlantKind[] = rows.map(
  ([
    id,
    botanical,
    holds,
    light,
    prunedAt,
    hazards,
    spacingM,
    young,
    older,
    internodeM,
    growsAllYear = false,
  ]) => ({
    id,
    botanical,
    holds,
    light,
    prunedAt,
    hazards,
    spacingM,
    youngThickeningMm: young,
    olderThickeningMm: older,
    internodeM,
    growsAllYear,
  }),
)

export function findKind(id: string): PlantKind | undefined {
  return plantKinds.find((kind) => kind.id === id)
}

/**
 * Plants that fit along `widthM` at the kind's spacing, at least one, half a spacing from each end. Metres
 * from the left.
 */
export function spacedAlong(widthM: number, spacingM: number): number[] {
  const count = Math.max(1, Math.round(widthM / spacingM))
  return Array.from({ length: count }, (_, i) => ((i + 0.5) * widthM) / count)
}
