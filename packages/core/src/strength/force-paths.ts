import { findWire, isString } from '../catalogue/index.ts'
import type { CheckCode, Joint, MemberRole } from '../frame/index.ts'
import { wireFor } from '../frame/index.ts'
import type { CheckContext } from './check.ts'

/** What lies between a force on a frame and the ground, the wall or the floor. */
export const forceParts = [
  'wire',
  'strainer',
  'string',
  'tie',
  'guy',
  'eye',
  'pad',
  'staple',
  'bolt',
  'lashing',
  'anchor',
  'anchor-eye',
  'post-base',
  'end-post',
  'line-post',
  'roof-post',
  'cover-post',
  'brace',
  'cross-arm',
  'beam',
  'rafter',
  'upright',
  'crosspiece',
  'twig',
  'cover',
  'mesh',
  'pot',
  'floor',
  'fence',
] as const
export type ForcePart = (typeof forceParts)[number]

/** Why a part is not computed; each is said to the grower in so many words. */
export const reasonsWhyNot = [
  'marked-fitting',
  'made-as-said',
  'bears-what-hangs',
  'uprights-bear',
  'makers-figure',
  'wound-by-hand',
  'short-lived',
] as const
export type ReasonWhyNot = (typeof reasonsWhyNot)[number]

/** The checks that answer for a part, or why there is none. */
export type ForceAnswer = readonly CheckCode[] | ReasonWhyNot

const ANSWERS: Readonly<Record<ForcePart, (context: CheckContext) => ForceAnswer>> = {
  wire: () => ['wire-pull', 'wire-sag', 'strainer-travel'],
  strainer: () => 'marked-fitting',
  string: () => 'wound-by-hand',
  tie: () => ['tie-pull'],
  guy: () => ['guy-pull'],
  eye: () => ['fixing-pull', 'eye-bending'],
  pad: () => ['fixing-pull'],
  staple: () => 'bears-what-hangs',
  bolt: () => 'made-as-said',
  lashing: () => 'made-as-said',
  anchor: () => ['anchor-pull'],
  'anchor-eye': () => 'marked-fitting',
  'post-base': () => ['cover-uplift'],
  'end-post': ({ design: { pattern } }) => {
    if (pattern.kind !== 'row' || pattern.end.kind === 'free') return ['end-sideways', 'end-bending']
    return pattern.end.kind === 'braced'
      ? ['end-bending', 'end-foot', 'end-uplift']
      : ['end-bending', 'end-foot', 'end-pressed', 'post-buckling']
  },
  'line-post': () => ['post-sideways'],
  'roof-post': () => [
    'post-bearing',
    'post-buckling',
    'post-bending',
    'post-sideways',
    'post-uplift',
    'post-frost',
  ],
  'cover-post': () => ['post-bearing', 'post-buckling', 'cover-uplift', 'post-frost'],
  brace: () => ['brace-foot', 'brace-notch', 'post-buckling'],
  'cross-arm': () => ['arm-bending'],
  beam: () => ['beam-bending', 'beam-deflection'],
  rafter: () => ['beam-bending', 'beam-deflection', 'rafter-sideways'],
  upright: () => ['leg-bending'],
  crosspiece: () => 'uprights-bear',
  twig: () => 'short-lived',
  cover: () => 'makers-figure',
  mesh: () => 'makers-figure',
  pot: () => ['tub-tips'],
  floor: () => ['floor-slides'],
  fence: () => ['fence-nails', 'fence-rails', 'fence-posts'],
}

const OF_ROLE: Readonly<Record<MemberRole, ForcePart>> = {
  'end-post': 'end-post',
  'line-post': 'line-post',
  post: 'roof-post',
  brace: 'brace',
  'cross-arm': 'cross-arm',
  beam: 'beam',
  rafter: 'rafter',
  hoop: 'upright',
  stake: 'upright',
  leg: 'upright',
  core: 'upright',
  column: 'upright',
  rung: 'crosspiece',
  rib: 'crosspiece',
  ring: 'crosspiece',
  bar: 'crosspiece',
  twig: 'twig',
}
const OF_JOINT: Readonly<Record<Joint, ForcePart | null>> = {
  eye: 'eye',
  staple: 'staple',
  bolt: 'bolt',
  lashing: 'lashing',
  // Where a wire ends on a post or passes through an eye, the wire itself is what is checked.
  end: null,
  through: null,
}

/** Every part of a frame that bears force, read off what is laid. */
export function partsThatBear(context: CheckContext): ForcePart[] {
  const { frame, design, catalogue, fixing, site } = context
  const parts = new Set<ForcePart>()
  for (const { line } of frame.runs) {
    if (line.role === 'tie-back') parts.add(frame.traits.isCover ? 'guy' : 'tie')
    else {
      const { wireId } = wireFor(line.role) === 'light' && design.light ? design.light : design
      const wire = findWire(catalogue, wireId)
      const isWound = line.role === 'cord' || (wire !== undefined && isString(wire))
      for (const part of isWound ? (['string'] as const) : (['wire', 'strainer'] as const)) parts.add(part)
    }
  }
  for (const { joint } of frame.nodes) {
    const part = joint === 'eye' && fixing.stick ? 'pad' : OF_JOINT[joint]
    if (part) parts.add(part)
  }
  for (const { head } of frame.anchors)
    for (const part of head === 'eye' ? (['anchor', 'anchor-eye'] as const) : (['post-base'] as const))
      parts.add(part)
  for (const { role } of frame.members)
    parts.add(role === 'post' && frame.traits.isCover ? 'cover-post' : OF_ROLE[role])
  for (const { good } of frame.sheets) parts.add(good === 'net' ? 'cover' : 'mesh')
  for (const { good } of frame.units) {
    if (good !== 'pot' && good !== 'tub') continue
    parts.add('pot')
    if (site.setting === 'terrace') parts.add('floor')
  }
  if (site.surface === 'boards' && parts.has('eye')) parts.add('fence')
  return [...parts].sort((a, b) => forceParts.indexOf(a) - forceParts.indexOf(b))
}

export const answerFor = (part: ForcePart, context: CheckContext): ForceAnswer => ANSWERS[part](context)

/** What bears force and is not computed, with the reason, and the pull that fittings have to be marked for. */
export interface NotComputed {
  readonly parts: readonly { readonly part: ForcePart; readonly why: ReasonWhyNot }[]
  /** What strainers, joiners and the eyes of anchors must be marked to bear, newtons; `null` where nothing is strained. */
  readonly markedN: number | null
}

export function notComputed(
  context: CheckContext,
  checks: readonly { code: CheckCode; need: number | null }[],
): NotComputed {
  const parts = partsThatBear(context).flatMap((part) => {
    const answer = answerFor(part, context)
    return typeof answer === 'string' ? [{ part, why: answer }] : []
  })
  const pulls = [
    ...context.lines.map(({ worst }) => worst.tensionN),
    ...checks.flatMap(({ code, need }) => (code === 'anchor-pull' && need !== null ? [need] : [])),
  ]
  return { parts, markedN: pulls.length > 0 ? Math.max(...pulls) : null }
}
