import type { StepKind } from '@klados/core/bill'
import { elevationSvg } from '@klados/core/formats'
import { drawBay, drawSite } from '@klados/core/drawing'
import type { Bay } from '@klados/core/drawing'
import { frameKinds } from '@klados/core/frame'
import type { SheetPart } from '@klados/core/frame'
import { listPlain } from '../i18n/language.ts'
import { formatDate, todayHere } from '../data/dates.ts'
import type { SheetContent, SheetDrawing, SheetItem, SheetSection } from '../documents/sheet-content.ts'
import { formatMoney } from '../ui/money.ts'
import { dimensionMarks } from './dimensions.ts'
import { drawLaid, isLong } from './lay-out.ts'
import { quantityText } from './names.ts'
import type { SheetInput } from './sheet-input.ts'
import { checkWords, outcomeWords } from './verdict.ts'
import { warningWords } from './warning-words.ts'
import { counted, unchecked } from './sheet-counted.ts'
import { cutList, endsInWords, lengthsToSaw, order } from './sheet-strung.ts'
import { onOtherParts } from './sheet-places.ts'
import { fixings, isStrained, standing, uprights, wires } from './sheet-frame.ts'
import {
  alongStyle,
  figureText,
  findingWords,
  isMoved,
  kitWords,
  markOutWords,
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
