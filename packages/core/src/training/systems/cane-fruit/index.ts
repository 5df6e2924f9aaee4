import type { PlantView } from '../../plant.ts'
import type { ExpectedPiece, Task, TrainingSystem } from '../../system.ts'
import { agesOf, canesQuestion, countRemarks, lifeAt, lifeOf, tipsQuestion } from './canes.ts'
import { task } from './says.ts'

/** A plant's canes when it is grown, a metre of its row, and how long they are. */
const GROWN_PER_M = 9
const CANE_M = 1.7
const CANE_MM = 9
/** So many years a plant takes to fill its part of the row. */
const YEARS_TO_FILL = 3

function tasks(view: PlantView): Task[] {
  switch (view.stage) {
    case 'bud-swell':
      return [task('tip-now')]
    case 'young-shoots':
      return [task('pull-suckers')]
    case 'growing':
      return [task('tie-apart'), task('pull-suckers')]
    case 'ripening':
    case 'leaf-fall':
      return [task('cut-spent')]
    case 'dormant':
      return view.stems.some((stem) => stem.parent === null && lifeOf(stem, view) === 'spent')
        ? [task('cut-spent')]
        : [task('rest')]
    case 'all-year':
      return []
  }
}

/** Canes spread over the plant's part of the row: those of this summer, and from its second year on those that fruited. */
function skeleton(view: PlantView, years: number): ExpectedPiece[] {
  const { fromM, toM } = view.share
  const { footYM } = view.input.plant
  const widthM = toM - fromM
  const filled = Math.min(1, years / YEARS_TO_FILL)
  const count = Math.max(1, Math.round(widthM * GROWN_PER_M * filled))
  const ages = agesOf(view)
  const row = (name: string, seasonsOld: number, shiftM: number): ExpectedPiece[] =>
    Array.from({ length: count }, (_, i) => {
      const xM = Math.min(toM, Math.max(fromM, fromM + ((i + 0.5) * widthM) / count + shiftM))
      return {
        name: `${name}-${i}`,
        on: null,
        alongM: 0,
        path: [
          { xM, yM: footYM },
          { xM: xM + 0.02, yM: footYM + CANE_M / 2 },
          { xM: xM + 0.05, yM: footYM + CANE_M },
        ],
        seasonsOld,
        baseMm: CANE_MM,
        role: null,
        side: null,
        buds: null,
      }
    })
  return [...row('new', ages.new, 0), ...(years >= 2 ? row('fruited', ages.before, 0.03) : [])]
}

const caneRow: TrainingSystem = {
  id: 'cane-row',
  craft: 'cane-fruit',
  suits: (habit) => habit === 'erect-canes',
  needsWires: false,
  hasBudGoal: false,
  positions: () => [],
  role: ({ age, isOnWood }, at) => (isOnWood ? null : lifeAt(age, at)),
  tasks,
  ofCount: (view, count) => countRemarks(view, count),
  year: () => [
    { code: 'tips', window: { from: 'bud-swell', to: 'bud-swell' } },
    { code: 'canes', window: { from: 'ripening', to: 'dormant' } },
  ],
  question: (view, code) => (code === 'tips' ? tipsQuestion(view) : canesQuestion(view)),
  skeleton,
}

export const caneFruit = [caneRow] as const
