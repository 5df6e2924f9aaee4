import type { StepKind } from '@klados/core/bill'
import { endingOf } from '@klados/core/catalogue'
import { elevationSvg } from '@klados/core/formats'
import { drawBay, drawSite } from '@klados/core/drawing'
import type { Bay } from '@klados/core/drawing'
import { frameKinds, groundAt, isPost } from '@klados/core/frame'
import type { Frame, Line, SheetPart } from '@klados/core/frame'
import type { TFunction } from 'i18next'
import { listPlain } from '../i18n/language.ts'
import { formatDate, todayHere } from '../data/dates.ts'
import type { SheetContent, SheetDrawing, SheetItem, SheetSection } from '../documents/sheet-content.ts'
import { formatMoney } from '../ui/money.ts'
import { dimensionMarks } from './dimensions.ts'
import { drawLaid, isLong } from './lay-out.ts'
import { linesInWords } from './line-words.ts'
import { quantityText } from './names.ts'
import type { SheetInput } from './sheet-input.ts'
import { checkWords, outcomeWords } from './verdict.ts'
import { warningWords } from './warning-words.ts'
import { counted, unchecked } from './sheet-counted.ts'
import { onOtherParts } from './sheet-places.ts'
import { fixings, isStrained, standing, uprights, wires } from './sheet-frame.ts'
import {
  alongStyle,
  figureText,
  findingWords,
  isMoved,
  kitWords,
  markOutWords,
  pieceLetter,
  tapeStyle,
  offText,
} from './words.ts'

/** What the sheet says, in the reader's words and units: stated here alone, for the page and the PDF. */
export function sheetContent(input: SheetInput): SheetContent {
  const { t, units } = input
  return {
    ...sheetHeading(input),
    paper: units.system === 'metric' ? 'A4' : 'LETTER',
    drawings: drawings(input),
    ...inOrder(input),
    pageText: (page, of) => t('sheet.page', { page, of }),
  }
}

export function sheetHeading({ t, place, body, version, isDraft }: SheetInput) {
  return {
    title: t('sheet.title', { frame: body.name, place: place.body.name }),
    subtitle: listPlain([
      t('sheet.madeOn', { date: formatDate(todayHere()), version }),
      ...(isDraft ? [t('sheet.draft')] : []),
      ...(body.design.repeat > 1 ? [t('sheet.repeat', { count: body.design.repeat })] : []),
    ]),
  }
}

/**
 * What stands before the drawings, and what after them: where something does not hold, cannot be told or is to be
 * minded, that is what the first page begins with.
 */
export function inOrder(input: SheetInput): Pick<SheetContent, 'first' | 'sections'> {
  const sections = sheetSections(input)
  const alarm = onSpots(input)
  const isOpen = input.plan.outcome.open > 0 || input.plan.warnings.length > 0
  return isOpen
    ? { first: [...alarm, ...sections.slice(0, 1)], sections: sections.slice(1) }
    : { first: alarm, sections }
}

/**
 * From whether it holds, through what can hurt, to what is marked, bought, cut and strung, in that order; of
 * what is cut and driven, the parts that its kind of frame has.
 */
export function sheetSections(input: SheetInput): SheetSection[] {
  const has = new Set<SheetPart>(frameKinds[input.body.design.pattern.kind].sheet)
  return [
    ...checks(input),
    ...counted(input),
    ...cautions(input),
    ...markOut(input),
    ...uprights(input),
    ...onOtherParts(input),
    ...wires(input),
    ...fixings(input),
    ...figures(input),
    ...(has.has('anchors') ? anchors(input) : []),
    ...unchecked(input),
    ...materials(input),
    ...(has.has('members') ? lengthsToSaw(input) : []),
    ...(has.has('stringing') ? [...cutList(input), ...order(input)] : []),
  ]
}

function drawings({ t, units, catalogue, place, body, plan: { frame, lines } }: SheetInput): SheetDrawing[] {
  if (!frame) return []
  const title = t('sheet.title', { frame: body.name, place: place.body.name })
  const front = [
    ...drawSite(place.body, place.body.surface),
    ...drawLaid(frame, catalogue),
    ...dimensionMarks(frame, place.body, units),
  ]
  const views = frame.hasDepth ? (['side', 'plan'] as const) : []
  const bay = isLong(place.body) ? drawBay(frame, drawLaid(frame, catalogue), lines) : null
  const bayDrawing = ({ list }: Bay): SheetDrawing => ({
    caption: t('frame.bay'),
    svg: (fit) => elevationSvg(list, title, fit),
  })
  return [
    { caption: '', svg: (fit) => elevationSvg(front, title, fit) },
    ...(bay ? [bayDrawing(bay)] : []),
    ...views.map(
      (view): SheetDrawing => ({
        caption: t(`sheet.views.${view}`),
        svg: (fit) => elevationSvg(drawLaid(frame, catalogue, view), title, fit),
      }),
    ),
  ]
}

/** What would be drilled or dug into what was to be left alone: before all else. */
function onSpots({ t, units, plan }: SheetInput): SheetSection[] {
  const items = (plan.frame?.findings ?? []).flatMap((finding): SheetItem[] =>
    finding.code === 'frame/no-line-near'
      ? []
      : [
          {
            lead: finding.code === 'frame/post-on-spot' ? finding.label : String(finding.number),
            text: findingWords(t, units, finding),
          },
        ],
  )
  const groups = [{ title: null, items }]
  return items.length === 0 ? [] : [{ kind: 'list', title: t('sheet.onSpots'), groups, isAlarm: true }]
}

/** How it stands with what has to hold, before anything is bought. */
function checks({ t, plan, units, names, catalogue }: SheetInput): SheetSection[] {
  const minds = plan.warnings.map(
    (one): SheetItem => ({
      lead: t('check.minds'),
      text: warningWords(t, units, one),
    }),
  )
  if (plan.checks.length === 0 && minds.length === 0) return []
  const items = plan.checks.map((check): SheetItem => {
    const { title, verdict, needs, remedy } = checkWords({ t, units, names, catalogue }, check)
    const why = check.verdict === 'holds' ? [] : [needs, ...(remedy === null ? [] : [remedy])]
    return { lead: title, text: [verdict, ...(why.length > 0 ? [why.join(' ')] : [])].join('. ') }
  })
  const intro = plan.checks.some((check) => check.isStructural) ? { intro: t('check.structural') } : {}
  const title = `${t('check.title')}: ${outcomeWords(t, plan.outcome)}`
  return [{ kind: 'list', title, ...intro, groups: [{ title: null, items: [...minds, ...items] }] }]
}

/** Step by step what it takes and what can hurt, before anything is begun. */
function cautions(input: SheetInput): SheetSection[] {
  const { t, plan } = input
  const items = (plan.takeOff?.steps ?? []).map((step): SheetItem => {
    const warned = step.cautions.map((one) => t(`caution.${one}`))
    const craft = craftWords(input, step.kind)
    return {
      lead: t(
        step.kind === 'cover' && plan.frame?.traits.isCover !== true ? 'step.wrap' : `step.${step.kind}`,
      ),
      text: [`${kitWords(t, step)}.`, craft, ...warned].join(' '),
    }
  })
  if (items.length === 0) return []
  return [{ kind: 'list', title: t('slip.cautions'), groups: [{ title: null, items }], isBoxed: true }]
}

/** How the craft does a step: into masonry or wood, with strained wire or with string. */
function craftWords(input: SheetInput, step: StepKind): string {
  const { t, plan } = input
  if (step === 'string' && !isStrained(plan)) return t('craft.cord')
  // What is wrapped round a pole is no cover.
  if (step === 'cover' && plan.frame?.traits.isCover !== true) return t('craft.wrap')
  if (step === 'drill' && plan.takeOff?.drill?.plugMm === null) return t('craft.drillWood')
  if (step === 'string') return t('craft.string', { ends: endsInWords(input) })
  return t(`craft.${step}`)
}

/** How the ends of what is strained are made off, each way once. */
function endsInWords({ t, body, plan }: SheetInput): string {
  const endings = plan.lines.map(({ wire }) => endingOf(wire, body.design.wireEnding))
  return [...new Set(endings)].map((ending) => t(`craft.ends.${ending}`)).join(' ')
}

function markOut({ t, units, place, plan }: SheetInput): SheetSection[] {
  if (!plan.markOut || plan.markOut.rows.length === 0) return []
  const { rows, diagonals } = plan.markOut
  type Row = (typeof rows)[number]
  const length = (m: number) => units.length(m, tapeStyle(m))
  const across = diagonals.map(({ from, to, lengthM }) =>
    t('slip.diagonalReads', { from, to, length: length(lengthM) }),
  )
  const check = across.length === 0 ? '' : ` ${t('slip.diagonals', { diagonals: listPlain(across) })}`
  const ideal = (row: Row) => {
    if (!isMoved(row)) return ''
    return row.what === 'node'
      ? `${length(row.idealAlongM)}, ${length(row.idealHeightM)}`
      : t('elevation.moved', { distance: length(row.movedM) })
  }
  const columns = [
    {
      title: t('slip.along'),
      cell: (row: Row) => offText(t, units, row.alongM, alongStyle(row, place.body.widthM), 'along'),
    },
    { title: t('slip.height'), cell: (row: Row) => (row.what === 'node' ? length(row.heightM) : '') },
    {
      title: t('slip.back'),
      cell: (row: Row) =>
        Math.abs(row.outM) > 1e-3 ? offText(t, units, row.outM, tapeStyle(row.outM), 'back') : '',
    },
    { title: t('sheet.ideal'), cell: ideal },
  ].filter(({ cell }) => rows.some((row) => cell(row) !== ''))
  return [
    {
      kind: 'table',
      title: t('slip.markOut'),
      intro: `${markOutWords(t, plan.markOut, place.body.viewingEnd)}${check}`,
      header: [t('slip.mark'), ...columns.map(({ title }) => title)],
      rows: rows.map((row) => [row.label, ...columns.map(({ cell }) => cell(row))]),
      isTicked: true,
    },
  ]
}

/** Lengths, holes and fillings of this kind of frame that are neither marked nor bought. */
function figures(input: SheetInput): SheetSection[] {
  const { t, units, plan } = input
  const own = (plan.frame?.figures ?? []).map(
    (one): SheetItem => ({
      lead: t(`figure.${one.key}`),
      text: figureText(units, one),
    }),
  )
  const items = [...own, ...standing(input)]
  return items.length === 0
    ? []
    : [{ kind: 'list', title: t('sheet.figures'), groups: [{ title: null, items }] }]
}

/** How each ground screw goes in: in line with what it holds, or upright under a post. */
function anchors({ t, names, catalogue, plan }: SheetInput): SheetSection[] {
  const items = (plan.frame?.anchors ?? []).map(({ label, screwId, at, towards }): SheetItem => {
    const screw = catalogue.screws.find((one) => one.id === screwId)
    const awayM = Math.hypot(towards.xM - at.xM, towards.zM - at.zM)
    const degrees = Math.round((Math.atan2(towards.yM - at.yM, awayM) * 180) / Math.PI)
    const what = screw ? names.screw(screw) : screwId
    return { lead: label, text: t('sheet.anchor', { what, degrees }) }
  })
  return items.length === 0
    ? []
    : [{ kind: 'list', title: t('slip.anchors'), groups: [{ title: null, items }] }]
}

function materials({ t, units, names, catalogue, plan, currency }: SheetInput): SheetSection[] {
  if (!plan.takeOff) return []
  const { items, cost } = plan.takeOff
  return [
    {
      kind: 'table',
      title: t('sheet.materials'),
      header: [t('sheet.item'), t('sheet.quantity'), t('sheet.price')],
      rows: [
        ...items.map((item) => [
          names.item(item, catalogue),
          quantityText(units, item, catalogue),
          formatMoney(item.price, currency),
        ]),
        [t('sheet.total'), '', formatMoney(cost, currency)],
      ],
      isTotal: true,
    },
  ]
}

/** A hundred rows repeat the same roll; past these the rest is the same again. */
const ROLLS_LISTED = 24

function cutList({ t, units, names, plan }: SheetInput): SheetSection[] {
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

function lengthsToSaw({ t, units, names, plan }: SheetInput): SheetSection[] {
  const items = plan.stock.map(
    ({ stock, lengthsM }): SheetItem => ({
      lead: names.stock(stock),
      text: listPlain(grouped(lengthsM).map(([lengthM, count]) => `${count} × ${units.cut(lengthM, 'saw')}`)),
    }),
  )
  return items.length === 0
    ? []
    : [{ kind: 'list', title: t('sheet.sawList'), groups: [{ title: null, items }] }]
}

/** Equal lengths together, longest first: to the millimetre, as a saw cuts. */
function grouped(lengthsM: readonly number[]): [number, number][] {
  const byMm = new Map<number, number>()
  for (const lengthM of lengthsM) {
    const mm = Math.round(lengthM * 1000)
    byMm.set(mm, (byMm.get(mm) ?? 0) + 1)
  }
  return [...byMm].sort(([a], [b]) => b - a).map(([mm, count]) => [mm / 1000, count])
}

/** Piece by piece the way each is strung, by the marks on the wall, and as which wire of the frame. */
function order(input: SheetInput): SheetSection[] {
  const { t, units, names, place, plan } = input
  const { frame } = plan
  if (!frame) return []
  const lineName = linesInWords(t, frame)
  const linesOf = linesOfPieces(frame)
  const isOnPosts = frame.members.some((member) => isPost(member.role))
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
      const isOneWire = linesOf(piece.nodes).length === 1 && wound(input) === null
      return {
        letter: pieceLetter(i),
        length,
        which: which(piece.nodes),
        way: wound(input) ?? way,
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
function wound({ t, units, body, plan }: SheetInput): string | null {
  const { pattern } = body.design
  if (pattern.kind !== 'spiral') return null
  const cord = plan.frame?.lines.find(({ role }) => role === 'cord')
  const nodes = plan.frame?.runs.filter(({ line }) => line.id === cord?.id) ?? []
  const [first, last] = [nodes[0], nodes.at(-1)]
  if (!plan.frame || !first || !last) return null
  const chords = pattern.turns * pattern.stakes
  return t('sheet.woundOnto', {
    from: plan.frame.nodes[first.from]!.label,
    to: plan.frame.nodes[last.to]!.label,
    start: units.length(pattern.startHeightM, 'short'),
    turns: pattern.turns,
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
