import { alongPath, at3, inSpace, pathLengthM } from '../../../geometry/index.ts'
import { lineOf } from '../../../wood/index.ts'
import type { PlantView } from '../../plant.ts'
import type { Ask, ExpectedPiece, Task, TrainingSystem } from '../../system.ts'
import { acrossFrom, armWay, armsOf, canopyOf, reachOf, sidesOf, trunkWay } from './canopy.ts'
import type { Canopy } from './canopy.ts'
import { armsQuestion, isAtWire, lateralsQuestion, leaderQuestion, trunkIn } from './questions.ts'
import { task } from './says.ts'

const ARM_A_YEAR_M = 1.5
const STEP_M = 0.35
const LATERAL_M = 1.2
const FRUITS_YEARS = 3

function tasks(view: PlantView): Task[] {
  switch (view.stage) {
    case 'dormant':
      return [task('cut-before-sap')]
    case 'bud-swell':
      return [task('wait-leaf')]
    case 'young-shoots':
      return [task('untwine'), task('male')]
    case 'growing':
      return [task('shorten-summer'), task('untwine')]
    case 'ripening':
    case 'leaf-fall':
      return [task('pick')]
    case 'all-year':
      return []
  }
}

/** What is missing first, all of it while the plant is at rest; a leader may be chosen while it grows. */
function year(view: PlantView): Ask[] {
  const canopy = canopyOf(view)
  if (!canopy) return []
  const trunk = trunkIn(view)
  if (!trunk || !isAtWire(trunk, view, canopy))
    return [{ code: 'leader', window: { from: 'young-shoots', to: 'dormant' } }]
  const rest = { from: 'leaf-fall', to: 'dormant' } as const
  const arms = armsOf(view, canopy).length
  return [
    ...(arms < sidesOf(view, canopy).length ? [{ code: 'arms', window: rest }] : []),
    ...(arms > 0 ? [{ code: 'laterals', window: rest }] : []),
  ]
}

const plain = { role: null, side: null, buds: null } as const

function skeleton(view: PlantView, years: number): ExpectedPiece[] {
  const canopy = canopyOf(view)
  if (!canopy) return []
  const way = trunkWay(view, canopy)
  const path = lineOf(way)
  const headM = pathLengthM(path)
  const trunk: ExpectedPiece = {
    ...plain,
    name: 'trunk',
    on: null,
    alongM: 0,
    path,
    way,
    seasonsOld: Math.max(1, years),
    baseMm: 8 + 6 * years,
    role: years >= 2 ? 'trunk' : null,
  }
  const arms = sidesOf(view, canopy).map((side): ExpectedPiece => {
    const led = armWay(view, canopy, side, ARM_A_YEAR_M * Math.max(1, years - 1)).way
    return {
      ...plain,
      name: `arm-${side}`,
      on: 'trunk',
      alongM: headM,
      path: lineOf(led),
      way: led,
      seasonsOld: Math.max(1, years - 1),
      baseMm: 8 + 4 * (years - 1),
      role: years >= 3 ? 'arm' : null,
      side,
    }
  })
  if (years < 2) return [trunk]
  return [trunk, ...arms, ...(years < 3 ? [] : arms.flatMap((arm) => lateralsOn(arm, canopy, years)))]
}

/** Laterals to both faces by turns, the oldest at the head: each has fruited up to three times. */
function lateralsOn(arm: ExpectedPiece, canopy: Canopy, years: number): ExpectedPiece[] {
  const lengthM = pathLengthM(arm.path)
  const count = Math.max(1, Math.floor(lengthM / STEP_M))
  return Array.from({ length: count }, (_, i) => i).flatMap((i) =>
    (['front', 'back'] as const).map((face, f): ExpectedPiece => {
      const alongM = Math.min(lengthM, 0.12 + i * STEP_M + f * 0.1)
      const base = inSpace(alongPath(arm.path, alongM))
      const { reachM } = reachOf(canopy, face)
      const path =
        reachM > 0
          ? acrossFrom(base, canopy, face, Math.max(LATERAL_M, reachM + 0.1), 0.1)
          : [base, at3(base.xM, base.yM + 0.2, base.zM + (face === 'front' ? -0.3 : 0.3))]
      return {
        ...plain,
        name: `${arm.name}-${i}-${face}`,
        on: arm.name,
        alongM,
        path,
        seasonsOld: 1 + ((i + f) % Math.min(FRUITS_YEARS, Math.max(1, years - 2))),
        baseMm: 9,
        side: null,
      }
    }),
  )
}

const overheadArms: TrainingSystem = {
  id: 'overhead-arms',
  craft: 'overhead-kiwi',
  suits: (habit) => habit === 'overhead-twiner',
  needsWires: true,
  hasBudGoal: false,
  look: 'plan',
  tracks: (view) => {
    const canopy = canopyOf(view)
    return canopy ? [canopy.middle, ...canopy.wires.filter((wire) => wire !== canopy.middle)] : []
  },
  positions: (view) => {
    const canopy = canopyOf(view)
    return canopy
      ? armsOf(view, canopy).map(({ stem, side }) => ({
          what: 'arm',
          side,
          n: 1,
          at: stem.tip,
          pieceId: stem.id,
        }))
      : []
  },
  role: ({ age, isOnWood }) => {
    if (!isOnWood) return null
    if (age === 0) return 'shoot'
    return age === 1 ? 'cane' : null
  },
  tasks,
  year,
  question: (view, code) => {
    const canopy = canopyOf(view)
    if (!canopy) return null
    if (code === 'leader') return leaderQuestion(view, canopy)
    return code === 'arms' ? armsQuestion(view, canopy) : lateralsQuestion(view, canopy)
  },
  skeleton,
}

export const overheadKiwi = [overheadArms] as const
