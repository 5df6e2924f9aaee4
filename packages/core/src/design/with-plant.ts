import { findKind } from '../kinds/index.ts'
import type { PlantKind } from '../kinds/index.ts'
import type { UnitSystem } from '../units/index.ts'
import { nearestMark, onInchMark } from './in-inches.ts'
import type { FrameDesign } from './design.ts'

/** What a row is begun with while nobody has said what grows there, metres. */
const BEGUN_SPACING_M = 1.2

/**
 * The design with what it will carry, and what follows from that: the plants of a row stand as far apart as the kind
 * wants, unless somebody has set another distance; string is wound the way that the kind twines.
 */
export function withPlant(design: FrameDesign, plantKindId: string | null, system: UnitSystem): FrameDesign {
  const kind = plantKindId === null ? undefined : findKind(plantKindId)
  const before = design.plantKindId === null ? undefined : findKind(design.plantKindId)
  const next = { ...design, plantKindId }
  const { pattern } = design
  if (!kind) return next
  if (pattern.kind === 'spiral' && kind.winding !== null)
    return { ...next, pattern: { ...pattern, winding: kind.winding } }
  if (pattern.kind === 'row' && isAsBegun(pattern.plantSpacingM, before)) {
    const plantSpacingM = system === 'metric' ? kind.spacingM : onInchMark(kind.spacingM, nearestMark)
    return { ...next, pattern: { ...pattern, plantSpacingM } }
  }
  return next
}

/** Whether it is what the design was begun with, or what followed from the kind of before. */
const isAsBegun = (spacingM: number, before: PlantKind | undefined): boolean =>
  [BEGUN_SPACING_M, ...(before ? [before.spacingM] : [])]
    .flatMap((m) => [m, onInchMark(m, nearestMark)])
    .some((m) => Math.abs(m - spacingM) < 1e-6)
