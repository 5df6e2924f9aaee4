import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { designOf, nearStart, siteOf, usualFence } from '../../test/frames.ts'
import { standardCatalogue } from '../catalogue/index.ts'
import { kindsFor, startDesign } from '../design/index.ts'
import type { FrameDesign, PlannedSite } from '../design/index.ts'
import { frameKinds } from '../frame/index.ts'
import type { PatternKind, PlaceKind, StartPlace } from '../frame/index.ts'
import { planFrame } from '../plan/index.ts'
import { INCH_GRAIN, METRIC_GRAIN, adviseAll, levers } from './index.ts'
import type { Grain } from './index.ts'
import { leversOf } from './levers.ts'
import { runs, thirdOf, within } from '../../test/runs.ts'

const kinds = Object.keys(frameKinds) as PatternKind[]
const openOf = (site: PlannedSite, design: FrameDesign) =>
  new Set(
    planFrame(site, design)
      .checks.filter((c) => c.verdict !== 'holds')
      .map((c) => c.code),
  )

describe('a remedy', () => {
  it.each(thirdOf(kinds))(
    'of %s makes its check hold, lets nothing else give way, and costs what it says',
    (kind) => {
      fc.assert(
        fc.property(
          nearStart(kind),
          fc.constantFrom('wine-grape', 'ivy', 'wisteria-sinensis'),
          (near, plantKindId) => {
            const { place, pattern } = near
            const site = siteOf(place.widthM, place.usableHeightM, { firstForkM: place.firstForkM })
            const design = designOf(pattern, { plantKindId })
            const plan = planFrame(site, design)
            if (plan.problems.length > 0 || !plan.takeOff) return
            const before = openOf(site, design)
            const { advice, together } = adviseAll(site, design)
            expect(new Set(advice.map(({ code }) => code))).toEqual(before)
            for (const { code, remedies, needed } of advice) {
              expect(remedies.length > 0).toBe(needed === null)
              for (const remedy of remedies) {
                const after = openOf(site, remedy.design)
                expect(after).not.toContain(code)
                expect([...after].filter((one) => !before.has(one))).toEqual([])
                expect(after.size).toBe(remedy.open)
                const with_ = planFrame(site, remedy.design).takeOff!
                expect(remedy.moreCost).toBeCloseTo(with_.cost - plan.takeOff.cost, 6)
              }
            }
            if (together) expect(openOf(site, together.design).size).toBe(0)
          },
        ),
        { numRuns: runs(4) },
      )
    },
    within(60_000),
  )

  it(
    'is set out on the marks of the tape that one has',
    () => {
      const site = siteOf(45.72, 1.83, { surface: 'open' })
      const place: StartPlace = { kind: 'row', widthM: 45.72, usableHeightM: 1.83, firstForkM: 0 }
      const begun = startDesign(place, 'row', standardCatalogue)
      const design = {
        ...begun,
        pattern: { ...begun.pattern, postBuriedM: 0.4 } as typeof begun.pattern,
        plantKindId: 'raspberry',
      }
      const lengths = (grain: Grain) =>
        adviseAll(site, design, { grain }).advice.flatMap(({ remedies }) =>
          remedies.flatMap(({ steps }) => steps.flatMap(({ to }) => (to?.is === 'length' ? [to.m] : []))),
        )
      for (const [grain, mark] of [
        [METRIC_GRAIN, 0.05],
        [INCH_GRAIN, 0.0508],
      ] as const) {
        expect(lengths(grain).length).toBeGreaterThan(0)
        for (const m of lengths(grain)) expect(Math.abs(m / mark - Math.round(m / mark))).toBeLessThan(1e-4)
      }
    },
    within(60_000),
  )

  it('is looked for with every lever that there is', () => {
    expect([...new Set(Object.values(leversOf).flat())].sort()).toEqual([...levers].sort())
  })
})

const ordinary: readonly (readonly [PlaceKind, number, number, Partial<PlannedSite>, readonly string[]])[] = [
  ['wall', 12, 2.2, { surface: 'brick', firstForkM: 0.3 }, ['pear', 'climbing-rose', 'ivy']],
  [
    'fence',
    31,
    1.35,
    { surface: 'boards', firstForkM: 0.1, fence: usualFence, levels: { firstM: 0.25, stepM: 0.5 } },
    ['star-jasmine', 'climbing-rose'],
  ],
  ['row', 45.72, 1.83, { surface: 'open' }, ['wine-grape', 'raspberry']],
  ['terrace', 3, 2.4, { surface: 'open', setting: 'terrace' }, ['climbing-rose', 'clematis']],
  ['bench', 0.5, 1.6, { surface: 'open', setting: 'indoors' }, ['monstera']],
  ['tub', 0.62, 2, { surface: 'open' }, ['hop']],
  ['bed', 6, 2, { surface: 'open' }, ['climbing-rose', 'raspberry']],
]

/** Each eye of these bears two steep wires: nothing on offer holds heavy wood on them, and what to ask for is said. */
const TOO_HEAVY = ['zigzag pear', 'zigzag climbing-rose', 'free pear']

describe('what a grower begins with at an ordinary place', () => {
  it.each(ordinary)(
    '%s: holds, or says what makes it hold',
    (kind, widthM, usableHeightM, rest, plants) => {
      const place: StartPlace = { kind, widthM, usableHeightM, firstForkM: rest.firstForkM ?? 0 }
      const site = siteOf(widthM, usableHeightM, rest)
      const stuck: string[] = []
      for (const frame of kindsFor(place)) {
        for (const plantKindId of plants) {
          const design = { ...startDesign(place, frame, standardCatalogue), plantKindId }
          expect(planFrame(site, design).problems).toEqual([])
          if (openOf(site, design).size === 0) continue
          const { advice, together } = adviseAll(site, design)
          const isSaid =
            together !== null || advice.some(({ remedies }) => remedies.some(({ open }) => open === 0))
          if (isSaid) continue
          expect(advice.some(({ needed }) => needed !== null)).toBe(true)
          stuck.push(`${frame} ${plantKindId}`)
        }
      }
      expect(stuck.filter((one) => kind !== 'wall' || !TOO_HEAVY.includes(one))).toEqual([])
    },
    within(60_000),
  )
})
