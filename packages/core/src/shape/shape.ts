import type { Point, Point3 } from '../geometry/index.ts'
import type { CalendarDate } from '../season/index.ts'

/**
 * What a value that is written down looks like: a small language of shapes, so that the body of an entry is
 * described once, where its meaning is, and the contract's schema and the compiler's type follow from it.
 */
export type Shape =
  /** A UUID. */
  | { readonly is: 'uuid' }
  /** Id of a frame's part, or of something in a catalogue; `of` says which, for the compiler. */
  | { readonly is: 'part'; readonly max: number }
  | { readonly is: 'text'; readonly min: number; readonly max: number }
  | { readonly is: 'day' }
  | { readonly is: 'number'; readonly min: number; readonly max: number; readonly above: boolean }
  | { readonly is: 'whole'; readonly min: number; readonly max: number }
  | { readonly is: 'flag' }
  | { readonly is: 'choice'; readonly of: readonly (string | number)[] }
  /** A point of the elevation, and a line through at least two of them. */
  | { readonly is: 'point' }
  | { readonly is: 'path'; readonly max: number }
  /** A way in space through at least two points. */
  | { readonly is: 'way'; readonly max: number }
  | { readonly is: 'none-or'; readonly of: Shape }
  | { readonly is: 'list'; readonly of: Shape; readonly max: number }
  | { readonly is: 'record'; readonly of: Shapes }
  /** One of several records, told apart by one of their fields. */
  | { readonly is: 'one-of'; readonly by: string; readonly of: readonly Shapes[] }

export type Shapes = Readonly<Record<string, Shape>>

/** For the compiler alone: the id that a part's text is. */
declare const named: unique symbol
type Named<T> = { readonly [named]?: T }

/** The value that a shape describes. */
export type ValueOf<S> = S extends { readonly is: 'uuid' | 'text' }
  ? string
  : S extends { readonly is: 'part' } & Named<infer Id>
    ? unknown extends Id
      ? string
      : Exclude<Id, undefined>
    : S extends { readonly is: 'day' }
      ? CalendarDate
      : S extends { readonly is: 'number' | 'whole' }
        ? number
        : S extends { readonly is: 'flag' }
          ? boolean
          : S extends { readonly is: 'choice'; readonly of: readonly (infer Option)[] }
            ? Option
            : S extends { readonly is: 'point' }
              ? Point
              : S extends { readonly is: 'path' }
                ? readonly Point[]
                : S extends { readonly is: 'way' }
                  ? readonly Point3[]
                  : S extends { readonly is: 'none-or'; readonly of: infer Of }
                    ? ValueOf<Of> | null
                    : S extends { readonly is: 'list'; readonly of: infer Of }
                      ? readonly ValueOf<Of>[]
                      : S extends { readonly is: 'record'; readonly of: infer Of }
                        ? ValuesOf<Of>
                        : S extends { readonly is: 'one-of'; readonly of: readonly (infer Of)[] }
                          ? Of extends Of
                            ? ValuesOf<Of>
                            : never
                          : never
export type ValuesOf<S> = { readonly [K in keyof S]: ValueOf<S[K]> }

export const uuid = { is: 'uuid' } as const
export const part = <Id = string>() => ({ is: 'part', max: 60 }) as { is: 'part'; max: number } & Named<Id>
export const text = (max: number, min = 0) => ({ is: 'text', min, max }) as const
export const day = { is: 'day' } as const
/** From `min` to `max`, both included. */
export const number = (min: number, max: number) => ({ is: 'number', min, max, above: false }) as const
/** More than `min`, up to `max`. */
export const above = (min: number, max: number) => ({ is: 'number', min, max, above: true }) as const
export const whole = (min: number, max: number) => ({ is: 'whole', min, max }) as const
export const flag = { is: 'flag' } as const
export const choice = <const O extends readonly (string | number)[]>(...of: O) =>
  ({ is: 'choice', of }) as const
export const point = { is: 'point' } as const
export const path = { is: 'path', max: 200 } as const
export const way = { is: 'way', max: 400 } as const
export const noneOr = <const S extends Shape>(of: S) => ({ is: 'none-or', of }) as const
export const list = <const S extends Shape>(of: S, max: number) => ({ is: 'list', of, max }) as const
export const record = <const S extends Shapes>(of: S) => ({ is: 'record', of }) as const
export const oneOf = <const S extends readonly Shapes[]>(by: string, ...of: S) =>
  ({ is: 'one-of', by, of }) as const
/** The latest version of a body that a shape reads; of a shape that tells no versions, any. */
export function latestVersionOf(shape: Shape): number {
  const known = latest.get(shape)
  if (known !== undefined) return known
  const records = shape.is === 'one-of' ? shape.of : shape.is === 'record' ? [shape.of] : []
  const versions = records.flatMap(({ v }) => (v?.is === 'choice' ? v.of : []))
  const found = versions.length === 0 ? Number.POSITIVE_INFINITY : Math.max(...versions.map(Number))
  latest.set(shape, found)
  return found
}
const latest = new WeakMap<Shape, number>()

/** A body of version 1, and one that came in several. */
export const v1 = <const S extends Shapes>(fields: S) => record({ v: choice(1), ...fields })
