import { findWire, isString } from '../catalogue/index.ts'
import type { Catalogue } from '../catalogue/index.ts'
import type { StrungWire } from '../bill/index.ts'
import type { FrameDesign, PlannedSite } from '../design/index.ts'
import type { Frame } from '../frame/index.ts'
import { findKind } from '../kinds/index.ts'
import { isWoundWrongly } from '../strength/index.ts'

/** What growers get wrong and no sum shows; each has its words, with the reason, in the translations. */
export const warningCodes = [
  'wound-wrongly',
  'water-near-fruit',
  'string-from-soil',
  'string-smooth',
  'air-gap-small',
  'pull-many-bends',
  'fence-unknown',
] as const
export type WarningCode = (typeof warningCodes)[number]

export interface CraftWarning {
  readonly code: WarningCode
  /** What the sentence says, metres or a count. */
  readonly figures: Readonly<Record<string, number>>
}

/** Nearer to the fruiting wire than this a pipe is cut with the canes, metres. */
const PIPE_CLEAR_M = 0.15
/** String that begins lower than this makes a bushy foot that mites like, metres. */
const STRING_FROM_M = 0.15
/** Behind woody climbers air must pass, metres. */
const AIR_GAP_M = 0.05
/** A piece of wire goes through so many bends by hand, and no longer than this, metres. */
const BENDS_BY_HAND = 10
const PULL_BY_HAND_M = 8
/** Runs that go on in nearly the same direction make no bend. */
const STRAIGHT_COS = 0.97

interface Warned {
  readonly frame: Frame
  readonly site: PlannedSite
  readonly design: FrameDesign
  readonly catalogue: Catalogue
  readonly wires: readonly StrungWire[]
}

/** What the craft warns of in a design as it is laid out here, the gravest first. */
export function craftWarnings(of: Warned): CraftWarning[] {
  return [
    ...windingWarnings(of),
    ...waterWarnings(of),
    ...stringWarnings(of),
    ...faceWarnings(of),
    ...pullWarnings(of),
  ]
}

function windingWarnings({ design }: Warned): CraftWarning[] {
  return isWoundWrongly(design) ? [{ code: 'wound-wrongly', figures: {} }] : []
}

function waterWarnings({ design: { pattern } }: Warned): CraftWarning[] {
  if (pattern.kind !== 'row' || pattern.waterHeightM === null) return []
  const { waterHeightM } = pattern
  const gapsM = pattern.levels
    .filter(({ role }) => role === 'carrying')
    .map(({ heightM }) => Math.abs(heightM - waterHeightM))
  const gapM = Math.min(...gapsM)
  return gapM < PIPE_CLEAR_M ? [{ code: 'water-near-fruit', figures: { gapM, clearM: PIPE_CLEAR_M } }] : []
}

function stringWarnings({ design, catalogue }: Warned): CraftWarning[] {
  const { pattern } = design
  if (pattern.kind !== 'spiral') return []
  const wire = findWire(catalogue, design.wireId)
  return [
    ...(pattern.startHeightM < STRING_FROM_M
      ? [
          {
            code: 'string-from-soil' as const,
            figures: { startM: pattern.startHeightM, fromM: STRING_FROM_M },
          },
        ]
      : []),
    ...(wire !== undefined && !isString(wire) ? [{ code: 'string-smooth' as const, figures: {} }] : []),
  ]
}

function faceWarnings({ frame, site, design, catalogue }: Warned): CraftWarning[] {
  if (!frame.nodes.some(({ joint }) => joint === 'eye')) return []
  const kind = design.plantKindId === null ? undefined : findKind(design.plantKindId)
  const fixing = catalogue.fixings.find(({ id }) => id === design.fixingId)
  const wantsAir = kind !== undefined && kind.holds !== 'aerial-roots' && kind.holds !== 'none'
  return [
    ...(wantsAir && fixing !== undefined && fixing.standOffM < AIR_GAP_M
      ? [{ code: 'air-gap-small' as const, figures: { gapM: fixing.standOffM, leastM: AIR_GAP_M } }]
      : []),
    ...(site.surface === 'boards' ? [{ code: 'fence-unknown' as const, figures: {} }] : []),
  ]
}

/** The piece that is hardest to pull through: the one of most bends among those too long for it. */
function pullWarnings({ frame, wires }: Warned): CraftWarning[] {
  if (frame.traits.stands !== 'on-face') return []
  const pieces = wires.flatMap(({ wire, stringing }) =>
    isString(wire)
      ? []
      : (stringing?.pieces ?? []).map((piece) => ({ piece, bends: bendsOf(frame, piece.nodes) })),
  )
  const hard = pieces.filter(({ piece, bends }) => bends > BENDS_BY_HAND && piece.netLengthM > PULL_BY_HAND_M)
  const worst = hard.sort((a, b) => b.bends - a.bends)[0]
  return worst
    ? [{ code: 'pull-many-bends', figures: { lengthM: worst.piece.netLengthM, bends: worst.bends } }]
    : []
}

function bendsOf(frame: Frame, nodes: readonly number[]): number {
  const along = nodes.slice(1).map((to, i) => {
    const [a, b] = [frame.nodes[nodes[i]!]!.at, frame.nodes[to]!.at]
    const length = Math.hypot(b.xM - a.xM, b.yM - a.yM) || 1
    return { x: (b.xM - a.xM) / length, y: (b.yM - a.yM) / length }
  })
  return along.slice(1).filter((next, i) => next.x * along[i]!.x + next.y * along[i]!.y < STRAIGHT_COS).length
}
