import { budTarget } from '../budget/index.ts'
import type { BudGoal, BudTarget } from '../budget/index.ts'
import type { Frame } from '../frame/index.ts'
import { pathLengthM } from '../geometry/index.ts'
import type { DeepPoint } from '../geometry/index.ts'
import { findKind } from '../kinds/index.ts'
import type { PlantKind } from '../kinds/index.ts'
import { daysBetween, stageOn } from '../season/index.ts'
import type { CalendarDate, Hemisphere, SeasonStage } from '../season/index.ts'
import { baseDiameterMm, budsOf, frameTracks, pieceAge, roleOf } from '../wood/index.ts'
import type { FrameTrack, Piece, PieceRole } from '../wood/index.ts'
import { levelAmong } from './level-wires.ts'
import type { Wire } from './level-wires.ts'
import { usualSettings } from './settings.ts'
import type { TrainingSettings } from './settings.ts'

/** What a system is asked about: one plant on its frames, on a day. */
export interface TrainingInput {
  readonly plant: {
    readonly id: string
    readonly kindId: string
    readonly xM: number
    /** Where the ground is at its foot. */
    readonly footYM: number
    /** How far behind the front plane it stands; left out, in it. */
    readonly footZM?: number
    readonly plantedOn: CalendarDate
    readonly graftHeightM: number | null
  }
  /** Wood of the place, of any plant. */
  readonly pieces: ReadonlyMap<string, Piece>
  readonly frames: readonly { readonly frameId: string; readonly frame: Frame }[]
  /** Feet of the other plants of the place that stand. */
  readonly othersXM: readonly number[]
  readonly widthM: number
  readonly on: CalendarDate
  readonly hemisphere: Hemisphere
  readonly latitudeDeg: number | null
  /** `null` leaves the number of buds to the kind's default. */
  readonly goal: BudGoal | null
  /** Mass of what was cut off this winter, where it was weighed. */
  readonly pruningsKg: number | null
  readonly settings?: Partial<TrainingSettings>
}

/** A living piece with what is asked of it all the time. */
export interface Stem {
  readonly id: string
  readonly piece: Piece
  readonly age: number
  readonly role: PieceRole
  readonly parent: Stem | null
  /** Where on its parent it sits; 0 for what comes from the crown or the ground. */
  readonly alongM: number
  readonly base: DeepPoint
  readonly tip: DeepPoint
  readonly lengthM: number
  readonly baseMm: number
  readonly buds: number
  readonly areBudsCounted: boolean
  readonly internodeM: number
  /** From upright, to the right positive, degrees. */
  readonly leanDeg: number
  readonly isBelowGraft: boolean
}

export interface PlantView {
  readonly input: TrainingInput
  readonly kind: PlantKind
  readonly stage: SeasonStage
  /** Years since planting, with fractions. */
  readonly years: number
  readonly stems: readonly Stem[]
  readonly stem: (id: string) => Stem | undefined
  readonly childrenOf: (id: string) => readonly Stem[]
  /** All of its frames that wood can be led along. */
  readonly tracks: readonly FrameTrack[]
  /** What of the place's width is this plant's to fill. */
  readonly share: { readonly fromM: number; readonly toM: number }
  readonly settings: TrainingSettings
  readonly target: BudTarget
}

const DAYS_A_YEAR = 365.25

/** `null` for a plant of a kind that nobody knows. */
export function viewPlant(input: TrainingInput): PlantView | null {
  const kind = findKind(input.plant.kindId)
  if (!kind) return null
  const settings = { ...usualSettings, ...input.settings }
  const stems = stemsOf(input, kind)
  const byId = new Map(stems.map((stem) => [stem.id, stem]))
  const children = new Map<string, Stem[]>()
  for (const stem of stems)
    if (stem.parent) children.set(stem.parent.id, [...(children.get(stem.parent.id) ?? []), stem])
  const tracks = frameTracks(input.frames)
  return {
    input,
    kind,
    stage: stageOn(input.on, input.latitudeDeg, input.hemisphere, kind.growsAllYear),
    years: daysBetween(input.plant.plantedOn, input.on) / DAYS_A_YEAR,
    stems,
    stem: (id) => byId.get(id),
    childrenOf: (id) => children.get(id) ?? [],
    tracks,
    share: shareOf(input, levelAmong(input, tracks)),
    settings,
    target: budTarget(input.goal ?? settings.goal, input.pruningsKg),
  }
}

function stemsOf(input: TrainingInput, kind: PlantKind): Stem[] {
  const { pieces, on, hemisphere, plant } = input
  const made = new Map<string, Stem>()
  const own = [...pieces.values()].filter(
    (piece) => piece.removedOn === null && piece.plantId === plant.id && piece.path.length > 1,
  )
  // Parents first: a child asks its parent whether it comes from below the graft.
  const depth = (piece: Piece): number => {
    let steps = 0
    let at: Piece | undefined = piece
    while (at?.parent.on === 'piece' && steps < pieces.size) {
      at = pieces.get(at.parent.pieceId)
      steps++
    }
    return steps
  }
  const ordered = own.map((piece) => ({ piece, depth: depth(piece) })).sort((a, b) => a.depth - b.depth)
  for (const { piece } of ordered) {
    const parent = piece.parent.on === 'piece' ? (made.get(piece.parent.pieceId) ?? null) : null
    const [base, tip] = [piece.path[0]!, piece.path.at(-1)!]
    const lengthM = pathLengthM(piece.path)
    const count = budsOf(piece, lengthM, kind.internodeM)
    const isCounted = count.is === 'counted'
    made.set(piece.id, {
      id: piece.id,
      piece,
      age: pieceAge(piece, on, hemisphere),
      role: roleOf(piece, pieces, on, hemisphere, kind.habit),
      parent,
      alongM: piece.parent.on === 'piece' ? piece.parent.alongM : 0,
      base,
      tip,
      lengthM,
      baseMm: baseDiameterMm(piece, kind, on, hemisphere),
      buds: count.buds,
      areBudsCounted: isCounted,
      internodeM: isCounted && count.buds > 0 ? lengthM / count.buds : kind.internodeM,
      leanDeg: (Math.atan2(tip.xM - base.xM, tip.yM - base.yM) * 180) / Math.PI,
      isBelowGraft:
        piece.parent.on === 'below-graft' ||
        (parent?.isBelowGraft ?? false) ||
        (plant.graftHeightM !== null && parent?.parent === null && base.yM < plant.graftHeightM - 1e-6),
    })
  }
  return [...made.values()]
}

/** Half way to the neighbour on each side; to where the wires, or the place, end where there is none. */
function shareOf({ plant, othersXM, widthM }: TrainingInput, wires: readonly Wire[]): PlantView['share'] {
  const ends = wires.flatMap(({ path }) => [path[0]!.xM, path.at(-1)!.xM])
  const [leftM, rightM] = ends.length > 0 ? [Math.min(...ends), Math.max(...ends)] : [0, widthM]
  const APART_M = 0.05
  const left = Math.max(...othersXM.filter((xM) => xM < plant.xM - APART_M), -Infinity)
  const right = Math.min(...othersXM.filter((xM) => xM > plant.xM + APART_M), Infinity)
  return {
    fromM: Math.min(plant.xM, Math.max(leftM, Number.isFinite(left) ? (left + plant.xM) / 2 : leftM)),
    toM: Math.max(plant.xM, Math.min(rightM, Number.isFinite(right) ? (right + plant.xM) / 2 : rightM)),
  }
}
