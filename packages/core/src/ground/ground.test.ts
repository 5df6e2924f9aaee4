import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectReference, referenceCases } from '../../test/reference.ts'
import { embedment, findSoil, heldEnd, lateralHoldingN, screwHolding, soils } from './index.ts'

const cases = (file: string, ...kinds: string[]) =>
  referenceCases(file)
    .filter((c) => kinds.length === 0 || kinds.includes(c.input.kind))
    .map((c) => [c.name, c] as const)

describe('embedment', () => {
  it.each(cases('post-embedment', 'embedment'))('%s', (_, reference) => {
    const { input } = reference
    const bearing =
      input.lateralBearingPa === undefined
        ? { paPerM: input.lateralBearingPaPerM }
        : { pa: input.lateralBearingPa }
    const result = embedment({ ...input, bearing })
    expectReference(
      reference,
      {
        embedmentDepthM: result.depthM,
        factorA: result.factorAM,
        bearingAtThirdDepthPa: result.bearingPa,
      },
      { skipped: ['factorAM'] },
    )
  })

  it('goes back from the depth to the load that asked for it, and deeper for more load, height or worse soil', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 3000, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.double({ min: 0.04, max: 0.3, noNaN: true }),
        fc.double({ min: 5000, max: 30_000, noNaN: true }),
        (lateralLoadN, loadHeightM, postWidthM, paPerM) => {
          const depth = (more: object = {}, rate = paPerM) =>
            embedment({ lateralLoadN, loadHeightM, postWidthM, bearing: { paPerM: rate }, ...more }).depthM
          const d = depth()
          expect(lateralHoldingN({ depthM: d, loadHeightM, postWidthM, paPerM }) / lateralLoadN).toBeCloseTo(
            1,
            8,
          )
          expect(depth({ lateralLoadN: lateralLoadN * 1.2 })).toBeGreaterThan(d)
          expect(depth({ loadHeightM: loadHeightM + 0.2 })).toBeGreaterThan(d)
          expect(depth({}, paPerM * 0.8)).toBeGreaterThan(d)
          expect(depth({ soilFactor: 2 })).toBeLessThan(d)
        },
      ),
    )
  })
})

describe('end assemblies', () => {
  it.each(cases('post-embedment', 'tieBack', 'strut'))('%s', (_, reference) => {
    const { wires, attachHeightM, angleFromGroundDeg, kind } = reference.input
    const end = heldEnd(wires, {
      kind: kind === 'strut' ? 'strut' : 'tie-back',
      attachHeightM,
      angleFromGroundRad: (angleFromGroundDeg * Math.PI) / 180,
    })
    expectReference(reference, { ...end })
  })
})

describe('a ground screw', () => {
  const screw = { helixDiameterM: 0.15, lengthM: 1.2, torqueFactorPerM: 33 }
  const drive = { depthAlongM: 1.1, angleFromVerticalRad: 0, reworks: 0, torqueNm: null, pullTestN: null }

  it('holds least to most in every soil, and nothing much in peat', () => {
    for (const soil of soils) {
      const [low, high] = screwHolding(screw, soil, drive, 0).allowableN
      expect(low).toBeGreaterThan(0)
      expect(high).toBeGreaterThanOrEqual(low)
    }
    expect(screwHolding(screw, findSoil('peat'), drive, 0).allowableN[1]).toBeLessThan(
      screwHolding(screw, findSoil('clay'), drive, 0).allowableN[0],
    )
  })

  it('counts a short, slanted or reworked drive as less', () => {
    const clay = findSoil('clay')
    const full = screwHolding(screw, clay, drive, 0).allowableN[0]
    expect(screwHolding(screw, clay, { ...drive, depthAlongM: 0.4 }, 0).allowableN[0]).toBeLessThan(full)
    expect(
      screwHolding(screw, clay, { ...drive, angleFromVerticalRad: 0.9 }, 0).allowableN[0] / full,
    ).toBeCloseTo(Math.cos(0.9), 6)
    expect(screwHolding(screw, clay, { ...drive, reworks: 1 }, 0).allowableN[0]).toBeCloseTo(full * 0.85, 6)
    expect(screwHolding(screw, clay, { ...drive, reworks: 40 }, 0).allowableN[0]).toBeCloseTo(full * 0.5, 6)
  })

  it('in line with its pull loses nothing by its slant, whatever the soil', () => {
    for (const soil of soils)
      for (const angle of [0, 0.3, 0.8, 1.2]) {
        const slanted = screwHolding(screw, soil, { ...drive, angleFromVerticalRad: angle }, angle)
        expect(slanted.allowableN[0]).toBeCloseTo(screwHolding(screw, soil, drive, 0).allowableN[0], 6)
        expect(slanted.reductions.slant).toBe(1)
      }
  })

  it('believes torque over soil, and a pull test over both', () => {
    const sand = findSoil('sand')
    const torque = screwHolding(screw, sand, { ...drive, torqueNm: 200 }, 0)
    expect(torque).toMatchObject({ basis: 'torque', allowableN: [3300, 3300] })
    const pulled = screwHolding(screw, sand, { ...drive, torqueNm: 200, pullTestN: 6000, reworks: 3 }, 0)
    expect(pulled).toMatchObject({ basis: 'pull-test', allowableN: [4000, 4000] })
  })
})
