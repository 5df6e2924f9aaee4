import type { Parsed, ParseFailure } from './parsed.ts'
import { readEither } from './written-number.ts'

export type UnitSystem = 'metric' | 'imperial'
export type LengthUnit = 'm' | 'cm' | 'mm' | 'ft' | 'in'

/** Metres in one unit; exact by definition (international yard and pound agreement, 1959). */
export const METRES_PER: Readonly<Record<LengthUnit | 'yd', number>> = {
  m: 1,
  cm: 0.01,
  mm: 0.001,
  ft: 0.3048,
  in: 0.0254,
  yd: 0.9144,
}

const UNIT_WORDS: Readonly<Record<string, LengthUnit | 'yd'>> = {
  m: 'm',
  metre: 'm',
  metres: 'm',
  meter: 'm',
  meters: 'm',
  cm: 'cm',
  centimetre: 'cm',
  centimetres: 'cm',
  centimeter: 'cm',
  centimeters: 'cm',
  mm: 'mm',
  millimetre: 'mm',
  millimetres: 'mm',
  millimeter: 'mm',
  millimeters: 'mm',
  ft: 'ft',
  foot: 'ft',
  feet: 'ft',
  "'": 'ft',
  in: 'in',
  inch: 'in',
  inches: 'in',
  ins: 'in',
  '"': 'in',
  yd: 'yd',
  yds: 'yd',
  yard: 'yd',
  yards: 'yd',
}

/** A whole number, decimal, fraction or mixed number ("6 1/2", "6-1/2"), then perhaps a unit. */
const TERM =
  /^\s*(?:(\d+)[\s-]+(\d+)\/(\d+)|(\d+)\/(\d+)|(\d+(?:\.\d*)?|\.\d+))\s*([a-z]+|'|")?\.?\s*(?:,|and|&)?/

/**
 * Length in metres from what people write: `9.2 m`, `1,65 m`, `38 ft`, `4'6"`, `4 ft 6 1/2 in`, `54in`,
 * `30'2`. A bare number takes `bareUnit`; a bare number behind feet is inches. A leading minus is kept, so
 * that a range check can name it. `1.405 m` and `1,405 m` are asked about where `maxM` lets both be meant. Never throws: text
 * that is no length gives the reason.
 */
export function parseLength(text: string, bareUnit: LengthUnit, maxM = LONGEST_M): Parsed {
  return readEither(
    text,
    (normal) => readLength(normal, bareUnit),
    'not-a-length',
    (decimal, other, mark) =>
      IMPERIAL.has(decimal.smallest) ? mark === '.' : decimal.smallest === 'm' && other.value > maxM,
  )
}

/** Those who measure in these write a point for decimals and nothing else. */
const IMPERIAL: ReadonlySet<LengthUnit | 'yd'> = new Set(['in', 'ft', 'yd'])
/** Nothing here is longer. */
const LONGEST_M = 1000

type Read =
  | { readonly ok: true; readonly value: number; readonly smallest: LengthUnit | 'yd' }
  | { readonly ok: false; readonly reason: ParseFailure }

function readLength(normal: string, bareUnit: LengthUnit): Read {
  if (normal === '') return { ok: false, reason: 'empty' }
  const sign = normal.startsWith('-') ? -1 : 1
  let rest = sign < 0 ? normal.slice(1) : normal
  let metres = 0
  let previous: LengthUnit | 'yd' | undefined
  while (rest.trim() !== '') {
    const match = TERM.exec(rest)
    if (!match) return { ok: false, reason: 'not-a-length' }
    const number = termValue(match)
    const word = match[7]
    const unit = word === undefined ? impliedUnit(previous, bareUnit) : UNIT_WORDS[word]
    if (number === undefined || unit === undefined) return { ok: false, reason: 'not-a-length' }
    // Each part must be of a smaller unit than the one before, or "4 6 m" and "3 in 2 ft" would pass as
    // lengths.
    if (previous !== undefined && METRES_PER[unit] >= METRES_PER[previous])
      return { ok: false, reason: 'not-a-length' }
    metres += number * METRES_PER[unit]
    previous = unit
    rest = rest.slice(match[0].length)
  }
  const value = sign * metres
  if (!Number.isFinite(value)) return { ok: false, reason: 'not-a-length' }
  return { ok: true, value, smallest: previous ?? bareUnit }
}

function termValue(match: RegExpExecArray): number | undefined {
  const [, whole, num, den, num2, den2, decimal] = match
  if (decimal !== undefined) return Number(decimal)
  const denominator = Number(den ?? den2)
  if (denominator === 0) return undefined
  return Number(whole ?? 0) + Number(num ?? num2) / denominator
}

function impliedUnit(previous: LengthUnit | 'yd' | undefined, bareUnit: LengthUnit): LengthUnit | undefined {
  if (previous === undefined) return bareUnit
  return previous === 'ft' ? 'in' : undefined
}

export type LengthStyle = 'long' | 'short' | 'fine'

/**
 * A length as people of that unit system read it. `long`: walls and rows (m with two decimals; feet and
 * inches to 1/2). `short`: distances to mark out (cm with one decimal; inches to 1/16). `fine`: diameters and
 * sag (mm; inches to 1/32, as a rule or a calliper's jaws show them, and below 1/8 in decimals of an inch, as wire is sold).
 */
export function formatLength(metres: number, system: UnitSystem, style: LengthStyle = 'long'): string {
  if (!Number.isFinite(metres)) return '–'
  if (system === 'metric') {
    if (style === 'long') return `${metres.toFixed(2)} m`
    if (style === 'short') return `${trimZeros((metres * 100).toFixed(1))} cm`
    return `${trimZeros((metres * 1000).toFixed(Math.abs(metres) < 0.01 ? 2 : Math.abs(metres) < 0.1 ? 1 : 0))} mm`
  }
  const inches = metres / METRES_PER.in
  if (style === 'fine' && Math.abs(inches) < 1 / 8) return `${trimZeros(inches.toFixed(3))} in`
  return formatFeetInches(metres, { long: 2, short: 16, fine: 32 }[style])
}

/** What a cut is made with: a saw or a hacksaw on a bench, or shears on a wire held by hand. */
export type CutBy = 'saw' | 'shears'
/** Marks to which a cut can be made. */
const CUT_M: Readonly<Record<UnitSystem, Readonly<Record<CutBy, number>>>> = {
  metric: { saw: 0.001, shears: 0.01 },
  imperial: { saw: METRES_PER.in / 16, shears: METRES_PER.in / 2 },
}
/** A length that misses a mark by less than this is that mark. */
const SAME_CUT_M = 1e-6

/** The mark to cut at, metres: on the length or beyond it, never short of it. */
export function cutAtM(metres: number, system: UnitSystem, by: CutBy): number {
  const mark = CUT_M[system][by]
  return Math.ceil((metres - SAME_CUT_M) / mark) * mark
}

/** A length to cut, in the marks of the tape that one cuts by, rounded up. */
export function formatCut(metres: number, system: UnitSystem, by: CutBy): string {
  if (!Number.isFinite(metres)) return '–'
  const cutM = cutAtM(metres, system, by)
  if (system === 'imperial') return formatFeetInches(cutM, by === 'saw' ? 16 : 2)
  if (by === 'shears') return `${cutM.toFixed(2)} m`
  if (cutM < 1) return `${trimZeros((cutM * 100).toFixed(1))} cm`
  return `${cutM.toFixed(3).replace(/0$/, '')} m`
}

/** Feet and inches with the inch rounded to 1/`denominator`, fraction in lowest terms: `4' 6 1/2"`. */
export function formatFeetInches(metres: number, denominator: number): string {
  const sign = metres < 0 ? '-' : ''
  const parts = Math.round((Math.abs(metres) / METRES_PER.in) * denominator)
  const feet = Math.floor(parts / (12 * denominator))
  const inchParts = parts - feet * 12 * denominator
  const whole = Math.floor(inchParts / denominator)
  const fraction = reduce(inchParts - whole * denominator, denominator)
  const inches = fraction === '' ? `${whole}"` : whole === 0 ? `${fraction}"` : `${whole} ${fraction}"`
  return feet === 0 ? `${sign}${inches}` : `${sign}${feet}' ${inches}`
}

function reduce(numerator: number, denominator: number): string {
  if (numerator === 0) return ''
  let [n, d] = [numerator, denominator]
  while (n % 2 === 0 && d % 2 === 0) [n, d] = [n / 2, d / 2]
  return `${n}/${d}`
}

export function trimZeros(decimal: string): string {
  return decimal.includes('.') ? decimal.replace(/\.?0+$/, '') : decimal
}
