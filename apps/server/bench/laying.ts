import { solveLaying } from '@klados/core/laying'
import type { LayingInstance } from '@klados/core/laying'
import { rowTotals } from '@klados/core/tally'
import type { RowPlant } from '@klados/core/tally'
import { findSystem, instanceOf, isRefused, openQuestions, propose, whyNot } from '@klados/core/training'
import type { Question } from '@klados/core/training'
import { exactLaying } from '../../../packages/core/test/exact-laying.ts'
import { referenceCases } from '../../../packages/core/test/reference.ts'
import { vineOf } from '../../../packages/core/test/training.ts'
import { measure, ms, report } from './measure.ts'

const VINES = 60
const SMALL_MS = 100
const WHY_MS = 500
const ROW = 400
const ROW_MS = 100
const RUNS = 7

const time = (work: () => unknown): number => {
  const start = performance.now()
  work()
  return performance.now() - start
}
const quantile = (times: readonly number[], share: number) =>
  [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * share))]!

/** Choosing: vines of six to twelve canes, the large reference cases against the exact solver, a row by tally. */
export async function benchLaying(): Promise<void> {
  const questions = Array.from(
    { length: VINES },
    (_, i): Question => openQuestions(findSystem('cane-two')!, vineOf(i + 1, 6 + (i % 7)))[0]!,
  )
  const instances = questions.map((question) => instanceOf(question))
  let proven = 0
  const solved = instances.map((instance) =>
    time(() => {
      if (solveLaying(instance).isProven) proven++
    }),
  )
  const p95 = quantile(solved, 0.95)
  report(
    `vines of 6 to 12 canes proven, p95 (${proven} of ${VINES})`,
    ms(p95),
    `< ${SMALL_MS} ms`,
    p95 < SMALL_MS && proven === VINES,
    p95,
  )

  const whole = questions.find(({ candidates }) => candidates.length >= 12)!
  const now = propose(whole)
  if (isRefused(now)) throw new Error('The question has no answer')
  const asked = whole.candidates.map(({ pieceId, options }) =>
    time(() => whyNot(whole, now, new Map(), pieceId, options.at(-1)!.id)),
  )
  const slowest = Math.max(...asked)
  report('why not, slowest of 12 candidates', ms(slowest), `< ${WHY_MS} ms`, slowest < WHY_MS, slowest)

  for (const { name, input } of referenceCases('laying').filter((one) => one.input.candidates.length >= 40)) {
    const instance = input as LayingInstance
    const [ours, theirs] = [
      Array.from({ length: RUNS }, () => time(() => solveLaying(instance))),
      Array.from({ length: RUNS }, () => time(() => exactLaying(instance))),
    ]
    const [own, exact] = [quantile(ours, 0.5), quantile(theirs, 0.5)]
    report(`${name}: against the exact solver`, `${ms(own)} : ${ms(exact)}`, 'faster', own < exact, own)
  }

  const row = Array.from(
    { length: ROW },
    (_, i): RowPlant => ({
      id: String(i),
      is: i % 17 === 0 ? 'missing' : 'counted',
      target: { aim: 30, min: 27, max: 33 },
      counted: { canes: 2, spurs: 2, buds: 20 + (i % 15), ties: 6, minutes: 4, pruningsKg: 0.5 },
    }),
  )
  const { p95: added } = await measure(50, () => rowTotals(row))
  report(`a row of ${ROW} plants added up`, ms(added), `< ${ROW_MS} ms`, added < ROW_MS, added)
}
