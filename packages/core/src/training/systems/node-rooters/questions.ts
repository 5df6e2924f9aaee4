import { addDays } from '../../../season/index.ts'
import { barsToKeep, inMerit, isBarred, lettered } from '../../judge.ts'
import { off, option, questionOf } from '../../options.ts'
import type { PlantView, Stem } from '../../plant.ts'
import type { Judgement, Option, Question, Remark } from '../../question.ts'
import { remark, speaksAgainst, speaksFor, tells } from './says.ts'
import { countOf, cutsFor, jointOf, leftOnPole, mainStems, paceOf, poleOf } from './stems.ts'

/** A part that is to live by itself has so many nodes with roots. */
const ROOTED_A_PART = 2
/** The pole grows while there is still this much of it above the tip, in nodes. */
const AHEAD_NODES = 2
/** The question of the top is put from so many nodes below it on. */
const ASKED_NODES = 8
const MOST_PARTS = 6

/** Days until the tip is two nodes below the top. */
function daysLeft(stem: Stem, leftM: number): number {
  const nodes = leftM / jointOf(stem) - AHEAD_NODES
  return Math.max(0, Math.floor(nodes * paceOf(stem).days))
}

/** A stem that nears the top of its pole: the pole grows, or the top is cut off where it has roots. */
export function topQuestion(view: PlantView): Question | null {
  const pole = poleOf(view)
  if (!pole) return null
  const near = mainStems(view).flatMap((stem) => {
    const leftM = leftOnPole(stem, pole)
    return leftM !== null && leftM < ASKED_NODES * jointOf(stem) ? [{ stem, leftM }] : []
  })
  if (near.length === 0) return null
  const judged = lettered(
    inMerit(near.map(({ stem, leftM }) => ({ stem, leftM, judgements: judgeTop(stem, leftM) }))),
  )
  return questionOf({
    code: 'top',
    candidates: judged.map(({ stem, letter, judgements }) => ({
      pieceId: stem.id,
      letter,
      judgements,
      options: isBarred(judgements) ? [off()] : [option('extend', 'keep', { cost: -1 }), ...topCut(stem)],
    })),
    remarks: (chosen) =>
      judged.flatMap(({ stem, leftM }): Remark[] => {
        if (chosen.get(stem.id)?.id !== 'extend') return []
        const days = daysLeft(stem, leftM)
        const { days: pace, isCounted } = paceOf(stem)
        const by =
          days <= 0
            ? remark('extend-now', { pieceId: stem.id, isLack: true })
            : remark('extend-by', { pieceId: stem.id, on: addDays(view.input.on, days) })
        return [by, remark(isCounted ? 'rate-counted' : 'rate-usual', { n: Math.round(pace) })]
      }),
  })
}

function judgeTop(stem: Stem, leftM: number): Judgement[] {
  const found = barsToKeep(stem)
  found.push(leftM >= 0 ? tells('left-on-pole', 0, leftM, 'm') : speaksAgainst('above-pole', 1, -leftM, 'm'))
  return [...found, judgeRoots(stem)]
}

function judgeRoots(stem: Stem): Judgement {
  const count = countOf(stem)
  if (!count) return tells('roots-unknown')
  return count.rooted >= 2 * ROOTED_A_PART
    ? speaksFor('rooted', 0.5, count.rooted, 'count')
    : tells('few-rooted', 0, count.rooted, 'count')
}

/** The top with two nodes that have roots comes off, where as many stay below. */
function topCut(stem: Stem): Option[] {
  const count = countOf(stem)
  if (!count || count.rooted < 2 * ROOTED_A_PART) return []
  const joint = jointOf(stem)
  const kept = count.rooted - ROOTED_A_PART
  const cutM = Math.min(stem.lengthM * 0.98, kept * joint + joint / 2)
  return [option('top-cut', 'cut', { cutM, aboveBuds: kept, buds: 0 })]
}

/** One stem into several plants, each with roots of its own. It stays whole unless the grower wants it otherwise. */
export function divideQuestion(view: PlantView): Question | null {
  const stems = mainStems(view).filter((stem) => barsToKeep(stem).length === 0)
  if (stems.length === 0) return null
  const judged = lettered(inMerit(stems.map((stem) => ({ stem, judgements: [judgeRoots(stem)] }))))
  return questionOf({
    code: 'divide',
    candidates: judged.map(({ stem, letter, judgements }) => ({
      pieceId: stem.id,
      letter,
      judgements,
      options: [option('whole', 'keep', { cost: -1 }), ...divisions(stem)],
    })),
    remarks: (chosen) => judged.flatMap(({ stem }) => remarksOn(stem, chosen.get(stem.id)?.id ?? 'whole')),
  })
}

const partsOf = (stem: Stem): number =>
  Math.min(MOST_PARTS, Math.floor((countOf(stem)?.rooted ?? 0) / ROOTED_A_PART))

/** Of a stem that is cut in several places the drawing shows the lowest: what is above it leaves the plant. */
const divisions = (stem: Stem): Option[] =>
  Array.from({ length: Math.max(0, partsOf(stem) - 1) }, (_, i) => {
    const cuts = cutsFor(stem, i + 2)
    return option(`parts-${i + 2}`, 'cut', { cutM: cuts[0]!, isOnlyAsked: true })
  })

function remarksOn(stem: Stem, optionId: string): Remark[] {
  const count = countOf(stem)
  if (!count) return [remark('count-first', { pieceId: stem.id, isLack: true })]
  if (partsOf(stem) < 2) return [remark('too-few-rooted', { pieceId: stem.id })]
  const parts = Array.from({ length: MOST_PARTS }, (_, i) => i + 1).find((n) => optionId === `parts-${n}`)
  if (parts === undefined) return [remark('rest-whole', { pieceId: stem.id })]
  return [
    ...cutsFor(stem, parts).map((figure, i) =>
      remark('cut-place', { pieceId: stem.id, figure, unit: 'm', n: i + 1 }),
    ),
    remark('makes-parts', { pieceId: stem.id, n: parts }),
  ]
}
