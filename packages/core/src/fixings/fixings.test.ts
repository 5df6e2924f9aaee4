import { describe, expect, it } from 'vitest'
import { plugHoldingN, withdrawalN } from './index.ts'

describe('withdrawal from wood', () => {
  it('matches the NDS table for a 1/2 inch lag screw: 378 lb an inch at G = 0.50', () => {
    const perInch = withdrawalN({
      threadMm: 12.7,
      penetrationMm: 25.4,
      specificGravity: 0.5,
      exposure: 'dry',
    })
    expect(perInch / 4.4482216).toBeCloseTo(378, 0)
  })

  it('matches it for 1/4 inch at G = 0.42: 173 lb an inch', () => {
    const perInch = withdrawalN({
      threadMm: 6.35,
      penetrationMm: 25.4,
      specificGravity: 0.42,
      exposure: 'dry',
    })
    expect(perInch / 4.4482216).toBeCloseTo(173, 0)
  })

  it('grows in proportion to depth, loses three tenths in the wet, and refuses nonsense', () => {
    const eye = { threadMm: 6, penetrationMm: 40, specificGravity: 0.46, exposure: 'dry' as const }
    expect(withdrawalN({ ...eye, penetrationMm: 80 })).toBeCloseTo(2 * withdrawalN(eye), 9)
    expect(withdrawalN({ ...eye, exposure: 'wet' })).toBeCloseTo(0.7 * withdrawalN(eye), 9)
    expect(() => withdrawalN({ ...eye, threadMm: 0 })).toThrow(/threadMm/)
  })
})

describe('a plug', () => {
  const rating = { ratedN: 800, fullSpacingM: 0.1, fullEdgeM: 0.12 }
  it('carries its rating in the open, less near a neighbour or an edge, nothing right beside one', () => {
    expect(plugHoldingN(rating, { spacingM: 2, edgeM: Infinity })).toBe(800)
    expect(plugHoldingN(rating, { spacingM: 0.075, edgeM: 1 })).toBeCloseTo(600, 9)
    expect(plugHoldingN(rating, { spacingM: 0.075, edgeM: 0.09 })).toBeCloseTo(450, 9)
    expect(plugHoldingN(rating, { spacingM: 0.04, edgeM: 1 })).toBe(0)
  })
})
