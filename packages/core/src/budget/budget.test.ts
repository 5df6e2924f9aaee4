import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectReference, referenceCases } from '../../test/reference.ts'
import { balancedBuds, budFormulas, budTarget, cropForecast, yieldToPrunings } from './index.ts'

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

  it('is the number that was chosen, where that goes by nothing', () => {
    const plain = { by: 'plain', aim: 24, min: 20, max: 28 } as const
    expect(budTarget(plain, 1.6)).toEqual({ ...plain, why: 'chosen' })
  })

  it('is near enough a tenth either way, in whole buds', () => {
    expect(budTarget(balanced, 1.6)).toMatchObject({ min: 49, max: 61 })
  })

  it.each(budFormulas.map((one) => [one.id, one] as const))(
    'goes by the formula %s',
    (id, { first, further }) => {
      const kg = 3 * 0.45359237
      const goal = { ...balanced, formula: id, min: 0, max: 1000 }
      expect(budTarget(goal, kg)).toMatchObject({ by: id, aim: Math.round(first + 2 * further) })
    },
  )

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

describe('a figure that cannot be is refused by its name', () => {
  const yields = { burst: [0.8, 0.9], clustersPerShoot: [1, 2], clusterKg: [0.1, 0.2] } as const
  it.each([
    ['first', () => balancedBuds(-1, 10, 1)],
    ['further', () => balancedBuds(30, -1, 1)],
    ['pruningsKg', () => balancedBuds(30, 10, -1)],
    ['buds', () => cropForecast(-1, yields)],
    ['low', () => cropForecast(10, { ...yields, burst: [-0.1, 0.5] })],
    ['high', () => cropForecast(10, { ...yields, burst: [0.6, 0.5] })],
    ['fruitKg', () => yieldToPrunings(-1, 1)],
    ['pruningsKg', () => yieldToPrunings(1, -1)],
  ])('%s', (field, work) => {
    expect(work).toThrow(expect.objectContaining({ details: expect.objectContaining({ field }) }))
  })
})
