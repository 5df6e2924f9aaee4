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
      const [leastM, mostM] = [Math.max(field.minM, step), field.maxM]
      const end = limitM(nowM)
      const marks =
        way === 'up'
          ? stepsUp(Math.floor(nowM / step + 1e-6) + 1, Math.floor(Math.min(mostM, end) / step + 1e-6))
          : stepsUp(
              Math.ceil(Math.max(leastM, end) / step - 1e-6),
              Math.ceil(nowM / step - 1e-6) - 1,
            ).reverse()
      return marks.map((n) => {
        const m = Math.round(n * step * 1e6) / 1e6
        return {
          lever,
          from: { is: 'length', m: nowM },
          to: { is: 'length', m },
          design: withField(design, key, m),
        }
      })
    })
}

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
