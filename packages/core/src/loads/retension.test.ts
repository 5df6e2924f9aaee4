import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { designOf, siteOf, tierLevels } from '../../test/frames.ts'
import type { TensionLog } from '../frame-log/index.ts'
import { planFrame } from '../plan/index.ts'
import { daysBetween } from '../season/index.ts'
import { strainDue } from './index.ts'

const plan = planFrame(
  siteOf(12, 1.8),
  designOf(
    { kind: 'tiers', levels: tierLevels(0.5), maxSupportSpacingM: 3 },
    { plantKindId: 'wine-grape', tensionN: 150 },
  ),
)
const [line] = plan.lines
const log = (what: 'set' | 'found', on: string, tensionN: number, temperatureC = 12): TensionLog => ({
  what,
  on,
  tensionN,
  temperatureC,
})
const due = (entries: readonly TensionLog[], hottestC = 35) =>
  strainDue(line!, entries, { loads: plan.loads, hottestC })

describe('the day to strain a wire again', () => {
  it('is nobody’s to say before it was strained', () => {
    expect(due([])).toBeNull()
  })

  it('is a range from the day of setting alone, one day from readings since', () => {
    const isAtOnce = (pull: number) => due([log('set', '2026-03-01', pull)])!.dueOn === '2026-03-01'
    let [slack, holds] = [1, 400]
    for (let i = 0; i < 40; i++) {
      const middle = (slack + holds) / 2
      if (isAtOnce(middle)) slack = middle
      else holds = middle
    }
    // Set a little over what it needs, it holds now and not for long.
    const pull = holds * 1.005
    const alone = due([log('set', '2026-03-01', pull)])!
    expect(alone.reason).toBe('slack')
    expect(alone.range!.earliestOn < (alone.range!.latestOn ?? '9999')).toBe(true)
    const read = due([log('set', '2026-03-01', pull), log('found', '2026-03-02', pull * 0.98)])!
    expect(read.reason).toBe('slack')
    expect(read.range!.latestOn).toBe(read.range!.earliestOn)
  })

  it('is a year off at the latest, counted from the last reading', () => {
    fc.assert(
      fc.property(fc.integer({ min: 40, max: 900 }), fc.integer({ min: 0, max: 400 }), (tensionN, hotC) => {
        const one = due([log('set', '2026-03-01', tensionN)], 15 + hotC / 20)!
        const days = daysBetween('2026-03-01', one.dueOn)
        expect(days).toBeGreaterThanOrEqual(0)
        expect(days).toBeLessThanOrEqual(365)
      }),
    )
  })

  it('comes sooner the harder the reading has fallen, and the less it was set to', () => {
    const after = (found: number) =>
      due([log('set', '2026-03-01', 150), log('found', '2026-04-01', found)])!.dueOn
    expect(after(70) <= after(110)).toBe(true)
    expect(after(110) <= after(148)).toBe(true)
    const set = (tensionN: number) => due([log('set', '2026-03-01', tensionN)])!.dueOn
    expect(set(40) <= set(300)).toBe(true)
  })

  it('is at once for one that sags too far as it is, and for that reason', () => {
    const slack = due([log('set', '2026-03-01', 2)])!
    expect(slack).toMatchObject({ dueOn: '2026-03-01', reason: 'slack' })
  })

  it('goes by the last setting and forgets what was before', () => {
    const before = [log('set', '2024-03-01', 150), log('found', '2025-03-01', 60)]
    const again = log('set', '2026-03-01', 150)
    expect(due([...before, again])).toEqual(due([again]))
  })
})
