import { lineOf } from '../../../wood/index.ts'
import type { PlantView } from '../../plant.ts'
import type { ExpectedPiece, TrainingSystem } from '../../system.ts'
import { divideQuestion, topQuestion } from './questions.ts'
import { task } from './says.ts'
import { mainStems, poleOf, upPole } from './stems.ts'

/** A stem grows so far in a year on a moist pole, and is so thick. */
const A_YEAR_M = 0.5
const STEM_MM = 6
/** A pole that is nearly full asks for more of it. */
const FULL_SHARE = 0.9
const NO_POLE_M = 0.8

function skeleton(view: PlantView, years: number): ExpectedPiece[] {
  const pole = poleOf(view)
  const lengthM = Math.min((pole?.lengthM ?? NO_POLE_M) * FULL_SHARE, Math.max(0.2, A_YEAR_M * years))
  const way = upPole(view, pole, lengthM)
  const path = lineOf(way)
  return [
    {
      name: 'stem',
      on: null,
      alongM: 0,
      path,
      way,
      seasonsOld: years,
      baseMm: STEM_MM,
      role: null,
      side: null,
      buds: null,
    },
  ]
}

const growingPole: TrainingSystem = {
  id: 'growing-pole',
  craft: 'node-rooters',
  suits: (habit) => habit === 'node-rooter',
  needsWires: false,
  hasBudGoal: false,
  look: 'unrolled',
  countsNodes: true,
  tracks: (view) => {
    const pole = poleOf(view)
    return pole ? [pole] : []
  },
  positions: (view) =>
    mainStems(view).map((stem, i) => ({
      what: 'stem',
      side: null,
      n: i + 1,
      at: stem.tip,
      pieceId: stem.id,
    })),
  role: ({ isOnWood }) => (isOnWood ? 'side-stem' : 'stem'),
  tasks: () => [task('moisten'), task('tie-nodes'), task('count-nodes')],
  year: () => [
    { code: 'top', window: { from: 'all-year', to: 'all-year' } },
    { code: 'divide', window: { from: 'all-year', to: 'all-year' } },
  ],
  question: (view, code) => (code === 'top' ? topQuestion(view) : divideQuestion(view)),
  leads: (view, { lengthM, under }) => (under === null ? upPole(view, poleOf(view), lengthM) : null),
  skeleton,
}

export const nodeRooters = [growingPole] as const
