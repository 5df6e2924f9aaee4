import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import pdfMake from 'pdfmake/build/pdfmake'
import fonts from 'pdfmake/build/vfs_fonts'

interface Fit {
  readonly widthMm: number
  readonly heightMm: number
}

/** A sheet in words and figures, ready to be set: nothing here knows of frames. */
export interface PdfSheet {
  readonly title: string
  readonly subtitle: string
  readonly paper: 'A4' | 'LETTER'
  /** Drawings as SVG, each made for what the page allows it. */
  readonly drawings: readonly { readonly caption: string; readonly svg: (fit: Fit) => string }[]
  readonly sections: readonly PdfSection[]
  /** "Page 2 of 5" */
  readonly pageText: (page: number, of: number) => string
}

export type PdfSection =
  | {
      readonly kind: 'table'
      readonly title: string
      readonly intro?: string
      readonly header: readonly string[]
      readonly rows: readonly (readonly string[])[]
      readonly isTotal?: boolean
    }
  | {
      readonly kind: 'list'
      readonly title: string
      readonly intro?: string
      readonly items: readonly string[]
      readonly isBoxed?: boolean
    }

const WIDTH_PT = { A4: 595 - 72, LETTER: 612 - 72 } as const
const DRAWING_HEIGHT_PT = 300
const MM_PER_PT = 25.4 / 72

/**
 * The sheet as a paginated PDF, headings kept with what follows, tables repeated over pages with their
 * header.
 */
export async function sheetPdf(sheet: PdfSheet): Promise<Blob> {
  pdfMake.addVirtualFileSystem(fonts)
  return pdfMake.createPdf(definition(sheet)).getBlob()
}

function definition(sheet: PdfSheet): TDocumentDefinitions {
  const [widthPt, heightPt] = [WIDTH_PT[sheet.paper], DRAWING_HEIGHT_PT]
  const fit: Fit = { widthMm: widthPt * MM_PER_PT, heightMm: heightPt * MM_PER_PT }
  return {
    pageSize: sheet.paper,
    pageMargins: [36, 36, 36, 44],
    info: { title: sheet.title },
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
      ...sheet.drawings.map(({ caption, svg }): Content => ({
        stack: [
          ...(caption ? [{ text: caption, style: 'heading' }] : []),
          { svg: svg(fit), fit: [widthPt, heightPt] },
        ],
        unbreakable: true,
      })),
      ...sheet.sections.map(section),
    ],
  }
}

function section(of: PdfSection): Content {
  const intro: Content[] = of.intro ? [{ text: of.intro, style: 'quiet', margin: [0, 0, 0, 3] }] : []
  if (of.kind === 'list') {
    const body: Content[] = [{ text: of.title, style: 'heading' }, ...intro, { ul: [...of.items] }]
    return of.isBoxed
      ? { table: { widths: ['*'], body: [[body]] }, margin: [0, 10, 0, 0], unbreakable: true }
      : body
  }
  const lastRow = of.rows.length
  return [
    { text: of.title, style: 'heading', headlineLevel: 1 },
    ...intro,
    {
      table: {
        headerRows: 1,
        dontBreakRows: true,
        widths: of.header.map((_, i) => (i === 0 ? '*' : 'auto')),
        body: [
          of.header.map((text, i): Content => ({
            text,
            style: 'quiet',
            alignment: i === 0 ? 'left' : 'right',
          })),
          ...of.rows.map((row, n) =>
            row.map((text, i): Content => ({
              text,
              bold: of.isTotal === true && n === lastRow - 1,
              alignment: i === 0 ? 'left' : 'right',
            })),
          ),
        ],
      },
      layout: 'lightHorizontalLines',
    },
  ]
}
