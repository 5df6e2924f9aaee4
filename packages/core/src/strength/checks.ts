import type { FrameDesign } from '../design/index.ts'
import { findKind, windingOf } from '../kinds/index.ts'
import type { Check, CheckContext } from './check.ts'
import { fixingChecks, wireChecks } from './check-wires.ts'
import { rowChecks } from './check-rows.ts'
import { anchorChecks, groundChecks, overheadChecks } from './check-overhead.ts'
import { legChecks, tubChecks } from './check-standing.ts'

/** Everything that has to hold in this frame, the weakest first. */
export function checkFrame(context: CheckContext): Check[] {
  const checks = [
    ...wireChecks(context),
    ...fixingChecks(context),
    ...rowChecks(context),
    ...anchorChecks(context),
    ...groundChecks(context),
    ...overheadChecks(context),
    ...legChecks(context),
    ...tubChecks(context),
  ]
  const rank = { fails: 0, doubtful: 1, holds: 2 }
  return checks.sort(
    (a, b) => rank[a.verdict] - rank[b.verdict] || a.holding[0] / a.need - b.holding[0] / b.need,
  )
}

/** True when the string is wound against the way the kind twines; `null` where that does not matter. */
export function isWoundWrongly(design: FrameDesign): boolean | null {
  const kind = design.plantKindId === null ? undefined : findKind(design.plantKindId)
  const winding = kind ? windingOf(kind) : null
  return design.pattern.kind === 'spiral' && winding !== null ? winding !== design.pattern.winding : null
}
