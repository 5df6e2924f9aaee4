import type { PlantView, Stem } from './plant.ts'
import type { FigureUnit, Judgement } from './question.ts'

/** What every craft sees of wood; its words are in the common texts. */
export type CommonJudgement =
  | 'pencil-thick'
  | 'thin'
  | 'thin-and-short'
  | 'thick'
  | 'thick-long-joints'
  | 'short-joints'
  | 'long-joints'
  | 'short'
  | 'well-lit'
  | 'shaded'
  | 'pliable'
  | 'stiff-forward'
  | 'stiff'
  | 'below-graft'
  | 'diseased'
  | 'dead'
  | 'weak'
  | 'crossing'
  | 'woven'
  | 'meant-for'

const judgement =
  <Code extends string>(tone: Judgement['tone']) =>
  (code: Code, points = 0, figure: number | null = null, unit: FigureUnit | null = null): Judgement => ({
    code,
    tone,
    figure,
    unit,
    points: tone === 'against' ? -points : points,
  })

/** How a craft judges: in the common words, and in its own. */
export const judgingIn = <Own extends string>() => ({
  speaksFor: judgement<CommonJudgement | Own>('for'),
  speaksAgainst: judgement<CommonJudgement | Own>('against'),
  /** It cannot be chosen whatever else speaks for it. */
  bars: judgement<CommonJudgement | Own>('bars'),
  /** It moves nothing. */
  tells: judgement<CommonJudgement | Own>('tells'),
})

const { speaksFor, speaksAgainst, bars, tells } = judgingIn<never>()

/** What bars wood from being kept at all, whatever the system: where it comes from and how it is. */
export function barsToKeep(stem: Stem): Judgement[] {
  const found: Judgement[] = []
  if (stem.isBelowGraft) found.push(bars('below-graft'))
  if (stem.piece.health === 'dead') found.push(bars('dead'))
  if (stem.piece.health === 'sick') found.push(bars('diseased'))
  return found
}

/** How the wood is, as every system sees it: thickness, joints, light, health, give. */
export function judgeWood(stem: Stem, view: PlantView): Judgement[] {
  const { settings, kind } = view
  const { piece, baseMm, lengthM, internodeM } = stem
  const [thin, thick] = settings.pencilMm
  const found = barsToKeep(stem)
  const hasLongJoints = internodeM > kind.internodeM * settings.longJoint
  const isShort = lengthM < settings.shortM
  if (baseMm < thin)
    found.push(
      isShort
        ? speaksAgainst('thin-and-short', 4, baseMm, 'mm')
        : speaksAgainst('thin', 1.5 + (thin - baseMm), baseMm, 'mm'),
    )
  else if (baseMm > thick)
    found.push(
      hasLongJoints
        ? speaksAgainst('thick-long-joints', 4, baseMm, 'mm')
        : speaksAgainst('thick', 1 + (baseMm - thick) * 0.5, baseMm, 'mm'),
    )
  else found.push(speaksFor('pencil-thick', 1.5, baseMm, 'mm'))
  if (isShort && baseMm >= thin) found.push(tells('short', 0, lengthM, 'm'))
  if (baseMm <= thick && stem.areBudsCounted) {
    if (hasLongJoints) found.push(speaksAgainst('long-joints', 1, internodeM, 'm'))
    else if (internodeM <= kind.internodeM) found.push(speaksFor('short-joints', 0.6, internodeM, 'm'))
  }
  if (piece.light === 'well-lit') found.push(speaksFor('well-lit', 0.8))
  if (piece.light === 'shaded') found.push(speaksAgainst('shaded', 1.5))
  if (piece.fault === 'crossing') found.push(speaksAgainst('crossing', 3))
  if (piece.fault === 'weak' || piece.health === 'doubtful') found.push(speaksAgainst('weak', 3))
  if (piece.fault === 'woven') found.push(tells('woven'))
  if (piece.meantFor !== null) found.push(speaksFor('meant-for', 0.8))
  return found
}

/** Whether it can be bent down at all: what is stiff and stands forward cannot. */
export function judgeGive(stem: Stem): Judgement[] {
  const { bends, side } = stem.piece
  if (bends === 'stiff') return [bars(side === 'front' ? 'stiff-forward' : 'stiff')]
  return bends === 'pliable' ? [speaksFor('pliable', 0.3)] : []
}

/**
 * Least radius to which wood bends without breaking, metres: some multiple of its thickness, the larger the older the
 * wood (the craft's rule of thumb; young wood on a mild day, eased down over two visits where it is near the limit).
 */
export function bendRadiusM(stem: Pick<Stem, 'baseMm' | 'age' | 'piece'>): number {
  const TIMES = stem.age <= 1 ? 12 : stem.age === 2 ? 20 : 40
  return (stem.baseMm / 1000) * TIMES
}

export const sumOfPoints = (judgements: readonly Judgement[]): number =>
  judgements.reduce((sum, { points }) => sum + points, 0)

export const isBarred = (judgements: readonly Judgement[]): boolean =>
  judgements.some(({ tone }) => tone === 'bars')

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ'

/** The best first: what is barred last, then by what speaks for it; where those are alike, by `then`. */
export const inMerit = <T extends { readonly judgements: readonly Judgement[] }>(
  all: readonly T[],
  then: (a: T, b: T) => number = () => 0,
): T[] =>
  [...all].sort(
    (a, b) =>
      Number(isBarred(a.judgements)) - Number(isBarred(b.judgements)) ||
      sumOfPoints(b.judgements) - sumOfPoints(a.judgements) ||
      then(a, b),
  )

/** Letters in the order of merit: the best is A. */
export function lettered<T>(inOrder: readonly T[]): (T & { readonly letter: string })[] {
  return inOrder.map((one, i) => ({
    ...one,
    letter:
      i < LETTERS.length ? LETTERS[i]! : `${LETTERS[i % LETTERS.length]}${Math.floor(i / LETTERS.length)}`,
  }))
}
