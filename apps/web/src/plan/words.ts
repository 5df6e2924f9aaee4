import type { CoreError } from '@klados/core/errors'
import type { WorkStep } from '@klados/core/bill'
import { frameKinds, isField } from '@klados/core/frame'
import type {
  Fields,
  Figure,
  FrameFinding,
  LengthWriting,
  MarkOut,
  MarkOutRow,
  ViewingEnd,
} from '@klados/core/frame'
import type { LengthStyle } from '@klados/core/units'
import type { TFunction } from '../i18n/texts.ts'
import { listPlain } from '../i18n/language.ts'
import type { Units } from '../ui/units.tsx'
import { fieldWords } from '../ui/id-words.ts'

/** What a refusal of core means for the grower, lengths in their own units. */
export function problemWords(t: TFunction, units: Units, error: CoreError): string {
  const d = error.details
  const length = (key: string) => units.length(Number(d[key]), 'long')
  switch (error.code) {
    case 'frame/cell-too-large':
      return t('problem.frame/cell-too-large', { cell: length('cellM'), space: length('spaceM') })
    case 'frame/heights-out-of-order':
      return t('problem.frame/heights-out-of-order', {
        tier: d.tier,
        height: length('heightM'),
        below: length('belowM'),
      })
    case 'frame/wires-out-of-order':
      return t('problem.frame/wires-out-of-order', {
        wire: d.tier,
        height: length('heightM'),
        below: length('belowM'),
      })
    case 'frame/wire-above-posts':
      return t('problem.frame/wire-above-posts', {
        wire: d.tier,
        height: length('heightM'),
        top: length('toM'),
      })
    case 'frame/height-outside-wall':
      return t('problem.frame/height-outside-wall', {
        tier: d.tier,
        height: length('heightM'),
        from: length('fromM'),
        to: length('toM'),
      })
    case 'frame/levels-do-not-clear':
      return t('problem.frame/levels-do-not-clear', {
        apart: units.length(Number(d.apartM), 'fine'),
        bar: units.length(Number(d.barM), 'fine'),
      })
    case 'frame/not-in-pot':
      return t('problem.frame/not-in-pot', { buried: length('buriedM'), most: length('mostM') })
    case 'frame/wider-than-pot':
      return t('problem.frame/wider-than-pot', { across: length('acrossM'), pot: length('potM') })
    case 'frame/unknown-choice':
    case 'frame/same-id':
      return t(`problem.${error.code}`, { field: fieldWords(t, String(d.field)) })
    case 'frame/unknown-stock':
      return t('problem.frame/unknown-stock', { stock: d.stockId })
    case 'frame/too-many-nodes':
    case 'materials/no-rolls':
    case 'geometry/points-in-line':
    case 'geometry/points-crossed':
    case 'geometry/beyond-horizon':
      return t(`problem.${error.code}`)
    case 'stringing/piece-too-short':
      return t('problem.stringing/piece-too-short', {
        needed: units.length(Number(d.runM) + Number(d.wrapsM)),
        handling: length('handlingM'),
      })
    case 'materials/piece-longer-than-roll':
      return t(
        d.of === 'stock' ? 'problem.piece-longer-than-stock' : 'problem.materials/piece-longer-than-roll',
        { piece: length('pieceM'), roll: length('rollM') },
      )
    case 'core/out-of-range': {
      const [from, to] = rangeWords(units, String(d.field), Number(d.min), Number(d.max))
      return t('problem.core/out-of-range', { field: fieldWords(t, String(d.field)), from, to })
    }
    case 'core/not-finite':
      return t('problem.core/not-finite', { field: fieldWords(t, String(d.field)) })
    case 'laying/no-option':
    case 'laying/unknown':
    case 'units/unknown-gauge':
      return t('problem.other', { code: error.code })
  }
}

/** How lengths that are asked for are written, by the name of their field. */
const lengthFields = new Map<string, LengthWriting>([
  ...Object.values(frameKinds).flatMap(({ fields }) => lengthsIn(fields as Fields)),
  ...(['potWidthM', 'potHeightM', 'drainageM', 'moveToleranceM', 'endWrapM', 'radiusM'] as const).map(
    (name) => [name, 'short'] as const,
  ),
  ['handlingLengthM', 'long'],
])

function lengthsIn(fields: Fields): [string, LengthWriting][] {
  return Object.entries(fields).flatMap(([name, field]): [string, LengthWriting][] => {
    if (field.ask === 'length' || field.ask === 'length-or-none') return [[name, field.writing]]
    if (field.ask === 'one-of') return Object.values(field.of).flatMap(lengthsIn)
    if (field.ask !== 'list') return []
    return isField(field.of) ? lengthsIn({ [name]: field.of }) : lengthsIn(field.of)
  })
}

function rangeWords(units: Units, field: string, min: number, max: number): [string, string] {
  const writing = lengthFields.get(field)
  const words = (value: number) => (writing ? units.length(value, writing) : String(value))
  return [words(min), words(max)]
}

export function findingWords(t: TFunction, units: Units, finding: FrameFinding): string {
  switch (finding.code) {
    case 'frame/spot-unavoidable':
      return t('problem.spot-unavoidable', {
        number: finding.number,
        spot: finding.spot || t('place.spot'),
        tolerance: units.length(finding.toleranceM, 'short'),
      })
    case 'frame/dragged-onto-spot':
      return t('problem.dragged-onto-spot', { number: finding.number, spot: finding.spot || t('place.spot') })
    case 'frame/no-line-near':
      return t('problem.no-line-near', {
        number: finding.number,
        tolerance: units.length(finding.toleranceM, 'short'),
      })
    case 'frame/post-on-spot':
      return t('problem.post-on-spot', {
        post: finding.label,
        spot: finding.spot || t('place.spot'),
        tolerance: units.length(finding.toleranceM, 'short'),
      })
  }
}

/** A, B … Z, AA, AB …: how pieces of wire are called on the sheet and on the bench. */
export function pieceLetter(index: number): string {
  const last = String.fromCharCode(65 + (index % 26))
  return index < 26 ? last : pieceLetter(Math.floor(index / 26) - 1) + last
}

const LONG_PLACE_M = 10

/**
 * Posts of a long row are paced out in metres or feet; a fixing is marked to the millimetre wherever it is.
 */
export function alongStyle(row: Pick<MarkOutRow, 'what'>, widthM: number): LengthStyle {
  return row.what !== 'node' && widthM > LONG_PLACE_M ? 'long' : 'short'
}

/** Beyond what a folding rule reaches nobody reads millimetres. */
const LONG_FROM_M = 5
export const tapeStyle = (m: number): LengthStyle => (Math.abs(m) >= LONG_FROM_M ? 'long' : 'short')

const FINER_BELOW_M = 2

/** Figures that are sawn. */
const SAWN: ReadonlySet<Figure['key']> = new Set(['ring-cut', 'hoop-length', 'core-length', 'rib-longest'])

/** A figure of a frame with its unit. */
export function figureText(units: Units, { key, unit, value }: Figure): string {
  switch (unit) {
    case 'm':
      // What is sawn stands in the list of lengths to saw too, and is the same there.
      if (SAWN.has(key)) return units.cut(value, 'saw')
      // What is cut and bent wants the finer marks of the tape.
      return units.length(value, value < FINER_BELOW_M ? 'short' : 'long')
    case 'm2':
      return units.area(value)
    case 'litres':
      return units.volume(value, 'up')
    case 'count':
      return String(Math.round(value * 100) / 100)
  }
}

/** What a step of the work takes: tools, then what to wear. */
export function kitWords(t: TFunction, { tools, gear }: WorkStep): string {
  return listPlain([...tools.map((one) => t(`tool.${one}`)), ...gear.map((one) => t(`gear.${one}`))])
}

/** From where the marks are measured. */
export function markOutWords(t: TFunction, { rows }: MarkOut, viewingEnd: ViewingEnd): string {
  const hasHeights = rows.some((row) => row.what === 'node')
  return t(hasHeights ? 'slip.markOutFrom' : 'slip.markOutGround', { end: t(`place.${viewingEnd}`) })
}

/** Off its ideal by more than half a millimetre: both are said. */
export const isMoved = (row: MarkOutRow): boolean => row.movedM > 5e-4

/** A distance along the tape or back from the front line; what lies before its beginning is said so, not by a sign. */
export function offText(
  t: TFunction,
  units: Units,
  metres: number,
  style: LengthStyle,
  way: 'along' | 'back',
): string {
  if (metres > -5e-4) return units.length(Math.max(0, metres), style)
  return t(way === 'along' ? 'slip.beforeEnd' : 'slip.inFront', { length: units.length(-metres, style) })
}
