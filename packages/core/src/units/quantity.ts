import { METRES_PER, trimZeros } from './length.ts'
import type { UnitSystem } from './length.ts'
import type { Parsed, ParseFailure } from './parsed.ts'
import { readEither } from './written-number.ts'

/** Standard gravity, m/s² (3rd CGPM, 1901); turns pounds and kilograms of pull into newtons. */
export const STANDARD_GRAVITY = 9.80665
/** Kilograms in one avoirdupois pound, exact (1959). */
export const KG_PER_LB = 0.45359237

/** Newtons in a pound-force. */
export const NEWTONS_PER_LBF = KG_PER_LB * STANDARD_GRAVITY
const NEWTONS_PER: Readonly<Record<string, number>> = {
  n: 1,
  newton: 1,
  newtons: 1,
  kn: 1000,
  dan: 10,
  lb: KG_PER_LB * STANDARD_GRAVITY,
  lbs: KG_PER_LB * STANDARD_GRAVITY,
  lbf: NEWTONS_PER_LBF,
  kg: STANDARD_GRAVITY,
  kgf: STANDARD_GRAVITY,
  kp: STANDARD_GRAVITY,
}

/**
 * Pull in newtons from `900 N`, `200 lb`, `90 kgf`, `0,9 kN`. A bare number takes `bareUnit`. Never throws.
 */
export function parseForce(text: string, bareUnit: 'N' | 'lbf'): Parsed {
  return parseWithUnit(text, (unit) => NEWTONS_PER[unit === '' ? bareUnit.toLowerCase() : unit], 0)
}

const KILOGRAMS_PER: Readonly<Record<string, number>> = {
  g: 0.001,
  kg: 1,
  t: 1000,
  lb: KG_PER_LB,
  lbs: KG_PER_LB,
}

/** Mass in kilograms from `12 kg`, `25 lb`, `1,5 kg`. A bare number takes `bareUnit`. Never throws. */
export function parseMass(text: string, bareUnit: 'kg' | 'lb'): Parsed {
  return parseWithUnit(text, (unit) => KILOGRAMS_PER[unit === '' ? bareUnit : unit], 0)
}

/** Temperature in °C from `16 °C`, `60 F`, `-5`. A bare number takes `bareUnit`. Never throws. */
export function parseTemperature(text: string, bareUnit: 'C' | 'F'): Parsed {
  const number = parseWithUnit(text, (unit) => (['', 'c', 'f'].includes(unit) ? 1 : undefined), undefined)
  if (!number.ok) return number
  const unit = /([cf])\.?\s*$/i.exec(text.trim())?.[1]?.toUpperCase() ?? bareUnit
  return { ok: true, value: unit === 'F' ? ((number.value - 32) * 5) / 9 : number.value }
}

/** A bare number: `1250`, `1,250.50`, `0,5`. Never throws. */
export function parseNumber(text: string): Parsed {
  return parseWithUnit(text, (unit) => (unit === '' ? 1 : undefined), undefined)
}

/** Units of those who write a point for decimals and nothing else. */
const WITH_POINT = new Set(['lb', 'lbs', 'lbf', 'f'])

function parseWithUnit(
  text: string,
  factorOf: (unit: string) => number | undefined,
  min: number | undefined,
): Parsed {
  return readEither(
    text,
    (normal) => readWithUnit(normal, factorOf, min),
    'not-a-quantity',
    ({ unit }, _, mark) => mark === '.' && WITH_POINT.has(unit),
  )
}

function readWithUnit(
  normal: string,
  factorOf: (unit: string) => number | undefined,
  min: number | undefined,
):
  | { readonly ok: true; readonly value: number; readonly unit: string }
  | { readonly ok: false; readonly reason: ParseFailure } {
  if (normal === '') return { ok: false, reason: 'empty' }
  const match = /^([+-]?(?:\d+(?:\.\d*)?|\.\d+))\s*(?:°|deg(?:rees)?)?\s*([a-z]*)\.?$/.exec(normal)
  if (!match) return { ok: false, reason: 'not-a-quantity' }
  const unit = match[2] ?? ''
  const factor = factorOf(unit)
  if (factor === undefined) return { ok: false, reason: 'wrong-unit' }
  const value = Number(match[1]) * factor
  return min !== undefined && value < min
    ? { ok: false, reason: 'not-a-quantity' }
    : { ok: true, value, unit }
}

/** `180 N` or `40 lbf`, whole units. */
export function formatForce(newtons: number, system: UnitSystem): string {
  return system === 'metric'
    ? `${Math.round(newtons)} N`
    : `${trimZeros((newtons / NEWTONS_PER_LBF).toFixed(0))} lbf`
}

export function formatTemperature(celsius: number, system: UnitSystem): string {
  return system === 'metric' ? `${Math.round(celsius)} °C` : `${Math.round((celsius * 9) / 5 + 32)} °F`
}

/** Mass in kilograms or pounds, one decimal below ten. */
export function formatMass(kg: number, system: UnitSystem): string {
  const value = system === 'metric' ? kg : kg / KG_PER_LB
  return `${trimZeros(value.toFixed(value < 10 ? 1 : 0))} ${system === 'metric' ? 'kg' : 'lb'}`
}

/** What a floor has to bear: kilograms per square metre or pounds per square foot, whole units. */
export function formatFloorLoad(kgPerM2: number, system: UnitSystem): string {
  return system === 'metric'
    ? `${Math.ceil(kgPerM2 - 1e-9)} kg/m²`
    : `${Math.ceil((kgPerM2 * METRES_PER.ft ** 2) / KG_PER_LB - 1e-9)} lb/ft²`
}

/** Bending moment in newton metres or pound-feet, whole units; small ones to the tenth. */
export function formatMoment(newtonMetres: number, system: UnitSystem): string {
  return system === 'metric'
    ? `${toTenthIfSmall(newtonMetres)} Nm`
    : `${toTenthIfSmall(newtonMetres / (NEWTONS_PER_LBF * METRES_PER.ft))} lbf·ft`
}

const toTenthIfSmall = (value: number) => trimZeros(value.toFixed(value < 10 ? 1 : 0))

/** Wind speed in metres per second or miles per hour (1609.344 m, exact). */
export function formatSpeed(metresPerSecond: number, system: UnitSystem): string {
  return system === 'metric'
    ? `${Math.round(metresPerSecond)} m/s`
    : `${Math.round((metresPerSecond * 3600) / 1609.344)} mph`
}

/** To the nearest, or up where less than is said would not do: what is bought. */
export type Rounding = 'nearest' | 'up'

/** Square metres with one decimal, or square feet, one decimal below a hundred. */
export function formatArea(squareMetres: number, system: UnitSystem, rounding: Rounding = 'nearest'): string {
  return system === 'metric'
    ? `${decimals(squareMetres, 1, rounding)} m²`
    : few(squareMetres / METRES_PER.ft ** 2, 'sq ft', rounding)
}

/** Loose stuff to fill with: litres with one decimal, or cubic feet, one decimal below a hundred. */
export function formatVolume(litres: number, system: UnitSystem, rounding: Rounding = 'nearest'): string {
  return system === 'metric'
    ? `${decimals(litres, 1, rounding)} l`
    : few(litres / (1000 * METRES_PER.ft ** 3), 'cu ft', rounding)
}

/** Water: litres or US liquid gallons (231 cubic inches, exact), one decimal. */
export function formatWater(litres: number, system: UnitSystem): string {
  return system === 'metric'
    ? `${decimals(litres, 1, 'nearest')} l`
    : `${decimals(litres / (231_000 * METRES_PER.in ** 3), 1, 'nearest')} gal`
}

function few(value: number, unit: string, rounding: Rounding): string {
  return `${decimals(value, value < 100 ? 1 : 0, rounding)} ${unit}`
}

/** Rounded up, what lies on a step within a millionth of it stays there: 0.6 is not 0.7. */
function decimals(value: number, digits: number, rounding: Rounding): string {
  const steps = 10 ** digits
  const rounded = rounding === 'up' ? Math.ceil(value * steps - 1e-6) / steps : value
  return trimZeros(rounded.toFixed(digits))
}
