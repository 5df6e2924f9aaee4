import { heightOn, levelWires } from '../../level-wires.ts'
import type { Wire } from '../../level-wires.ts'
import type { Point } from '../../../geometry/index.ts'
import { pointAlong } from '../../../geometry/index.ts'
import { barsToKeep, inMerit, isBarred, lettered, sumOfPoints } from '../../judge.ts'
import { off, option, questionOf } from '../../options.ts'
import type { PlantView, Stem } from '../../plant.ts'
import type { Candidate, FollowUp, Judgement, Option, Question, Remark } from '../../question.ts'
import type { ExpectedPiece, Position, Task, TrainingSystem } from '../../system.ts'
import { alongWire, reachesM } from '../../along.ts'
import { trunkOf } from '../../trunk.ts'
import { speaksAgainst, speaksFor, remark, task } from './says.ts'

const SIDES = ['left', 'right'] as const
/** An arm sits within this of its wire. */
const AT_WIRE_M = 0.18
/** Buds for the leader and for both arms. */
const BUDS_AT_WIRE = 3
/** The top bud may sit this far above the wire. */
const BUD_ABOVE_M = 0.05
/** What is longer is an arm or a leader, not a spur or a feather. */
const BRANCH_M = 0.3
/** A leader leans no more than this, degrees. */
const STRAIGHT_DEG = 10
const LEADER_DEG = 40
/** Arms from the rising to the level, degrees from upright. */
const RISING_DEG = [15, 78] as const
const ARM_M = 0.55
const SPUR_STEP_M = 0.15

/** Pieces of the trunk from below: last winters' leaders, each on the one before. */
function trunkPieces(view: PlantView): Stem[] {
  const top = trunkOf(view)
  const pieces: Stem[] = []
  for (let at: Stem | null = top; at; at = at.parent) pieces.unshift(at)
  return pieces
}

/** The next wire above the top of the trunk. */
function nextWire(view: PlantView, top: Stem): Wire | null {
  return levelWires(view).find((wire) => heightOn(wire.path, top.tip.xM) > top.tip.yM + 0.06) ?? null
}

function armsAt(view: PlantView, trunk: readonly Stem[], wire: Wire): Stem[] {
  const own = new Set(trunk.map(({ id }) => id))
  return view.stems.filter(
    (stem) =>
      stem.parent !== null &&
      own.has(stem.parent.id) &&
      !own.has(stem.id) &&
      stem.lengthM > 0.1 &&
      Math.abs(stem.leanDeg) > RISING_DEG[0] &&
      Math.abs(stem.base.yM - heightOn(wire.path, stem.base.xM)) <= AT_WIRE_M,
  )
}

const sideOf = (stem: Stem) => (stem.leanDeg < 0 ? 'left' : 'right')

function positions(view: PlantView): Position[] {
  const trunk = trunkPieces(view)
  const top = trunk.at(-1)
  if (!top) return []
  const reached = levelWires(view).filter((wire) => heightOn(wire.path, top.tip.xM) <= top.tip.yM + AT_WIRE_M)
  return reached.flatMap((wire) =>
    SIDES.map((side): Position => {
      const arm = armsAt(view, trunk, wire).find((stem) => sideOf(stem) === side)
      const at = { xM: top.tip.xM, yM: heightOn(wire.path, top.tip.xM) }
      return { what: 'tier', side, n: wire.number, at, pieceId: arm?.id ?? null }
    }),
  )
}

/** A leader that was short of its wire for a year, has grown on past it since and was not cut there yet. */
function isUncut(view: PlantView, stem: Stem): boolean {
  if (stem.age < 2 || stem.piece.cuts.length > 0) return false
  const wire = levelWires(view).find(({ path }) => heightOn(path, stem.base.xM) > stem.base.yM + 0.06)
  const atM = wire && reachesM(stem, heightOn(wire.path, stem.base.xM))
  if (!atM || stem.lengthM - atM < BUD_ABOVE_M * 2) return false
  // Where arms or a leader stand on it already it was left to branch: it is trunk.
  return view.childrenOf(stem.id).every((child) => child.alongM < atM - AT_WIRE_M || child.lengthM < BRANCH_M)
}

/** In winter: the leader to be cut at the next wire, of those that stand at the top. */
function leaderQuestion(view: PlantView): Question | null {
  const trunk = trunkPieces(view)
  // A leader of last summer is not the trunk yet, nor one that had to wait for its wire.
  const top =
    trunk.filter((stem) => (stem.age >= 2 || stem.piece.cuts.length > 0) && !isUncut(view, stem)).at(-1) ??
    null
  const from = view.stems.filter(
    (stem) =>
      ((stem.age === 1 && stem.piece.cuts.length === 0) || isUncut(view, stem)) &&
      Math.abs(stem.leanDeg) < LEADER_DEG &&
      (top === null
        ? stem.parent === null
        : stem.parent?.id === top.id && top.lengthM - stem.alongM < AT_WIRE_M),
  )
  const leading = new Set(from.map(({ id }) => id))
  const lowered = armsToLower(view, trunk).filter(({ pieceId }) => !leading.has(pieceId))
  if (from.length === 0 && lowered.length === 0) return null
  const wire = top ? nextWire(view, top) : (levelWires(view)[0] ?? null)
  const judged = lettered(inMerit(from.map((stem) => ({ stem, judgements: judge(stem, view, wire) }))))
  const candidates = judged.map(
    ({ stem, letter, judgements }): Candidate => ({
      pieceId: stem.id,
      letter,
      judgements,
      options: isBarred(judgements) ? [off()] : optionsOf(stem, wire, sumOfPoints(judgements)),
    }),
  )
  const leads = candidates.flatMap(({ pieceId, options }) =>
    options.filter(({ deed }) => deed === 'cut' || deed === 'keep').map(({ id }) => [pieceId, id] as const),
  )
  return questionOf({
    code: 'leader',
    candidates,
    rules: leads.length > 0 ? [{ code: 'one-leader', options: leads, min: 1, max: 1 }] : [],
    buds: { aim: BUDS_AT_WIRE, min: 0, max: 1000, costPerBud: 0 },
    followUps: () => lowered,
    remarks: (chosen) => {
      const cut = candidates.find(({ pieceId }) => chosen.get(pieceId)?.deed === 'cut')
      const said: Remark[] = cut
        ? [
            remark('lead-buds', { pieceId: cut.pieceId, n: chosen.get(cut.pieceId)!.aboveBuds }),
            remark('arms-at-45', { n: wire?.number ?? null }),
          ]
        : []
      if (lowered.length > 0) said.push(remark('arms-level', { n: lowered.length }))
      if (from.length > 0 && wire === null) said.push(remark('tier-without-wire', tierAbove(view)))
      return said
    },
  })
}

/** Where one more wire would lie: as far above the last as the tiers are apart. */
function tierAbove(view: PlantView): {
  readonly figure: number
  readonly unit: 'm'
  readonly n: number
  readonly wireAtM: number
} {
  const USUAL_STEP_M = 0.4
  const heights = levelWires(view).map(({ heightM }) => heightM)
  const top = heights.at(-1) ?? 0
  const step = heights.length > 1 ? (top - heights[0]!) / (heights.length - 1) : USUAL_STEP_M
  return { figure: top + step, unit: 'm', n: heights.length + 1, wireAtM: top + step }
}

function judge(stem: Stem, view: PlantView, wire: Wire | null): Judgement[] {
  const found = barsToKeep(stem)
  const lean = Math.abs(stem.leanDeg)
  found.push(
    lean <= STRAIGHT_DEG
      ? speaksFor('straight', 2, lean, 'deg')
      : speaksAgainst('leans', lean / 10, lean, 'deg'),
  )
  if (stem.piece.fault === 'weak' || stem.piece.health === 'doubtful') found.push(speaksAgainst('weak', 3))
  if (stem.baseMm < view.settings.pencilMm[0]) found.push(speaksAgainst('thin', 1, stem.baseMm, 'mm'))
  else found.push(speaksFor('pencil-thick', 0.5, stem.baseMm, 'mm'))
  const atM = wire ? reachesM(stem, heightOn(wire.path, stem.base.xM)) : null
  if (wire && atM === null) found.push(speaksAgainst('did-not-reach', 3, stem.tip.yM, 'm'))
  if (atM !== null) {
    const buds = Math.floor((atM + BUD_ABOVE_M) / stem.internodeM + 1e-6)
    found.push(
      buds >= BUDS_AT_WIRE
        ? speaksFor('buds-at-wire', 1, Math.min(buds, BUDS_AT_WIRE), 'count')
        : speaksAgainst('few-buds-at-wire', 2, buds, 'count'),
    )
  }
  return found
}

function optionsOf(stem: Stem, wire: Wire | null, points: number): Option[] {
  const atM = wire ? reachesM(stem, heightOn(wire.path, stem.base.xM)) : null
  if (wire === null || atM === null) return [option('keep', 'keep', { cost: -points, buds: 1 }), off()]
  const buds = topBud(stem, atM)
  const cutM = Math.min(stem.lengthM, (buds + 0.3) * stem.internodeM)
  return [
    option('cut-at-wire', 'cut', {
      cost: -points,
      buds: BUDS_AT_WIRE,
      cutM: cutM < stem.lengthM ? cutM : null,
      aboveBuds: buds,
      wire: wire.number,
    }),
    off(),
  ]
}

/** The bud at or just above the wire goes on as the leader; those below it make the arms. */
function topBud(stem: Stem, atM: number): number {
  const last = Math.floor(stem.lengthM / stem.internodeM + 1e-6)
  const first = Math.ceil(atM / stem.internodeM - 1e-6)
  return Math.min(last, first * stem.internodeM <= atM + BUD_ABOVE_M ? first : first - 1)
}

/** Arms of last summer still rise; at leaf fall they are lowered to their wire and tied. */
function armsToLower(view: PlantView, trunk: readonly Stem[]): FollowUp[] {
  if (!['leaf-fall', 'dormant', 'bud-swell'].includes(view.stage)) return []
  return levelWires(view).flatMap((wire) =>
    armsAt(view, trunk, wire)
      .filter((stem) => {
        const lean = Math.abs(stem.leanDeg)
        return stem.age <= 1 && lean > RISING_DEG[0] && lean < RISING_DEG[1] && sideOf(stem) !== null
      })
      .map((stem): FollowUp => {
        const sign = sideOf(stem) === 'left' ? -1 : 1
        const path: Point[] = [
          stem.base,
          ...alongWire(wire.path, stem.base.xM + sign * 0.06, stem.base.xM + sign * stem.lengthM),
        ]
        return { pieceId: stem.id, deed: 'lower', cutM: null, aboveBuds: null, path, why: 'arm-to-level' }
      }),
  )
}

function tasks(view: PlantView): Task[] {
  switch (view.stage) {
    case 'dormant':
    case 'bud-swell':
      return [task('choose-dormant')]
    case 'young-shoots':
    case 'growing':
      return [task('hold-arms-at-45'), task('tie-in')]
    case 'ripening':
      return [task('summer-laterals')]
    case 'leaf-fall':
      return [task('arms-to-level')]
    case 'all-year':
      return []
  }
}

function skeleton(view: PlantView, years: number): ExpectedPiece[] {
  const xM = view.input.plant.xM
  const made: ExpectedPiece[] = []
  const tiers = levelWires(view).slice(0, Math.max(0, years - 1))
  let foot: Point = { xM, yM: view.input.plant.footYM }
  let under: ExpectedPiece | null = null
  for (const [i, wire] of tiers.entries()) {
    const top: Point = { xM, yM: heightOn(wire.path, xM) + 0.01 }
    const age = Math.max(2, years - i)
    const stem: ExpectedPiece = {
      name: `trunk-${i}`,
      on: under?.name ?? null,
      alongM: under ? distanceUp(under) : 0,
      path: [foot, top],
      seasonsOld: age,
      baseMm: 10 + 4 * age,
      role: 'trunk',
      side: null,
      buds: null,
    }
    made.push(stem)
    for (const side of SIDES) made.push(...armWithSpurs(view, stem, wire, side, years - i - 1, i))
    foot = top
    under = stem
  }
  const lengthM = 0.9
  made.push({
    name: 'leader',
    on: under?.name ?? null,
    alongM: under ? distanceUp(under) : 0,
    path: [foot, { xM: foot.xM + 0.02, yM: foot.yM + lengthM }],
    seasonsOld: 1,
    baseMm: 9,
    role: null,
    side: 'up',
    buds: null,
  })
  return made
}

const distanceUp = ({ path }: ExpectedPiece): number => path.at(-1)!.yM - path[0]!.yM

function armWithSpurs(
  view: PlantView,
  stem: ExpectedPiece,
  wire: Wire,
  side: 'left' | 'right',
  age: number,
  tier: number,
): ExpectedPiece[] {
  const sign = side === 'left' ? -1 : 1
  const base = stem.path.at(-1)!
  const roomM = Math.abs((side === 'left' ? view.share.fromM : view.share.toM) - base.xM)
  const lengthM = Math.min(roomM, ARM_M * Math.max(1, age))
  const isRising = age <= 1
  const path: Point[] = isRising
    ? [base, { xM: base.xM + sign * lengthM * 0.7, yM: base.yM + lengthM * 0.7 }]
    : [base, ...alongWire(wire.path, base.xM + sign * 0.06, base.xM + sign * lengthM)]
  const arm: ExpectedPiece = {
    name: `arm-${tier}-${side}`,
    on: stem.name,
    alongM: distanceUp(stem),
    path,
    seasonsOld: Math.max(1, age),
    baseMm: 7 + 4 * Math.max(1, age),
    role: 'arm',
    side,
    buds: null,
  }
  if (isRising) return [arm]
  const count = Math.floor((lengthM * 0.8) / SPUR_STEP_M)
  const spurs = Array.from({ length: count }, (_, i): ExpectedPiece => {
    const alongM = (i + 1) * SPUR_STEP_M
    const at = pointAlong(path, alongM)
    return {
      name: `${arm.name}-spur-${i}`,
      on: arm.name,
      alongM,
      path: [at, { xM: at.xM, yM: at.yM + 0.1 }],
      seasonsOld: 2,
      baseMm: 7,
      role: 'spur',
      side: 'up',
      buds: null,
    }
  })
  return [arm, ...spurs]
}

export const levelTiers: TrainingSystem = {
  id: 'level-tiers',
  craft: 'level-tiers',
  suits: (habit) => habit === 'spur-tree',
  needsWires: true,
  hasBudGoal: false,
  positions,
  role: () => null,
  tasks,
  year: () => [{ code: 'leader', window: { from: 'leaf-fall', to: 'bud-swell' } }],
  question: (view) => (levelWires(view).length > 0 ? leaderQuestion(view) : null),
  skeleton,
}
