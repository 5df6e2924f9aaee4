import { expect } from 'vitest'
import { standardCatalogue } from '../../src/catalogue/index.ts'
import { startDesign } from '../../src/design/index.ts'
import type { FrameDesign, PlannedSite } from '../../src/design/index.ts'
import type { PatternKind, PatternOfKind, PlaceKind } from '../../src/frame/index.ts'
import { planFrame } from '../../src/plan/index.ts'
import type { FramePlan } from '../../src/plan/index.ts'
import { siteOf } from '../frames.ts'

export const FT = 0.3048
export const IN = 0.0254
/** Pounds per square foot in pascals. */
export const PSF = 47.880259

/** A frame as it is begun in inches at such a place, with what the grower then types. */
export function planned<K extends PatternKind>(
  placeKind: PlaceKind,
  kind: K,
  site: Partial<PlannedSite> & { readonly widthM: number; readonly usableHeightM: number },
  typed: Partial<PatternOfKind<K>>,
  rest: Partial<FrameDesign> = {},
): { readonly plan: FramePlan; readonly design: FrameDesign } {
  const measured = siteOf(site.widthM, site.usableHeightM, { surface: 'open', ...site })
  const { widthM, usableHeightM, firstForkM } = measured
  const begun = startDesign(
    { kind: placeKind, widthM, usableHeightM, firstForkM },
    kind,
    standardCatalogue,
    'imperial',
  )
  const design = { ...begun, ...rest, pattern: { ...begun.pattern, ...typed } as FrameDesign['pattern'] }
  const plan = planFrame(measured, design)
  expect(plan.problems).toEqual([])
  return { plan, design }
}

export const figure = (plan: FramePlan, key: string): number =>
  plan.frame!.figures.find((one) => one.key === key)!.value
export const membersOf = (plan: FramePlan, role: string) =>
  plan.frame!.members.filter((member) => member.role === role)
export const quantity = (plan: FramePlan, id: string): number =>
  plan.takeOff!.items.reduce(
    (sum, item) =>
      ('goodId' in item && item.goodId === id) ||
      ('screwId' in item && item.screwId === id) ||
      ('fixingId' in item && item.fixingId === id)
        ? sum + item.quantity
        : sum,
    0,
  )
export const checkOf = (plan: FramePlan, code: string, subject?: string) =>
  plan.checks.find((one) => one.code === code && (subject === undefined || one.subject === subject))!

/** To a part in a thousand: what a hand with a tape and a slide rule comes to. */
export const near = (actual: number, byHand: number): void =>
  expect(Math.abs(actual - byHand)).toBeLessThanOrEqual(1e-3 * Math.max(1e-3, Math.abs(byHand)))
