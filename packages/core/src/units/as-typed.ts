import { METRES_PER, formatFeetInches, trimZeros } from './length.ts'
import type { LengthStyle, UnitSystem } from './length.ts'
import { KG_PER_LB, NEWTONS_PER_LBF } from './quantity.ts'

/** Set before a figure that is not quite what is written: it cannot be written in the marks of this tape. */
export const ABOUT = '≈'

/** Marks of a rule in inches, the coarsest first. */
const MARKS = [1, 2, 4, 8, 16, 32] as const
/** What lies between the marks is told to those that its field is read by. */
const ABOUT_BY: Readonly<Record<LengthStyle, number>> = { long: 2, short: 16, fine: 32 }
/** A value this near to a mark was typed as that mark, metres. */
const ON_MARK_M = 2e-6
/** Below this an inch is written in decimals, as wire and string are sold. */
const DECIMAL_BELOW_IN = 1 / 8

/**
 * A length as a form shows it: what it is, to the figure, in the marks in which it was typed (fractions to 1/32 of an inch,
 * metres to the tenth of a millimetre). What lies between the finest marks is marked as about that.
 */
export function lengthAsTyped(metres: number, system: UnitSystem, style: LengthStyle): string {
  if (!Number.isFinite(metres)) return '–'
  if (system === 'metric') return metricAsTyped(metres, style)
  const inches = metres / METRES_PER.in
  if (style === 'fine' && Math.abs(inches) < DECIMAL_BELOW_IN && inches !== 0)
    return about(`${trimZeros(inches.toFixed(4))} in`, Number(inches.toFixed(4)) * METRES_PER.in, metres)
  const mark = MARKS.find((parts) => Math.abs(onMark(inches, parts) - metres) < ON_MARK_M)
  const parts = mark ?? ABOUT_BY[style]
  return about(formatFeetInches(metres, parts), onMark(inches, parts), metres)
}

const onMark = (inches: number, parts: number) => (Math.round(inches * parts) / parts) * METRES_PER.in

const METRIC: Readonly<Record<LengthStyle, { unit: 'm' | 'cm' | 'mm'; least: number; most: number }>> = {
  long: { unit: 'm', least: 2, most: 4 },
  short: { unit: 'cm', least: 0, most: 2 },
  // Three decimals could be thousands.
  fine: { unit: 'mm', least: 0, most: 2 },
}

function metricAsTyped(metres: number, style: LengthStyle): string {
  const { unit, least, most } = METRIC[style]
  const value = metres / METRES_PER[unit]
  let decimals = least
  while (decimals < most && Math.abs(Number(value.toFixed(decimals)) - value) * METRES_PER[unit] > ON_MARK_M)
    decimals++
  const text = value.toFixed(decimals)
  return about(`${text} ${unit}`, Number(text) * METRES_PER[unit], metres)
}

const about = (text: string, written: number, meant: number): string =>
  Math.abs(written - meant) < ON_MARK_M ? text : `${ABOUT} ${text}`

/** Figures that differ by less than this share are one and the same to whoever typed them. */
const SAME_SHARE = 2e-4
const MOST_DECIMALS = 2

/** A figure with as few decimals as it needs, up to two; one that needs more is marked as about that. */
function figureAsTyped(value: number): string {
  const isNear = (decimals: number) =>
    Math.abs(Number(value.toFixed(decimals)) - value) <= SAME_SHARE * Math.max(1, Math.abs(value))
  const decimals = [0, 1, MOST_DECIMALS].find(isNear)
  const text = trimZeros(value.toFixed(decimals ?? MOST_DECIMALS))
  return decimals === undefined ? `${ABOUT} ${text}` : text
}

export const forceAsTyped = (newtons: number, system: UnitSystem): string =>
  system === 'metric' ? `${figureAsTyped(newtons)} N` : `${figureAsTyped(newtons / NEWTONS_PER_LBF)} lbf`

export const massAsTyped = (kg: number, system: UnitSystem): string =>
  system === 'metric' ? `${figureAsTyped(kg)} kg` : `${figureAsTyped(kg / KG_PER_LB)} lb`

export const temperatureAsTyped = (celsius: number, system: UnitSystem): string =>
  system === 'metric' ? `${figureAsTyped(celsius)} °C` : `${figureAsTyped((celsius * 9) / 5 + 32)} °F`
