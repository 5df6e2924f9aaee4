/** One line of a sheet: what it is about, set bold, and what is said of it. */
export interface SheetItem {
  readonly lead: string
  readonly text: string
}

interface SheetHeading {
  readonly title: string
  readonly intro?: string
  /** What the words under it are about; only where a sheet has one for each of its parts. */
  readonly drawing?: SheetDrawing['svg']
}

/** A part of a sheet in words and figures, as the page and the PDF both set it: nothing here knows of frames. */
export type SheetSection = SheetHeading &
  (
    | {
        readonly kind: 'table'
        readonly header: readonly string[]
        readonly rows: readonly (readonly string[])[]
        /** The last row is the sum of the others. */
        readonly isTotal?: boolean
        /** Many short rows, each ticked off as it is done. */
        readonly isTicked?: boolean
      }
    | {
        readonly kind: 'list'
        readonly groups: readonly {
          readonly title: string | null
          readonly items: readonly SheetItem[]
          /** Of a ticked list: what one reads, and ticks off elsewhere in it. */
          readonly isRead?: boolean
        }[]
        readonly isBoxed?: boolean
        /** On paper each line has a box to tick, and none of it goes over to another page. */
        readonly isTicked?: boolean
        /** Something would be drilled or dug into: set in red. */
        readonly isAlarm?: boolean
      }
  )

export interface SheetDrawing {
  readonly caption: string
  /** The drawing as SVG, made for what the page allows it. */
  readonly svg: (fit: { readonly widthMm: number; readonly heightMm: number }) => string
}

/** A sheet ready to be set. */
export interface SheetContent {
  readonly title: string
  readonly subtitle: string
  readonly paper: 'A4' | 'LETTER'
  /** What has to be read before anything else: it stands above the drawings. */
  readonly first: readonly SheetSection[]
  readonly drawings: readonly SheetDrawing[]
  readonly sections: readonly SheetSection[]
  /** "Page 2 of 5" */
  readonly pageText: (page: number, of: number) => string
}
