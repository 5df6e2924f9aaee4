import { levelWires } from '../../level-wires.ts'
import type { PlantView } from '../../plant.ts'
import type { Question } from '../../question.ts'
import type { ExpectedPiece, Position, Task, TrainingSystem } from '../../system.ts'
import { mainsOf } from './mains.ts'
import { task } from './says.ts'

const LAYING = { from: 'ripening', to: 'bud-swell' } as const

/** What all ways of laying a rose have in common: its mains, its year. */
export function rose(
  id: string,
  asks: string,
  question: (view: PlantView) => Question | null,
): TrainingSystem {
  return {
    id,
    craft: 'rose',
    suits: (habit) => habit === 'long-mains',
    needsWires: true,
    hasBudGoal: false,
    positions: (view): Position[] =>
      mainsOf(view)
        .filter((stem) => !stem.isBelowGraft)
        .map((stem, i) => ({
          what: 'main',
          side: stem.leanDeg < 0 ? 'left' : 'right',
          n: i + 1,
          at: stem.tip,
          pieceId: stem.id,
        })),
    role: () => null,
    tasks: (view): Task[] => {
      const isAfterFlowering = view.kind.prunedAt === 'after-flowering'
      if (view.stage === 'dormant' || view.stage === 'bud-swell')
        return isAfterFlowering ? [task('rest')] : [task('choose-dormant'), task('lay-before-buds')]
      return [task('tie-in')]
    },
    year: () => [{ code: asks, window: LAYING }],
    question: (view) => (levelWires(view).length === 0 ? null : question(view)),
    skeleton: (view, years): ExpectedPiece[] => roseSkeleton(view, years),
  }
}

function roseSkeleton(view: PlantView, years: number): ExpectedPiece[] {
  const xM = view.input.plant.xM
  const count = Math.min(6, 2 + years)
  return Array.from({ length: count }, (_, i) => {
    const lean = (i - (count - 1) / 2) * 0.25
    const lengthM = Math.min(3.2, 1.2 + 0.6 * years - 0.15 * i)
    return {
      name: `main-${i}`,
      on: null,
      alongM: 0,
      path: [
        { xM, yM: view.input.plant.footYM },
        { xM: xM + lean * 0.4, yM: view.input.plant.footYM + lengthM * 0.5 },
        {
          xM: xM + lean,
          yM: view.input.plant.footYM + Math.sqrt(Math.max(0.1, lengthM * lengthM - lean * lean)),
        },
      ],
      seasonsOld: 1,
      baseMm: 11,
      role: null,
      side: null,
      buds: null,
    }
  })
}
