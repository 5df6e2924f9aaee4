import { endingOf } from '@klados/core/catalogue'
import { groundAt, isPost } from '@klados/core/frame'
import type { Frame, Line } from '@klados/core/frame'
import type { TFunction } from '../i18n/texts.ts'
import { formatNumber, listPlain } from '../i18n/language.ts'
import type { SheetItem, SheetSection } from '../documents/sheet-content.ts'
import { linesInWords } from './line-words.ts'
import type { SheetInput } from './sheet-input.ts'
import { isStrained } from './sheet-frame.ts'
import { pieceLetter } from './words.ts'

/** How the ends of what is strained are made off, each way once. */
export function endsInWords({ t, body, plan }: SheetInput): string {
  const endings = plan.lines.map(({ wire }) => endingOf(wire, body.design.wireEnding))
  return [...new Set(endings)].map((ending) => t(`craft.ends.${ending}`)).join(' ')
}

/** A hundred rows repeat the same roll; past these the rest is the same again. */
const ROLLS_LISTED = 24

export function cutList({ t, units, names, plan }: SheetInput): SheetSection[] {
  const groups = plan.wires.flatMap(({ wire, cutting, stringing }) => {
    if (!cutting || !stringing) return []
    const items = cutting.rolls.slice(0, ROLLS_LISTED).map((roll, n): SheetItem => {
      const pieces = listPlain(
        roll.cuts.map(
          (cut) => `${pieceLetter(cut)} ${units.cut(stringing.pieces[cut]!.cutLengthM, 'shears')}`,
        ),
      )
      return {
        lead: t('sheet.roll', { n: n + 1, length: units.length(roll.lengthM) }),
        text: t('sheet.cuts', { pieces, offcut: units.length(roll.offcutM) }),
      }
    })
    return [{ title: names.wire(wire), items }]
  })
  return groups.length === 0 ? [] : [{ kind: 'list', title: t('sheet.cutList'), groups }]
}

export function lengthsToSaw({ t, units, names, plan }: SheetInput): SheetSection[] {
  const items = plan.stock.map(
    ({ stock, lengthsM }): SheetItem => ({
      lead: names.stock(stock),
      text: listPlain(alike(units, lengthsM).map(([length, count]) => `${count} × ${length}`)),
    }),
  )
  return items.length === 0
    ? []
    : [{ kind: 'list', title: t('sheet.sawList'), groups: [{ title: null, items }] }]
}

/** Lengths that a saw cuts alike together, longest first. */
function alike(units: SheetInput['units'], lengthsM: readonly number[]): [string, number][] {
  const counts = new Map<string, number>()
  for (const lengthM of [...lengthsM].sort((a, b) => b - a)) {
    const length = units.cut(lengthM, 'saw')
    counts.set(length, (counts.get(length) ?? 0) + 1)
  }
  return [...counts]
}

/** Piece by piece the way each is strung, by the marks on the wall, and as which wire of the frame. */
export function order(input: SheetInput): SheetSection[] {
  const { t, units, names, place, plan } = input
  const { frame } = plan
  if (!frame) return []
  const lineName = linesInWords(t, frame)
  const linesOf = linesOfPieces(frame)
  // Over a roof of rafters wires lie higher than any post.
  const isOnPosts =
    frame.members.some(({ role }) => isPost(role)) && !frame.members.some(({ role }) => role === 'rafter')
  const which = (piece: readonly number[]): string | null => {
    const lines = linesOf(piece)
    const [line] = lines
    if (!line || lines.length > NAMED_AT_MOST) return null
    const name = listPlain(lines.map(({ id }) => lineName.get(id)!))
    if (lines.length > 1 || line.role === 'tie-back' || !isOnPosts) return name
    // Half way along, where no end post leans.
    const { at } = frame.nodes[piece[piece.length >> 1]!]!
    const heightM = at.yM - groundAt(place.body, at.xM)
    return t('sheet.wireAt', { name, height: units.length(heightM, 'short') })
  }
  const groups = plan.wires.flatMap(({ wire, stringing }) => {
    if (!stringing) return []
    const strung = stringing.pieces.map((piece, i) => {
      const [from, ...rest] = piece.nodes.map((index) => frame.nodes[index]!.label)
      const to = rest.pop()
      const way =
        rest.length > 0
          ? t('sheet.steps', { from, through: listPlain(rest), to })
          : t('sheet.stepsDirect', { from, to })
      const length = units.cut(piece.cutLengthM, 'shears')
      const isOneWire = linesOf(piece.nodes).length === 1 && wound(input, piece.nodes) === null
      return {
        letter: pieceLetter(i),
        length,
        which: which(piece.nodes),
        way: wound(input, piece.nodes) ?? way,
        supports: isOneWire ? piece.nodes.length - 2 : null,
      }
    })
    return [{ title: names.wire(wire), items: alikeTogether(t, strung) }]
  })
  if (groups.length === 0) return []
  const intro = isStrained(plan) ? { intro: t('sheet.strainer', { ends: endsInWords(input) }) } : {}
  return [{ kind: 'list', title: t('sheet.order'), ...intro, groups }]
}

interface StrungPiece {
  readonly letter: string
  readonly length: string
  readonly which: string | null
  readonly way: string
  /** What it passes between its ends, where it is one straight wire of the frame. */
  readonly supports: number | null
}

/** Fewer pieces than this are told one by one, with every node that each goes through. */
const ALIKE_FROM = 3

/**
 * Pieces of one length that go the same way are said once, with all that they are; so are whole wires of one length
 * over as many supports, which go from end to end each at its own height.
 */
function alikeTogether(t: TFunction, pieces: readonly StrungPiece[]): SheetItem[] {
  const groups = new Map<string, StrungPiece[]>()
  const add = (key: string, piece: StrungPiece) => groups.set(key, [...(groups.get(key) ?? []), piece])
  const wiresOf = (of: StrungPiece) =>
    pieces.filter((one) => one.supports !== null && one.supports === of.supports && one.length === of.length)
  const isLikeMany = (piece: StrungPiece) =>
    piece.supports !== null && piece.which !== null && wiresOf(piece).length >= ALIKE_FROM
  for (const piece of pieces)
    add(`${piece.length} ${isLikeMany(piece) ? `over ${piece.supports}` : piece.way}`, piece)
  return [...groups.values()].map((alike): SheetItem => {
    const [first] = alike as [StrungPiece]
    const { length, letter } = first
    const letters = listPlain(alike.map((one) => one.letter))
    const named = alike.flatMap(({ which }) => (which === null ? [] : [which]))
    const way = isLikeMany(first) ? t('sheet.endToEnd', { count: first.supports ?? 0 }) : first.way
    return {
      lead: alike.length > 1 ? t('sheet.alike', { letters, length }) : t('sheet.piece', { letter, length }),
      text: listPlain([...named, way]),
    }
  })
}

/** String wound up stakes is not told stake by stake. */
function wound({ t, units, body, plan }: SheetInput, piece: readonly number[]): string | null {
  const { pattern } = body.design
  const { frame } = plan
  if (pattern.kind !== 'spiral' || !frame) return null
  const [from, to] = [frame.nodes[piece[0]!]!, frame.nodes[piece.at(-1)!]!]
  const soilM = frame.members.find(({ role }) => role === 'stake')!.foot!.yM
  const chords = pattern.turns * pattern.stakes
  const turns = (piece.length - 1) / pattern.stakes
  return t('sheet.woundOnto', {
    from: from.label,
    to: to.label,
    start: units.length(from.at.yM - soilM, 'short'),
    end: units.length(to.at.yM - soilM, 'short'),
    turns: formatNumber(turns, Number.isInteger(turns) ? 0 : 1),
    direction: t(`option.winding.${pattern.winding}`),
    rise: units.length((pattern.heightM - pattern.startHeightM) / chords, 'short'),
  })
}

/** A piece that goes over more wires than this is told by its nodes alone. */
const NAMED_AT_MOST = 3

/** Tells the wires of the frame that a piece goes along. */
function linesOfPieces(frame: Frame): (piece: readonly number[]) => readonly Line[] {
  const lineAt = new Map(
    frame.runs.flatMap(({ from, to, line }) => [
      [`${from} ${to}`, line],
      [`${to} ${from}`, line],
    ]),
  )
  return (piece) => {
    const lines = piece.slice(1).flatMap((to, i) => lineAt.get(`${piece[i]} ${to}`) ?? [])
    return [...new Map(lines.map((line) => [line.id, line])).values()]
  }
}
