import { heightOn } from '../../level-wires.ts'
import type { Point } from '../../../geometry/index.ts'
import { pointAlong, polylineLengthM } from '../../../geometry/index.ts'
import type { Habit } from '../../../kinds/index.ts'
import type { PlantView } from '../../plant.ts'
import type { Question } from '../../question.ts'
import type { Ask, ExpectedPiece, Position, Task, TrainingSystem } from '../../system.ts'
import { alongWire } from '../../along.ts'
import { armsOf, headOf } from './head.ts'
import type { Head } from './head.ts'
import { canesQuestion } from './canes.ts'
import { cordonArms, cordonPositions } from './cordon-places.ts'
import { cordonQuestion } from './cordon.ts'
import { greenShootsQuestion } from './green-shoots.ts'
import { thinCanesQuestion } from './thin-canes.ts'
import { headWire, youngVineQuestion } from './young-vine.ts'
import { remark, task } from './says.ts'

const HABIT: Habit = 'renewed-canes'
/** A head stands so far below its wire, that canes can be laid down onto it. */
const HEAD_BELOW_M = 0.08
const STUB_M = 0.12
const CANE_M = 1.3
const SIDES = ['left', 'right'] as const

const WINTER = { from: 'leaf-fall', to: 'bud-swell' } as const
/** Before the berries colour, when one sees what a vine bears. */
const CROP_THINNING = { from: 'ripening', to: 'ripening' } as const
const SPRING = { from: 'young-shoots', to: 'growing' } as const

/** What all vines have in common: the trunk to be made, green shoots in spring, the time of the cut. */
function vine(
  id: string,
  of: {
    /** What is asked of a vine that is made. */
    readonly asks: string
    readonly winter: (view: PlantView, head: Head) => Question
    readonly positions: (view: PlantView, head: Head) => readonly Position[]
    readonly skeleton: (view: PlantView, years: number) => readonly ExpectedPiece[]
  },
): TrainingSystem {
  return {
    id,
    craft: 'vine',
    suits: (habit) => habit === HABIT,
    needsWires: true,
    hasBudGoal: true,
    positions: (view) => {
      const head = headOf(view)
      if (!head) return []
      return [
        { what: 'head', side: null, n: 1, at: head.at, pieceId: head.trunk.id },
        ...of.positions(view, head),
      ]
    },
    role: () => null,
    tasks: (view) => vineTasks(view),
    year: (view): Ask[] => {
      const head = headOf(view)
      if (!head || !isMade(view, head)) return [{ code: 'young-vine', window: WINTER }]
      return [
        { code: of.asks, window: WINTER },
        { code: 'green-shoots', window: SPRING },
        ...(of.asks === 'extra-canes' ? [{ code: 'thin-canes', window: CROP_THINNING }] : []),
      ]
    },
    question: (view, code) => {
      const wire = headWire(view)
      const head = headOf(view)
      if (!wire) return null
      if (code === 'young-vine') return youngVineQuestion(view, wire)
      if (!head) return null
      if (code === 'thin-canes') return thinCanesQuestion(view, head)
      return code === 'green-shoots'
        ? greenShootsQuestion(view, head)
        : overAKnownSummer(of.winter(view, head), view, head)
    },
    skeleton: (view, years) => (years <= 1 ? youngShoot(view) : of.skeleton(view, years)),
  }
}

/** Nothing is cut over a summer that nobody entered: a vine has canes every year, and without them all looks spent. */
function overAKnownSummer(question: Question, view: PlantView, head: Head): Question {
  const isKnown = view.stems.some((stem) => stem.age === 1 && stem.id !== head.trunk.id)
  return isKnown
    ? question
    : {
        ...question,
        isWoodMissing: true,
        followUps: () => [],
        remarks: () => [remark('enter-summer', { isLack: true })],
      }
}

/** A vine whose trunk has been made: it is older than a summer or something grows from its head. */
function isMade(view: PlantView, head: Head): boolean {
  return head.wire !== null && (head.trunk.age >= 2 || view.childrenOf(head.trunk.id).length > 0)
}

function vineTasks(view: PlantView): Task[] {
  const head = headOf(view)
  if (!head || !isMade(view, head)) {
    return view.stage === 'dormant' || view.stage === 'bud-swell' || view.stage === 'leaf-fall'
      ? [task('choose-dormant')]
      : [task('one-shoot-up')]
  }
  switch (view.stage) {
    case 'dormant':
      return [task('choose-dormant'), task('frost-two-passes')]
    case 'bud-swell':
      return [task('choose-dormant'), task('bleeds-late')]
    case 'young-shoots':
      return [task('green-selection', view.settings.shootsPerHead)]
    case 'growing':
      return [task('tie-in'), task('trim-tops'), task('leaves-off')]
    case 'ripening':
      return [task('open-fruit-zone')]
    case 'leaf-fall':
    case 'all-year':
      return [task('rest')]
  }
}

const wireOf = (view: PlantView, head: Head) => head.wire ?? headWire(view)!

const renewals = (view: PlantView, head: Head): Position[] =>
  SIDES.map((side) => {
    const arm = armsOf(view, head).find((one) => one.side === side)
    return { what: 'arm', side, n: 1, at: head.at, pieceId: arm?.stem.id ?? null }
  })

/** A trunk up to its head, as thick as its years. */
function trunk(view: PlantView, years: number): ExpectedPiece {
  const wire = headWire(view)!
  const xM = view.input.plant.xM
  const topM = heightOn(wire.path, xM) - HEAD_BELOW_M
  return {
    name: 'trunk',
    on: null,
    alongM: 0,
    path: [
      { xM, yM: view.input.plant.footYM },
      { xM, yM: topM },
    ],
    seasonsOld: Math.max(2, years),
    baseMm: Math.min(90, 10 + years * 4),
    role: 'trunk',
    side: null,
    buds: null,
  }
}

function youngShoot(view: PlantView): ExpectedPiece[] {
  const wire = headWire(view)
  if (!wire) return []
  const xM = view.input.plant.xM
  const topM = heightOn(wire.path, xM) + 0.15
  const shoot = { ...trunk(view, 1), seasonsOld: 1, baseMm: 9, role: null }
  return [{ ...shoot, path: [shoot.path[0]!, { xM, yM: topM }] }]
}

const lengthOf = (piece: ExpectedPiece): number => polylineLengthM(piece.path)

/** From the head out along the wire, so far. */
function arm(
  view: PlantView,
  under: ExpectedPiece,
  side: 'left' | 'right',
  lengthM: number,
  years: number,
): ExpectedPiece {
  const wire = headWire(view)!
  const top = under.path.at(-1)!
  const sign = side === 'left' ? -1 : 1
  const path: Point[] = [top, ...alongWire(wire.path, top.xM + sign * 0.06, top.xM + sign * lengthM)]
  return {
    name: `arm-${side}`,
    on: under.name,
    alongM: lengthOf(under),
    path,
    seasonsOld: Math.max(2, years - 1),
    baseMm: Math.min(60, 8 + years * 3),
    role: 'arm',
    side,
    buds: null,
  }
}

/** A one-year cane that rises from a place of another piece. */
function upright(
  name: string,
  on: ExpectedPiece,
  alongM: number,
  base: Point,
  lengthM: number,
  leanM: number,
): ExpectedPiece {
  return {
    name,
    on: on.name,
    alongM,
    path: [
      base,
      { xM: base.xM + leanM / 2, yM: base.yM + lengthM * 0.5 },
      { xM: base.xM + leanM, yM: base.yM + lengthM },
    ],
    seasonsOld: 1,
    baseMm: 9,
    role: null,
    side: null,
    buds: null,
  }
}

function canesSkeleton(view: PlantView, years: number): ExpectedPiece[] {
  if (!headWire(view)) return []
  const stem = trunk(view, years)
  return [
    stem,
    ...SIDES.flatMap((side) => {
      const sign = side === 'left' ? -1 : 1
      const stub = { ...arm(view, stem, side, STUB_M, 2), baseMm: 14, seasonsOld: 2, role: null }
      const at = (alongM: number): Point => pointAlong(stub.path, alongM)
      return [
        stub,
        upright(`low-${side}`, stub, 0.04, at(0.04), CANE_M, sign * 0.1),
        upright(`high-${side}`, stub, 0.09, at(0.09), CANE_M, sign * 0.3),
      ]
    }),
  ]
}

function cordonSkeleton(view: PlantView, years: number): ExpectedPiece[] {
  if (!headWire(view)) return []
  const stem = trunk(view, years)
  const top = stem.path.at(-1)!
  const { fromM, toM } = view.share
  return [
    stem,
    ...SIDES.flatMap((side): ExpectedPiece[] => {
      const room = Math.abs((side === 'left' ? fromM : toM) - top.xM)
      const lengthM = Math.min(room, 0.45 + 0.45 * Math.max(0, years - 2))
      if (lengthM < 0.2) return []
      const one = arm(view, stem, side, lengthM, years)
      const count = Math.max(1, Math.round(lengthOf(one) / view.settings.spurStepM))
      const spurs = Array.from({ length: count }, (_, i): ExpectedPiece[] => {
        const alongM = ((i + 0.5) * lengthOf(one)) / count
        const base = pointAlong(one.path, alongM)
        const spurTop: Point = { xM: base.xM, yM: base.yM + 0.05 }
        const old: ExpectedPiece = {
          name: `spur-${side}-${i}`,
          on: one.name,
          alongM,
          path: [base, spurTop],
          seasonsOld: 2,
          baseMm: 10,
          role: 'spur',
          side: 'up',
          buds: null,
        }
        return [
          old,
          upright(`low-${side}-${i}`, old, 0.012, { xM: base.xM, yM: base.yM + 0.012 }, 0.9, -0.05),
          upright(`top-${side}-${i}`, old, 0.045, { xM: base.xM, yM: base.yM + 0.045 }, 0.9, 0.06),
        ]
      })
      return [one, ...spurs.flat()]
    }),
  ]
}

const caneTwo = vine('cane-two', {
  asks: 'canes',
  winter: (view, head) => canesQuestion(view, head, wireOf(view, head), 2),
  positions: renewals,
  skeleton: canesSkeleton,
})

const caneOne = vine('cane-one', {
  asks: 'canes',
  winter: (view, head) => canesQuestion(view, head, wireOf(view, head), 1),
  positions: renewals,
  skeleton: canesSkeleton,
})

/** A cordon without arms has them made first: a cane laid each way stays for good. */
const cordonWinter = (view: PlantView, head: Head, withCanes: boolean) => {
  const wire = wireOf(view, head)
  return cordonArms(view, head).length === 0
    ? canesQuestion(view, head, wire, 2)
    : cordonQuestion(view, head, wire, withCanes)
}

const spurCordon = vine('spur-cordon', {
  asks: 'spurs',
  winter: (view, head) => cordonWinter(view, head, false),
  positions: cordonPositions,
  skeleton: cordonSkeleton,
})

const cordonCanes = vine('cordon-canes', {
  asks: 'extra-canes',
  winter: (view, head) => cordonWinter(view, head, true),
  positions: cordonPositions,
  skeleton: cordonSkeleton,
})

export const vines = [caneTwo, caneOne, spurCordon, cordonCanes] as const
