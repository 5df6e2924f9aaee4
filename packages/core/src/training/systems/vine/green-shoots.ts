import { barsToKeep, isBarred, lettered, sumOfPoints } from '../../judge.ts'
import { off, option, questionOf } from '../../options.ts'
import type { PlantView, Stem } from '../../plant.ts'
import type { Judgement, Question, Rule } from '../../question.ts'
import type { Head } from './head.ts'
import { isFromTrunk, wayToHeadM } from './head.ts'
import { speaksAgainst, speaksFor, tells, bars, remark } from './says.ts'

/** Two shoots from places nearer than this are one eye's. */
const DOUBLE_M = 0.012
/** From this near below the head on, a trunk's shoot may serve where too few stand above. */
const BELOW_HEAD_M = 0.15

/** In spring: which of the soft shoots at a head stay. One counts from the head up to a limit. */
export function greenShootsQuestion(view: PlantView, head: Head): Question | null {
  const { shootLimitM, shootsPerHead } = view.settings
  const shoots = view.stems
    .filter((stem) => stem.age === 0 && !stem.piece.cuts.length)
    .map((stem) => ({ stem, wayM: wayToHeadM(stem, head), onTrunk: onTrunk(stem, head) }))
    .sort((a, b) => Number(a.onTrunk) - Number(b.onTrunk) || a.wayM - b.wayM)
  if (shoots.length === 0) return null
  const isDouble = (at: number) =>
    shoots.some(
      (other, i) =>
        i < at &&
        other.stem.parent?.id === shoots[at]!.stem.parent?.id &&
        Math.abs(other.stem.alongM - shoots[at]!.stem.alongM) < DOUBLE_M,
    )
  const inLimit = shoots.filter((one, i) => !one.onTrunk && one.wayM <= shootLimitM && !isDouble(i))
  const isFourthTooHigh =
    inLimit.length < shootsPerHead && shoots.some((one) => !one.onTrunk && one.wayM > shootLimitM)
  const judged = lettered(shoots.map((one, i) => ({ ...one, judgements: judge(one, isDouble(i), view) })))
  const candidates = judged.map(({ stem, letter, judgements }) => ({
    pieceId: stem.id,
    letter,
    judgements,
    options: isBarred(judgements)
      ? [off()]
      : [option('keep', 'keep', { buds: 1, cost: -sumOfPoints(judgements) }), off()],
  }))
  const keeps = candidates
    .filter(({ options }) => options.some(({ id }) => id === 'keep'))
    .map(({ pieceId }) => [pieceId, 'keep'] as const)
  const rules: Rule[] = []
  if (!isFourthTooHigh)
    rules.push(
      ...doubles(
        shoots.map(({ stem }) => stem),
        keeps,
      ),
    )
  return questionOf({
    code: 'green-shoots',
    candidates,
    rules,
    buds: { aim: shootsPerHead, min: shootsPerHead, max: shootsPerHead, costPerBud: 2.5 },
    remarks: (chosen) => {
      const kept = judged.filter(({ stem }) => chosen.get(stem.id)?.deed === 'keep')
      const low = [...kept].sort((a, b) => heightOrder(a, b))
      const lower = kept.filter((one) =>
        one.judgements.some(({ code }) => code === 'double' || code === 'on-trunk'),
      )
      const next = low
        .slice(0, 2)
        .map(({ stem }, i) => remark(i === 0 ? 'next-spur' : 'next-cane', { pieceId: stem.id }))
      const high = isFourthTooHigh
        ? [remark('fourth-too-high', { pieceId: lower[0]?.stem.id ?? null, figure: shootLimitM, unit: 'm' })]
        : []
      return [...next, ...high]
    },
  })
}

const heightOrder = (
  a: { readonly onTrunk: boolean; readonly wayM: number },
  b: { readonly onTrunk: boolean; readonly wayM: number },
) => (a.onTrunk ? -a.wayM : a.wayM) - (b.onTrunk ? -b.wayM : b.wayM)

const onTrunk = (stem: Stem, head: Head): boolean =>
  stem.isBelowGraft || stem.parent === null || isFromTrunk(stem, head)

function judge(
  { stem, wayM, onTrunk }: { readonly stem: Stem; readonly wayM: number; readonly onTrunk: boolean },
  isDouble: boolean,
  view: PlantView,
): Judgement[] {
  const found = barsToKeep(stem)
  const { shootLimitM } = view.settings
  if (onTrunk) {
    const isNear = stem.parent !== null && wayM <= BELOW_HEAD_M
    found.push(isNear ? speaksAgainst('on-trunk', 2.2, wayM, 'm') : bars('on-trunk', 0, wayM, 'm'))
  } else if (wayM > shootLimitM) found.push(bars('over-limit', 0, wayM, 'm'))
  else found.push(speaksFor('low', 0.5 * (1 - wayM / shootLimitM), wayM, 'm'))
  if (isDouble) found.push(speaksAgainst('double', 1.8))
  if (stem.piece.side === 'back') found.push(bars('faces-wall'))
  if (stem.piece.fault === 'weak') found.push(speaksAgainst('weak', 2))
  if (stem.piece.meantFor !== null) found.push(tells('meant-for'))
  return found
}

/** Of shoots from one eye one stays. */
function doubles(stems: readonly Stem[], keeps: readonly (readonly [string, string])[]): Rule[] {
  const groups = new Map<string, Stem[]>()
  for (const stem of stems) {
    const key = `${stem.parent?.id ?? ''}:${Math.round(stem.alongM / DOUBLE_M)}`
    groups.set(key, [...(groups.get(key) ?? []), stem])
  }
  return [...groups.values()]
    .map((group) => keeps.filter(([id]) => group.some((stem) => stem.id === id)))
    .filter((options) => options.length > 1)
    .map((options) => ({ code: 'one-of-a-double', options, min: 0, max: 1 }))
}
