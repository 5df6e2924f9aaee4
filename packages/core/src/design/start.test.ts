import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { siteOf } from '../../test/frames.ts'
import { standardCatalogue } from '../catalogue/index.ts'
import { frameKinds, placeKinds } from '../frame/index.ts'
import type { PatternKind, StartPlace } from '../frame/index.ts'
import { planFrame } from '../plan/index.ts'
import { findKind } from '../kinds/index.ts'
import { kindsFor, potOf, startDesign } from './index.ts'
import { runs, within } from '../../test/runs.ts'

const INCH_M = 0.0254
const inches = (min: number, max: number) => fc.integer({ min, max }).map((n) => n * INCH_M)
const place = fc.record<StartPlace>({
  kind: fc.constantFrom(...placeKinds),
  widthM: inches(12, 1800),
  usableHeightM: inches(24, 120),
  firstForkM: inches(0, 30),
})

describe('a frame begun with a tape in inches', () => {
  it(
    'is never refused for the rounding of an inch, wherever the same one in metres is not',
    () => {
      fc.assert(
        fc.property(place, (at) => {
          const site = siteOf(at.widthM, at.usableHeightM, { firstForkM: at.firstForkM })
          for (const kind of kindsFor(at)) {
            const problems = (system: 'metric' | 'imperial') =>
              planFrame(site, startDesign(at, kind, standardCatalogue, system)).problems.map(
                ({ code }) => code,
              )
            if (problems('metric').length === 0) expect(problems('imperial')).toEqual([])
          }
        }),
        { numRuns: runs(60) },
      )
    },
    within(60_000),
  )

  it('holds on the wall of 18 by 5 feet whose tree forks at 16 inches', () => {
    const at: StartPlace = {
      kind: 'wall',
      widthM: 216 * INCH_M,
      usableHeightM: 60 * INCH_M,
      firstForkM: 16 * INCH_M,
    }
    const site = siteOf(at.widthM, at.usableHeightM, { firstForkM: at.firstForkM })
    for (const kind of kindsFor(at)) {
      const design = startDesign(at, kind, standardCatalogue, 'imperial')
      const { problems, checks } = planFrame(site, design)
      expect(problems).toEqual([])
      const open = checks.filter(({ verdict }) => verdict !== 'holds')
      expect(open.map(({ code, need, holding }) => [kind, code, need, holding])).toEqual([])
    }
  })

  it('leaves a tub as wide as it was measured, between two marks too', () => {
    fc.assert(
      fc.property(fc.integer({ min: 40, max: 180 }), (quarters) => {
        const widthM = (quarters / 4) * INCH_M
        const at: StartPlace = { kind: 'tub', widthM, usableHeightM: 2.1336, firstForkM: 0 }
        const widthOf = (kind: PatternKind, system: 'metric' | 'imperial') =>
          potOf(startDesign(at, kind, standardCatalogue, system).pattern)?.widthM
        expect(widthOf('spiral', 'imperial')).toBe(widthM)
        // Some kinds want a tub of a least width, whatever stands there.
        for (const kind of kindsFor(at))
          if (widthOf(kind, 'metric') === widthM) expect(widthOf(kind, 'imperial')).toBe(widthM)
      }),
    )
  })

  it('has its lengths on whole inches', () => {
    const at: StartPlace = { kind: 'row', widthM: 45.72, usableHeightM: 1.8288, firstForkM: 0 }
    const lengths = (of: unknown): number[] =>
      typeof of === 'object' && of !== null
        ? Object.entries(of).flatMap(([key, value]) =>
            typeof value === 'number' ? (key.endsWith('M') ? [value] : []) : lengths(value),
          )
        : []
    const kinds = Object.keys(frameKinds) as PatternKind[]
    for (const kind of kinds.filter((one) => one !== 'grid')) {
      const { pattern } = startDesign(at, kind, standardCatalogue, 'imperial')
      for (const m of lengths(pattern))
        expect(Math.abs(m / INCH_M - Math.round(m / INCH_M))).toBeLessThan(1e-3)
    }
  })

  it.each(['wine-grape', 'raspberry', null])(
    'as a row of 150 ft holds what is usual on rows: %s',
    (plantKindId) => {
      const at: StartPlace = { kind: 'row', widthM: 45.72, usableHeightM: 1.8288, firstForkM: 0 }
      const site = siteOf(at.widthM, at.usableHeightM, { surface: 'open' })
      for (const system of ['metric', 'imperial'] as const) {
        const design = { ...startDesign(at, 'row', standardCatalogue, system), plantKindId }
        expect(planFrame(site, design).outcome).toMatchObject({ verdict: 'holds', open: 0 })
      }
    },
  )
})

it('names a plant that Klados knows for every kind of frame', () => {
  const unknown = Object.values(frameKinds).filter(({ usualPlant }) => !findKind(usualPlant))
  expect(unknown.map(({ kind }) => kind)).toEqual([])
})

it('level tiers begun above a fork that is no whole millimetre stand on the wall', () => {
  for (const firstForkM of [0.4572, 0.30485, 0.3048]) {
    const place = { kind: 'wall', widthM: 6.4, usableHeightM: 2.1336, firstForkM } as const
    const design = startDesign(place, 'tiers', standardCatalogue)
    expect(planFrame(siteOf(6.4, 2.1336, { firstForkM }), design).problems).toEqual([])
  }
})

it('a frame on tiles or glass begins with hooks that stick to them, one on brick with eyes', () => {
  const on = (surface: 'tile' | 'glass' | 'brick') => {
    const place = { kind: 'wall', widthM: 1.2, usableHeightM: 2, firstForkM: 0, surface } as const
    const design = startDesign(place, 'tiers', standardCatalogue)
    return { design, plan: planFrame(siteOf(1.2, 2, { surface, setting: 'indoors' }), design) }
  }
  expect(on('brick').design.fixingId).toBe('eye-130')
  for (const surface of ['tile', 'glass'] as const) {
    const { design, plan } = on(surface)
    expect(design.fixingId).toBe('hook-stick-80')
    expect(design.tensionN).toBeLessThan(20)
    expect(plan.checks.some(({ missing }) => missing === 'surface')).toBe(false)
    expect(plan.takeOff!.steps.map(({ kind }) => kind)).not.toContain('drill')
  }
})
