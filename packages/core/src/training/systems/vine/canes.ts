import { heightOn } from '../../level-wires.ts'
import type { Wire } from '../../level-wires.ts'
import {
  barsToKeep,
  bendRadiusM,
  inMerit,
  isBarred,
  judgeGive,
  judgeWood,
  lettered,
  sumOfPoints,
} from '../../judge.ts'
import { cutAbove, off, option, spur } from '../../options.ts'
import type { PlantView, Stem } from '../../plant.ts'
import type { FollowUp, Judgement, Option, Question, Rule, Stretch } from '../../question.ts'
import { alongWire, lieAlong, outwards } from '../../along.ts'
import { isFromTrunk, sideOf, wayToHeadM, budsBySide } from './head.ts'
import type { Head } from './head.ts'
import { polylineLengthM } from '../../../geometry/index.ts'
import { speaksAgainst, speaksFor, tells, remark } from './says.ts'

/** Bare wire costs so much a metre, and everything else is weighed against it. */
export const WEIGHTS = { gapPerM: 10, overlapPerM: 12 } as const
const COST_PER_BUD = 0.4
/** A spur that nothing needs is one more to cut next year. */
const SPUR_COST = 0.5
/** Laid back over the head, or from wood that is not in its place. */
const ACROSS_COST = 1.5
/** A cane laid with nothing nearer the head to follow it moves the head outward. */
const NO_RENEWAL_COST = 3
/** So many steps of two buds a cane is offered shorter, for the sake of the budget. */
const SHORTER_STEPS = 4
/** ... where it has more than this of its part of the buds. */
const SHORTER_SHARE = 0.8
const SIDES = ['left', 'right'] as const
/** Canes farther out than this go with the old cane that they stand on. */
const CANDIDATE_REACH_M = 0.6

/** Last summer's growth that has not been cut back to a spur this winter. */
export const isLastSummers = (stem: Stem): boolean =>
  stem.age === 1 && !(stem.parent !== null && stem.parent.age <= 1) && !isSpurred(stem)

/** A piece that stands as a spur since this winter's cut. */
export const isSpurred = (stem: Stem): boolean => {
  const last = stem.piece.cuts.at(-1)
  return stem.age === 1 && last?.aboveBuds !== undefined && last.aboveBuds !== null && last.aboveBuds <= 3
}

interface Cane {
  readonly stem: Stem
  readonly side: 'left' | 'right'
  readonly wayM: number
  readonly judgements: readonly Judgement[]
}

/** Which canes to lay from a head, and which spurs to leave for next year's. */
export function canesQuestion(view: PlantView, head: Head, wire: Wire, count: 1 | 2): Question {
  const canes = lettered(
    inMerit(
      view.stems
        .filter((stem) => isLastSummers(stem) && stem.id !== head.trunk.id)
        .map((stem) => caneOf(stem, view, head, wire))
        .filter(
          ({ stem, wayM }) => wayM <= CANDIDATE_REACH_M || stem.isBelowGraft || isFromTrunk(stem, head),
        ),
    ),
  )
  const stretches = SIDES.map((side) => stretchOf(view, head, wire, side, count))
  const standing = view.stems.filter(isSpurred)
  const hasRenewal = (cane: Cane) =>
    standing.some((stem) => isNearer(stem, cane, head)) ||
    canes.some(
      (other) => nearer(other, cane) && barsToKeep(other.stem).length === 0 && !isFromTrunk(other.stem, head),
    )
  const candidates = canes.map((cane) => ({
    pieceId: cane.stem.id,
    letter: cane.letter,
    judgements:
      hasRenewal(cane) || isBarred(cane.judgements) || isFromTrunk(cane.stem, head)
        ? cane.judgements
        : [...cane.judgements, tells('no-renewal')],
    options: optionsOf(cane, view, head, wire, stretches, count, hasRenewal(cane)),
  }))
  const lays = (side: 'left' | 'right' | null) =>
    candidates.flatMap(({ pieceId, options }) =>
      options
        .filter((one) => one.deed === 'lay' && (side === null || one.towards === side))
        .map(({ id }) => [pieceId, id] as const),
    )
  const rules: Rule[] =
    count === 1
      ? [{ code: 'one-in-all', options: lays(null), min: 0, max: 1 }]
      : SIDES.map((side) => ({ code: 'one-each-way', options: lays(side), min: 0, max: 1 }))
  rules.push(...renewalRules(canes, candidates, standing, head))
  const standingBuds = standing.reduce((sum, { buds }) => sum + buds, 0)
  return {
    code: 'canes',
    counts: 'buds',
    tellsBare: false,
    stretches,
    candidates,
    rules: rules.filter(({ options }) => options.length > 0),
    never: [],
    crossings: [],
    standingBuds,
    budsBySide: budsBySide(view, head, standing),
    buds: { ...view.target, costPerBud: COST_PER_BUD },
    weights: WEIGHTS,
    followUps: (chosen) => oldCanes(view, head, (id) => chosen.get(id)?.deed ?? null),
    remarks: (chosen) => {
      const laid = canes.filter(({ stem }) => chosen.get(stem.id)?.deed === 'lay')
      const missing = laid.filter(
        (cane) =>
          !canes.some((other) => nearer(other, cane) && chosen.get(other.stem.id)?.deed === 'spur') &&
          !standing.some((stem) => isNearer(stem, cane, head)),
      )
      return missing.map((cane) => remark('renewal-missing', { pieceId: cane.stem.id, side: cane.side }))
    },
  }
}

function caneOf(stem: Stem, view: PlantView, head: Head, wire: Wire): Cane {
  const side = sideOf(stem, head)
  const wayM = wayToHeadM(stem, head)
  return { stem, side, wayM, judgements: [...judgeWood(stem, view), ...judgePlace(stem, view, head, wire)] }
}

/** Where it stands: near the head, from which wood, above or below the wire. */
export function judgePlace(stem: Stem, view: PlantView, head: Head, wire: Wire): Judgement[] {
  const found = judgeGive(stem)
  const wayM = wayToHeadM(stem, head)
  if (isFromTrunk(stem, head)) found.push(speaksAgainst('from-trunk', 4, wayM, 'm'))
  else if (wayM <= view.settings.handM) found.push(speaksFor('near-head', 0.6, wayM, 'm'))
  else if (wayM > view.settings.headReachM)
    found.push(speaksAgainst('far-from-head', 2 + 3 * wayM, wayM, 'm'))
  if (
    !isFromTrunk(stem, head) &&
    stem.parent !== null &&
    stem.parent.age >= 3 &&
    stem.parent.id !== head.trunk.id
  )
    found.push(speaksAgainst('from-old-wood', 0.8, stem.parent.age, 'count'))
  else if (stem.parent?.age === 2) found.push(speaksFor('from-last-year', 0.4))
  const overM = stem.base.yM - Math.max(heightOn(wire.path, stem.base.xM), head.at.yM)
  if (overM > 0.04) found.push(speaksAgainst('above-wire', 1.5, overM, 'm'))
  return found
}

function stretchOf(view: PlantView, head: Head, wire: Wire, side: 'left' | 'right', count: 1 | 2): Stretch {
  const own = outwards(view, wire, head.at.xM, side, count === 2)
  if (count === 2) return own
  // One cane fills the whole of the plant's share one way, as far as the wire goes.
  const { fromM, toM } = view.share
  const wholeM = toM - fromM
  const ends = [wire.path[0]!.xM, wire.path.at(-1)!.xM] as const
  const endXM =
    side === 'left' ? Math.max(ends[0], head.at.xM - wholeM) : Math.min(ends[1], head.at.xM + wholeM)
  const path = alongWire(wire.path, head.at.xM, endXM)
  return { ...own, path, lengthM: Math.max(1e-3, polylineLengthM(path)) }
}

function optionsOf(
  cane: Cane,
  view: PlantView,
  head: Head,
  wire: Wire,
  stretches: readonly Stretch[],
  count: 1 | 2,
  hasRenewal: boolean,
): Option[] {
  const { stem, judgements, side } = cane
  if (barsToKeep(stem).length > 0) return [off()]
  const fromTrunk = isFromTrunk(stem, head)
  const isThin = judgements.some(({ code }) => code === 'thin-and-short')
  const spurCost = SPUR_COST + Math.min(1, cane.wayM) + (judgements.some((j) => j.code === 'weak') ? 2 : 0)
  const spurs = [
    spur(stem, view, spurCost, {
      isOnlyAsked: fromTrunk,
      // What is thin and short gives one shoot worth having, if any.
      ...(isThin ? { ...cutAbove(stem, 1), buds: 1 } : {}),
    }),
  ]
  if (isBarred(judgements)) return [off(), ...spurs]
  const lays = SIDES.flatMap((towards, i) =>
    laysAlong(stem, wire, towards, stretches[i]!, head, (view.target.aim * SHORTER_SHARE) / count).map(
      (lay) => ({
        ...lay,
        isOnlyAsked: fromTrunk,
        cost:
          lay.cost -
          sumOfPoints(judgements) +
          (hasRenewal ? 0 : NO_RENEWAL_COST) +
          (towards === side ? 0 : ACROSS_COST) -
          (count === 1 ? WEIGHTS.gapPerM * covered(lay) : 0),
      }),
    ),
  )
  return [off(), ...spurs, ...lays]
}

const covered = (one: Option): number => one.covers.reduce((sum, { fromM, toM }) => sum + toM - fromM, 0)

/** A stem laid one way along a wire, as far as it is wanted and, for the sake of the buds, shorter. */
export function laysAlong(
  stem: Stem,
  wire: Wire,
  towards: 'left' | 'right',
  stretch: Stretch,
  head: Pick<Head, 'at'>,
  /** A cane with fewer buds than this is not offered shorter. */
  shorterFrom: number,
): Option[] {
  const endXM = stretch.path.at(-1)!.xM
  const lie = lieAlong(stem, wire.path, towards, endXM, bendRadiusM(stem))
  if (!lie) return []
  const full = Math.min(stem.buds, Math.floor(lie.lengthM / stem.internodeM + 1e-6))
  const options: Option[] = []
  for (let step = 0; step <= SHORTER_STEPS; step++) {
    const buds = full - 2 * step
    if (buds < 3 || (step > 0 && (full < shorterFrom || buds < full / 2))) break
    const lengthM = step === 0 ? lie.lengthM : cutAbove(stem, buds).cutM
    if (step > 0 && lengthM >= lie.lengthM) continue
    const shortM = lie.lengthM - lengthM
    const sign = towards === 'left' ? -1 : 1
    const toXM = lie.toXM - sign * shortM
    const shorter = lieAlong({ ...stem, lengthM }, wire.path, towards, toXM, bendRadiusM(stem))
    if (!shorter) continue
    const [a, b] = [(shorter.fromXM - head.at.xM) * sign, (shorter.toXM - head.at.xM) * sign]
    const covers =
      b > 0 ? [{ track: stretch.id, fromM: Math.max(0, a), toM: Math.min(stretch.lengthM, b) }] : []
    options.push(
      option(step === 0 ? `lay-${towards}` : `lay-${towards}-${buds}`, 'lay', {
        buds,
        cutM: lengthM < stem.lengthM - 0.005 ? lengthM : null,
        aboveBuds: buds,
        path: shorter.path,
        covers: covers.filter(({ fromM, toM }) => toM > fromM),
        towards,
        wire: wire.number,
      }),
    )
  }
  return options
}

/** A cane of the same side whose base is nearer the head. */
const nearer = (other: Cane, cane: Cane): boolean =>
  other.stem.id !== cane.stem.id && other.side === cane.side && other.wayM < cane.wayM

const isNearer = (stem: Stem, cane: Cane, head: Head): boolean =>
  sideOf(stem, head) === cane.side && wayToHeadM(stem, head) <= cane.wayM + 0.02

/** Each laid cane keeps a spur nearer the head than itself, where there is wood for one. */
function renewalRules(
  canes: readonly Cane[],
  candidates: Question['candidates'],
  standing: readonly Stem[],
  head: Head,
): Rule[] {
  const optionsOfPiece = new Map(candidates.map(({ pieceId, options }) => [pieceId, options]))
  return canes.flatMap((cane): Rule[] => {
    const own = optionsOfPiece.get(cane.stem.id)!
    if (!own.some(({ deed }) => deed === 'lay') || standing.some((stem) => isNearer(stem, cane, head)))
      return []
    const spurs = canes
      .filter((other) => nearer(other, cane))
      .flatMap((other) =>
        optionsOfPiece
          .get(other.stem.id)!
          .filter(({ deed, isOnlyAsked }) => deed === 'spur' && !isOnlyAsked)
          .map(({ id }) => [other.stem.id, id] as const),
      )
    if (spurs.length === 0) return []
    const without = own.filter(({ deed }) => deed !== 'lay').map(({ id }) => [cane.stem.id, id] as const)
    const options = [...without, ...spurs]
    return [{ code: 'renewal-nearer-head', options, min: 1, max: options.length }]
  })
}

/** Shorter old wood without anything on it is left: a bud may yet break from it. */
const STUMP_M = 0.1
const BEYOND_M = 0.01

/** Old wood at the head: cut beyond the outermost wood that is kept on it, off where nothing is. */
export function oldCanes(
  view: PlantView,
  head: Head,
  deedOf: (pieceId: string) => string | null,
): FollowUp[] {
  const isKept = (stem: Stem): boolean =>
    isSpurred(stem) ||
    !['off', null].includes(deedOf(stem.id)) ||
    view.childrenOf(stem.id).some((child) => isKept(child))
  const found: FollowUp[] = []
  const open = view.childrenOf(head.trunk.id).filter((stem) => stem.age >= 2)
  for (let stem = open.pop(); stem !== undefined; stem = open.pop()) {
    const kept = view.childrenOf(stem.id).filter((child) => isKept(child))
    const base = { pieceId: stem.id, aboveBuds: null, path: null, why: 'old-cane' as const }
    if (kept.length === 0) {
      if (stem.lengthM > STUMP_M) found.push({ ...base, deed: 'off', cutM: 0 })
      continue
    }
    const cutM = Math.max(...kept.map(({ alongM }) => alongM)) + BEYOND_M
    if (cutM < stem.lengthM - BEYOND_M) found.push({ ...base, deed: 'cut', cutM })
    // What stands on the part that is left and is neither kept nor in question goes too.
    for (const child of view.childrenOf(stem.id)) {
      if (child.alongM > cutM) continue
      if (child.age >= 2) open.push(child)
      else if (deedOf(child.id) === null && !isKept(child))
        found.push({ ...base, pieceId: child.id, deed: 'off', cutM: 0 })
    }
  }
  return found
}
