import type { CheckCode } from '../frame/index.ts'

/** What a check takes to be built, weighed or set as the sheet says; whoever builds must find each on it. */
export const thingsCountedOn = [
  'tension',
  'wire-ending',
  'marked-fittings',
  'tie-strands',
  'slab',
  'depth',
  'concrete',
  'anchors',
  'fixings',
  'ballast',
  'soil',
  'feet-ballast',
  'lengths',
  'cover',
] as const
export type CountedOn = (typeof thingsCountedOn)[number]

/** What each check counts on; nothing where it goes by what stands there already. */
export const COUNTS_ON: Readonly<Record<CheckCode, readonly CountedOn[]>> = {
  'wire-pull': ['tension', 'wire-ending', 'marked-fittings'],
  'wire-sag': ['tension'],
  'strainer-travel': ['tension', 'marked-fittings'],
  'fixing-pull': ['fixings', 'tension'],
  'eye-bending': ['fixings', 'tension'],
  'fence-nails': ['fixings'],
  'fence-rails': [],
  'fence-posts': [],
  winding: [],
  'anchor-pull': ['anchors', 'marked-fittings'],
  'tie-pull': ['tie-strands', 'wire-ending'],
  'guy-pull': ['anchors', 'wire-ending', 'cover'],
  'end-sideways': ['depth'],
  'end-bending': ['lengths'],
  'end-foot': ['depth'],
  'end-uplift': ['depth'],
  'end-pressed': ['slab', 'depth'],
  'brace-foot': ['lengths'],
  'brace-notch': ['lengths'],
  'arm-bending': ['lengths'],
  'post-sideways': ['depth'],
  'post-frost': ['depth'],
  'post-bearing': ['depth', 'concrete'],
  'post-buckling': ['lengths'],
  'post-bending': ['lengths'],
  'post-uplift': ['depth', 'concrete'],
  'beam-bending': ['lengths'],
  'beam-deflection': ['lengths'],
  'rafter-sideways': ['lengths', 'tension'],
  'cover-uplift': ['depth', 'concrete', 'cover'],
  'leg-bending': ['depth', 'lengths'],
  'tub-tips': ['ballast', 'soil'],
  'floor-tips': ['feet-ballast'],
  'floor-slides': ['ballast', 'feet-ballast'],
}

/** Everything that a frame's checks count on, each once, in order. */
export function countedOnBy(checks: readonly { readonly code: CheckCode }[]): CountedOn[] {
  const all = new Set(checks.flatMap(({ code }) => COUNTS_ON[code]))
  return thingsCountedOn.filter((one) => all.has(one))
}
