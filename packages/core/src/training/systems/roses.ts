import { cutPolyline, nearestAlong, pointAlong, polylineLengthM } from '../../geometry/index.ts'
import type { Point } from '../../geometry/index.ts'
import type { PlantKindId } from '../../kinds/index.ts'
import { yearOf } from '../../season/index.ts'
import type { CalendarDate } from '../../season/index.ts'
import {
  barsToKeep,
  bendRadiusM,
  isBarred,
  judgeGive,
  lettered,
  speaksAgainst,
  speaksFor,
  sumOfPoints,
  tells,
} from '../judge.ts'
import { cutAbove, off, option, remark } from '../options.ts'
import type { PlantView, Stem, Wire } from '../plant.ts'
import type {
  Candidate,
  Chosen,
  FollowUp,
  Judgement,
  Option,
  Question,
  Remark,
  Stretch,
} from '../question.ts'
import type { ExpectedPiece, Position, Task, TrainingSystem } from '../system.ts'
import { alongWire, lieAlong } from '../vine.ts'

const ROSES: readonly PlantKindId[] = ['climbing-rose', 'rambling-rose']
const SIDES = ['left', 'right'] as const
const WEIGHTS = { gapPerM: 6, overlapPerM: 14 } as const
/** One starts low: a wire higher up costs a little. */
const HIGHER_COST = 0.25
/** A wire is asked to be full from where wood can come to lie on it. */
const RISE_SLOPE = 0.35
/** A panel narrower than this is filled to and fro. */
const NARROW_M = 2
/** What is left of a stem at the edge, to be worth turning back. */
const TURN_BACK_M = 0.3
const OLD_FROM = 4
/** What is cut off a good main, a metre. */
const LOST_PER_M = 2.5
/** What lies well stays; to untie it and bend it elsewhere is work, and breaks what is older. */
const KEEP_POINTS = 0.8
const RELAY_COST = 2.5
const STIFF_FROM = 3
/** Wood within this of a stretch lies on it. */
const ON_STRETCH_M = 0.08
/** What only crosses a wire does not lie on it. */
const LEAST_LYING_M = 0.35
/** Mains may begin on older wood this near the ground. */
const LOW_M = 0.5
/** Steepest of the angles of a fan, from the level, degrees, and how many lie on a side. */
const FAN_ANGLES = [15, 35, 55, 75] as const

/** Long stems from the base: what is laid or goes; laterals on them are not. */
function mainsOf(view: PlantView): Stem[] {
  return view.stems.filter(
    (stem) =>
      stem.age >= 1 &&
      (stem.parent === null ||
        (stem.parent.parent === null &&
          stem.base.yM < view.input.plant.footYM + LOW_M &&
          stem.lengthM > 0.8)),
  )
}

function judgeMain(stem: Stem): Judgement[] {
  const found = [...barsToKeep(stem), ...judgeGive(stem)]
  const { fault, health } = stem.piece
  if (fault === 'crossing') found.push(speaksAgainst('crossing', 4))
  if (fault === 'weak' || health === 'doubtful') found.push(speaksAgainst('weak', 6))
  if (fault === 'woven') found.push(tells('woven'))
  if (stem.age >= OLD_FROM)
    found.push(speaksAgainst('from-old-wood', 0.5 * (stem.age - OLD_FROM + 1), stem.age, 'count'))
  else if (stem.age === 1) found.push(speaksFor('from-last-year', 0.5))
  return found
}

/** Wires as stretches, to both sides of the foot where there is room. */
function wireStretches(
  view: PlantView,
): { readonly wire: Wire; readonly side: 'left' | 'right'; readonly stretch: Stretch }[] {
  const xM = view.input.plant.xM
  return view.wires.flatMap((wire) =>
    SIDES.flatMap((side) => {
      const endXM =
        side === 'left'
          ? Math.max(view.share.fromM, wire.path[0]!.xM)
          : Math.min(view.share.toM, wire.path.at(-1)!.xM)
      const path = alongWire(wire.path, xM, endXM)
      const lengthM = polylineLengthM(path)
      const fromM = RISE_SLOPE * wire.heightM + 0.05
      if (lengthM < 0.3) return []
      const stretch: Stretch = {
        id: `${wire.frameId}:${wire.lineId}:${side}`,
        lengthM,
        wanted: fromM < lengthM ? [[fromM, lengthM]] : [],
        frameId: wire.frameId,
        lineId: wire.lineId,
        wire: wire.number,
        path,
      }
      return [{ wire, side, stretch }]
    }),
  )
}

type Stretches = ReturnType<typeof wireStretches>

/** What a part of a wire covers, on the stretches to both sides of the foot. */
function coversOn(
  stretches: Stretches,
  wire: Wire,
  footXM: number,
  aXM: number,
  bXM: number,
): Option['covers'] {
  return stretches
    .filter((one) => one.wire === wire)
    .flatMap(({ side, stretch }) => {
      const sign = side === 'left' ? -1 : 1
      const [p, q] = [(aXM - footXM) * sign, (bXM - footXM) * sign]
      const fromM = Math.max(0, Math.min(p, q))
      const toM = Math.min(stretch.lengthM, Math.max(p, q))
      return toM > fromM + 1e-6 ? [{ track: stretch.id, fromM, toM }] : []
    })
}

function layLevel(stem: Stem, view: PlantView, stretches: Stretches, points: number): Option[] {
  const isNarrow = view.share.toM - view.share.fromM < NARROW_M
  const radiusM = bendRadiusM(stem)
  return stretches.flatMap(({ wire, side, stretch }): Option[] => {
    const endXM = stretch.path.at(-1)!.xM
    const lie = lieAlong(stem, wire.path, side, endXM, radiusM)
    if (!lie) return []
    const leftM = stem.lengthM - lie.lengthM
    // Long stems are laid, not shortened: what is lost at the edge counts against it.
    const cost = HIGHER_COST * (wire.number - 1) - points + LOST_PER_M * Math.max(0, leftM)
    const covers = coversOn(stretches, wire, view.input.plant.xM, lie.fromXM, lie.toXM)
    const plain = option(`lay-${wire.number}-${side}`, 'lay', {
      cost,
      buds: Math.floor(lie.lengthM / stem.internodeM),
      cutM: leftM > 0.005 ? lie.lengthM : null,
      aboveBuds: leftM > 0.005 ? Math.floor(lie.lengthM / stem.internodeM) : null,
      path: lie.path,
      covers,
      towards: side,
      wire: wire.number,
    })
    if (!isNarrow || leftM < TURN_BACK_M) return [plain]
    const turned = toAndFro(stem, view, stretches, wire, side, lie.path, cost - LOST_PER_M * leftM, radiusM)
    return turned ? [plain, turned] : [plain]
  })
}

/** At the edge up to the next wire and back along it, as long as the wood lasts and bends so far. */
function toAndFro(
  stem: Stem,
  view: PlantView,
  stretches: Stretches,
  first: Wire,
  side: 'left' | 'right',
  lain: readonly Point[],
  cost: number,
  radiusM: number,
): Option | null {
  const footXM = view.input.plant.xM
  let path: Point[] = [...lain]
  let towards: 'left' | 'right' = side
  let covers = [...coversOn(stretches, first, footXM, lain[1]!.xM, lain.at(-1)!.xM)]
  let wire = first
  let turns = 0
  while (polylineLengthM(path) < stem.lengthM - 1e-6) {
    const next = view.wires.find((one) => one.number > wire.number && one.heightM > wire.heightM + 0.1)
    if (!next || (next.heightM - wire.heightM) / 2 < radiusM) break
    towards = towards === 'left' ? 'right' : 'left'
    const at = path.at(-1)!
    const farXM = towards === 'left' ? view.share.fromM : view.share.toM
    const whole = [...path, ...alongWire(next.path, at.xM, farXM)]
    path = cutPolyline(whole, stem.lengthM)
    covers = [...covers, ...coversOn(stretches, next, footXM, at.xM, path.at(-1)!.xM)]
    wire = next
    turns++
  }
  if (turns === 0) return null
  const lengthM = polylineLengthM(path)
  return option(`to-and-fro-${first.number}-${side}`, 'to-and-fro', {
    // Each turn is bent and tied for itself.
    cost: cost + 0.4 * turns + LOST_PER_M * Math.max(0, stem.lengthM - lengthM),
    buds: Math.floor(lengthM / stem.internodeM),
    cutM: lengthM < stem.lengthM - 0.005 ? lengthM : null,
    aboveBuds: lengthM < stem.lengthM - 0.005 ? Math.floor(lengthM / stem.internodeM) : null,
    path,
    covers,
    towards: side,
    wire: first.number,
  })
}

function layFan(stem: Stem, stretches: readonly FanStretch[], points: number): Option[] {
  return stretches.flatMap(({ angleDeg, side, stretch }) => {
    const path = cutPolyline([stem.base, ...stretch.path.slice(1)], stem.lengthM)
    const lengthM = polylineLengthM(path)
    return [
      option(`fan-${angleDeg}-${side}`, 'lay', {
        cost: -points,
        buds: Math.floor(lengthM / stem.internodeM),
        cutM: stem.lengthM - lengthM > 0.005 ? lengthM : null,
        aboveBuds: stem.lengthM - lengthM > 0.005 ? Math.floor(lengthM / stem.internodeM) : null,
        path,
        covers: [{ track: stretch.id, fromM: 0, toM: Math.min(stretch.lengthM, lengthM) }],
        towards: side,
        wire: null,
      }),
    ]
  })
}

interface FanStretch {
  readonly angleDeg: number
  readonly side: 'left' | 'right'
  readonly stretch: Stretch
}

/** Rays from the foot to the edge of the plant's share or its topmost wire. */
function fanStretches(view: PlantView): FanStretch[] {
  const xM = view.input.plant.xM
  const topM = view.wires.at(-1)?.heightM ?? 2
  return SIDES.flatMap((side) => {
    const sign = side === 'left' ? -1 : 1
    const roomM = Math.abs((side === 'left' ? view.share.fromM : view.share.toM) - xM)
    return FAN_ANGLES.flatMap((angleDeg): FanStretch[] => {
      const angle = (angleDeg * Math.PI) / 180
      const lengthM = Math.min(roomM / Math.cos(angle), topM / Math.sin(angle))
      if (lengthM < 0.5) return []
      const path = [
        { xM, yM: view.input.plant.footYM },
        {
          xM: xM + sign * Math.cos(angle) * lengthM,
          yM: view.input.plant.footYM + Math.sin(angle) * lengthM,
        },
      ]
      const stretch = {
        id: `fan:${angleDeg}:${side}`,
        lengthM,
        wanted: [[0, lengthM]] as const,
        frameId: null,
        lineId: null,
        wire: null,
        path,
      }
      return [{ angleDeg, side, stretch }]
    })
  })
}

/** Which stretches a main lies along already, and from where to where. */
function liesOn(stem: Stem, stretches: readonly Stretch[]): Option['covers'] {
  const STEP_M = 0.05
  return stretches.flatMap((stretch) => {
    const on: number[] = []
    for (let alongM = 0; alongM <= stem.lengthM; alongM += STEP_M) {
      const near = nearestAlong(stretch.path, pointAlong(stem.piece.path, alongM))
      if (near.distanceM <= ON_STRETCH_M) on.push(near.alongM)
    }
    const [fromM, toM] = [Math.min(...on), Math.max(...on)]
    return on.length * STEP_M < LEAST_LYING_M || toM - fromM < LEAST_LYING_M
      ? []
      : [{ track: stretch.id, fromM, toM: Math.min(stretch.lengthM, toM) }]
  })
}

function mainsQuestion(
  view: PlantView,
  code: 'mains' | 'fan-mains',
  stretches: readonly Stretch[],
  lay: (stem: Stem, points: number) => readonly Option[],
): Question | null {
  const stems = mainsOf(view)
  if (stems.length === 0) return null
  const lying = new Map(
    stems.flatMap((stem) => {
      const covers = liesOn(stem, stretches)
      return covers.length > 0 ? [[stem.id, covers] as const] : []
    }),
  )
  const judged = lettered(
    stems
      .map((stem) => ({ stem, ...candidateOf(stem, view, lay, lying) }))
      .sort(
        (a, b) =>
          Number(isBarred(a.judgements)) - Number(isBarred(b.judgements)) ||
          sumOfPoints(b.judgements) - sumOfPoints(a.judgements) ||
          b.stem.lengthM - a.stem.lengthM,
      ),
  )
  const candidates = judged.map(({ stem, letter, judgements, options }): Candidate => ({
    pieceId: stem.id,
    letter,
    judgements,
    options,
  }))
  return {
    code,
    stretches,
    candidates,
    rules: [],
    never: [],
    crossings: [],
    standingBuds: 0,
    buds: { aim: 0, min: 0, max: 100_000, costPerBud: 0 },
    weights: WEIGHTS,
    followUps: (chosen) => laterals(view, chosen),
    remarks: (chosen) => remarksOf(view, stretches, judged, chosen),
  }
}

function candidateOf(
  stem: Stem,
  view: PlantView,
  lay: (stem: Stem, points: number) => readonly Option[],
  lying: ReadonlyMap<string, Option['covers']>,
): { readonly judgements: readonly Judgement[]; readonly options: readonly Option[] } {
  const judgements = judgeMain(stem)
  if (isBarred(judgements)) return { judgements, options: [off()] }
  const points = sumOfPoints(judgements)
  const keep = lying.get(stem.id)
  // Old wood that lies is not bent anew; younger only where much is gained by it.
  const fresh = keep && stem.age >= STIFF_FROM ? [] : lay(stem, points)
  const lays = keep
    ? [
        option('keep', 'keep', { cost: -points - KEEP_POINTS, buds: stem.buds, covers: keep }),
        ...fresh.map((one) => ({ ...one, cost: one.cost + RELAY_COST })),
      ]
    : fresh
  if (lays.length > 0) {
    const radiusM = bendRadiusM(stem)
    const told = [...judgements, tells('bends-so-far', 0, radiusM, 'm')]
    // What is worth laying is laid or, where there is no room for it, goes.
    return { judgements: told, options: [off(), ...lays] }
  }
  const first = view.wires[0]
  const short = first ? [speaksAgainst('too-short-for-wire', 0, first.heightM, 'm')] : []
  // Young wood may yet reach; what is old and has not will not.
  return stem.age <= 2
    ? { judgements: [...judgements, ...short], options: [option('wait', 'wait', { cost: -0.5 }), off()] }
    : { judgements: [...judgements, ...short], options: [off(), option('wait', 'wait', { cost: 0.5 })] }
}

/** Laterals of what is laid are cut back to a few buds. */
function laterals(view: PlantView, chosen: Chosen): FollowUp[] {
  return [...chosen].flatMap(([pieceId, { deed, cutM }]) =>
    deed !== 'lay' && deed !== 'to-and-fro' && deed !== 'keep'
      ? []
      : view
          .childrenOf(pieceId)
          .filter(
            (child) =>
              child.age >= 1 &&
              child.alongM <= (cutM ?? Infinity) &&
              !chosen.has(child.id) &&
              child.buds > view.settings.lateralBuds,
          )
          .map((child): FollowUp => ({
            pieceId: child.id,
            deed: 'spur',
            ...cutAbove(child, view.settings.lateralBuds),
            path: null,
            why: 'lateral',
          })),
  )
}

function remarksOf(
  view: PlantView,
  stretches: readonly Stretch[],
  judged: readonly { readonly stem: Stem }[],
  chosen: Chosen,
): Remark[] {
  const covered = new Set([...chosen.values()].flatMap(({ covers }) => covers.map(({ track }) => track)))
  const waiting = judged.find(({ stem }) => chosen.get(stem.id)?.deed === 'wait')
  const bareWires = new Set(
    stretches
      .filter(({ id, wanted }) => wanted.length > 0 && !covered.has(id))
      .flatMap(({ wire }) => wire ?? []),
  )
  for (const { wire, id } of stretches) if (wire !== null && covered.has(id)) bareWires.delete(wire)
  const bare = [...bareWires].flatMap((n) => [
    remark('wire-bare', { n }),
    remark('fills-it', { n, pieceId: waiting?.stem.id ?? null }),
  ])
  const again = judged
    .filter(({ stem }) => chosen.get(stem.id)?.deed === 'wait')
    .map(({ stem }) => remark('look-again', { pieceId: stem.id, on: whenLongEnough(stem, view) }))
  const short = judged.flatMap(({ stem }) => {
    const one = chosen.get(stem.id)
    return one?.deed === 'lay' && one.cutM !== null
      ? [remark('not-so-far', { pieceId: stem.id, figure: stem.lengthM - one.cutM, unit: 'm' })]
      : []
  })
  return [...bare, ...again, ...short]
}

/** The end of the season by which it may reach the first wire, at the slow end of the kind's growth. */
function whenLongEnough(stem: Stem, view: PlantView): CalendarDate {
  const { on, hemisphere } = view.input
  const needM = (view.wires[0]?.heightM ?? 0) * 1.1 + TURN_BACK_M - stem.lengthM
  const seasons = Math.max(1, Math.ceil(needM / (view.kind.caneM?.[0] ?? 1)))
  const [monthDay, isOver] =
    hemisphere === 'north' ? ['09-15', on.slice(5) > '09-15'] : ['03-15', on.slice(5) > '03-15']
  return `${yearOf(on) + seasons - (isOver ? 0 : 1)}-${monthDay}`
}

function rose(id: string, question: (view: PlantView) => Question | null): TrainingSystem {
  return {
    id,
    kinds: ROSES,
    needsWires: true,
    positions: (view): Position[] =>
      mainsOf(view)
        .filter((stem) => !stem.isBelowGraft)
        .map((stem, i) => ({
          what: 'main',
          side: stem.leanDeg < 0 ? 'left' : 'right',
          n: i + 1,
          at: stem.tip,
          pieceId: stem.id,
        })),
    tasks: (view): Task[] => {
      const isAfterFlowering = view.kind.prunedAt === 'after-flowering'
      if (view.stage === 'dormant' || view.stage === 'bud-swell')
        return isAfterFlowering
          ? [{ code: 'rest', count: null }]
          : [
              { code: 'choose-dormant', count: null },
              { code: 'lay-before-buds', count: null },
            ]
      return [{ code: 'tie-in', count: null }]
    },
    question: (view) =>
      view.wires.length === 0 || view.stage === 'young-shoots' || view.stage === 'growing'
        ? null
        : question(view),
    skeleton: (view, years): ExpectedPiece[] => roseSkeleton(view, years),
  }
}

function roseSkeleton(view: PlantView, years: number): ExpectedPiece[] {
  const xM = view.input.plant.xM
  const count = Math.min(6, 2 + years)
  return Array.from({ length: count }, (_, i) => {
    const lean = (i - (count - 1) / 2) * 0.25
    const lengthM = Math.min(3.2, 1.2 + 0.6 * years - 0.15 * i)
    return {
      name: `main-${i}`,
      on: null,
      alongM: 0,
      path: [
        { xM, yM: view.input.plant.footYM },
        { xM: xM + lean * 0.4, yM: view.input.plant.footYM + lengthM * 0.5 },
        {
          xM: xM + lean,
          yM: view.input.plant.footYM + Math.sqrt(Math.max(0.1, lengthM * lengthM - lean * lean)),
        },
      ],
      seasonsOld: 1,
      baseMm: 11,
      role: null,
      side: null,
      buds: null,
    }
  })
}

export const roseLevel = rose('rose-level', (view) => {
  const stretches = wireStretches(view)
  return mainsQuestion(
    view,
    'mains',
    stretches.map(({ stretch }) => stretch),
    (stem, points) => layLevel(stem, view, stretches, points),
  )
})

export const roseFan = rose('rose-fan', (view) => {
  const stretches = fanStretches(view)
  return mainsQuestion(
    view,
    'fan-mains',
    stretches.map(({ stretch }) => stretch),
    (stem, points) =>
      view.wires[0] && stem.lengthM < view.wires[0].heightM ? [] : layFan(stem, stretches, points),
  )
})
