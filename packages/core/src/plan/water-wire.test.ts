import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { designOf, patternArbs, siteOf } from '../../test/frames.ts'
import { planFrame } from './index.ts'
import { runs } from '../../test/runs.ts'

/** Everything that plants, crop and wind put on a frame. */
const burdens = (plan: ReturnType<typeof planFrame>) => ({
  loads: plan.loads,
  posts: plan.checks.find((check) => check.code === 'post-sideways')?.need,
  lines: plan.lines
    .filter((line) => line.role === 'carrying' || line.role === 'foliage')
    .map(({ ids, states }) => ({ ids, states })),
})

describe('a wire of its own for the water pipe', () => {
  it('changes no load and no other wire, whatever the row and wherever it hangs', () => {
    fc.assert(
      fc.property(patternArbs.row, fc.double({ min: 0.05, max: 1.3, noNaN: true }), (row, waterHeightM) => {
        const site = siteOf(30, 2.2, { surface: 'open' })
        const plan = (height: number | null) =>
          planFrame(site, designOf({ ...row, waterHeightM: height }, { plantKindId: 'wine-grape' }))
        expect(burdens(plan(waterHeightM))).toEqual(burdens(plan(null)))
      }),
      { numRuns: runs(40) },
    )
  })

  it('pulls at the ends like any other wire', () => {
    const site = siteOf(30, 2.2, { surface: 'open' })
    fc.assert(
      fc.property(patternArbs.row, (row) => {
        const need = (waterHeightM: number | null) =>
          planFrame(site, designOf({ ...row, end: { kind: 'free' }, waterHeightM })).checks.find(
            (check) => check.code === 'end-sideways',
          )!.need!
        expect(need(0.4)).toBeGreaterThan(need(null))
      }),
      { numRuns: runs(20) },
    )
  })
})
