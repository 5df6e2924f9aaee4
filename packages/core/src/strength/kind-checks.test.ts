import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { designOf, nearStart, siteOf } from '../../test/frames.ts'
import { standardCatalogue } from '../catalogue/index.ts'
import type { Catalogue, Surface } from '../catalogue/index.ts'
import { startDesign } from '../design/index.ts'
import { frameKinds, placeKinds } from '../frame/index.ts'
import type { PatternKind, PlaceKind } from '../frame/index.ts'
import { planFrame } from '../plan/index.ts'
import { coverage, outcomeOf } from './index.ts'
import type { Check } from './index.ts'
import { runs } from '../../test/runs.ts'

const kinds = Object.keys(frameKinds) as PatternKind[]
const homeOf = (kind: PatternKind): PlaceKind =>
  placeKinds.find((place) => place in frameKinds[kind].places) as PlaceKind

function startPlan(kind: PatternKind, catalogue: Catalogue = standardCatalogue, surface?: Surface) {
  const place = homeOf(kind)
  const isPot = place === 'bench' || place === 'tub'
  const site = siteOf(isPot ? 0.6 : 8, 2.2, { surface: surface ?? (place === 'wall' ? 'brick' : 'open') })
  const design = startDesign(
    { kind: place, widthM: site.widthM, usableHeightM: 2.2, firstForkM: 0 },
    kind,
    standardCatalogue,
  )
  return planFrame(site, { ...design, plantKindId: 'wine-grape' }, { catalogue })
}

/** What is checked in what a grower begins with: kind by kind, nothing more and nothing less. */
const TABLE: Readonly<Record<PatternKind, string>> = {
  tiers: 'eye-bending fixing-pull strainer-travel wire-pull wire-sag',
  diamonds: 'eye-bending fixing-pull strainer-travel wire-pull wire-sag',
  fan: 'eye-bending fixing-pull strainer-travel wire-pull wire-sag',
  zigzag: 'eye-bending fixing-pull strainer-travel wire-pull wire-sag',
  triangles: 'eye-bending fixing-pull strainer-travel wire-pull wire-sag',
  grid: 'eye-bending fixing-pull strainer-travel wire-pull wire-sag',
  free: 'eye-bending fixing-pull strainer-travel wire-pull wire-sag',
  row: 'anchor-pull end-bending end-foot end-pressed post-buckling post-sideways strainer-travel tie-pull wire-pull wire-sag',
  overhead:
    'beam-bending beam-deflection post-bearing post-bending post-buckling post-frost post-sideways post-uplift rafter-sideways strainer-travel wire-pull wire-sag',
  arch: 'leg-bending',
  net: 'anchor-pull cover-uplift guy-pull post-bearing post-buckling post-frost strainer-travel wire-pull wire-sag',
  spiral: 'leg-bending tub-tips',
  obelisk: 'leg-bending',
  pole: 'leg-bending tub-tips',
  stakes: 'leg-bending',
  column: 'leg-bending tub-tips',
  brush: '',
}

describe('what is checked in a kind of frame', () => {
  it.each(kinds)('%s: all of it, as it is begun, and all of it can be told', (kind) => {
    const { checks } = startPlan(kind)
    expect([...new Set(checks.map((check) => check.code))].sort().join(' ')).toBe(TABLE[kind])
    expect(checks.filter((check) => check.verdict === 'untold')).toEqual([])
  })

  it.each(kinds)('%s: nothing vanishes when the catalogue lacks what it asks for', (kind) => {
    const bare: Catalogue = { ...standardCatalogue, wires: [], screws: [] }
    const { checks, outcome } = startPlan(kind, bare)
    const codes = [...new Set(checks.map((check) => check.code))].sort().join(' ')
    expect(codes).toBe(TABLE[kind])
    const needsWire = TABLE[kind].includes('wire-pull')
    expect(outcome.verdict === 'untold' || outcome.verdict === 'fails').toBe(
      needsWire || outcome.verdict === 'fails',
    )
    if (needsWire) expect(outcome.counts.untold).toBeGreaterThanOrEqual(3)
  })

  it.each(kinds)('%s: what its record requires stands among the checks of any design near it', (kind) => {
    fc.assert(
      fc.property(nearStart(kind), ({ place, pattern }) => {
        const site = siteOf(place.widthM, place.usableHeightM, {
          firstForkM: place.firstForkM,
          surface: 'brick',
        })
        const plan = planFrame(site, designOf(pattern, { plantKindId: 'wine-grape' }))
        if (!plan.frame || plan.frame.runs.length === 0) return
        const codes = new Set(plan.checks.map((check) => check.code))
        const required = (frameKinds[kind].checks as (p: typeof pattern) => readonly string[])(pattern)
        for (const code of required) expect(codes.has(code as Check['code'])).toBe(true)
      }),
      { numRuns: runs(30) },
    )
  })

  it('cannot be told on a surface that nothing says the holding of, and says that it is the surface', () => {
    for (const surface of ['steel', 'tile', 'glass'] as const) {
      const eye = startPlan('tiers', standardCatalogue, surface).checks.find((c) => c.code === 'fixing-pull')!
      expect(eye).toMatchObject({ verdict: 'untold', missing: 'surface', holding: null })
      expect(coverage(eye)).toBeNull()
    }
    expect(startPlan('tiers', standardCatalogue, 'studs').checks.every((c) => c.verdict !== 'untold')).toBe(
      true,
    )
  })

  it('meets no wind, snow or frost under glass and indoors', () => {
    const site = (setting: 'open' | 'glass') => siteOf(0.6, 2, { surface: 'open', setting })
    const design = designOf(
      frameKinds.pole.start({ kind: 'bench', widthM: 0.6, usableHeightM: 2, firstForkM: 0 }),
    )
    const need = (setting: 'open' | 'glass') =>
      planFrame(site(setting), design).checks.map((check) => [check.code, check.need])
    expect(need('glass')).toEqual([
      ['leg-bending', 0],
      ['tub-tips', 0],
    ])
    for (const [, needed] of need('open')) expect(needed).toBeGreaterThan(0)
  })
})

describe('the outcome of all checks', () => {
  const of = (verdict: Check['verdict']) => ({ verdict }) as Check
  it('is the worst of them; what cannot be told is worse than a doubt and counts as not holding', () => {
    expect(outcomeOf([]).verdict).toBe('holds')
    expect(outcomeOf([of('holds'), of('doubtful')]).verdict).toBe('doubtful')
    expect(outcomeOf([of('untold'), of('doubtful'), of('holds')])).toEqual({
      verdict: 'untold',
      counts: { fails: 0, untold: 1, doubtful: 1, holds: 1 },
      open: 2,
    })
    expect(outcomeOf([of('untold'), of('fails')]).verdict).toBe('fails')
  })
})
