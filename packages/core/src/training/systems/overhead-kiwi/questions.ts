import { distance3M, inSpace, partOfPath, pathLengthM } from '../../../geometry/index.ts'
import type { Point3 } from '../../../geometry/index.ts'
import { lineOf } from '../../../wood/index.ts'
import { barsToKeep, inMerit, isBarred, lettered, sumOfPoints } from '../../judge.ts'
import { cutAbove, off, option, questionOf } from '../../options.ts'
import type { PlantView, Stem } from '../../plant.ts'
import type { Judgement, Option, Question, Remark, Stretch } from '../../question.ts'
import {
  AT_WIRE_M,
  acrossFrom,
  armWay,
  armsOf,
  faceOf,
  headOf,
  reachOf,
  sidesOf,
  trunkWay,
} from './canopy.ts'
import type { Arm, Canopy } from './canopy.ts'
import { bars, remark, speaksAgainst, speaksFor } from './says.ts'

/** Between laterals along one side of an arm. */
const STEP_M = 0.35
/** A lateral that has fruited so many times gives way (craft: every third year). */
const FRUITS_YEARS = 3
const STRONG_MM = 8
const HARD_M = 0.3
const SPUR_BUDS = 2
/** Less of a cane along the wire makes no arm, metres. */
const LEAST_LAID_M = 0.1
const WEIGHTS = { gapPerM: 10, overlapPerM: 14 } as const
/** Whatever speaks against wood, a place that only it fills is not left bare for that. */
const BARE_COST = WEIGHTS.gapPerM * STEP_M * 0.9
const faces = ['front', 'back'] as const

/** Stems from the crown; the trunk is the tallest. */
const roots = (view: PlantView): Stem[] => view.stems.filter((stem) => stem.parent === null)
export const trunkIn = (view: PlantView): Stem | null =>
  [...roots(view)].sort((a, b) => b.tip.yM - a.tip.yM || b.lengthM - a.lengthM)[0] ?? null

export const isAtWire = (stem: Stem, view: PlantView, canopy: Canopy): boolean =>
  stem.tip.yM >= headOf(view, canopy).at.yM - AT_WIRE_M

function judgeCane(stem: Stem): Judgement[] {
  const found: Judgement[] = barsToKeep(stem)
  const { fault, health, light } = stem.piece
  if (stem.baseMm < STRONG_MM)
    found.push(speaksAgainst('thin-cane', 1 + (STRONG_MM - stem.baseMm) / 2, stem.baseMm, 'mm'))
  else found.push(speaksFor('strong-cane', 1, stem.baseMm, 'mm'))
  if (fault === 'crossing') found.push(speaksAgainst('crossing', 2))
  if (fault === 'weak' || health === 'doubtful') found.push(speaksAgainst('weak', 3))
  if (light === 'well-lit') found.push(speaksFor('well-lit', 0.8))
  if (light === 'shaded') found.push(speaksAgainst('shaded', 1))
  return found
}

/** A young plant: of what comes from its foot one goes up to the wire. */
export function leaderQuestion(view: PlantView, canopy: Canopy): Question | null {
  const stems = roots(view)
  if (stems.length === 0) return null
  const judged = lettered(
    inMerit(
      stems.map((stem) => ({ stem, judgements: judgeCane(stem) })),
      (a, b) => b.stem.lengthM - a.stem.lengthM,
    ),
  )
  const whole = lineOf(trunkWay(view, canopy))
  const sound = judged.filter(({ judgements }) => !isBarred(judgements))
  return questionOf({
    code: 'leader',
    candidates: judged.map(({ stem, letter, judgements }) => ({
      pieceId: stem.id,
      letter,
      judgements,
      options: isBarred(judgements)
        ? [off()]
        : [
            option('lead', 'lay', {
              cost: -sumOfPoints(judgements) - stem.lengthM,
              path: partOfPath(whole, 0, Math.min(pathLengthM(whole), stem.lengthM)),
            }),
            off(),
          ],
    })),
    rules:
      sound.length === 0
        ? []
        : [
            {
              code: 'one-leader',
              options: sound.map(({ stem }) => [stem.id, 'lead'] as const),
              min: 1,
              max: 1,
            },
          ],
    remarks: () => [remark('stop-at-wire')],
  })
}

/** Two canes from just below the wire, one each way along it. */
export function armsQuestion(view: PlantView, canopy: Canopy): Question | null {
  const trunk = trunkIn(view)
  if (!trunk) return null
  const arms = armsOf(view, canopy)
  const missing = sidesOf(view, canopy).filter((side) => arms.every((arm) => arm.side !== side))
  const head = headOf(view, canopy).at
  const canes = view.stems.filter(
    (stem) => stem.parent?.id === trunk.id && arms.every((arm) => arm.stem.id !== stem.id),
  )
  const judged = lettered(
    inMerit(
      canes.map((stem) => ({ stem, judgements: judgeForArm(stem, head.yM) })),
      (a, b) => b.stem.lengthM - a.stem.lengthM,
    ),
  )
  const open = judged.filter(({ stem, judgements }) => !isBarred(judgements) && reaches(stem, head))
  return questionOf({
    code: 'arms',
    tellsBare: true,
    stretches: missing.map((side) => stretchOf(view, canopy, side, side)),
    candidates: judged.map(({ stem, letter, judgements }) => ({
      pieceId: stem.id,
      letter,
      judgements,
      options: isBarred(judgements)
        ? [off()]
        : reaches(stem, head)
          ? [...missing.map((side) => layAsArm(stem, side, view, canopy, judgements)), off()]
          : [option('renewal', 'spur', { ...cutAbove(stem, SPUR_BUDS), buds: SPUR_BUDS }), off()],
    })),
    rules: missing.map((side) => ({
      code: 'one-each-way',
      options: open.map(({ stem }) => [stem.id, `arm-${side}`] as const),
      // With one cane alone one side stays empty.
      min: open.length >= missing.length ? 1 : 0,
      max: 1,
    })),
    weights: WEIGHTS,
    remarks: (chosen) =>
      missing.flatMap((side): Remark[] =>
        [...chosen.values()].some(({ id }) => id === `arm-${side}`)
          ? []
          : [remark('arm-missing', { side, isLack: true })],
      ),
  })
}

/** A cane that ends before the wire cannot be laid along it; it waits as a spur. */
const reaches = (stem: Stem, head: Point3): boolean =>
  stem.lengthM > distance3M(inSpace(stem.base), head) + LEAST_LAID_M

function judgeForArm(stem: Stem, wireYM: number): Judgement[] {
  const belowM = wireYM - stem.base.yM
  const found = judgeCane(stem)
  if (belowM > 3 * AT_WIRE_M) return [...found, bars('too-low', 0, belowM, 'm')]
  return [...found, speaksFor('at-wire', Math.max(0, 1 - belowM), Math.max(0, belowM), 'm')]
}

function layAsArm(
  stem: Stem,
  side: 'left' | 'right',
  view: PlantView,
  canopy: Canopy,
  judgements: readonly Judgement[],
): Option {
  const head = headOf(view, canopy).at
  const base = inSpace(stem.base)
  const risesM = distance3M(base, head)
  const { way, roomM } = armWay(view, canopy, side, Math.max(0.05, stem.lengthM - risesM))
  const goesM = Math.min(roomM, Math.max(0.05, stem.lengthM - risesM))
  const led = risesM > 0.01 ? [{ on: 'free' as const, points: [base, head] }, ...way] : way
  const leans = (stem.tip.xM - stem.base.xM) * (side === 'left' ? -1 : 1)
  return option(`arm-${side}`, 'lay', {
    // What leans to a side already is not bent over to the other.
    cost: -sumOfPoints(judgements) - Math.sign(leans) * 0.5,
    path: lineOf(led),
    way: led,
    towards: side,
    covers: [{ track: side, fromM: 0, toM: Math.max(1e-3, goesM) }],
  })
}

function stretchOf(view: PlantView, canopy: Canopy, side: 'left' | 'right', id: string): Stretch {
  const { way, roomM } = armWay(view, canopy, side, Number.POSITIVE_INFINITY)
  const { middle, wires } = canopy
  const lengthM = Math.max(1e-3, roomM)
  return {
    id,
    lengthM,
    wanted: [[0, lengthM]],
    frameId: middle.frameId,
    lineId: middle.part.on === 'line' ? middle.part.lineId : null,
    wire: wires.indexOf(middle) + 1,
    path: lineOf(way),
  }
}

/** Where on its arm wood sits, however many pieces lie between, and how far out from it. */
function placeOf(stem: Stem, arms: readonly Arm[]): { arm: Arm; alongM: number; outM: number } | null {
  let outM = 0
  for (let at: Stem = stem; at.parent; at = at.parent) {
    const { parent } = at
    const arm = arms.find((one) => one.stem.id === parent.id)
    if (arm) return { arm, alongM: at.alongM, outM }
    outM += at.alongM
  }
  return null
}

/** In winter: which laterals lie across the wires from each arm, old ones giving way to young. */
export function lateralsQuestion(view: PlantView, canopy: Canopy): Question | null {
  const arms = armsOf(view, canopy)
  if (arms.length === 0) return null
  const isArm = new Set(arms.map(({ stem }) => stem.id))
  const placed = view.stems.flatMap((stem) => {
    const place = isArm.has(stem.id) ? null : placeOf(stem, arms)
    return place ? [{ stem, place, judgements: judgeLateral(stem, place.outM, canopy) }] : []
  })
  if (placed.length === 0) return null
  const judged = lettered(inMerit(placed, (a, b) => a.place.alongM - b.place.alongM))
  const stretches = arms.flatMap(({ stem, side }) =>
    faces.map((face): Stretch => {
      const wire = stretchOf(view, canopy, side, `${side}-${face}`)
      const lengthM = Math.min(stem.lengthM, Math.max(wire.lengthM, 1e-3))
      return { ...wire, lengthM, wanted: [[0, lengthM]], path: partOfPath(wire.path, 0, lengthM) }
    }),
  )
  return questionOf({
    code: 'laterals',
    tellsBare: true,
    stretches,
    candidates: judged.map(({ stem, place, letter, judgements }) => ({
      pieceId: stem.id,
      letter,
      judgements,
      options: isBarred(judgements) ? [off()] : lateralOptions(stem, place, canopy, view, judgements),
    })),
    weights: WEIGHTS,
    remarks: (chosen) => {
      const bareM = stretches.reduce(
        (sum, { id, lengthM }) => sum + lengthM - coveredM(id, chosen.values()),
        0,
      )
      return bareM > STEP_M ? [remark('few-laterals', { figure: bareM, unit: 'm', isLack: true })] : []
    },
  })
}

/** Length of a stretch that something lies on. */
function coveredM(track: string, options: Iterable<Option>): number {
  const covers = [...options].flatMap(({ covers }) => covers.filter((one) => one.track === track))
  let [sum, reached] = [0, 0]
  for (const { fromM, toM } of covers.sort((a, b) => a.fromM - b.fromM)) {
    sum += Math.max(0, toM - Math.max(fromM, reached))
    reached = Math.max(reached, toM)
  }
  return sum
}

function judgeLateral(stem: Stem, outM: number, canopy: Canopy): Judgement[] {
  const found = judgeCane(stem)
  const face = faceOf(stem) ?? 'back'
  const { reachM } = reachOf(canopy, face)
  const reachesM = stem.lengthM + outM
  if (reachM > 0)
    found.push(
      reachesM >= reachM
        ? speaksFor('reaches', 0.5)
        : speaksAgainst('short-of-wire', Math.min(2, reachM - reachesM), reachM - reachesM, 'm'),
    )
  if (outM > HARD_M) found.push(speaksAgainst('far-from-arm', 1 + outM, outM, 'm'))
  const fruited = stem.age - 1
  if (fruited >= FRUITS_YEARS)
    found.push(speaksAgainst('fruited-years', 2 + fruited - FRUITS_YEARS, fruited, 'count'))
  else if (fruited > 0) found.push(speaksFor('fruited-years', 0.2, fruited, 'count'))
  return found
}

function lateralOptions(
  stem: Stem,
  { arm, alongM, outM }: { arm: Arm; alongM: number; outM: number },
  canopy: Canopy,
  view: PlantView,
  judgements: readonly Judgement[],
): Option[] {
  const own = faceOf(stem)
  const from = Math.max(0, alongM - STEP_M / 2)
  const to = Math.min(arm.stem.lengthM, alongM + STEP_M / 2)
  const cost = Math.min(-sumOfPoints(judgements), BARE_COST)
  const { handM } = view.settings
  const across = (own ? [own] : faces).map((face): Option => {
    const { reachM } = reachOf(canopy, face)
    const endM = reachM > 0 ? reachM + handM - outM : stem.lengthM
    const isLong = stem.lengthM > endM + handM && endM > handM
    const lies = own !== null && (stem.age > 1 || stem.piece.led.length > 0)
    const shared = {
      cost,
      cutM: isLong ? endM : null,
      covers: [{ track: `${arm.side}-${face}`, fromM: from, toM: to }].filter(
        ({ fromM, toM }) => toM > fromM,
      ),
    }
    // What lies already stays where it is tied; a new cane is bent down across the wires.
    return lies || reachM === 0 || outM > 0
      ? option(`keep-${face}`, 'keep', { ...shared, path: null })
      : option(`across-${face}`, 'lay', {
          ...shared,
          path: acrossFrom(inSpace(stem.base), canopy, face, Math.min(stem.lengthM, endM), handM),
        })
  })
  // A young one in no one's place is cut to two buds, from which the next lateral grows.
  const renewal =
    stem.age === 1 && outM === 0
      ? [option('renewal', 'spur', { isOnlyAsked: true, ...cutAbove(stem, SPUR_BUDS), buds: SPUR_BUDS })]
      : []
  return [...across, ...renewal, off()]
}
