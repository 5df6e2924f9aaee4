import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { designOf, nearStart, siteOf, usualFence } from '../../test/frames.ts'
import { runs } from '../../test/runs.ts'
import { findFixing, standardCatalogue } from '../catalogue/index.ts'
import { startDesign, weatherAt } from '../design/index.ts'
import type { FrameDesign, PlannedSite } from '../design/index.ts'
import { checkCodes, frameKinds, placeKinds } from '../frame/index.ts'
import type { Pattern, PatternKind, PlaceKind } from '../frame/index.ts'
import { planFrame } from '../plan/index.ts'
import { answerFor, forceParts, partsThatBear } from './index.ts'
import type { ForcePart } from './index.ts'

const kinds = Object.keys(frameKinds) as PatternKind[]

/** What bears force in a design as it is laid out, with the answer for each. */
function answersIn(site: PlannedSite, design: FrameDesign) {
  const plan = planFrame(site, design)
  const context = {
    frame: plan.frame!,
    site: { ...site, conditions: weatherAt(site) },
    design,
    catalogue: standardCatalogue,
    fixing: findFixing(standardCatalogue, design.fixingId)!,
    lines: plan.lines,
    loads: plan.loads,
    drives: new Map(),
  }
  return { plan, answers: partsThatBear(context).map((part) => [part, answerFor(part, context)] as const) }
}

const isRowWith = (end: object) => (pattern: Pattern) => ({ ...pattern, end }) as Pattern
/** Forms of a kind that bear in other parts than it does as it is begun. */
const FORMS: Readonly<Partial<Record<PatternKind, readonly ((pattern: Pattern) => Pattern)[]>>> = {
  row: [
    isRowWith({ kind: 'free' }),
    isRowWith({ kind: 'braced', attachHeightM: 1.4, angleDeg: 45, stockId: 'post-round-100' }),
    (pattern) =>
      pattern.kind === 'row'
        ? { ...pattern, levels: pattern.levels.map((level) => ({ ...level, form: 'arms' as const })) }
        : pattern,
  ],
  net: [(pattern) => ({ ...pattern, interior: 'hole', offInWinter: false, cover: 'film' }) as Pattern],
  overhead: [(pattern) => ({ ...pattern, backWires: 3 }) as Pattern],
}

const WIDTHS: Readonly<Record<PlaceKind, number>> = {
  wall: 6,
  fence: 9,
  row: 48,
  bed: 6,
  terrace: 3,
  bench: 0.6,
  tub: 0.62,
}

/** A kind at every place that it is offered for, in each of its forms, in wind, snow and ice. */
function everyForm(kind: PatternKind): readonly (readonly [string, PlannedSite, FrameDesign])[] {
  return placeKinds
    .filter((of) => of in frameKinds[kind].places)
    .flatMap((of) => {
      const widthM = WIDTHS[of]
      const place = { kind: of, widthM, usableHeightM: 2.2, firstForkM: 0 }
      const base = siteOf(widthM, 2.2, {
        surface: of === 'wall' ? 'brick' : of === 'fence' ? 'boards' : 'open',
        setting: of === 'terrace' ? 'terrace' : of === 'bench' ? 'indoors' : 'open',
        fence: of === 'fence' ? usualFence : null,
      })
      const site = { ...base, conditions: { ...base.conditions, snowPa: 400, iceMm: 3 } }
      const design = { ...startDesign(place, kind, standardCatalogue), plantKindId: 'wine-grape' }
      return [(p: Pattern) => p, ...(FORMS[kind] ?? [])].map(
        (form, i) => [`${of} ${i}`, site, { ...design, pattern: form(design.pattern) }] as const,
      )
    })
}

const seen = new Map<ForcePart, Set<string>>()
const used = new Set<string>()

describe('what lies between a force and the ground', () => {
  it.each(kinds)('%s: every part that bears has a check that answers for it, or a reason why not', (kind) => {
    for (const [name, site, design] of everyForm(kind)) {
      const { plan, answers } = answersIn(site, design)
      expect(plan.problems, name).toEqual([])
      const codes = new Set(plan.checks.map(({ code }) => code))
      for (const [part, answer] of answers) {
        seen.set(part, (seen.get(part) ?? new Set()).add(kind))
        if (typeof answer === 'string') {
          expect(plan.unchecked.parts).toContainEqual({ part, why: answer })
          continue
        }
        expect(answer.length).toBeGreaterThan(0)
        for (const code of answer) {
          used.add(code)
          // On a rail an eye leaves the board alone, and a cover without posts inside has none to lift there.
          expect(codes.has(code), `${name} ${part} ${code}`).toBe(true)
        }
      }
    }
  })

  it('a hook that is stuck on has no shank to bend, and answers for its own pull', () => {
    const site = siteOf(1.2, 2, { surface: 'tile' })
    const begun = startDesign(
      { kind: 'wall', widthM: 1.2, usableHeightM: 2, firstForkM: 0 },
      'tiers',
      standardCatalogue,
    )
    const { plan, answers } = answersIn(site, { ...begun, fixingId: 'hook-stick-80' })
    expect(answers).toContainEqual(['pad', ['fixing-pull']])
    expect(plan.checks.map(({ code }) => code)).not.toContain('eye-bending')
    seen.set('pad', new Set(['tiers']))
  })

  it('has every part of the table somewhere, and a part for every check but those of the whole', () => {
    expect(forceParts.filter((part) => !seen.has(part))).toEqual([])
    const ofTheWhole = ['winding', 'floor-tips', 'floor-slides', 'tub-tips', 'cover-uplift']
    expect(checkCodes.filter((code) => !used.has(code) && !ofTheWhole.includes(code))).toEqual([])
  })

  it.each(kinds)('%s: the same for any design near it', (kind) => {
    fc.assert(
      fc.property(nearStart(kind), ({ place, pattern }) => {
        const site = siteOf(place.widthM, place.usableHeightM, {
          firstForkM: place.firstForkM,
          surface: place.kind === 'wall' ? 'brick' : 'open',
        })
        const plan = planFrame(site, designOf(pattern))
        if (!plan.frame || plan.problems.length > 0) return
        const { answers } = answersIn(site, designOf(pattern))
        const codes = new Set(plan.checks.map(({ code }) => code))
        for (const [, answer] of answers)
          if (typeof answer !== 'string') for (const code of answer) expect(codes.has(code)).toBe(true)
      }),
      { numRuns: runs(10) },
    )
  })
})
