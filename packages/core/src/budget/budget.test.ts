import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectReference, referenceCases } from '../../test/reference.ts'
import { balancedBuds, budTarget, cropForecast, yieldToPrunings } from './index.ts'

const cases = referenceCases('bud-budget')
const ofKind = (kind: string) =>
  cases.filter(({ input }) => input.kind === kind).map((c) => [c.name, c] as const)

describe('bud budget reference cases', () => {
  it.each(ofKind('buds'))('%s', (_, reference) => {
    const {
      budsForFirstPound,
      budsPerExtraPound,
      pruningMassKg,
      minBuds = 0,
      maxBuds = 1e6,
    } = reference.input
    const buds = balancedBuds(budsForFirstPound, budsPerExtraPound, pruningMassKg)
    const limited = buds === null ? undefined : Math.min(maxBuds, Math.max(minBuds, buds))
    expectReference(reference, {
      formulaValid: buds !== null,
      pruningMassLb: pruningMassKg / 0.45359237,
      budsUnlimited: buds,
      budsLimited: limited,
      buds: limited === undefined ? undefined : Math.round(limited),
    })
  })

  it.each(ofKind('crop'))('%s', (_, reference) => {
    const { nodes, budbreakFraction, clustersPerShoot, clusterMassKg, vines } = reference.input
    const same = (x: number) => [x, x] as const
    const crop = cropForecast(nodes, {
      burst: same(budbreakFraction),
      clustersPerShoot: same(clustersPerShoot),
      clusterKg: same(clusterMassKg),
    })
    expectReference(reference, {
      shoots: crop.shoots[0],
      clusters: crop.clusters[1],
      cropPerVineKg: crop.cropKg[0],
      cropTotalKg: crop.cropKg[1] * vines,
    })
  })

  it.each(ofKind('ravaz'))('%s', (_, reference) => {
    const { fruitMassKg, pruningMassKg } = reference.input
    expectReference(reference, { ravazIndex: yieldToPrunings(fruitMassKg, pruningMassKg) })
  })
})

describe('bud target', () => {
  const balanced = { by: 'balanced', formula: '30+10', min: 20, max: 80, plain: 30 } as const

  it('goes by the prunings, and says when it has nothing to go by', () => {
    expect(budTarget(balanced, 1.6)).toMatchObject({ aim: 55, by: '30+10', why: 'weighed' })
    expect(budTarget(balanced, null)).toMatchObject({ aim: 30, by: 'plain', why: 'not-weighed' })
    expect(budTarget(balanced, 0.4)).toMatchObject({ aim: 30, by: 'plain', why: 'under-a-pound' })
  })

  it('never falls as the prunings grow heavier, and keeps to its limits', () => {
    const kg = fc.double({ min: 0.46, max: 20, noNaN: true })
    fc.assert(
      fc.property(kg, kg, (a, b) => {
        const [low, high] = [Math.min(a, b), Math.max(a, b)].map((x) => budTarget(balanced, x))
        expect(low!.aim).toBeLessThanOrEqual(high!.aim)
        expect(high!.aim).toBeLessThanOrEqual(balanced.max)
        expect(low!.min).toBeLessThanOrEqual(low!.aim)
      }),
    )
  })
})
