import { barsToKeep, inMerit, isBarred, judgeGive, lettered, sumOfPoints } from '../../judge.ts'
import { cutAbove, off, option, questionOf } from '../../options.ts'
import type { PlantView, Stem } from '../../plant.ts'
import type { Candidate, Judgement, Option, Question, Remark, Rule, Stretch } from '../../question.ts'
import { trunkOf } from '../../trunk.ts'
import { placeOf, ribsOf } from './ribs.ts'
import type { OnRib, Rib } from './ribs.ts'
import { bars, remark, speaksAgainst, speaksFor, tells } from './says.ts'

/** Shoots that fruit stand a hand's breadth apart on each side of a rib (craft: 10 to 15 cm). */
const APART_M = 0.13
/** A new shoot this near to the base of one that fruits can take its place. */
const AT_BASE_M = 0.1
/** The lowest part of a rib, at the trunk, carries none. */
const FREE_M = 0.1
/** A rib without a living shoot for longer than this from its base is bare there. */
const BARE_M = 0.5
const STRONG_MM = 5
const SHORT_M = 0.15
const BEYOND_M = 0.01
const RIB_DEG = 45
/** So many are told one by one; of more it is said how many. */
const MOST_NAMED = 4
const SIDES = ['left', 'right'] as const
/** What faces the wall has no light, and what stands straight out cannot be tied. */
function judgeFace({ piece }: Stem): Judgement[] {
  if (piece.side === 'back') return [bars('faces-wall')]
  return piece.side === 'front' ? [bars('faces-out')] : []
}

function judgeShoot(stem: Stem): Judgement[] {
  const { fault, health, light } = stem.piece
  const found = [...barsToKeep(stem), ...judgeFace(stem)]
  found.push(
    stem.baseMm >= STRONG_MM
      ? speaksFor('strong-shoot', 1, stem.baseMm, 'mm')
      : speaksAgainst('thin-shoot', 1, stem.baseMm, 'mm'),
  )
  if (stem.lengthM < SHORT_M) found.push(speaksAgainst('short-shoot', 0.5, stem.lengthM, 'm'))
  if (fault === 'crossing') found.push(speaksAgainst('crossing', 2))
  if (fault === 'weak' || health === 'doubtful') found.push(speaksAgainst('weak', 2))
  if (light === 'well-lit') found.push(speaksFor('well-lit', 0.5))
  if (light === 'shaded') found.push(speaksAgainst('shaded', 0.5))
  return found
}

interface Judged {
  readonly stem: Stem
  readonly judgements: readonly Judgement[]
}

const inOrder = (all: readonly Judged[]) => lettered(inMerit(all, (a, b) => a.stem.base.xM - b.stem.base.xM))

const candidatesOf = (
  all: readonly (Judged & { readonly letter: string })[],
  optionsOf: (stem: Stem, judgements: readonly Judgement[]) => readonly Option[],
): Candidate[] =>
  all.map(({ stem, letter, judgements }) => ({
    pieceId: stem.id,
    letter,
    judgements,
    options: optionsOf(stem, judgements),
  }))

/** A tree without ribs: one shoot to each side is led at half a right angle. */
export function ribsQuestion(view: PlantView): Question | null {
  const trunk = trunkOf(view)
  if (!trunk) return null
  const shoots = view.childrenOf(trunk.id).filter(({ age }) => age <= 1)
  if (shoots.length === 0) return null
  const judged = inOrder(
    shoots.map((stem) => ({ stem, judgements: [...judgeShoot(stem), ...judgeGive(stem)] })),
  )
  const candidates = candidatesOf(judged, (stem, judgements) =>
    isBarred(judgements)
      ? [off()]
      : [...SIDES.map((side) => ribOf(stem, side, sumOfPoints(judgements))), off()],
  )
  return questionOf({
    code: 'ribs',
    candidates,
    rules: SIDES.map((side): Rule => {
      const options = candidates.flatMap(({ pieceId, options }) =>
        options.filter(({ towards }) => towards === side).map(({ id }) => [pieceId, id] as const),
      )
      return { code: 'one-each-way', options, min: 0, max: 1 }
    }).filter(({ options }) => options.length > 0),
    remarks: (chosen) => {
      const led = new Set([...chosen.values()].flatMap(({ towards }) => towards ?? []))
      const missing = SIDES.filter((side) => !led.has(side)).map((side) =>
        remark('one-sided', { side, isLack: true }),
      )
      return led.size > 0 ? [remark('held-at-45'), ...missing] : missing
    },
  })
}

/** To the side it leans to it costs nothing; over to the other it is bent across the trunk. */
function ribOf(stem: Stem, side: 'left' | 'right', points: number): Option {
  const ACROSS_COST = 2
  const WANTED = 6
  const sign = side === 'left' ? -1 : 1
  const isAcross = Math.sign(stem.leanDeg) === -sign && Math.abs(stem.leanDeg) > 5
  const angle = (RIB_DEG * Math.PI) / 180
  const tip = {
    xM: stem.base.xM + sign * Math.sin(angle) * stem.lengthM,
    yM: stem.base.yM + Math.cos(angle) * stem.lengthM,
  }
  return option(`rib-${side}`, 'lay', {
    cost: -WANTED - points + (isAcross ? ACROSS_COST : 0),
    path: [stem.base, tip],
    towards: side,
    buds: stem.buds,
  })
}

/** At bud swell: which of last summer's shoots stay to fruit, spread along both sides of each rib. */
export function fruitingQuestion(view: PlantView): Question | null {
  const ribs = ribsOf(view)
  const shoots = view.stems.flatMap((stem) => {
    const at = stem.age === 1 && stem.piece.cuts.length === 0 ? placeOf(stem, ribs) : null
    return at ? [{ stem, at, judgements: judgeShoot(stem) }] : []
  })
  if (shoots.length === 0) return null
  const places = new Map(shoots.map(({ stem, at }) => [stem.id, at]))
  return questionOf({
    code: 'fruiting',
    stretches: ribs.flatMap((rib) => SIDES.map((hand) => stretchOf(rib, hand))),
    candidates: candidatesOf(inOrder(shoots), (stem, judgements) => {
      if (isBarred(judgements)) return [off()]
      const { rib, alongM, hand } = places.get(stem.id)!
      const cover = {
        track: `${rib.stem.id}:${hand}`,
        fromM: Math.max(0, alongM - APART_M / 2),
        toM: Math.min(rib.stem.lengthM, alongM + APART_M / 2),
      }
      return [
        option('keep', 'keep', {
          cost: -0.3 * sumOfPoints(judgements),
          buds: stem.buds,
          covers: cover.toM > cover.fromM ? [cover] : [],
          path: stem.piece.path,
        }),
        off(),
      ]
    }),
    weights: { gapPerM: 10, overlapPerM: 25 },
    remarks: () => barestRib(ribs, [...places.values()]),
  })
}

function stretchOf({ stem }: Rib, hand: 'left' | 'right'): Stretch {
  return {
    id: `${stem.id}:${hand}`,
    lengthM: stem.lengthM,
    wanted: stem.lengthM > FREE_M ? [[FREE_M, stem.lengthM]] : [],
    frameId: null,
    lineId: null,
    wire: null,
    path: stem.piece.path,
  }
}

/** Bare wood does not break again: one rib a year is renewed, the barest, and back to its lowest living shoot at most. */
function barestRib(ribs: readonly Rib[], places: readonly OnRib[]): Remark[] {
  const lowest = (rib: Rib) =>
    Math.min(...places.filter((one) => one.rib === rib).map(({ alongM }) => alongM))
  const [barest] = ribs
    .map((rib) => ({ rib, bareM: lowest(rib) }))
    .filter(({ bareM }) => Number.isFinite(bareM) && bareM > BARE_M)
    .sort((a, b) => b.bareM - a.bareM)
  if (!barest) return []
  const { rib, bareM } = barest
  return [remark('rib-bare', { n: rib.n, side: rib.side, figure: bareM, unit: 'm', isLack: true })]
}

/** In spring: on each shoot that fruits one at its base, a spare, and one at its tip; what faces wall or air comes off. */
export function disbudQuestion(view: PlantView): Question | null {
  const ribs = ribsOf(view)
  const young = view.stems.filter(
    (stem) => stem.age === 0 && stem.parent !== null && placeOf(stem, ribs) !== null,
  )
  if (young.length === 0) return null
  return questionOf({
    code: 'disbud',
    candidates: candidatesOf(
      inOrder(young.map((stem) => ({ stem, judgements: judgeYoung(stem, view, ribs) }))),
      (_, judgements) =>
        isBarred(judgements) ? [off()] : [option('keep', 'keep', { cost: -sumOfPoints(judgements) }), off()],
    ),
  })
}

function judgeYoung(stem: Stem, view: PlantView, ribs: readonly Rib[]): Judgement[] {
  const found = [...barsToKeep(stem), ...judgeFace(stem)]
  if (stem.piece.fault === 'weak') found.push(speaksAgainst('weak', 1))
  const parent = stem.parent!
  if (ribs.some((rib) => rib.stem.id === parent.id)) return [...found, speaksFor('on-rib', 1.5)]
  const sound = view
    .childrenOf(parent.id)
    .filter((one) => one.age === 0 && barsToKeep(one).length === 0 && judgeFace(one).length === 0)
    .sort((a, b) => a.alongM - b.alongM)
  const n = sound.findIndex(({ id }) => id === stem.id)
  if (n < 0) return found
  if (n === 0) return [...found, speaksFor('replacement', 3, stem.alongM, 'm')]
  if (n === sound.length - 1) return [...found, speaksFor('extension', 2)]
  return [...found, n === 1 ? speaksFor('spare', 2) : speaksAgainst('between', 1)]
}

/** After the harvest: each shoot that has fruited goes back to its replacement, and none below its last living shoot. */
export function renewalQuestion(view: PlantView): Question | null {
  const ribs = ribsOf(view)
  const fruited = view.stems.filter(
    (stem) => stem.age === 1 && stem.piece.cuts.length === 0 && placeOf(stem, ribs) !== null,
  )
  if (fruited.length === 0) return null
  // Where nobody has looked since spring, nothing is known of what follows.
  const isKnown = view.stems.some((stem) => stem.age === 0 && placeOf(stem, ribs) !== null)
  const judged = inOrder(
    fruited.map((stem) => ({
      stem,
      judgements: isKnown ? judgeFruited(stem, view) : [...barsToKeep(stem), tells('summer-unknown')],
    })),
  )
  const without = judged.filter(({ judgements }) =>
    judgements.some(({ code }) => code === 'no-replacement' || code === 'bare'),
  )
  return questionOf({
    code: 'renewal',
    isWoodMissing: !isKnown,
    candidates: candidatesOf(judged, (stem) => renewalsOf(stem, view)),
    remarks: () => {
      if (!isKnown) return [remark('enter-new', { isLack: true })]
      return without.length > MOST_NAMED
        ? [remark('no-replacements', { n: without.length, isLack: true })]
        : without.map(({ stem }) => remark('no-replacement', { pieceId: stem.id, isLack: true }))
    },
  })
}

/** New shoots on one that has fruited, the lowest first. */
const followersOf = (stem: Stem, view: PlantView): Stem[] =>
  view
    .childrenOf(stem.id)
    .filter((child) => child.age === 0 && barsToKeep(child).length === 0 && judgeFace(child).length === 0)
    .sort((a, b) => a.alongM - b.alongM)

function judgeFruited(stem: Stem, view: PlantView): Judgement[] {
  const found = barsToKeep(stem)
  const [first] = followersOf(stem, view)
  if (!first) return [...found, found.length > 0 ? tells('no-replacement') : tells('bare')]
  return [
    ...found,
    first.alongM <= AT_BASE_M
      ? speaksFor('has-replacement', 1, first.alongM, 'm')
      : speaksAgainst('no-replacement', 1, first.alongM, 'm'),
  ]
}

function renewalsOf(stem: Stem, view: PlantView): Option[] {
  if (barsToKeep(stem).length > 0) return [off()]
  const [first] = followersOf(stem, view)
  // Cut to bare wood it would die back: it stays until something shoots on it.
  if (!first) return [option('wait', 'wait', { cost: -1 }), off()]
  const cutM = Math.min(stem.lengthM, first.alongM + BEYOND_M)
  const buds = cutAbove(stem, Math.max(1, Math.floor(cutM / stem.internodeM))).aboveBuds
  return [option('to-replacement', 'cut', { cost: -2, cutM, aboveBuds: buds }), option('wait', 'wait')]
}
