import { levelWires } from '../../level-wires.ts'
import { nearestAlong, pointAlong } from '../../../geometry/index.ts'
import { yearOf } from '../../../season/index.ts'
import type { CalendarDate } from '../../../season/index.ts'
import { barsToKeep, bendRadiusM, inMerit, isBarred, judgeGive, lettered, sumOfPoints } from '../../judge.ts'
import { cutAbove, off, option } from '../../options.ts'
import type { PlantView, Stem } from '../../plant.ts'
import type {
  Candidate,
  Chosen,
  FollowUp,
  Judgement,
  Option,
  Question,
  Remark,
  Stretch,
} from '../../question.ts'
import { speaksAgainst, speaksFor, tells, remark } from './says.ts'

const WEIGHTS = { gapPerM: 6, overlapPerM: 14 } as const
const OLD_FROM = 4
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
/** What grows beyond its first wire by this is long enough to be laid. */
const BEYOND_WIRE_M = 0.3

/** Long stems from the base: what is laid or goes; laterals on them are not. */
export function mainsOf(view: PlantView): Stem[] {
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
  else found.push(speaksFor('sound-main', 0, stem.age, 'count'))
  return found
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

/** Mains to be laid on stretches, whatever those are: wires to both sides, angles of a fan. */
export function mainsQuestion(
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
    inMerit(
      stems.map((stem) => ({ stem, ...candidateOf(stem, view, lay, lying) })),
      (a, b) => b.stem.lengthM - a.stem.lengthM,
    ),
  )
  const candidates = judged.map(
    ({ stem, letter, judgements, options }): Candidate => ({
      pieceId: stem.id,
      letter,
      judgements,
      options,
    }),
  )
  return {
    code,
    counts: null,
    tellsBare: code === 'mains',
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
  const first = levelWires(view)[0]
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
          .map(
            (child): FollowUp => ({
              pieceId: child.id,
              deed: 'spur',
              ...cutAbove(child, view.settings.lateralBuds),
              path: null,
              why: 'lateral',
            }),
          ),
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
    remark('wire-bare', { n, isLack: true }),
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
  const needM = (levelWires(view)[0]?.heightM ?? 0) * 1.1 + BEYOND_WIRE_M - stem.lengthM
  const seasons = Math.max(1, Math.ceil(needM / (view.kind.caneM?.[0] ?? 1)))
  const [monthDay, isOver] =
    hemisphere === 'north' ? ['09-15', on.slice(5) > '09-15'] : ['03-15', on.slice(5) > '03-15']
  return `${yearOf(on) + seasons - (isOver ? 0 : 1)}-${monthDay}`
}
