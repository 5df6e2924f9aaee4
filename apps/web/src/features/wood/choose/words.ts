import { clauses } from '../../../i18n/clauses.ts'
import { polylineLengthM } from '@klados/core/geometry'
import type { Point } from '@klados/core/geometry'
import type {
  Candidate,
  Deed,
  FigureUnit,
  PlantView,
  FollowUp,
  Judgement,
  Position,
  Stem,
  Proposal,
  Question,
  Remark,
} from '@klados/core/training'
import type { ChoiceRecord } from '@klados/core/choices'
import { craftOf } from '../../../i18n/craft-words.ts'
import type { Craft } from '../../../i18n/craft-words.ts'
import type { TFunction } from '../../../i18n/texts.ts'
import { formatDate } from '../../../data/dates.ts'
import type { Units } from '../../../ui/units.tsx'

/** Thickness as one reads it off a gauge: whole millimetres, or marks of an inch. */
export const thickWords = (units: Units, mm: number): string =>
  units.length((units.system === 'metric' ? Math.max(1, Math.round(mm)) : mm) / 1000, 'fine')
/** Where to cut, as one reads it off a tape: whole centimetres, or marks of an inch. */
export const nearWords = (units: Units, metres: number): string =>
  units.length(
    units.system === 'metric' ? Math.round(metres * 100) / 100 : metres,
    metres < 1 ? 'short' : 'long',
  )

export function figureWords(units: Units, figure: number | null, unit: FigureUnit | null): string {
  if (figure === null) return ''
  switch (unit) {
    case 'mm':
      return thickWords(units, figure)
    case 'm':
      return nearWords(units, figure)
    case 'deg':
      return `${Math.round(figure)}°`
    default:
      return String(Math.round(figure))
  }
}

/** What words are said in: the common ones, the reader's units, and those of the craft that the plant is trained by. */
export interface Speech {
  readonly t: TFunction
  readonly units: Units
  readonly craft: Craft
  /** Whether a piece has the figures of a typical plant, which nobody has measured. */
  readonly isTypical: (pieceId: string) => boolean
}

export const speech = (
  t: TFunction,
  units: Units,
  systemId: string | null,
  view: PlantView | null,
): Speech => ({
  t,
  units,
  craft: craftOf(t, systemId),
  isTypical: (pieceId) => view?.stem(pieceId)?.piece.isTypical ?? false,
})

/** A figure as it is, or as about so much. */
export const aboutWords = (t: TFunction, isTypical: boolean, figure: string): string =>
  isTypical && figure !== '' ? t('wood.about', { figure }) : figure

/** What is held against a limit is not rounded onto it: its words ask for the figure to the tenth. */
export function judgementWords(
  { t, units, craft, isTypical }: Speech,
  { code, figure, unit }: Pick<Judgement, 'code' | 'figure' | 'unit'>,
  pieceId: string,
): string {
  const about = (words: string) => aboutWords(t, isTypical(pieceId), words)
  return craft('judgement', code, {
    figure: about(figureWords(units, figure, unit)),
    fine:
      figure !== null && unit === 'mm'
        ? about(
            units.length((units.system === 'metric' ? Math.round(figure * 10) / 10 : figure) / 1000, 'fine'),
          )
        : '',
  })
}

/** What weighs most in one line: what bars first, then the heaviest on either side. */
export function whyWords(
  say: Speech,
  { pieceId, judgements }: Pick<Candidate, 'pieceId' | 'judgements'>,
  most = 3,
): string {
  const isBar = ({ tone }: Judgement) => Number(tone === 'bars')
  const heaviest = [...judgements]
    .filter(({ tone }) => tone !== 'tells')
    .sort((a, b) => isBar(b) - isBar(a) || Math.abs(b.points) - Math.abs(a.points))
    .slice(0, judgements.some((one) => isBar(one)) ? 1 : most)
  return clauses(
    say.t,
    heaviest.map((one) => judgementWords(say, one, pieceId)),
  )
}

/**
 * The same for what is taken off though nothing speaks against it: the rule that has no place for it any more, that the
 * buds are enough, else that there is no room.
 */
export function reasonWords(
  say: Speech,
  { pieceId, judgements, options }: Candidate,
  { question, proposal }: { readonly question: Question; readonly proposal: Proposal },
  most = 3,
): string {
  const { t, craft } = say
  const isSpare =
    proposal.chosen.get(pieceId)?.deed === 'off' &&
    !judgements.some(({ tone }) => tone === 'bars' || tone === 'against')
  if (!isSpare) return whyWords(say, { pieceId, judgements }, most)
  const full = question.rules.find(
    ({ options, max }) =>
      options.some(([id]) => id === pieceId) &&
      options.filter(([id, optionId]) => proposal.chosen.get(id)?.id === optionId).length >= max,
  )
  if (full) return craft('rule', full.code)
  // A wire stays bare all the same: it does not get there, or would fill too little of it.
  const bare = bareTracks(question, proposal)
  if (bare.size > 0) {
    const reaches = options.some(({ covers }) => covers.some(({ track }) => bare.has(track)))
    return t(reaches ? 'choose.fillsLittle' : 'choose.reachesNoBare')
  }
  // A stump of it could stand somewhere; what it is there for is to be laid.
  const laid = options.filter(({ deed }) => deed === 'lay' || deed === 'to-and-fro')
  const fewest = Math.min(...laid.map(({ buds }) => buds))
  const isOver = laid.length > 0 && question.buds.costPerBud > 0 && proposal.buds + fewest > question.buds.max
  return isOver ? t('choose.budsEnough') : craft('rule', 'spare')
}

/** Wires that want wood and have none, where the question is there to fill them. */
function bareTracks({ tellsBare, stretches }: Question, { chosen }: Proposal): ReadonlySet<string> {
  if (!tellsBare) return new Set()
  const covered = new Set([...chosen.values()].flatMap(({ covers }) => covers.map(({ track }) => track)))
  return new Set(stretches.flatMap(({ id, wanted }) => (wanted.length > 0 && !covered.has(id) ? [id] : [])))
}

/** What is done with a piece, as far as its words go. */
export interface DeedWords {
  readonly deed: Deed
  readonly cutM: number | null
  readonly aboveBuds: number | null
  readonly path: readonly Point[] | null
  readonly wire: number | null
  readonly towards: 'left' | 'right' | null
}

/** In the craft's own words for what is done in answer to a question where it has some, else in those of all crafts. */
export function deedWords(
  { t, units, craft }: Speech,
  question: string,
  one: DeedWords,
  manyWires: boolean,
): string {
  const code = `${question}.${one.deed}`
  const own = craft('deed', code, { length: one.cutM === null ? '' : nearWords(units, one.cutM) })
  if (own !== code) return own
  const length = one.path ? units.length(polylineLengthM(one.path)) : ''
  const context = one.towards ?? undefined
  switch (one.deed) {
    case 'lay':
      return manyWires && one.wire !== null
        ? t('choose.deed.layWire', { context, wire: one.wire, length })
        : t('choose.deed.lay', { context, length })
    case 'to-and-fro':
      return t('choose.deed.to-and-fro', { wire: one.wire, length })
    case 'spur':
      return t('choose.deed.spur', { count: one.aboveBuds ?? 0 })
    case 'cut': {
      const at = one.cutM === null ? '' : nearWords(units, one.cutM)
      return one.aboveBuds === null
        ? t('choose.deed.cutAt', { length: at })
        : t('choose.deed.cut', { count: one.aboveBuds, length: at })
    }
    default:
      return t(`choose.deed.${one.deed}`)
  }
}

/** More than one wire is in question, so that it must be said which. */
export const hasManyWires = ({ stretches }: Question): boolean =>
  new Set(stretches.map(({ wire }) => wire).filter((wire) => wire !== null)).size > 1

export function followWords(
  { t, units, craft }: Speech,
  one: Pick<FollowUp, 'why' | 'deed' | 'cutM' | 'aboveBuds'>,
): string {
  const what = craft('follow', one.why)
  if (one.deed === 'off') return t('choose.followOff', { what })
  if (one.deed === 'spur') return t('choose.followSpur', { what, count: one.aboveBuds ?? 0 })
  return one.cutM === null ? what : t('choose.followCut', { what, length: nearWords(units, one.cutM) })
}

/** Lines that say the same once, with how many there are of each, in the order of the first. */
export function countAlike(lines: readonly string[]): { readonly words: string; readonly count: number }[] {
  const counts = new Map<string, number>()
  for (const words of lines) counts.set(words, (counts.get(words) ?? 0) + 1)
  return [...counts].map(([words, count]) => ({ words, count }))
}

/** A remark as a sentence; pieces go by their letters, or by what they are. Its forms go by side, and where it has no piece. */
export function remarkWords(
  { units, craft }: Speech,
  { code, pieceId, figure, unit, n, side, on }: Remark,
  pieceName: (pieceId: string) => string,
  clustersOf: (buds: number) => string,
): string {
  const none = pieceId === null ? ['none'] : []
  const forms = [[...none, ...(side ? [side] : [])], side ? [side] : [], none, []]
  return craft('remark', code, {
    piece: pieceId === null ? '' : pieceName(pieceId),
    figure: figureWords(units, figure, unit),
    n,
    count: n ?? 0,
    forms: forms.map((form) => form.join('_')),
    date: on === null ? '' : formatDate(on),
    clusters: clustersOf(n ?? 0),
  })
}

/** From where a stem grows, so that it can be found without a screen: how far out on which arm, or what it sits on. */
export function whereWords(
  t: TFunction,
  units: Units,
  stem: Stem,
  pieceName: (piece: Stem) => string,
): string {
  if (stem.isBelowGraft) return t('enter.fromGraft')
  if (!stem.parent) return t('enter.fromCrown')
  for (let at = stem; at.parent; at = at.parent) {
    const { parent, alongM } = at
    if (parent.role !== 'arm') continue
    const context = parent.tip.xM < parent.base.xM ? 'left' : 'right'
    return t('choose.whereArm', { context, length: nearWords(units, alongM) })
  }
  return t('choose.where', { piece: pieceName(stem.parent), length: nearWords(units, stem.alongM) })
}

/** A place of the system, as one says it: "spur 3 left". */
export const positionWords = (craft: Craft, { what, side, n }: Position): string =>
  craft('position', what, { n, forms: side ? [side, ''] : [''] })

export const letterOf = (candidates: readonly Candidate[], pieceId: string): string | null =>
  candidates.find((one) => one.pieceId === pieceId)?.letter ?? null

/** Why a choice was made, from what was written down of it: the grower's own reason, else what weighed. */
export function writtenWhy(say: Speech, one: ChoiceRecord['decided'][number]): string {
  if (one.reason) return one.reason
  return clauses(
    say.t,
    (one.judgements ?? []).slice(0, 3).map((judgement) => judgementWords(say, judgement, one.pieceId)),
  )
}
