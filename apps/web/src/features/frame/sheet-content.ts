import type { Catalogue } from '@klados/core/catalogue'
import type { FramePlan } from '@klados/core/plan'
import type { FrameBody, Place } from '@klados/contract'
import { elevationSvg } from '@klados/core/formats'
import { drawSite } from '@klados/core/drawing'
import type { TFunction } from 'i18next'
import type { PdfSection, PdfSheet } from '../../documents/pdf.ts'
import { drawLaid } from '../../plan/lay-out.ts'
import { quantityText } from '../../plan/names.ts'
import type { Names } from '../../plan/names.ts'
import { checkWords, outcomeWords } from '../../plan/verdict.ts'
import { alongStyle, pieceLetter } from '../../plan/words.ts'
import { formatMoney } from '../../ui/money.ts'
import type { Units } from '../../ui/units.tsx'

interface SheetInput {
  readonly t: TFunction
  readonly units: Units
  readonly names: Names
  readonly catalogue: Catalogue
  readonly place: Place
  readonly body: FrameBody
  readonly plan: FramePlan
  readonly currency: string
  readonly subtitle: string
}

/**
 * Everything that goes on the PDF sheet, in the reader's words and units, from the plan and its one drawing.
 */
export function pdfContent(input: SheetInput): PdfSheet {
  const { t, place, body, plan, catalogue, subtitle, units } = input
  const frame = plan.frame!
  const title = t('sheet.title', { frame: body.name, place: place.body.name })
  const front = [...drawSite(place.body, place.body.surface), ...drawLaid(frame, catalogue)]
  const views = frame.hasDepth ? (['side', 'plan'] as const) : []
  return {
    title,
    subtitle,
    paper: units.system === 'metric' ? 'A4' : 'LETTER',
    drawings: [
      { caption: '', svg: (fit) => elevationSvg(front, title, fit) },
      ...views.map((view): PdfSheet['drawings'][number] => ({
        caption: t(`frame.views.${view}`),
        svg: (fit) => elevationSvg(drawLaid(frame, catalogue, view), title, fit),
      })),
    ],
    sections: [
      ...checks(input),
      ...cautions(input),
      ...markOutSection(input),
      materials(input),
      ...stringing(input),
    ],
    pageText: (page, of) => t('sheet.page', { page, of }),
  }
}

function cautions({ t, plan }: SheetInput): PdfSection[] {
  const items = (plan.takeOff?.cautions ?? []).map((one) => t(`caution.${one}`))
  return items.length === 0 ? [] : [{ kind: 'list', title: t('slip.cautions'), items, isBoxed: true }]
}

function markOutSection({ t, units, place, plan }: SheetInput): PdfSection[] {
  if (!plan.markOut || plan.markOut.rows.length === 0) return []
  const { rows, diagonalM } = plan.markOut
  const length = (m: number) => units.length(m, 'short')
  const intro = `${t(rows.some((row) => row.what === 'node') ? 'slip.markOutFrom' : 'slip.markOutGround', { end: t(`place.${place.body.viewingEnd}`) })}${diagonalM === null ? '' : ` ${t('slip.diagonal')} ${length(diagonalM)}.`}`
  type Row = (typeof rows)[number]
  const ideal = (row: Row) =>
    row.movedM > 5e-4 && row.what === 'node' ? `${length(row.idealAlongM)}, ${length(row.idealHeightM)}` : ''
  const columns = [
    {
      title: t('slip.along'),
      cell: (row: Row) => units.length(row.alongM, alongStyle(row, place.body.widthM)),
    },
    { title: t('slip.height'), cell: (row: Row) => (row.what === 'node' ? length(row.heightM) : '') },
    { title: t('slip.back'), cell: (row: Row) => (Math.abs(row.outM) > 1e-3 ? length(row.outM) : '') },
    { title: t('sheet.ideal'), cell: ideal },
  ].filter(({ cell }) => rows.some((row) => cell(row) !== ''))
  return [
    {
      kind: 'table',
      title: t('slip.markOut'),
      intro,
      header: [t('slip.mark'), ...columns.map(({ title }) => title)],
      rows: rows.map((row) => [row.label, ...columns.map(({ cell }) => cell(row))]),
    },
  ]
}

function materials({ t, names, catalogue, plan, currency }: SheetInput): PdfSection {
  const { items, cost } = plan.takeOff!
  return {
    kind: 'table',
    title: t('sheet.materials'),
    header: [t('sheet.item'), t('sheet.quantity'), t('sheet.price')],
    rows: [
      ...items.map((item) => [
        names.item(item, catalogue),
        quantityText(t, item, catalogue),
        formatMoney(item.price, currency),
      ]),
      [t('sheet.total'), '', formatMoney(cost, currency)],
    ],
    isTotal: true,
  }
}

function stringing({ t, units, names, plan }: SheetInput): PdfSection[] {
  return plan.wires.flatMap(({ wire, stringing: strung, cutting }): PdfSection[] => {
    if (!strung || !plan.frame) return []
    const { nodes } = plan.frame
    const order = strung.pieces.map((piece, i) => {
      const labels = piece.nodes.map((n) => nodes[n]!.label)
      return `${t('sheet.piece', { letter: pieceLetter(i), length: units.length(piece.cutLengthM) })}: ${labels.join(' – ')}`
    })
    const cuts = (cutting?.rolls ?? [])
      .slice(0, MAX_ROLLS_LISTED)
      .map(
        (roll, n) =>
          `${t('sheet.roll', { n: n + 1, length: units.length(roll.lengthM) })}: ${t('sheet.cuts', { pieces: roll.cuts.map((cut) => pieceLetter(cut)).join(', '), offcut: units.length(roll.offcutM) })}`,
      )
    return [
      { kind: 'list', title: `${t('sheet.cutList')}: ${names.wire(wire)}`, items: cuts },
      {
        kind: 'list',
        title: `${t('sheet.order')}: ${names.wire(wire)}`,
        intro: t('sheet.strainer'),
        items: order,
      },
    ]
  })
}

/** A hundred rows repeat the same roll; the rest is the same again. */
const MAX_ROLLS_LISTED = 40

function checks({ t, plan, units, names, catalogue }: SheetInput): PdfSection[] {
  if (plan.checks.length === 0) return []
  const isStructural = plan.checks.some((check) => check.isStructural)
  return [
    {
      kind: 'list',
      title: `${t('check.title')}: ${outcomeWords(t, plan.outcome)}`,
      ...(isStructural ? { intro: t('check.structural') } : {}),
      items: plan.checks.map((check) => {
        const { title, verdict, needs, remedy } = checkWords({ t, units, names, catalogue }, check)
        return check.verdict === 'holds'
          ? `${title}: ${verdict}`
          : `${title}: ${verdict}. ${needs} ${remedy ?? ''}`
      }),
    },
  ]
}
