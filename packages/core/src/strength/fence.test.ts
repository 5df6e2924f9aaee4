import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { designOf, siteOf, tierLevels, usualFence } from '../../test/frames.ts'
import { fenceFields } from '../design/index.ts'
import type { FenceMade, FrameDesign, PlannedSite } from '../design/index.ts'
import { planFrame } from '../plan/index.ts'
import { adviseAll } from '../remedies/index.ts'

const rails = { firstM: 0.3, stepM: 0.5 }
const fenced = (fence: FenceMade | null, rest: Partial<PlannedSite> = {}) =>
  siteOf(6, 1.5, { surface: 'boards', fence, ...rest })
const tiers = (rest: Partial<FrameDesign> = {}) =>
  designOf(
    { kind: 'tiers', levels: tierLevels(0.4, 0.9, 1.4), maxSupportSpacingM: 1.8 },
    { plantKindId: 'star-jasmine', ...rest },
  )
const checkOf = (site: PlannedSite, design: FrameDesign, code: string) =>
  planFrame(site, design).checks.find((one) => one.code === code)

describe('a board fence', () => {
  it('that nobody has looked at cannot be told to hold, and says that it is the fence', () => {
    const { checks } = planFrame(fenced(null), tiers())
    const untold = checks.filter(({ verdict }) => verdict === 'untold')
    expect(untold.map(({ code }) => code).sort()).toEqual([
      'fence-nails',
      'fence-posts',
      'fence-rails',
      'fixing-pull',
    ])
    expect(untold.every(({ missing }) => missing === 'fence')).toBe(true)
  })

  it('can be told of as much as is known: each figure left out leaves out what goes by it, and no more', () => {
    fc.assert(
      fc.property(fc.constantFrom(...(Object.keys(fenceFields) as (keyof FenceMade)[])), (key) => {
        const untold = planFrame(fenced({ ...usualFence, [key]: null }), tiers()).checks.filter(
          ({ verdict }) => verdict === 'untold',
        )
        expect(untold.length).toBeGreaterThan(0)
        expect(untold.length).toBeLessThan(4)
      }),
    )
  })

  it('holds an eye by its board alone, thicker ones better, and into a rail best', () => {
    const holding = (boardMm: number, design = tiers(), levels: PlannedSite['levels'] = null) =>
      checkOf(fenced({ ...usualFence, boardMm }, { levels }), design, 'fixing-pull')!.holding![0]
    expect(holding(25)).toBeGreaterThan(holding(18))
    const onRails = tiers({ snap: 'levels', moveToleranceM: 0.26 })
    expect(holding(18, onRails, rails)).toBeGreaterThan(2 * holding(18))
    // Longer than the board is thick the thread is of no use.
    expect(holding(18, tiers({ fixingId: 'eye-150' }))).toBeLessThan(holding(18) * 1.5)
  })

  it('is held on by its nails less the further the wire stands off, and not at all loaded through a rail', () => {
    const need = (standOffM: number | null) =>
      checkOf(fenced(usualFence), tiers({ standOffM }), 'fence-nails')!.need!
    expect(need(0.09) / need(0.085)).toBeCloseTo(0.09 / 0.085, 6)
    // No more of it goes in than the board is thick: the rest stands off.
    expect(need(0.05)).toBeCloseTo(need(0.082), 6)
    const onRails = tiers({ snap: 'levels', moveToleranceM: 0.26 })
    expect(checkOf(fenced(usualFence, { levels: rails }), onRails, 'fence-nails')).toBeUndefined()
  })

  it('is helped by putting the fixings onto its rails, and then holds', () => {
    const site = fenced(usualFence, { levels: rails })
    const stout = tiers({ fixingId: 'eye-130' })
    const { advice } = adviseAll(site, stout)
    const remedy = advice
      .find(({ code }) => code === 'fixing-pull')!
      .remedies.find(({ steps }) => steps[0]!.lever === 'onto-rails')!
    expect(planFrame(site, remedy.design).outcome.verdict).toBe('holds')
  })

  it('bears less plant on fewer rails and wider bays', () => {
    const share = (rest: Partial<FenceMade>) => {
      const { need, holding } = checkOf(fenced({ ...usualFence, ...rest }), tiers(), 'fence-rails')!
      return holding![0] / need!
    }
    expect(share({ rails: 2 })).toBeLessThan(share({}))
    expect(share({ postSpacingM: 2.4 })).toBeLessThan(share({}))
    expect(share({ railHeightMm: 90 })).toBeGreaterThan(share({}))
  })
})

describe('a frame as somebody found it', () => {
  const site = siteOf(6, 1.5)
  it('cannot be told of where it goes by what nobody knows, and keeps every check in sight', () => {
    const known = planFrame(site, tiers()).checks.map(({ code }) => code)
    const seen = planFrame(site, tiers({ unknown: ['wire'] })).checks
    expect(seen.map(({ code }) => code).sort()).toEqual([...known].sort())
    const untold = seen.filter(({ missing }) => missing === 'as-seen').map(({ code }) => code)
    expect(untold.sort()).toEqual(['eye-bending', 'fixing-pull', 'strainer-travel', 'wire-pull', 'wire-sag'])
    expect(planFrame(site, tiers({ unknown: ['fixings'] })).checks.filter((c) => c.missing)).toHaveLength(2)
  })
})

describe('hooks that are stuck on', () => {
  it('hold on what they stick to, outdoors less, and on brick nobody can tell', () => {
    const hooks = tiers({ fixingId: 'hook-stick-80', tensionN: 10 })
    const at = (rest: Partial<PlannedSite>) => checkOf(siteOf(6, 1.5, rest), hooks, 'fixing-pull')!
    expect(at({ surface: 'tile', setting: 'indoors' }).holding).toEqual([80, 80])
    expect(at({ surface: 'tile' }).holding).toEqual([32, 32])
    expect(at({ surface: 'brick' })).toMatchObject({ verdict: 'untold', missing: 'surface' })
    const { takeOff } = planFrame(siteOf(6, 1.5, { surface: 'tile' }), hooks)
    expect(takeOff!.drill).toBeNull()
    expect(takeOff!.steps.map(({ kind }) => kind)).not.toContain('drill')
  })
})
