import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces'
import pdfMake from 'pdfmake/build/pdfmake'
import fonts from 'pdfmake/build/vfs_fonts'
import type { SheetContent, SheetItem, SheetSection } from './sheet-content.ts'

const WIDTH_PT = { A4: 595 - 72, LETTER: 612 - 72 } as const
/** The first drawing is the one to build from; what else is drawn beside it may be smaller, so that pages fill. */
const DRAWING_HEIGHT_PT = [300, 190] as const
/** Of a drawing that belongs to one part of the sheet. */
const PART_HEIGHT_PT = 230
type Margin = [number, number, number, number]
const MM_PER_PT = 25.4 / 72
/** What must not be passed over, on paper as on the screen. */
const IRON = '#b3402e'

/**
 * The sheet as a paginated PDF, headings kept with what follows, tables repeated over pages with their
 * header.
 */
export async function sheetPdf(sheet: SheetContent): Promise<Blob> {
  pdfMake.addVirtualFileSystem(fonts)
  return pdfMake.createPdf(definition(sheet)).getBlob()
}

function definition(sheet: SheetContent): TDocumentDefinitions {
  const widthPt = WIDTH_PT[sheet.paper]
  return {
    pageSize: sheet.paper,
    pageMargins: [36, 36, 36, 44],
    info: { title: sheet.title },
    pageBreakBefore: (node, queries) =>
      node.headlineLevel !== undefined && queries.getFollowingNodesOnPage().length === 0,
    defaultStyle: { fontSize: 9.5, lineHeight: 1.15 },
    styles: {
      title: { fontSize: 17, bold: true },
      heading: { fontSize: 12, bold: true, margin: [0, 10, 0, 3] },
      quiet: { color: '#5c6670' },
    },
    footer: (page: number, of: number): Content => ({
      text: sheet.pageText(page, of),
      alignment: 'center',
      style: 'quiet',
    }),
    content: [
      { text: sheet.title, style: 'title' },
      { text: sheet.subtitle, style: 'quiet', margin: [0, 0, 0, 8] },
      ...sheet.first.map((one) => section(one, widthPt)),
      ...sheet.drawings.map(({ caption, svg }, i): Content => {
        const heightPt = DRAWING_HEIGHT_PT[i === 0 ? 0 : 1]
        const fit = { widthMm: widthPt * MM_PER_PT, heightMm: heightPt * MM_PER_PT }
        return {
          stack: [
            ...(caption ? [{ text: caption, style: 'heading' }] : []),
            { svg: svg(fit), fit: [widthPt, heightPt] },
          ],
          unbreakable: true,
        }
      }),
      ...sheet.sections.map((one) => section(one, widthPt)),
    ],
  }
}

function section(of: SheetSection, widthPt: number): Content {
  const fit = { widthMm: widthPt * MM_PER_PT, heightMm: PART_HEIGHT_PT * MM_PER_PT }
  const intro: Content[] = [
    ...(of.intro ? [{ text: of.intro, style: 'quiet', margin: [0, 0, 0, 3] as Margin }] : []),
    ...(of.drawing ? [{ svg: of.drawing(fit), fit: [widthPt, PART_HEIGHT_PT] as [number, number] }] : []),
  ]
  if (of.kind === 'list') {
    const body: Content[] = [
      { text: of.title, style: 'heading', headlineLevel: 1 },
      ...intro,
      ...of.groups.flatMap(({ title, items, isRead }): Content[] => [
        ...(title === null
          ? []
          : [
              {
                text: title,
                style: 'quiet',
                margin: [0, 3, 0, 1] as Margin,
                headlineLevel: 2,
              },
            ]),
        of.isTicked && !isRead
          ? { stack: items.map((item) => ticked(itemText(item))) }
          : { ul: items.map((item) => itemText(item)) },
      ]),
    ]
    if (of.isTicked) return { stack: body, unbreakable: true }
    if (of.isAlarm) return { table: { widths: ['*'], body: [[body]] }, margin: [0, 10, 0, 0], color: IRON }
    return of.isBoxed ? { table: { widths: ['*'], body: [[body]] }, margin: [0, 10, 0, 0] } : body
  }
  const lastRow = of.rows.length
  // The heading is the table's first row: it never stands alone at the foot of a page, and comes again on the next.
  const heading: TableCell = {
    stack: [{ text: of.title, style: 'heading' }, ...intro],
    colSpan: of.header.length,
  }
  return {
    table: {
      headerRows: HEADER_ROWS,
      keepWithHeaderRows: 1,
      dontBreakRows: true,
      widths: of.header.map((_, i) => (i === 0 ? '*' : 'auto')),
      body: [
        [heading, ...of.header.slice(1).map(() => '')],
        of.header.map(
          (text, i): Content => ({
            text,
            style: 'quiet',
            alignment: i === 0 ? 'left' : 'right',
          }),
        ),
        ...of.rows.map((row, n) =>
          row.map((text, i): Content => {
            const cell: Content = {
              text,
              bold: of.isTotal === true && n === lastRow - 1,
              alignment: i === 0 ? 'left' : 'right',
            }
            return of.isTicked && i === 0 ? ticked(cell) : cell
          }),
        ),
      ],
    },
    layout: {
      hLineWidth: (i, { table }) =>
        i < HEADER_ROWS || i === table.body.length ? 0 : i === HEADER_ROWS ? 2 : 1,
      vLineWidth: () => 0,
      hLineColor: (i) => (i === HEADER_ROWS ? 'black' : '#aaa'),
      paddingLeft: (i) => (i === 0 ? 0 : 8),
      paddingRight: (i, { table }) => (i === (table.widths?.length ?? 0) - 1 ? 0 : 8),
    },
  }
}

const itemText = ({ lead, text }: SheetItem): Content => ({ text: [{ text: lead, bold: true }, `: ${text}`] })

/** Drawn, since the letters of the page have no such sign. */
const ticked = (content: Content): Content => ({
  columns: [
    { width: 13, canvas: [{ type: 'rect', x: 0, y: 1.5, w: 7, h: 7, lineWidth: 0.7 }] },
    { width: '*', stack: [content] },
  ],
})

const HEADER_ROWS = 2
