import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { runs } from '../../test/runs.ts'
import {
  cutAtM,
  forceAsTyped,
  formatCut,
  formatLength,
  lengthAsTyped,
  parseForce,
  parseLength,
} from './index.ts'
import type { LengthStyle, UnitSystem } from './index.ts'

const styles: readonly LengthStyle[] = ['long', 'short', 'fine']
const BARE = {
  metric: { long: 'm', short: 'cm', fine: 'mm' },
  imperial: { long: 'ft', short: 'in', fine: 'in' },
} as const
const readBack = (text: string, system: UnitSystem, style: LengthStyle) => {
  const parsed = parseLength(text, BARE[system][style], 1000)
  return parsed.ok ? parsed.value : Number.NaN
}

describe('a length in a form', () => {
  it('in feet and inches is what was typed, to the thirty-second, whatever the field is for', () => {
    fc.assert(
      fc.property(fc.integer({ min: 4, max: 32 * 12 * 400 }), fc.constantFrom(...styles), (parts, style) => {
        const metres = (parts / 32) * 0.0254
        const shown = lengthAsTyped(metres, 'imperial', style)
        expect(shown).not.toContain('≈')
        expect(readBack(shown, 'imperial', style)).toBeCloseTo(metres, 9)
        // Typed in any of the ways in which people write it, it shows the same.
        const [feet, inches] = [Math.floor(parts / 384), parts % 384]
        const [whole, fraction] = [Math.floor(inches / 32), inches % 32]
        const said = `${feet} ft ${whole} ${fraction}/32 in`
        expect(lengthAsTyped(readBack(said, 'imperial', style), 'imperial', style)).toBe(shown)
      }),
      { numRuns: runs(300) },
    )
  })

  it('in metres is what was typed, to the tenth of a millimetre', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5_000_000 }), fc.constantFrom(...styles), (tenths, style) => {
        const metres = tenths / 10_000
        const shown = lengthAsTyped(metres, 'metric', style)
        expect(shown).not.toContain('≈')
        expect(readBack(shown, 'metric', style)).toBeCloseTo(metres, 9)
      }),
      { numRuns: runs(300) },
    )
  })

  it('that lies between the marks says that it does, and never shows one number for another', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 300, noNaN: true }),
        fc.constantFrom('metric' as const, 'imperial' as const),
        fc.constantFrom(...styles),
        (metres, system, style) => {
          const shown = lengthAsTyped(metres, system, style)
          const back = readBack(shown, system, style)
          if (!shown.includes('≈')) expect(Math.abs(back - metres)).toBeLessThan(3e-6)
          else expect(Math.abs(back - metres)).toBeLessThan(0.0254 / 3)
        },
      ),
      { numRuns: runs(300) },
    )
  })

  it.each([
    [`4' 2"`, `4' 2"`],
    ['4 ft 2', `4' 2"`],
    ['5 ft 3', `5' 3"`],
    [`4'2 3/8"`, `4' 2 3/8"`],
    ['3/8"', '3/8"'],
    ['1 3/4"', '1 3/4"'],
    ['1-3/4 in', '1 3/4"'],
    ['¾"', '3/4"'],
    ['13/32 in', '13/32"'],
    ['30 cm', '≈ 11 13/16"'],
  ])('%s shows as %s', (typed, shown) => {
    expect(lengthAsTyped(readBack(typed, 'imperial', 'long'), 'imperial', 'short')).toBe(shown)
  })

  it('without a fraction shows as it always did', () => {
    for (let inches = 1; inches < 200; inches++)
      expect(lengthAsTyped(inches * 0.0254, 'imperial', 'long')).toBe(
        formatLength(inches * 0.0254, 'imperial', 'long'),
      )
    expect(lengthAsTyped(9.2, 'metric', 'long')).toBe('9.20 m')
    expect(lengthAsTyped(0.375, 'metric', 'short')).toBe('37.5 cm')
    expect(lengthAsTyped(0.008, 'metric', 'fine')).toBe('8 mm')
  })
})

it('a force in a form is what was typed, with as few decimals as it needs', () => {
  for (const typed of ['180 N', '134.5 N', '60.25 lbf', '27 lbf']) {
    const parsed = parseForce(typed, 'N')
    if (!parsed.ok) throw new Error(typed)
    expect(forceAsTyped(parsed.value, typed.endsWith('N') ? 'metric' : 'imperial')).toBe(typed)
  }
})

describe('a cut', () => {
  it('is never short of what is needed, nor longer than the next mark of saw or shears', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 50, noNaN: true }),
        fc.constantFrom('metric' as const, 'imperial' as const),
        fc.constantFrom('saw' as const, 'shears' as const),
        (metres, system, by) => {
          const cutM = cutAtM(metres, system, by)
          expect(cutM).toBeGreaterThan(metres - 2e-6)
          expect(cutM - metres).toBeLessThan(by === 'saw' ? 0.0016 : 0.013)
          // What is written is what is meant.
          expect(readBack(formatCut(metres, system, by), system, 'long')).toBeCloseTo(cutM, 6)
        },
      ),
      { numRuns: runs(300) },
    )
  })

  it.each([
    [2.7, 'metric', 'saw', '2.70 m'],
    [2.8403, 'metric', 'saw', '2.841 m'],
    [0.3051, 'metric', 'saw', '30.6 cm'],
    [62.061, 'metric', 'shears', '62.07 m'],
    [2.4384, 'imperial', 'saw', `8' 0"`],
    [2.439, 'imperial', 'saw', `8' 1/16"`],
  ] as const)('of %s in %s by %s is written %s', (metres, system, by, text) => {
    expect(formatCut(metres, system, by)).toBe(text)
  })
})
