import { describe, expect, it } from 'vitest'
import { designOf, siteOf } from '../../test/frames.ts'
import { standardCatalogue } from '../catalogue/index.ts'
import { startDesign } from '../design/index.ts'
import { frameKinds } from '../frame/index.ts'
import type { Drive } from '../ground/index.ts'
import { answerDrive, planFrame } from './index.ts'

const at = { kind: 'row', widthM: 48, usableHeightM: 2, firstForkM: 0 } as const
const site = siteOf(48, 2, { surface: 'open' })
const design = { ...startDesign(at, 'row', standardCatalogue), plantKindId: 'wine-grape' }
const plan = planFrame(site, design)
const anchor = plan.frame!.anchors[0]!
const full: Drive = {
  depthAlongM: 1.6,
  angleFromVerticalRad: Math.PI / 4,
  reworks: 0,
  torqueNm: null,
  pullTestN: null,
}
const answer = (drive: Partial<Drive>) =>
  answerDrive(plan, { site, catalogue: standardCatalogue }, anchor, { ...full, ...drive })!

describe('a screw, as it stands in the ground', () => {
  it('in full depth holds what is asked of it; on a stone at a third of it does not, and is to be moved', () => {
    expect(answer({}).verdict).toBe('holds')
    const onStone = answer({ depthAlongM: 0.5 })
    expect(['fails', 'doubtful']).toContain(onStone.verdict)
    expect(onStone.holdingN[0]).toBeLessThan(answer({}).holdingN[0])
    expect(onStone.lostShare).toBeCloseTo(1 - onStone.holdingN[0] / answer({}).holdingN[0], 9)
    expect(answer({}).lostShare).toBeCloseTo(0, 9)
    expect(onStone.moveM).toBeCloseTo(0.8, 6)
  })

  it('is asked for what the plan’s own check asks of it', () => {
    const check = plan.checks.find(({ code, subject }) => code === 'anchor-pull' && subject === anchor.label)!
    expect(answer({}).needN).toBe(check.need)
  })

  it('is believed when it was pulled', () => {
    expect(answer({ depthAlongM: 0.5, pullTestN: 20_000 }).verdict).toBe('holds')
  })

  it('under a post of a cover is asked for the lift of its bay', () => {
    const cover = frameKinds.net.start({ kind: 'bed', widthM: 28, usableHeightM: 2.6, firstForkM: 0 })
    const field = siteOf(28, 2.6, { surface: 'open' })
    const net = planFrame(field, designOf(cover, { wireId: 'high-tensile-2.5' }))
    const flange = net.frame!.anchors.find(({ head }) => head === 'flange')!
    const one = answerDrive(net, { site: field, catalogue: standardCatalogue }, flange, {
      ...full,
      depthAlongM: 0.6,
      angleFromVerticalRad: 0.4,
    })!
    expect(one.needN).toBe(net.checks.find(({ code }) => code === 'cover-uplift')!.need)
    expect(one.lostShare).toBeGreaterThan(0.3)
    expect(one.holdingN[0]).toBeGreaterThan(0)
  })
})
