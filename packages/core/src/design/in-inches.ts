import { isField } from '../frame/index.ts'
import type { Field, Fields } from '../frame/index.ts'

const INCH_M = 0.0254
/** From here on a length is taken by the half foot, below by the inch. */
const BY_HALF_FEET_FROM_M = 3
const POT_LENGTHS = ['widthM', 'heightM'] as const

export type ToMark = (m: number, markM: number) => number
export const nearestMark: ToMark = (m, markM) => Math.round(m / markM + 1e-6) * markM
export const markBelow: ToMark = (m, markM) => Math.max(1, Math.floor(m / markM + 1e-6)) * markM

/** A length on a mark of a tape in inches, metres; nothing stays nothing. */
export function onInchMark(m: number, toMark: ToMark): number {
  if (m === 0) return 0
  const markM = m < BY_HALF_FEET_FROM_M ? INCH_M : 6 * INCH_M
  return Math.round(toMark(m, markM) * 1e6) / 1e6
}

/**
 * Parameters of a kind with every length on a mark of a tape in inches: what a grower who measures so would have
 * begun with. Which of them are lengths its record says.
 */
export function inInches(
  fields: Fields,
  values: Readonly<Record<string, unknown>>,
  toMark: ToMark,
): Readonly<Record<string, unknown>> {
  return Object.fromEntries(
    Object.entries(values).map(([key, value]) => [
      key,
      fields[key] ? marked(fields[key], value, toMark) : value,
    ]),
  )
}

function marked(field: Field, value: unknown, toMark: ToMark): unknown {
  if (value === null) return null
  switch (field.ask) {
    case 'length':
    case 'length-or-none':
      return onInchMark(value as number, toMark)
    case 'pot': {
      const pot = value as Readonly<Record<(typeof POT_LENGTHS)[number], number>>
      return { ...pot, ...Object.fromEntries(POT_LENGTHS.map((key) => [key, onInchMark(pot[key], toMark)])) }
    }
    case 'one-of': {
      const variant = value as Readonly<Record<string, unknown>>
      return inInches(field.of[variant[field.by] as string] ?? {}, variant, toMark)
    }
    case 'list': {
      const { of } = field
      return (value as readonly unknown[]).map((item) =>
        isField(of)
          ? marked(of, item, toMark)
          : inInches(of, item as Readonly<Record<string, unknown>>, toMark),
      )
    }
    default:
      return value
  }
}
