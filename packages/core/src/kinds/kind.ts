export type Hold =
  | 'aerial-roots'
  | 'tendrils'
  | 'leaf-stalks'
  | 'twining'
  | 'leaning'
  | 'trained-wood'
  | 'none'
export type Light = 'full-sun' | 'half-sun' | 'shade-too' | 'bright-indoors'
/** When it is pruned, by stage and not by date. */
export type PruningStage =
  | 'dormant'
  | 'dormant-and-summer'
  | 'after-flowering'
  | 'after-harvest'
  | 'before-budburst'
  | 'any-time'
export type Hazard =
  | 'thorns'
  | 'irritant-sap'
  | 'toxic-parts'
  | 'invasive'
  | 'wall-damaging'
  | 'heavy'
  | 'hairs-irritate'

/**
 * How a kind grows and bears, as far as that decides how its wood is chosen; training systems say which habits they are
 * for, and know no kind.
 */
export type Habit =
  /** Bears on shoots of last summer's wood, which is renewed every winter from short spurs: vines. */
  | 'renewed-canes'
  /** Long stems from the base that flower for years on short side shoots: climbing and rambling roses. */
  | 'long-mains'
  /** Trees that bear on spurs of older wood: pear, apple. */
  | 'spur-tree'
  /** Trees that bear on last summer's shoots and break badly from bare wood: peach. */
  | 'yearling-tree'
  /** Bears on last summer's tips and breaks freely from old wood: fig. */
  | 'tip-tree'
  /** Upright canes that come up along a row, grow one summer, bear the next and die: summer raspberries. */
  | 'erect-canes'
  /** Long canes from one stool that grow one summer, bear the next and die: blackberries and their hybrids. */
  | 'trailing-canes'
  /** Bushes that bear on older wood and its spurs: gooseberry. */
  | 'fruit-bush'
  /** Woody twiners with spurs or laterals on a lasting frame: wisteria, akebia. */
  | 'woody-twiner'
  /** Heavy woody twiners that fruit on the shoots of laterals, led overhead: kiwi. */
  | 'overhead-twiner'
  /** Stems that hold on by leaf stalks and are cut by the time of flowering: clematis. */
  | 'leaf-climber'
  /** Woody, with roots along the stem: ivy, climbing hydrangea. */
  | 'root-climber'
  /** Soft stems that last, with roots at their nodes: aroids, vanilla. */
  | 'node-rooter'
  /** Soft stems that die back every year: hop, sweet pea. */
  | 'yearly-bine'
  /** Soft stems that last and are led or wound: hoya. */
  | 'lasting-vine'

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
  readonly habit: Habit
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
  /** The thickest support that its tendrils, leaf stalks or stems take hold of, where not as usual for how it holds. */
  readonly gripsMm?: number
  /** How far off a face its wires run, so that its stems thicken and air passes behind, where not as usual. */
  readonly offWallM?: number
  /** Of what bears in clusters: burst, clusters a shoot and their mass where nothing was recorded; ordinary figures of gardens. */
  readonly clusterYield?: {
    readonly burst: readonly [low: number, high: number]
    readonly clustersPerShoot: readonly [low: number, high: number]
    readonly clusterKg: readonly [low: number, high: number]
  }
  /** Cut when the sap rises it bleeds, without harm. */
  readonly bleeds?: boolean
}

/** Tendrils and leaf stalks close round thin things alone; stems twine round what an arm could be held by. */
const GRIPS_MM: Readonly<Partial<Record<Hold, number>>> = { tendrils: 10, 'leaf-stalks': 12, twining: 80 }
/** Behind woody climbers air must pass, metres. */
const OFF_WALL_M = 0.05

/** The thickest support that a kind holds on to by itself, millimetres; `null` for what is tied, leans or clings. */
export const gripsMm = ({ gripsMm: own, holds }: PlantKind): number | null => own ?? GRIPS_MM[holds] ?? null

/** How far off its wall a kind's wires run, metres; 0 for what clings to the face itself. */
export const offWallM = ({ offWallM: own, holds }: PlantKind): number =>
  own ?? (holds === 'aerial-roots' || holds === 'none' ? 0 : OFF_WALL_M)
