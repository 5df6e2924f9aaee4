import { heightOn, levelWires } from '../../level-wires.ts'
import type { Wire } from '../../level-wires.ts'
import { barsToKeep, inMerit, isBarred, judgeGive, judgeWood, lettered, sumOfPoints } from '../../judge.ts'
import { longSpur, off, spur } from '../../options.ts'
import type { PlantView, Stem } from '../../plant.ts'
import type { FollowUp, Option, Question, Rule, Stretch } from '../../question.ts'
import { outwards } from '../../along.ts'
import { sideOf, wayToHeadM, budsBySide } from './head.ts'
import type { Head } from './head.ts'
import { isSpurred, laysAlong } from './canes.ts'
import {
  armStretch,
  cordonArms,
  filledPlaces,
  fillersOf,
  missingPlaces,
  placeOf,
  placeOn,
} from './cordon-places.ts'
import type { CordonArm, Growth } from './cordon-places.ts'
import { speaksAgainst, speaksFor, tells, remark } from './says.ts'

const COST_PER_BUD = 0.4
/** An extra cane is one more to lay, tie and cut away: only a budget asks for it. */
const EXTRA_CANE_COST = 3
/** A spur creeps outward by this much a year; what stands higher on it is farther from the arm. */
const CREEP_POINTS_PER_M = 12
/** The next wire up that an extra cane may be laid along. */
const NEXT_WIRE_M = 0.6
/** A bud more beside a missing place outweighs what its bud costs over any target. */
const FILL_BONUS = 3
/** A second spur where one stands already is in its way. */
const SECOND_SPUR_COST = 3
const SIDES = ['left', 'right'] as const

/** Which shoots of last summer become the spurs of next; with extra canes also which are laid whole. */
export function cordonQuestion(view: PlantView, head: Head, wire: Wire, withCanes: boolean): Question {
  const arms = cordonArms(view, head)
  const growths = lettered(
    inMerit(
      view.stems
        .filter(
          (stem) =>
            stem.age === 1 && !isSpurred(stem) && (stem.parent?.age ?? 2) > 1 && stem.id !== head.trunk.id,
        )
        .map((stem) => growthOf(stem, view, head, arms, withCanes)),
    ),
  )
  const standing = view.stems.filter(isSpurred)
  const filled = new Map(arms.map((arm) => [arm, filledPlaces(arm, standing)]))
  const armStretches = arms.map((arm): Stretch => armStretch(arm, filled.get(arm)!))
  const upper = withCanes ? upperWire(view, wire, head) : null
  const caneStretches = upper ? SIDES.map((side) => outwards(view, upper, head.at.xM, side, false)) : []
  const fillers = fillersOf(arms, growths, filled)
  const candidates = growths.map((growth) => ({
    pieceId: growth.stem.id,
    letter: growth.letter,
    judgements: growth.judgements,
    options: [
      ...optionsOf(growth, view, head, upper, caneStretches, (arm, place) => filled.get(arm)!.has(place)),
    ].flatMap((one) =>
      one.deed === 'spur' && growth.arm && fillers.get(growth.arm)!.has(placeOf(growth.arm, growth.alongM))
        ? [one, longSpur(growth.stem, view, one.cost - FILL_BONUS, { covers: one.covers })]
        : [one],
    ),
  }))
  const standingBuds = standing.reduce((sum, { buds }) => sum + buds, 0)
  return {
    code: withCanes ? 'extra-canes' : 'spurs',
    counts: 'buds',
    tellsBare: false,
    stretches: armStretches,
    candidates,
    rules: rulesOf(growths, candidates),
    never: overlaps(candidates),
    crossings: [],
    standingBuds,
    budsBySide: budsBySide(view, head, standing),
    // Extra canes are there to come near the figure itself; spurs alone need only be near enough.
    buds: { ...view.target, costPerBud: COST_PER_BUD, isTight: withCanes },
    weights: { gapPerM: 10, overlapPerM: 12 },
    followUps: (chosen) => spentSpurs(view, arms, (id) => chosen.get(id)?.deed ?? null),
    remarks: (chosen) => {
      const laid = candidates.filter(({ pieceId }) => chosen.get(pieceId)?.deed === 'lay')
      const extra = laid.reduce((sum, { pieceId }) => sum + chosen.get(pieceId)!.buds, 0)
      return [
        ...missingPlaces(arms, standing, growths, view.settings.spurBuds, (id) => chosen.get(id) ?? null),
        ...(extra > 0 ? [remark('thinning-reserve', { n: extra, figure: laid.length, unit: 'count' })] : []),
      ]
    },
  }
}

function growthOf(
  stem: Stem,
  view: PlantView,
  head: Head,
  arms: readonly CordonArm[],
  withCanes: boolean,
): Growth {
  const found = arms
    .map((arm) => ({ arm, on: placeOn(stem, arm.stem) }))
    .find((one): one is { arm: CordonArm; on: { alongM: number; outM: number } } => one.on !== null)
  const wayM = wayToHeadM(stem, head)
  const isAtHead = !stem.isBelowGraft && wayM <= view.settings.headReachM && stem.parent !== null
  const isAtEnd =
    found !== undefined && found.arm.stem.lengthM - found.on.alongM <= view.settings.spurStepM * 0.75
  const judgements = [...judgeWood(stem, view), ...judgeGive(stem)]
  if (found) {
    judgements.push(
      found.on.outM <= 0.02
        ? speaksFor('low-on-spur', 0.8, found.on.outM, 'm')
        : speaksAgainst('high-on-spur', CREEP_POINTS_PER_M * found.on.outM, found.on.outM, 'm'),
    )
  }
  if (withCanes && isAtHead) judgements.push(tells('at-head'))
  if (withCanes && isAtEnd) judgements.push(tells('at-arm-end'))
  if (!found && !isAtHead) judgements.push(speaksAgainst('from-trunk', 4, wayM, 'm'))
  return {
    stem,
    arm: found?.arm ?? null,
    alongM: found?.on.alongM ?? 0,
    outM: found?.on.outM ?? 0,
    isAtHead,
    isAtEnd,
    judgements,
  }
}

function optionsOf(
  growth: Growth,
  view: PlantView,
  head: Head,
  upper: Wire | null,
  stretches: readonly Stretch[],
  isFilled: (arm: CordonArm, place: number) => boolean,
): Option[] {
  const { stem, arm, judgements } = growth
  if (barsToKeep(stem).length > 0) return [off()]
  const points = sumOfPoints(judgements)
  const options = [off()]
  if (arm) {
    const step = arm.stem.lengthM / arm.placesM.length
    const place = placeOf(arm, growth.alongM)
    const covers = [{ track: arm.stem.id, fromM: place * step, toM: (place + 1) * step }]
    const cost = isFilled(arm, place) ? SECOND_SPUR_COST : 0
    options.push(spur(stem, view, cost - points * 0.3, { covers: isFilled(arm, place) ? [] : covers }))
  } else options.push(spur(stem, view, 2, { isOnlyAsked: true }))
  if (upper && !isBarred(judgements) && (growth.isAtHead || growth.isAtEnd)) {
    const ways = growth.isAtEnd ? SIDES : [sideOf(stem, head)]
    for (const towards of ways) {
      const stretch = stretches[towards === 'left' ? 0 : 1]!
      options.push(...caneLays(growth, upper, towards, stretch, head, EXTRA_CANE_COST - points))
    }
  }
  return options
}

/** An extra cane along the upper wire: outwards from the head; from an arm's end on, or back towards the head. */
function caneLays(
  { stem, isAtEnd }: Growth,
  upper: Wire,
  towards: 'left' | 'right',
  stretch: Stretch,
  head: Head,
  cost: number,
): Option[] {
  const sign = towards === 'left' ? -1 : 1
  const isBack = isAtEnd && (stem.base.xM - head.at.xM) * sign < 0
  const ends = [upper.path[0]!.xM, upper.path.at(-1)!.xM] as const
  const endXM = isBack ? head.at.xM : isAtEnd ? (sign > 0 ? ends[1] : ends[0]) : stretch.path.at(-1)!.xM
  const to: Stretch = { ...stretch, path: [head.at, { xM: endXM, yM: heightOn(upper.path, endXM) }] }
  return laysAlong(stem, upper, towards, to, head, Infinity)
    .slice(0, 1)
    .map((lay) => ({
      ...lay,
      cost: cost + (isBack ? 0.5 : 0),
      // It fills nothing that is wanted: it is there for its buds.
      covers: [],
    }))
}

function upperWire(view: PlantView, wire: Wire, head: Head): Wire | null {
  const above = levelWires(view).filter(
    (one) =>
      one.number > wire.number &&
      heightOn(one.path, head.at.xM) - heightOn(wire.path, head.at.xM) <= NEXT_WIRE_M,
  )
  return above[0] ?? wire
}

function rulesOf(growths: readonly Growth[], candidates: Question['candidates']): Rule[] {
  const refs = (deed: string, isOurs: (growth: Growth) => boolean) =>
    candidates.flatMap(({ pieceId, options }, i) =>
      isOurs(growths[i]!)
        ? options
            .filter((one) => one.deed === deed && !one.isOnlyAsked)
            .map(({ id }) => [pieceId, id] as const)
        : [],
    )
  const places = new Map<string, Growth[]>()
  for (const growth of growths) {
    if (!growth.arm) continue
    const key = `${growth.arm.stem.id}:${placeOf(growth.arm, growth.alongM)}`
    places.set(key, [...(places.get(key) ?? []), growth])
  }
  const ends = new Set(growths.filter((one) => one.isAtEnd && one.arm).map((one) => one.arm!.stem.id))
  const all: Rule[] = [
    ...[...places.values()].map(
      (here): Rule => ({
        code: 'one-for-a-place',
        options: refs('spur', (growth) => here.includes(growth)),
        min: 0,
        max: 1,
      }),
    ),
    {
      code: 'two-at-head',
      options: refs('lay', (growth) => growth.isAtHead && !growth.isAtEnd),
      min: 0,
      max: 2,
    },
    ...[...ends].map(
      (armId): Rule => ({
        code: 'one-at-arm-end',
        options: refs('lay', (growth) => growth.isAtEnd && growth.arm?.stem.id === armId),
        min: 0,
        max: 1,
      }),
    ),
  ]
  return all.filter(({ options, max }) => options.length > max)
}

/** Extra canes must not lie over each other. */
function overlaps(candidates: Question['candidates']): Question['never'] {
  const TOUCH_M = 0.05
  const laid = candidates.flatMap(({ pieceId, options }) =>
    options
      .filter(({ deed }) => deed === 'lay')
      .map((one) => ({ ref: [pieceId, one.id] as const, span: spanOf(one) })),
  )
  return laid.flatMap((a, i) =>
    laid
      .slice(i + 1)
      .filter(
        (b) =>
          b.ref[0] !== a.ref[0] && Math.min(a.span[1], b.span[1]) - Math.max(a.span[0], b.span[0]) > TOUCH_M,
      )
      .map((b) => ({ code: 'one-on-a-stretch' as const, a: a.ref, b: b.ref })),
  )
}

function spanOf({ path }: Option): readonly [number, number] {
  // What only rises to the wire lies over nothing.
  const xs = (path ?? []).slice(1).map(({ xM }) => xM)
  return xs.length > 0 ? [Math.min(...xs), Math.max(...xs)] : [0, 0]
}

/** Old spurs are cut beyond the shoot that is kept on them. */
function spentSpurs(
  view: PlantView,
  arms: readonly CordonArm[],
  deedOf: (pieceId: string) => string | null,
): FollowUp[] {
  const BEYOND_M = 0.01
  return arms.flatMap(({ stem }) =>
    view.childrenOf(stem.id).flatMap((old): FollowUp[] => {
      if (old.age < 2) return []
      const kept = view.childrenOf(old.id).filter((child) => ['spur', 'lay'].includes(deedOf(child.id) ?? ''))
      const cutM = Math.max(...kept.map(({ alongM }) => alongM)) + BEYOND_M
      if (kept.length === 0 || cutM >= old.lengthM - BEYOND_M) return []
      return [{ pieceId: old.id, deed: 'cut', cutM, aboveBuds: null, path: null, why: 'spent-spur' }]
    }),
  )
}
