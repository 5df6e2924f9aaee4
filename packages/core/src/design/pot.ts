import type { Pattern, Pot } from '../frame/index.ts'

/** The pot that a frame stands in, where it stands in one. */
export function potOf(pattern: Pattern): Pot | null {
  if (pattern.kind === 'column') return pattern.tub
  return 'pot' in pattern ? pattern.pot : null
}
