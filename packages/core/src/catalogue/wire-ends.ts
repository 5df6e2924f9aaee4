import type { Wire, WireMaterial } from './wire.ts'

/** How a wire is made off where it ends. */
export const wireEndings = ['wrap', 'clip', 'crimp', 'knot'] as const
export type WireEnding = (typeof wireEndings)[number]

/**
 * What an ending leaves of a wire's strength: half in a knot, three fifths where it is wrapped round itself, four fifths
 * under clips (EN 13411-5), nine tenths in a pressed sleeve (EN 13411-3).
 */
export const ENDING_SHARE: Readonly<Record<WireEnding, number>> = {
  wrap: 0.6,
  clip: 0.8,
  crimp: 0.9,
  knot: 0.5,
}

const KNOTTED: ReadonlySet<WireMaterial> = new Set(['polyamide', 'jute', 'coir'])

/** The ending that was asked for, or the one that is usual for such a wire. */
export function endingOf(wire: Wire, wished: WireEnding | null): WireEnding {
  if (wished !== null) return wished
  if (KNOTTED.has(wire.material)) return 'knot'
  return wire.material === 'stainless-rope' ? 'clip' : 'wrap'
}

/** In its worst hour a wire may bear half as much again as for years: 0.6 of its breaking load for 0.4 in steel. */
const PEAK_OVER_LASTING = 1.5

/** What a wire may bear with its ends made off as they are, newtons: for years, and in its worst hour. */
export interface SafeLoads {
  readonly lastingN: number
  readonly peakN: number
}

export function safeLoads(wire: Wire, wished: WireEnding | null): SafeLoads {
  const lastingN = wire.breakingLoadN * wire.workingShare * ENDING_SHARE[endingOf(wire, wished)]
  return { lastingN, peakN: PEAK_OVER_LASTING * lastingN }
}
