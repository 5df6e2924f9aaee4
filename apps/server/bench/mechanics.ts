import { levelId } from '@klados/core/frame'
import { cutFromRolls } from '@klados/core/cutting'
import { planFrame } from '@klados/core/plan'
import { usualConditions } from '@klados/core/design'
import type { FrameDesign, PlannedSite } from '@klados/core/design'
import { cableState } from '@klados/core/cable'
import highs from 'highs'
import { seededRandom } from '../src/demo/diary.ts'
import { measure, ms, report } from './measure.ts'

/** Single spans and rows of unequal ones, over a year's temperatures and loads. */
export function benchCable(): void {
  const cable = { weightNPerM: 0.3778857, axialStiffnessN: 981_747.7, expansionPerC: 1.2e-5 }
  for (const [name, spans, solves, goal] of [
    ['one span', [6], 400_000, 200_000],
    ['ten unequal spans', [5, 6, 7, 5.5, 6.2, 4.8, 6, 6.6, 5.9, 6.1], 40_000, 20_000],
  ] as const) {
    const random = seededRandom(5)
    const loads = Array.from({ length: 4096 }, () => ({
      temperatureC: -20 + 60 * random(),
      verticalNPerM: 60 * random(),
      windNPerM: 30 * random(),
    }))
    const installed = { spansM: spans, horizontalTensionN: 800, temperatureC: 12 }
    for (let i = 0; i < 4096; i++) cableState(cable, installed, loads[i]!)
    const start = performance.now()
    for (let i = 0; i < solves; i++) cableState(cable, installed, loads[i & 4095]!)
    const perSecond = Math.round(solves / ((performance.now() - start) / 1000))
    report(
      `cable states, ${name}`,
      `${perSecond.toLocaleString('en')} a second`,
      `${goal.toLocaleString('en')} a second`,
      perSecond >= goal,
      1e6 / perSecond,
    )
  }
}

/**
 * The cutting of the same orders by our search and by an exact solver of integer programs: same optimum,
 * ratio of times.
 */
export async function benchAgainstSolver(): Promise<void> {
  const solver = await highs()
  const random = seededRandom(11)
  const roll = 50
  let [ours, theirs, same, proven] = [0, 0, 0, 0]
  const cases = 12
  for (let n = 0; n < cases; n++) {
    const pieces = Array.from({ length: 14 + Math.floor(random() * 6) }, () => ({
      lengthM: Math.round((4 + random() * 18) * 100) / 100,
      quantity: 1,
    }))
    let start = performance.now()
    const plan = cutFromRolls(pieces, [{ lengthM: roll }])
    ours += performance.now() - start
    if (plan.isProvenLeast) proven++
    start = performance.now()
    const solution = solver.solve(
      asProgram(
        pieces.map((piece) => piece.lengthM),
        roll,
        plan.rolls.length,
      ),
      { time_limit: 20 },
    )
    theirs += performance.now() - start
    if (solution.Status === 'Optimal' && Math.round(solution.ObjectiveValue) === plan.rolls.length) same++
  }
  const ratio = theirs / ours
  report(
    `cutting against an exact solver, ${same} of ${cases} the same, ${proven} proven by us`,
    `${ratio.toFixed(0)} × faster (${ms(ours / cases)} an order)`,
    '20 × faster',
    ratio >= 20 && same === cases,
    ours / cases,
  )
}

/**
 * Bin packing as an integer program in LP format: one of `rolls` open rolls for each piece, opened in order.
 */
function asProgram(lengths: readonly number[], roll: number, rolls: number): string {
  const bins = Array.from({ length: rolls }, (_, j) => j)
  const x = (i: number, j: number) => `x${i}_${j}`
  const each = lengths.map((_, i) => ` one${i}: ${bins.map((j) => x(i, j)).join(' + ')} = 1`)
  const room = bins.map(
    (j) =>
      ` room${j}: ${lengths.map((length, i) => `${length} ${x(i, j)}`).join(' + ')} - ${roll} y${j} <= 0`,
  )
  const order = bins.slice(1).map((j) => ` order${j}: y${j - 1} - y${j} >= 0`)
  const all = [...bins.map((j) => `y${j}`), ...lengths.flatMap((_, i) => bins.map((j) => x(i, j)))]
  return `Minimize\n obj: ${bins.map((j) => `y${j}`).join(' + ')}\nSubject To\n${[...each, ...room, ...order].join('\n')}\nBinary\n ${all.join(' ')}\nEnd\n`
}

/** A keystroke on a block of 40 rows on cross-arms: everything that follows, mechanics and bill included. */
export async function benchTrellis(): Promise<void> {
  const site: PlannedSite = {
    widthM: 120,
    usableHeightM: 2.1,
    firstForkM: 0,
    viewingEnd: 'left',
    avoid: [],
    riseM: 4,
    surface: 'open',
    setting: 'open',
    conditions: usualConditions,
  }
  const level = (
    heightM: number,
    role: 'carrying' | 'foliage',
    form: 'single' | 'arms',
    spreadM: number,
  ) => ({
    heightM,
    id: levelId(`w${heightM}`),
    role,
    form,
    spreadM,
    liftM: 0,
  })
  const design = (maxPostSpacingM: number): FrameDesign => ({
    pattern: {
      kind: 'row',
      maxPostSpacingM,
      postHeightM: 1.9,
      postBuriedM: 0.7,
      postStockId: 'post-round-100',
      endStockId: 'post-round-140',
      endBuriedM: 0.9,
      endLeanDeg: 10,
      endSlabM: 0.3,
      end: {
        kind: 'tied-back',
        attachHeightM: 1.6,
        angleDeg: 45,
        screwId: 'screw-eye-1200',
        inLine: 1,
        strands: 2,
      },
      armStockId: 'batten-20x30',
      levels: [
        level(0.8, 'carrying', 'single', 0),
        level(1.1, 'foliage', 'arms', 0.3),
        level(1.45, 'foliage', 'arms', 0.5),
        level(1.8, 'foliage', 'arms', 0.7),
      ],
      waterHeightM: 0.4,
      plantSpacingM: 1.2,
      roomBeyondM: null,
    },
    moveToleranceM: 0.3,
    dragged: {},
    snap: 'none',
    ids: {},
    wireId: 'high-tensile-2.5',
    tensionN: 600,
    rolls: [
      { lengthM: 650, price: 118 },
      { lengthM: 100, price: 26 },
    ],
    light: {
      wireId: 'high-tensile-2',
      tensionN: 250,
      rolls: [
        { lengthM: 1000, price: 124 },
        { lengthM: 100, price: 19 },
      ],
    },
    endWrapM: 0.4,
    wireEnding: null,
    strainers: 1,
    handlingLengthM: 250,
    endsAt: 'any',
    fixingId: 'eye-100',
    setC: 12,
    standOffM: null,
    plantOffM: null,
    feetBallastKg: 0,
    unknown: [],
    boughtPrice: null,
    plantKindId: 'wine-grape',
    repeat: 40,
  })
  // As many as somebody types while they design one: the first few are slower, until the engine has compiled
  // the code.
  let n = 0
  const { median, p95 } = await measure(200, () => planFrame(site, design(5 + (n++ % 20) / 10)))
  report(
    'keystroke on 40 rows of 120 m on cross-arms',
    `${ms(median)}, p95 ${ms(p95)}`,
    'p95 under 50 ms',
    p95 < 50,
    p95,
  )
}
