import type { Fixing } from '../catalogue/index.ts'
import type { FrameDesign } from './design.ts'
import type { Pattern, Pot } from '../frame/index.ts'

/** The pot that a frame stands in, where it stands in one. */
export function potOf(pattern: Pattern): Pot | null {
  if (pattern.kind === 'column') return pattern.tub
  return 'pot' in pattern ? pattern.pot : null
}

/** A pattern that stands in a pot, in another one. */
export const withPot = (pattern: Pattern, pot: Pot): Pattern =>
  ({ ...pattern, [pattern.kind === 'column' ? 'tub' : 'pot']: pot }) as Pattern

/** How far the wire runs off the surface, metres: as asked for, or as the fixing gives by itself. */
export function standOffOf(design: Pick<FrameDesign, 'standOffM'>, fixing: Fixing): number {
  return design.standOffM ?? fixing.standOffM
}
