import { heightOn, levelWires } from '../../level-wires.ts'
import { addDays, woodYear } from '../../../season/index.ts'
import { reachesM } from '../../along.ts'
import { barsToKeep, inMerit, isBarred, lettered, sumOfPoints } from '../../judge.ts'
import { off, option, questionOf } from '../../options.ts'
import type { PlantView, Stem } from '../../plant.ts'
import type { Judgement, Option, Question, Remark, Stretch } from '../../question.ts'
import { bars, remark, speaksAgainst, speaksFor } from './says.ts'
import type { CaneCount, SeasonAt } from '../../system.ts'

/** Canes that stay, a metre of row (craft: three to five each half metre). */
const PER_M = { min: 6, aim: 8, max: 10 } as const
/** A cane this thick at its foot is worth its place, millimetres; a thinner one fruits little. */
const STRONG_MM = 7
/** What comes up so far beyond the plant's part of the row is a sucker to be pulled. */
const BEYOND_M = 0.1
/** A new cane that stayed shorter than this bears little. */
const SHORT_M = 0.8
const WEIGHTS = { gapPerM: 6, overlapPerM: 20 } as const
/** A cane more or less than the row's number weighs more than what tells two sound canes apart. */
const COST_PER_CANE = 3
/** Not to know what else stands is worse than to leave a fruited cane till spring. */
const WAIT_COST = -1

/** Canes from the ground or the stool; their side shoots come and go with them. */
const canesOf = (view: PlantView): Stem[] => view.stems.filter((stem) => stem.parent === null)

/** Leaf fall begins before the day on which wood counts as a year older: until then this summer's canes are new shoots. */
function hasTurned({ on, hemisphere, stage }: SeasonAt): boolean {
  const LEAF_FALL_DAYS = 45
  if (stage === 'dormant' || stage === 'bud-swell') return true
  return (
    stage === 'leaf-fall' && woodYear(on, hemisphere) !== woodYear(addDays(on, -LEAF_FALL_DAYS), hemisphere)
  )
}

const seasonOf = ({ stage, input: { on, hemisphere } }: PlantView): SeasonAt => ({ stage, on, hemisphere })

/** The first and the second summer of a cane, and what is left of it after that. */
export function lifeAt(age: number, at: SeasonAt): 'new' | 'fruiting' | 'spent' {
  const summers = hasTurned(at) ? age : age + 1
  if (summers <= 1) return 'new'
  const isPicked = at.stage === 'ripening' || at.stage === 'leaf-fall' || hasTurned(at)
  return summers === 2 && !isPicked ? 'fruiting' : 'spent'
}

export const lifeOf = ({ age }: Pick<Stem, 'age'>, view: PlantView) => lifeAt(age, seasonOf(view))

/** The plant's part of the row as one stretch: along its top wire, or at the ground where there is none. */
function rowOf(view: PlantView): Stretch {
  const { fromM, toM } = view.share
  const top = levelWires(view).at(-1)
  const footYM = view.input.plant.footYM
  const at = (xM: number) => ({ xM, yM: top ? heightOn(top.path, xM) : footYM })
  const lengthM = Math.max(1e-3, toM - fromM)
  return {
    id: 'row',
    lengthM,
    wanted: [[0, lengthM]],
    frameId: top?.frameId ?? null,
    lineId: top?.lineId ?? null,
    wire: top?.number ?? null,
    path: [at(fromM), at(toM)],
  }
}

/** After the fruit: which canes come out, and which of the new ones stay for next year. */
export function canesQuestion(view: PlantView): Question | null {
  const canes = canesOf(view)
  if (canes.length === 0) return null
  const row = rowOf(view)
  const roomFor = (perM: number) => Math.max(1, Math.round(perM * row.lengthM))
  const judged = lettered(
    inMerit(
      canes.map((stem) => ({ stem, judgements: judge(stem, view, row) })),
      (a, b) => a.stem.base.xM - b.stem.base.xM,
    ),
  )
  const sound = judged.filter(
    ({ stem, judgements }) => lifeOf(stem, view) === 'new' && !isBarred(judgements),
  ).length
  const isEntered = canes.some((stem) => lifeOf(stem, view) === 'new')
  return questionOf({
    code: 'canes',
    counts: isEntered ? 'canes' : null,
    isWoodMissing: !isEntered,
    stretches: [row],
    candidates: judged.map(({ stem, letter, judgements }) => ({
      pieceId: stem.id,
      letter,
      judgements,
      options: optionsOf(stem, view, row, judgements, sound > 0, 1 / PER_M.aim),
    })),
    // Where fewer came up than there is room for, all sound ones stay: no number forces a weak one.
    buds: {
      aim: Math.min(roomFor(PER_M.aim), sound),
      min: Math.min(roomFor(PER_M.min), sound),
      max: roomFor(PER_M.max),
      costPerBud: COST_PER_CANE,
    },
    weights: WEIGHTS,
    remarks: (chosen) => {
      const kept = [...chosen.values()].filter(({ deed }) => deed === 'keep').length
      if (!isEntered) return [remark('enter-new', { isLack: true })]
      if (sound === 0) return [remark('none-sound', { isLack: true })]
      const few =
        kept < roomFor(PER_M.min)
          ? [remark('few-new', { figure: kept, unit: 'count', n: roomFor(PER_M.aim), isLack: true })]
          : []
      return [...few, remark('next-fruit')]
    },
  })
}

function judge(stem: Stem, view: PlantView, row: Stretch): Judgement[] {
  const found = barsToKeep(stem)
  if (lifeOf(stem, view) !== 'new') return [...found, bars('fruited')]
  const { fault, health, light } = stem.piece
  if (stem.baseMm < STRONG_MM)
    found.push(speaksAgainst('thin-cane', 1 + (STRONG_MM - stem.baseMm), stem.baseMm, 'mm'))
  else found.push(speaksFor('strong', 1, stem.baseMm, 'mm'))
  if (stem.lengthM < SHORT_M) found.push(speaksAgainst('short-cane', 2, stem.lengthM, 'm'))
  if (fault === 'crossing') found.push(speaksAgainst('crossing', 2))
  if (fault === 'weak' || health === 'doubtful') found.push(speaksAgainst('weak', 3))
  if (light === 'well-lit') found.push(speaksFor('well-lit', 0.5))
  if (light === 'shaded') found.push(speaksAgainst('shaded', 0.5))
  const beyondM = Math.max(row.path[0]!.xM - stem.base.xM, stem.base.xM - row.path.at(-1)!.xM)
  if (beyondM > BEYOND_M) found.push(bars('beyond-row', 0, beyondM, 'm'))
  return found
}

function optionsOf(
  stem: Stem,
  view: PlantView,
  row: Stretch,
  judgements: readonly Judgement[],
  hasSound: boolean,
  apartM: number,
): Option[] {
  if (isBarred(judgements)) {
    // The last living wood is not cut away while nothing sound is known to come after it.
    const isFruited = barsToKeep(stem).length === 0 && lifeOf(stem, view) !== 'new'
    return isFruited && !hasSound ? [option('wait', 'wait', { cost: WAIT_COST }), off()] : [off()]
  }
  const atM = Math.min(row.lengthM, Math.max(0, stem.base.xM - row.path[0]!.xM))
  const covers = [
    {
      track: row.id,
      fromM: Math.max(0, atM - apartM / 2),
      toM: Math.min(row.lengthM, atM + apartM / 2),
    },
  ]
  return [
    option('keep', 'keep', {
      cost: -sumOfPoints(judgements),
      buds: 1,
      covers: covers.filter(({ fromM, toM }) => toM > fromM),
      // It is tied where it stands.
      path: stem.piece.path,
      wire: row.wire,
    }),
    off(),
  ]
}

/** The same by a count: what comes out, how many stand a metre, and how many of the new ones go or are missing. */
export function countRemarks(view: PlantView, { fresh, fruited, cutOut, overM }: CaneCount): Remark[] {
  const left = Math.max(0, fruited - cutOut)
  // Nothing is cut over a summer that nobody counted.
  if (fresh === 0) return [remark('count-new-first', { isLack: true })]
  const perM = fresh / overM
  const isOver = view.stage === 'ripening' || hasTurned(seasonOf(view)) || view.stage === 'leaf-fall'
  const spent = left > 0 ? [remark(isOver ? 'counted-spent' : 'counted-fruiting', { n: left })] : []
  const many = Math.round(fresh - PER_M.max * overM)
  const few = Math.round(PER_M.min * overM - fresh)
  return [
    ...spent,
    remark('counted-new', { figure: perM, unit: 'count', n: fresh }),
    ...(many > 0 ? [remark('counted-many', { n: many })] : []),
    ...(few > 0 ? [remark('counted-few', { n: few, isLack: true })] : []),
  ]
}

/** At winter's end: canes that stand out above the top wire are cut a hand over it, so that they do not whip. */
export function tipsQuestion(view: PlantView): Question | null {
  const top = levelWires(view).at(-1)
  if (!top) return null
  const { handM } = view.settings
  const tall = canesOf(view).flatMap((stem) => {
    if (lifeOf(stem, view) !== 'new' || barsToKeep(stem).length > 0) return []
    const wireYM = heightOn(top.path, stem.tip.xM)
    const cutM = reachesM(stem, wireYM + handM)
    // The last joint is no reason for a cut.
    return cutM === null || stem.lengthM - cutM < stem.internodeM
      ? []
      : [{ stem, cutM, overM: stem.tip.yM - wireYM }]
  })
  if (tall.length === 0) return null
  return questionOf({
    code: 'tips',
    candidates: lettered(tall).map(({ stem, cutM, overM, letter }) => ({
      pieceId: stem.id,
      letter,
      judgements: [speaksAgainst('above-wire', 0, overM, 'm')],
      options: [
        option('tip', 'cut', { cost: -1, cutM, aboveBuds: Math.floor(cutM / stem.internodeM) }),
        option('keep', 'keep'),
      ],
    })),
  })
}

/** What ages the canes of a plant that stands have: this summer's, and where it is old enough those that fruited. */
export const agesOf = (view: PlantView): { readonly new: number; readonly before: number } => {
  const age = hasTurned(seasonOf(view)) ? 1 : 0
  return { new: age, before: age + 1 }
}
