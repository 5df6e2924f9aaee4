import { findStock, findWire, isString, stockWidthM } from '../catalogue/index.ts'
import { standOffOf } from '../design/index.ts'
import { isUpright } from '../frame/index.ts'
import type { Frame, MemberRole } from '../frame/index.ts'
import { findKind, gripsMm, offWallM } from '../kinds/index.ts'
import { standingWarnings } from './standing.ts'
import type { CraftWarning, Warned } from './warning.ts'

/** Nearer to the fruiting wire than this a pipe is cut with the canes, metres. */
const PIPE_CLEAR_M = 0.15
/** Where it is put instead, under the lowest carrying wire; and no nearer to the ground than this, metres. */
const PIPE_BELOW_M = 0.3
const LEAST_PIPE_M = 0.15
/** String that begins lower than this makes a bushy foot that mites like, metres. */
const STRING_FROM_M = 0.15
const USUAL_START_M = 0.25
/** Under a wall it is dry and roots want room: plants stand off it and are led in, metres. */
const TREE_OFF_M = 0.3
/** A piece of wire goes through so many bends by hand, and no longer than this, metres. */
const BENDS_BY_HAND = 10
const PULL_BY_HAND_M = 8
/** Runs that go on in nearly the same direction make no bend. */
const STRAIGHT_COS = 0.97

/** What the craft warns of in a design as it is laid out here, the gravest first. */
export function craftWarnings(of: Warned): CraftWarning[] {
  return [
    ...waterWarnings(of),
    ...stringWarnings(of),
    ...faceWarnings(of),
    ...holdWarnings(of),
    ...pullWarnings(of),
    ...standingWarnings(of),
  ]
}

function waterWarnings({ design }: Warned): CraftWarning[] {
  const { pattern } = design
  if (pattern.kind !== 'row' || pattern.waterHeightM === null) return []
  const { waterHeightM } = pattern
  const carrying = pattern.levels.filter(({ role }) => role === 'carrying').map(({ heightM }) => heightM)
  const gapM = Math.min(...carrying.map((heightM) => Math.abs(heightM - waterHeightM)))
  if (!(gapM < PIPE_CLEAR_M)) return []
  // Below all that carries, on a wire of its own.
  const clearOfAllM = Math.round((Math.min(...carrying) - PIPE_BELOW_M) * 100) / 100
  const better = clearOfAllM >= LEAST_PIPE_M && {
    ...design,
    pattern: { ...pattern, waterHeightM: clearOfAllM },
  }
  return [
    {
      code: 'water-near-fruit',
      figures: { gapM, clearM: PIPE_CLEAR_M },
      ...(better ? { better } : {}),
    },
  ]
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
            better: { ...design, pattern: { ...pattern, startHeightM: USUAL_START_M } },
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
  const wantedM = kind === undefined ? 0 : offWallM(kind)
  return [
    ...(fixing !== undefined && standOffOf(design, fixing) < wantedM - 1e-9
      ? [
          {
            code: 'air-gap-small' as const,
            figures: { gapM: standOffOf(design, fixing), leastM: wantedM },
            better: { ...design, standOffM: wantedM },
          },
        ]
      : []),
    ...(design.plantOffM !== null && design.plantOffM < TREE_OFF_M
      ? [
          {
            code: 'tree-near-wall' as const,
            figures: { offM: design.plantOffM, leastM: TREE_OFF_M },
            better: { ...design, plantOffM: TREE_OFF_M },
          },
        ]
      : []),
    ...(site.surface === 'boards' && !site.fence ? [{ code: 'fence-unknown' as const, figures: {} }] : []),
  ]
}

/** A plant on what it cannot take hold of: tendrils on posts, a twiner or a leaner on a pole for aerial roots. */
function holdWarnings({ frame, design, catalogue }: Warned): CraftWarning[] {
  const kind = design.plantKindId === null ? undefined : findKind(design.plantKindId)
  if (!kind || frame.traits.isCover) return []
  if (design.pattern.kind === 'pole' && kind.holds !== 'aerial-roots')
    return [{ code: 'pole-for-roots', figures: {} }]
  const grips = gripsMm(kind)
  if (grips === null) return []
  const wire = findWire(catalogue, design.wireId)
  const barsMm = frame.members.flatMap(({ role, stockId }) => {
    const stock = isUpright(role) || CLIMBED.has(role) ? findStock(catalogue, stockId) : undefined
    return stock ? [stockWidthM(stock) * 1000] : []
  })
  const all = [...barsMm, ...(frame.runs.length > 0 && wire ? [wire.diameterMm] : [])]
  const thinnestMm = Math.min(...all)
  return all.length > 0 && thinnestMm > grips
    ? [{ code: 'too-thick-to-hold', figures: { nowM: thinnestMm / 1000, mostM: grips / 1000 } }]
    : []
}
/** Lesser parts that plants climb besides uprights. */
const CLIMBED: ReadonlySet<MemberRole> = new Set(['rung', 'rib', 'twig', 'ring', 'bar'])

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
