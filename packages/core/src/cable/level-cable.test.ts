import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectReference, referenceCases } from '../../test/reference.ts'
import { levelCable } from './index.ts'

describe('levelCable', () => {
  it.each(referenceCases('cable-level').map((c) => [c.name, c] as const))(
    '%s, to a millionth',
    (_, reference) => {
      const { spanM, horizontalTensionN, weightNPerM, axialStiffnessN } = reference.input
      const cable = levelCable(spanM, horizontalTensionN, weightNPerM, axialStiffnessN)
      expectReference(reference, { ...cable }, { maxRel: 1e-6 })
    },
  )

  it('is straight without weight, and stretched by its tension alone', () => {
    const cable = levelCable(6, 900, 0, 981_747)
    expect(cable.sagM).toBe(0)
    expect(cable.arcMinusSpanM).toBeCloseTo(0, 12)
    expect(cable.unstretchedLengthM).toBeCloseTo(6 / (1 + 900 / 981_747), 12)
  })

  it('sags more under more weight and less under more tension, and scales with length', () => {
    const span = fc.double({ min: 0.2, max: 80, noNaN: true })
    const tension = fc.double({ min: 20, max: 4000, noNaN: true })
    fc.assert(
      fc.property(span, tension, (L, H) => {
        const sag = levelCable(L, H, 0.4, 1e6).sagM
        expect(levelCable(L, H, 0.5, 1e6).sagM).toBeGreaterThan(sag)
        expect(levelCable(L, H * 1.1, 0.4, 1e6).sagM).toBeLessThan(sag)
        // Twice the span and twice all forces over the same weight per metre: the same shape, twice as large.
        expect(levelCable(2 * L, 2 * H, 0.4, 2e6).sagM / (2 * sag)).toBeCloseTo(1, 9)
      }),
    )
  })

  it('refuses impossible spans and tensions before computing', () => {
    expect(() => levelCable(-6, 900, 0.4, 1e6)).toThrow(/spanM must lie/)
    expect(() => levelCable(6, 0, 0.4, 1e6)).toThrow(/horizontalTensionN/)
    expect(() => levelCable(6, 900, Number.NaN, 1e6)).toThrow(/finite/)
  })
})
