import { describe, expect, it } from 'vitest'
import { expectReference, referenceCases } from '../../test/reference.ts'
import { tipping, windForceN } from './index.ts'

const cases = (file: string, ...kinds: string[]) =>
  referenceCases(file)
    .filter((c) => kinds.length === 0 || kinds.includes(c.input.kind))
    .map((c) => [c.name, c] as const)

describe('tipping', () => {
  it.each(cases('overturn'))('%s', (_, reference) => {
    const { input } = reference
    const result = tipping({ ...input, leverM: input.baseRadiusM ?? input.baseSideM / 2 })
    expectReference(reference, {
      ...result,
      staticTiltLimitDeg: (result.staticTiltLimitRad * 180) / Math.PI,
    })
  })

  it('stands in the wind asked for once its ballast is in', () => {
    const tub = {
      leverM: 0.2,
      massKg: 30,
      massCentreHeightM: 0.2,
      screenAreaM2: 1,
      screenCentreHeightM: 1,
      dragCoefficient: 1.2,
      windSpeedMPerS: 20,
      safetyFactor: 1,
    }
    const { ballastKg } = tipping(tub)
    expect(tipping({ ...tub, massKg: 30 + ballastKg }).criticalWindSpeedMPerS).toBeCloseTo(20, 9)
  })
})

describe('wind', () => {
  it('grows with the square of its speed and with what it meets', () => {
    const screen = { speedMPerS: 10, areaM2: 2, solidity: 0.5, dragCoefficient: 1 }
    expect(windForceN(screen)).toBeCloseTo(61.25, 9)
    expect(windForceN({ ...screen, speedMPerS: 20 })).toBeCloseTo(4 * 61.25, 9)
    expect(windForceN({ ...screen, solidity: 0 })).toBe(0)
  })
})
