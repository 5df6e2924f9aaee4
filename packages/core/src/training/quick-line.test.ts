import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { quickSigns, readQuickLine } from './index.ts'
import type { QuickSign } from './index.ts'

/** As English has them: each sign by its own name, some by another too. */
const WORDS: ReadonlyMap<string, QuickSign> = new Map<string, QuickSign>([
  ...quickSigns.map((sign) => [sign, sign] as const),
  ['l', 'left'],
  ['r', 'right'],
  ['forward', 'front'],
  ['soft', 'pliable'],
])

const stem = (text: string, system: 'metric' | 'imperial' = 'metric') => {
  const line = readQuickLine(text, system, WORDS)
  if (!line.ok) throw new Error(line.reason)
  return line.stem
}

describe('a line called out at the plant', () => {
  it('is thickness, length and buds, and what else there is to say', () => {
    expect(stem('9 120 14')).toMatchObject({ baseMm: 9, buds: 14, side: null, alongM: null })
    expect(stem('9 120 14').lengthM).toBeCloseTo(1.2, 9)
    expect(stem('10 95 l @7 stiff front graft')).toMatchObject({
      bends: 'stiff',
      side: 'front',
      buds: null,
      isBelowGraft: true,
    })
    expect(stem('10 95 3y').seasonsOld).toBe(3)
    expect(stem('10 95 l @7').alongM).toBeCloseTo(0.07, 9)
  })

  it('takes the thickness at both ends where a stem tapers, the thicker first', () => {
    expect(stem('10-8 105 15')).toMatchObject({ baseMm: 10, tipMm: 8, buds: 15 })
    expect(stem('10 105')).toMatchObject({ baseMm: 10, tipMm: null })
    expect(stem('1/2-3/8 42', 'imperial').tipMm).toBeCloseTo(9.525, 3)
  })

  it('takes inches from those who measure in them, and units where they are written', () => {
    expect(stem('3/8 48 14', 'imperial').baseMm).toBeCloseTo(9.525, 3)
    expect(stem('3/8 48 14', 'imperial').lengthM).toBeCloseTo(48 * 0.0254, 9)
    expect(stem('9mm 4ft', 'imperial').lengthM).toBeCloseTo(1.2192, 9)
    expect(stem('9 1.2m').lengthM).toBeCloseTo(1.2, 9)
  })

  it('of a stem that was drawn may leave out its length, and corrects it where it says one', () => {
    const drawn = (text: string) => {
      const line = readQuickLine(text, 'metric', WORDS, 1.23)
      return line.ok ? [line.stem.baseMm, line.stem.lengthM, line.stem.buds] : line.reason
    }
    expect(drawn('9')).toEqual([9, 1.23, null])
    expect(drawn('9 - 14')).toEqual([9, 1.23, 14])
    expect(drawn('9 120 14')).toEqual([9, 1.2, 14])
    expect(drawn('lit')).toBe('no-thickness')
  })

  it.each([
    ['', 'empty'],
    ['lit', 'no-thickness'],
    ['9', 'no-length'],
    ['9 120 14 blue', 'unknown-word'],
    ['9 99m', 'too-long'],
    ['9 0', 'too-long'],
    ['900 120', 'too-thick'],
    ['8-10 120', 'too-thick'],
    ['10-0 120', 'too-thick'],
    ['10-8-6 120', 'unknown-word'],
    ['10- 120', 'unknown-word'],
    ['9 120 1.5', 'not-a-count'],
    ['9 120 999', 'not-a-count'],
    ['9 120 14 @x', 'unknown-word'],
  ])('"%s" is refused: %s', (text, reason) => {
    expect(readQuickLine(text, 'metric', WORDS)).toMatchObject({ ok: false, reason })
  })

  it('never throws and never gives what cannot be', () => {
    fc.assert(
      fc.property(
        fc.string({ maxLength: 30 }),
        fc.constantFrom('metric' as const, 'imperial' as const),
        (text, system) => {
          const line = readQuickLine(text, system, WORDS)
          if (!line.ok) return
          expect(line.stem.baseMm).toBeGreaterThan(0)
          expect(line.stem.lengthM).toBeGreaterThan(0)
          expect(line.stem.lengthM).toBeLessThanOrEqual(20)
        },
      ),
    )
  })
})
