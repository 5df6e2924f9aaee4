import { findStock } from '../catalogue/index.ts'
import type { Stock } from '../catalogue/index.ts'
import type { FrameDesign } from '../design/index.ts'
import { kindOf } from '../frame/index.ts'
import type { Field, Pattern } from '../frame/index.ts'
import type { Lever, Tries } from './levers.ts'

export const patternOf = (design: FrameDesign) =>
  design.pattern as Pattern & Readonly<Record<string, unknown>>
export const fieldsOf = (design: FrameDesign) =>
  kindOf(design.pattern).fields as Readonly<Record<string, Field>>
export const withField = (design: FrameDesign, key: string, value: unknown): FrameDesign => ({
  ...design,
  pattern: { ...design.pattern, [key]: value } as Pattern,
})

/** Lengths beyond what it is now, on the marks of the tape, as far as its field and `limitM` allow. */
export function lengthTries(
  lever: Lever,
  keys: readonly string[],
  way: 'up' | 'down',
  grain: 'depthM' | 'spacingM',
  limitM: (nowM: number) => number,
): Tries {
  return ({ design, grain: grains }) =>
    keys.flatMap((key) => {
      const field = fieldsOf(design)[key]
      const nowM = patternOf(design)[key]
      if (field?.ask !== 'length' || typeof nowM !== 'number') return []
      const step = grains[grain]
      const end = limitM(nowM)
      const marks =
        way === 'up'
          ? marksAbove(nowM, Math.min(field.maxM, end), step)
          : marksBelow(nowM, Math.max(field.minM, step, end), step)
      return marks.map((m) => ({
        lever,
        from: { is: 'length', m: nowM },
        to: { is: 'length', m },
        design: withField(design, key, m),
      }))
    })
}

/** A mark that is missed by so little of a step is that mark. */
const ON_MARK = 1e-6
const marked = (step: number) => (n: number) => Math.round(n * step * 1e6) / 1e6

/** Whole steps above what it is now, up to the most, the nearest first. */
export const marksAbove = (now: number, most: number, step: number): number[] =>
  stepsUp(Math.floor(now / step + ON_MARK) + 1, Math.floor(most / step + ON_MARK)).map(marked(step))

/** Whole steps below what it is now, down to the least, the nearest first. */
export const marksBelow = (now: number, least: number, step: number): number[] =>
  stepsUp(Math.ceil(least / step - ON_MARK), Math.ceil(now / step - ON_MARK) - 1)
    .reverse()
    .map(marked(step))

export const stepsUp = (from: number, to: number): number[] =>
  Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i)

/** Stouter pieces for the same use, those that bear least more first. */
export function stockTries(lever: Lever, keys: readonly string[], stouter: (of: Stock) => number): Tries {
  return ({ design, catalogue }) =>
    keys.flatMap((key) => {
      const field = fieldsOf(design)[key]
      const now = findStock(catalogue, String(patternOf(design)[key]))
      if (field?.ask !== 'stock' || !now) return []
      return catalogue.stock
        .filter((one) => field.uses.includes(one.use) && stouter(one) > stouter(now))
        .sort((a, b) => stouter(a) - stouter(b))
        .map(({ id }) => ({
          lever,
          from: { is: 'stock', id: now.id } as const,
          to: { is: 'stock', id } as const,
          design: withField(design, key, id),
        }))
    })
}
