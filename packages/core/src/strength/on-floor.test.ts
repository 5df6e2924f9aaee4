import { describe, expect, it } from 'vitest'
import { designOf, siteOf } from '../../test/frames.ts'
import type { FrameDesign, PlannedSite } from '../design/index.ts'
import { frameKinds } from '../frame/index.ts'
import type { PatternOfKind } from '../frame/index.ts'
import { planFrame } from '../plan/index.ts'
import { adviseAll } from '../remedies/index.ts'

const roof = (rest: Partial<PlannedSite> = {}) =>
  siteOf(3, 2.4, { surface: 'open', setting: 'terrace', ...rest })
const begun = frameKinds.arch.start({ kind: 'terrace', widthM: 3, usableHeightM: 2.4, firstForkM: 0 })
const arch = (rest: Partial<PatternOfKind<'arch'>> = {}, design: Partial<FrameDesign> = {}) =>
  designOf({ ...begun, spanM: 1.3, ...rest }, { plantKindId: 'climbing-rose', ...design })
const pot = {
  shape: 'round',
  widthM: 0.4,
  heightM: 0.4,
  ballastKg: 0,
  drainageM: 0,
  hasCharcoal: false,
  isThere: false,
} as const
const tips = (site: PlannedSite, design: FrameDesign, code: 'floor-tips' | 'tub-tips') =>
  planFrame(site, design).checks.find((one) => one.code === code)!.holding![0]
const slides = (site: PlannedSite, design: FrameDesign) =>
  planFrame(site, design).checks.find((one) => one.code === 'floor-slides')!

describe('an arch on a roof terrace', () => {
  it('without pots tips and slides, and stands with what it is advised to lay on its feet', () => {
    const open = planFrame(roof(), arch()).checks.filter(({ verdict }) => verdict === 'fails')
    expect(open.map(({ code }) => code).sort()).toEqual(['floor-slides', 'floor-tips'])
    const { advice, together } = adviseAll(roof(), arch())
    const remedies = [...(together ? [together] : []), ...advice.flatMap((one) => one.remedies)]
    const ballast = remedies.find(({ open: left }) => left === 0)!
    expect(ballast.steps.map(({ lever }) => lever)).toContain('feet-ballast')
    expect(planFrame(roof(), ballast.design).outcome.verdict).toBe('holds')
  })

  it('is told in words to lay what makes it stand, and hardly more', () => {
    for (const wind of [12, 22, 30]) {
      const site = roof({ conditions: { ...roof().conditions, windMPerS: wind } })
      const kg = slides(site, arch()).advice.ballastKg!
      const laid = (share: number) =>
        planFrame(site, arch({}, { feetBallastKg: kg * share })).checks.filter(({ code }) =>
          code.startsWith('floor-'),
        )
      expect(laid(1.001).map(({ verdict }) => verdict)).toEqual(['holds', 'holds'])
      expect(laid(0.9).every(({ verdict }) => verdict === 'holds')).toBe(false)
    }
  })

  it('stands in two pots of 40 cm, one a foot, but not with both feet in one trough of 90', () => {
    const two = arch({ pot, potsAs: 'each-foot', hoops: 1, buriedM: 0.3 })
    const { frame, problems } = planFrame(roof(), two)
    expect(problems).toEqual([])
    expect(frame!.units).toHaveLength(2)
    const trough = arch({ pot: { ...pot, widthM: 0.9 }, hoops: 1, buriedM: 0.3 })
    expect(planFrame(roof(), trough).problems.map(({ code }) => code)).toEqual(['frame/wider-than-pot'])
  })

  it('tips at a harder wind the heavier its pots, and asks for earth in both', () => {
    const two = (ballastKg: number) =>
      arch({ pot: { ...pot, ballastKg }, potsAs: 'each-foot', hoops: 1, buriedM: 0.3 })
    expect(tips(roof(), two(40), 'tub-tips')).toBeGreaterThan(tips(roof(), two(0), 'tub-tips'))
    const soil = planFrame(roof(), two(0)).frame!.fills.filter(({ good }) => good === 'soil')
    expect(soil).toHaveLength(2)
  })

  it('does neither where the ground holds it', () => {
    const codes = planFrame(siteOf(3, 2.4, { surface: 'open' }), arch()).checks.map(({ code }) => code)
    expect(codes).not.toContain('floor-tips')
    expect(codes).not.toContain('floor-slides')
  })

  it('is pushed less in less wind', () => {
    const calm = roof({ conditions: { ...roof().conditions, windMPerS: 8 } })
    expect(slides(calm, arch()).need).toBeLessThan(slides(roof(), arch()).need!)
  })
})

describe('string', () => {
  it('wound against its plant fails, and the other way round it holds', () => {
    const spiral = frameKinds.spiral.start({ kind: 'tub', widthM: 0.62, usableHeightM: 2, firstForkM: 0 })
    const wound = (winding: 'clockwise' | 'anticlockwise') =>
      designOf({ ...spiral, winding }, { wireId: 'coir-6', plantKindId: 'hop' })
    const tub = siteOf(0.62, 2, { surface: 'open' })
    const verdict = (design: FrameDesign) =>
      planFrame(tub, design).checks.find(({ code }) => code === 'winding')!.verdict
    expect(verdict(wound('anticlockwise'))).toBe('fails')
    expect(verdict(wound('clockwise'))).toBe('holds')
    const { advice } = adviseAll(tub, wound('anticlockwise'))
    expect(advice.find(({ code }) => code === 'winding')!.remedies[0]!.design.pattern).toMatchObject({
      winding: 'clockwise',
    })
  })
})
