import { pointAlong, polylineLengthM } from '../../../geometry/index.ts'
import type { Point } from '../../../geometry/index.ts'
import type { PlantView } from '../../plant.ts'
import type { Ask, ExpectedPiece, Task, TrainingSystem } from '../../system.ts'
import { disbudQuestion, fruitingQuestion, renewalQuestion, ribsQuestion } from './questions.ts'
import { ribsOf } from './ribs.ts'
import { task } from './says.ts'

const TRUNK_M = 0.4
/** The angles of a grown fan on each side, from the upright, degrees; the first is made first. */
const RIB_DEG = [45, 70, 25] as const
/** A rib grows so far a year until its part of the wall is full. */
const RIB_A_YEAR_M = 0.45
const SHOOT_STEP_M = 0.13
const SHOOT_M = 0.4

function tasks(view: PlantView): Task[] {
  switch (view.stage) {
    case 'dormant':
    case 'leaf-fall':
      return [task('no-winter-cut')]
    case 'bud-swell':
      return [task('choose-fruiting')]
    case 'young-shoots':
      return [task('disbud')]
    case 'growing':
      return [task('thin-fruit')]
    case 'ripening':
      return [task('renew')]
    case 'all-year':
      return []
  }
}

/** A tree that has no ribs is given its first two in its first summer, or at bud swell. */
function year(view: PlantView): Ask[] {
  if (ribsOf(view).length === 0) return [{ code: 'ribs', window: { from: 'bud-swell', to: 'growing' } }]
  return [
    { code: 'fruiting', window: { from: 'bud-swell', to: 'bud-swell' } },
    { code: 'disbud', window: { from: 'young-shoots', to: 'growing' } },
    { code: 'renewal', window: { from: 'ripening', to: 'ripening' } },
  ]
}

const onAngle = (from: Point, deg: number, sign: number, lengthM: number): Point => ({
  xM: from.xM + sign * Math.sin((deg * Math.PI) / 180) * lengthM,
  yM: from.yM + Math.cos((deg * Math.PI) / 180) * lengthM,
})

const plain = { role: null, side: null, buds: null } as const

function skeleton(view: PlantView, years: number): ExpectedPiece[] {
  const { xM, footYM } = { xM: view.input.plant.xM, footYM: view.input.plant.footYM }
  const top = { xM, yM: footYM + TRUNK_M }
  const trunk: ExpectedPiece = {
    ...plain,
    name: 'trunk',
    on: null,
    alongM: 0,
    path: [{ xM, yM: footYM }, top],
    seasonsOld: Math.max(2, years + 1),
    baseMm: 12 + 6 * years,
    role: 'trunk',
  }
  const isGreen = view.stage === 'ripening' || view.stage === 'growing' || view.stage === 'young-shoots'
  const ribs = [-1, 1].flatMap((sign) =>
    RIB_DEG.slice(0, Math.max(1, years - 1)).map((deg, i): ExpectedPiece => {
      const side = sign < 0 ? 'left' : 'right'
      const roomM =
        Math.abs((sign < 0 ? view.share.fromM : view.share.toM) - xM) / Math.sin((deg * Math.PI) / 180)
      const lengthM = Math.max(0.35, Math.min(roomM, RIB_A_YEAR_M * Math.max(1, years - i)))
      return {
        ...plain,
        name: `rib-${side}-${i}`,
        on: 'trunk',
        alongM: TRUNK_M - 0.03 * i,
        path: [{ xM, yM: top.yM - 0.03 * i }, onAngle({ xM, yM: top.yM - 0.03 * i }, deg, sign, lengthM)],
        seasonsOld: years <= 1 ? (isGreen ? 0 : 1) : Math.max(2, years - i),
        baseMm: years <= 1 ? 8 : 8 + 4 * (years - i),
        side,
      }
    }),
  )
  return [trunk, ...ribs, ...(years <= 1 ? [] : ribs.flatMap((rib) => shootsOn(rib, isGreen)))]
}

/** A shoot every hand's breadth on both sides; in summer with the new one at its base. */
function shootsOn(rib: ExpectedPiece, isGreen: boolean): ExpectedPiece[] {
  const sign = rib.side === 'left' ? -1 : 1
  const count = Math.floor((polylineLengthM(rib.path) - 0.1) / SHOOT_STEP_M)
  return Array.from({ length: Math.max(1, count) }, (_, i) => i).flatMap((i) =>
    [20, 80].flatMap((deg, side): ExpectedPiece[] => {
      const alongM = 0.15 + i * SHOOT_STEP_M + side * 0.03
      const base = pointAlong(rib.path, alongM)
      const shoot: ExpectedPiece = {
        ...plain,
        name: `${rib.name}-${i}-${side}`,
        on: rib.name,
        alongM,
        path: [base, onAngle(base, deg, sign, SHOOT_M)],
        seasonsOld: 1,
        baseMm: 6,
      }
      const at = pointAlong(shoot.path, 0.04)
      return isGreen
        ? [
            shoot,
            {
              ...shoot,
              name: `${shoot.name}-new`,
              on: shoot.name,
              alongM: 0.04,
              seasonsOld: 0,
              baseMm: 4,
              path: [at, onAngle(at, deg - 15, sign, 0.3)],
            },
          ]
        : [shoot]
    }),
  )
}

const yearlingFan: TrainingSystem = {
  id: 'yearling-fan',
  craft: 'stone-fruit',
  suits: (habit) => habit === 'yearling-tree',
  needsWires: true,
  hasBudGoal: false,
  positions: (view) =>
    ribsOf(view).map(({ stem, side, n }) => ({ what: 'rib', side, n, at: stem.tip, pieceId: stem.id })),
  role: ({ age, isOnWood }, { stage }) => {
    if (!isOnWood || age !== 1) return null
    if (stage === 'ripening') return 'fruited'
    return stage === 'young-shoots' || stage === 'growing' || stage === 'bud-swell' ? 'fruiting' : null
  },
  tasks,
  year,
  question: (view, code) => {
    if (code === 'ribs') return ribsQuestion(view)
    if (code === 'fruiting') return fruitingQuestion(view)
    return code === 'disbud' ? disbudQuestion(view) : renewalQuestion(view)
  },
  skeleton,
}

export const stoneFruit = [yearlingFan] as const
