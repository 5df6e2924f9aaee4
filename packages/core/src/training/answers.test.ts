import { describe, expect, it } from 'vitest'
import { kindFor, plantOf } from '../../test/plants-of-systems.ts'
import { isRefused, openQuestions, propose, trainingSystems } from './index.ts'
import type { Option, PlantView, Proposal, Question, Stretch, TrainingSystem } from './index.ts'

/**
 * What each system asked and answered of the same plants in the release before. What changes here changes what growers
 * are told of the plants that they have: it is looked at line by line before it is taken (vitest -u).
 */
const days = ['2026-02-01', '2026-05-25', '2026-03-25', '2026-08-20', '2026-11-20']

describe.each(trainingSystems)('$id', (system) => {
  it('answers of the same plants as it did', async () => {
    const told = [1, 2, 4, 8].flatMap((years, at) =>
      days
        .slice(0, years === 4 ? days.length : 2)
        .flatMap((on) => [
          `== ${years} years, ${on}`,
          ...linesOf(system, plantOf({ system, kindId: kindFor(system), years, on, seed: 17 * years + at })),
          '',
        ]),
    )
    await expect(told.join('\n')).toMatchFileSnapshot(`answers/${system.id}.txt`)
  })
})

const figure = (value: number | null): string => (value === null ? '-' : String(Number(value.toFixed(3))))
const ref = ([pieceId, optionId]: readonly [string, string]): string => `${pieceId}/${optionId}`
const sorted = (all: readonly string[]): string => [...all].sort().join(' ')

function linesOf(system: TrainingSystem, view: PlantView): string[] {
  const tasks = system.tasks(view).map(({ code, count }) => `${code} ${figure(count)}`)
  const places = system
    .positions(view)
    .map(
      ({ what, side, n, at, pieceId }) => `${what} ${side} ${n} ${figure(at.xM)},${figure(at.yM)} ${pieceId}`,
    )
  const question = openQuestions(system, view)[0] ?? null
  return [
    `tasks: ${tasks.join(', ')}`,
    ...places.map((place) => `place: ${place}`),
    ...(question ? questionLines(question) : ['nothing is asked']),
  ]
}

function questionLines(question: Question): string[] {
  const { buds, weights } = question
  const proposal = propose(question)
  return [
    `asks ${question.code}: buds ${question.standingBuds} stand, ${buds.min} ${buds.aim} ${buds.max} at ${buds.costPerBud}${buds.isTight ? ' tight' : ''}; bare ${weights.gapPerM}, double ${weights.overlapPerM}`,
    ...question.stretches.map(stretchLine),
    ...question.candidates.flatMap(({ pieceId, letter, judgements, options }) => [
      `${letter} ${pieceId}: ${judgements.map(({ code, tone, points, figure: of, unit }) => `${tone} ${code} ${figure(points)} (${figure(of)} ${unit})`).join(', ')}`,
      ...options.map(optionLine),
    ]),
    ...question.rules.map(
      ({ code, options, min, max }) => `rule ${code} ${min}-${max}: ${sorted(options.map(ref))}`,
    ),
    ...question.never.map(({ code, a, b }) => `never ${code}: ${ref(a)} ${ref(b)}`),
    ...question.crossings.map(({ a, b, cost }) => `crossing ${ref(a)} ${ref(b)} ${figure(cost)}`),
    ...(isRefused(proposal) ? [`refused: ${sorted(proposal.rules)}`] : proposalLines(proposal)),
  ]
}

const stretchLine = ({ id, lengthM, wanted, wire, path }: Stretch): string =>
  `stretch ${id} ${figure(lengthM)} wire ${wire} wanted ${wanted.map(([a, b]) => `${figure(a)}-${figure(b)}`).join(' ')} from ${figure(path[0]!.xM)},${figure(path[0]!.yM)}`

function optionLine(one: Option): string {
  const covers = one.covers.map(({ track, fromM, toM }) => `${track} ${figure(fromM)}-${figure(toM)}`)
  const end = one.path?.at(-1)
  const lies = end ? ` to ${figure(end.xM)},${figure(end.yM)} wire ${one.wire} ${one.towards}` : ''
  return `  ${one.id} ${one.deed} ${figure(one.cost)}, ${one.buds} buds, cut ${figure(one.cutM)} above ${figure(one.aboveBuds)}${lies}${covers.length > 0 ? ` over ${covers.join(' ')}` : ''}${one.isOnlyAsked ? ' only if asked' : ''}`
}

function proposalLines(proposal: Proposal): string[] {
  const { bySide } = proposal
  return [
    `proposed: ${sorted([...proposal.chosen].map(([id, option]) => ref([id, option.id])))}`,
    `objective ${figure(proposal.objective)}, ${proposal.buds} buds${bySide ? ` (${bySide.left}, ${bySide.right})` : ''}, bare ${figure(proposal.bareM)}, double ${figure(proposal.doubleM)}`,
    ...proposal.followUps.map(
      ({ pieceId, deed, cutM, aboveBuds, why }) =>
        `then ${pieceId} ${deed} ${figure(cutM)} above ${figure(aboveBuds)} ${why}`,
    ),
    ...proposal.remarks.map(
      ({ code, pieceId, figure: of, unit, n, side, on }) =>
        `remark ${code} ${pieceId} ${figure(of)} ${unit} ${figure(n)} ${side} ${on}`,
    ),
  ]
}
