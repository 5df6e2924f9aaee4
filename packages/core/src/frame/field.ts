import { CoreError, requireRange, requireWhole } from '../errors/index.ts'
import type { ScrewOnOffer, Stock } from '../catalogue/index.ts'
import type { Pot } from './pot.ts'
import type { LevelId, NodeId } from './parts.ts'

/** How a length is written: over metres, over centimetres, or to the millimetre. */
export type LengthWriting = 'long' | 'short' | 'fine'

/**
 * One parameter of a kind of frame: what it is, its unit by the suffix of its name, its range. Everything
 * that has to know them (the check before laying, the contract's schema, the form, the properties in tests)
 * reads them here.
 */
export type Field =
  | {
      readonly ask: 'length'
      readonly minM: number
      readonly maxM: number
      readonly writing: LengthWriting
    }
  /** A length that may be wanted or not; `usualM` is offered when it is. */
  | {
      readonly ask: 'length-or-none'
      readonly minM: number
      readonly maxM: number
      readonly writing: LengthWriting
      readonly usualM: number
    }
  | { readonly ask: 'whole'; readonly min: number; readonly max: number }
  | { readonly ask: 'number'; readonly min: number; readonly max: number; readonly step: number }
  | { readonly ask: 'choice'; readonly options: readonly (string | number)[] }
  | { readonly ask: 'flag' }
  | { readonly ask: 'stock'; readonly uses: readonly Stock['use'][] }
  | { readonly ask: 'screw'; readonly head: ScrewOnOffer['head'] }
  | { readonly ask: 'pot'; readonly canBeNone: boolean }
  /** Id of a part of the design itself, made with it and kept. */
  | { readonly ask: 'id'; readonly of: 'level' | 'node' }
  /** A pair of nodes of the same design. */
  | { readonly ask: 'link' }
  | { readonly ask: 'list'; readonly min: number; readonly max: number; readonly of: Field | Fields }
  | { readonly ask: 'one-of'; readonly by: string; readonly of: Readonly<Record<string, Fields>> }

export type Fields = { readonly [key: string]: Field } & { readonly ask?: never }

/** The value that a field has in a design. */
export type ValueOf<F> = F extends { readonly ask: 'length' | 'whole' | 'number' }
  ? number
  : F extends { readonly ask: 'length-or-none' }
    ? number | null
    : F extends { readonly ask: 'choice'; readonly options: readonly (infer Option)[] }
      ? Option
      : F extends { readonly ask: 'flag' }
        ? boolean
        : F extends { readonly ask: 'stock' | 'screw' }
          ? string
          : F extends { readonly ask: 'pot'; readonly canBeNone: false }
            ? Pot
            : F extends { readonly ask: 'pot' }
              ? Pot | null
              : F extends { readonly ask: 'id'; readonly of: 'node' }
                ? NodeId
                : F extends { readonly ask: 'id' }
                  ? LevelId
                  : F extends { readonly ask: 'link' }
                    ? readonly [NodeId, NodeId]
                    : F extends { readonly ask: 'list'; readonly of: infer Of }
                      ? readonly ValueOf<Of>[]
                      : F extends { readonly ask: 'one-of'; readonly by: infer By; readonly of: infer Of }
                        ? {
                            [V in keyof Of]: { readonly [B in By & string]: V } & ValuesOf<Of[V]>
                          }[keyof Of]
                        : ValuesOf<F>
export type ValuesOf<F> = { readonly [K in keyof F]: ValueOf<F[K]> }

export const length = (minM: number, maxM: number, writing: LengthWriting = 'long') =>
  ({ ask: 'length', minM, maxM, writing }) as const
export const lengthOrNone = (minM: number, maxM: number, usualM: number, writing: LengthWriting = 'short') =>
  ({ ask: 'length-or-none', minM, maxM, writing, usualM }) as const
export const whole = (min: number, max: number) => ({ ask: 'whole', min, max }) as const
export const number = (min: number, max: number, step: number) => ({ ask: 'number', min, max, step }) as const
export const choice = <const O extends readonly (string | number)[]>(...options: O) =>
  ({ ask: 'choice', options }) as const
export const flag = { ask: 'flag' } as const
export const stock = (...uses: Stock['use'][]) => ({ ask: 'stock', uses }) as const
export const screw = <const H extends ScrewOnOffer['head']>(head: H) => ({ ask: 'screw', head }) as const
export const pot = { ask: 'pot', canBeNone: false } as const
export const potOrNone = { ask: 'pot', canBeNone: true } as const
export const id = <const O extends 'level' | 'node'>(of: O) => ({ ask: 'id', of }) as const
export const link = { ask: 'link' } as const
export const list = <const F extends Field | Fields>(min: number, max: number, of: F) =>
  ({ ask: 'list', min, max, of }) as const
export const oneOf = <const By extends string, const F extends Readonly<Record<string, Fields>>>(
  by: By,
  of: F,
) => ({ ask: 'one-of', by, of }) as const

/** Widths and heights of pots that are taken for real, metres. */
export const POT_RANGE_M = [0.03, 5] as const
export const BALLAST_RANGE_KG = [0, 2000] as const
/** The longest id of a part. */
export const MAX_ID_LETTERS = 60

export function isField(of: Field | Fields): of is Field {
  return typeof of.ask === 'string'
}

/**
 * Throws `core/not-finite` or `core/out-of-range` for the first parameter that lies outside its field's
 * range, and `frame/same-id` where two parts of a list have one id. Called before anything is laid.
 */
export function requireFields(fields: Fields, values: Readonly<Record<string, unknown>>): void {
  for (const [key, field] of Object.entries(fields)) requireField(key, field, values[key])
}

function requireField(key: string, field: Field, value: unknown): void {
  switch (field.ask) {
    case 'length':
      requireRange(key, value as number, field.minM, field.maxM)
      return
    case 'length-or-none':
      if (value !== null) requireRange(key, value as number, field.minM, field.maxM)
      return
    case 'number':
      requireRange(key, value as number, field.min, field.max)
      return
    case 'whole':
      requireWhole(key, value as number, field.min, field.max)
      return
    case 'choice':
      if (!field.options.includes(value as string))
        throw new CoreError('frame/unknown-choice', `${key} is none of ${field.options.join(', ')}`, {
          field: key,
          value: String(value),
        })
      return
    case 'pot':
      if (value !== null) {
        requireRange('potWidthM', (value as Pot).widthM, ...POT_RANGE_M)
        requireRange('potHeightM', (value as Pot).heightM, ...POT_RANGE_M)
        requireRange('ballastKg', (value as Pot).ballastKg, ...BALLAST_RANGE_KG)
        requireRange('drainageM', (value as Pot).drainageM, 0, (value as Pot).heightM)
      }
      return
    case 'one-of': {
      const variant = value as Readonly<Record<string, unknown>>
      requireFields(field.of[variant[field.by] as string] ?? {}, variant)
      return
    }
    case 'list':
      return requireList(key, field, value as readonly unknown[])
    case 'flag':
    case 'stock':
    case 'screw':
    case 'id':
    case 'link':
      return
  }
}

function requireList(
  key: string,
  { min, max, of }: Extract<Field, { ask: 'list' }>,
  items: readonly unknown[],
): void {
  requireRange(key, items.length, min, max)
  const ids = new Set<unknown>()
  for (const item of items) {
    if (isField(of)) {
      requireField(key, of, item)
      continue
    }
    const part = item as Readonly<Record<string, unknown>>
    requireFields(of, part)
    if (!('id' in of)) continue
    if (ids.has(part.id))
      throw new CoreError('frame/same-id', `Two of ${key} are called ${String(part.id)}`, { field: key })
    ids.add(part.id)
  }
}
