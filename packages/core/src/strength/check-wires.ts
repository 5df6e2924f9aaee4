import { plugHoldingN, specificGravity, withdrawalN } from '../fixings/index.ts'
import { STRAINER_TRAVEL_M, holdsBy } from '../catalogue/index.ts'
import type { Fixing } from '../catalogue/index.ts'
import type { PlannedSite } from '../design/index.ts'
import type { Frame, FrameNode, LineId } from '../frame/index.ts'
import type { WireLine } from '../loads/index.ts'
import { check, same, worstOf } from './check.ts'
import type { Check, CheckContext } from './check.ts'

/** A wire that sags by more than this share of its span looks slack and rubs. */
const SAG_SHARE = 1 / 30

/** Each wire at its hardest and its slackest hour, and what the strainer takes up. */
export function wireChecks({ lines }: CheckContext): Check[] {
  const longest = (line: WireLine) => line.spansM.reduce((most, spanM) => Math.max(most, spanM), 0)
  const pulled = worstOf(lines, (line) => line.worst.tensionN / line.workingLoadN)
  const sagging = worstOf(lines, (line) => line.greatestSag.sagM / longest(line))
  const strained = worstOf(lines, (line) => line.travel.totalM)
  if (!pulled || !sagging || !strained) return []
  return [
    check({
      code: 'wire-pull',
      subject: pulled.wire.id,
      need: pulled.worst.tensionN,
      holding: same(pulled.workingLoadN),
      unit: 'N',
      assumptions: ['rigid-ends', 'even-load'],
      source: 'irvine',
    }),
    check({
      code: 'wire-sag',
      subject: sagging.wire.id,
      need: sagging.greatestSag.sagM,
      holding: same(longest(sagging) * SAG_SHARE),
      unit: 'm',
      assumptions: ['even-load'],
      source: 'irvine',
    }),
    check({
      code: 'strainer-travel',
      subject: strained.wire.id,
      need: strained.travel.totalM,
      holding: same(STRAINER_TRAVEL_M),
      unit: 'm',
      assumptions: ['two-years-stretch'],
      source: 'statics',
    }),
  ]
}

/** Share of the thread that holds: the tip and what is above the surface do not. */
const THREAD_OUT_MM = 20
/** An eye on the very end of the place has wall beyond it: the place is a part of a wall. */
const ON_EDGE_M = 1e-6

/**
 * The eye that its wires pull hardest: their pulls in the worst hour add up as arrows, so a wire that passes
 * straight adds nothing.
 */
export function fixingChecks({ frame, site, fixing, lines }: CheckContext): Check[] {
  const pulled = hardestPulledEye(frame, lines)
  if (!pulled) return []
  const [node, pullN] = pulled
  const penetrationMm = fixing.lengthMm - THREAD_OUT_MM
  // Along the wall the wire pries: its pull times the stand-off, over two thirds of the length in the wall.
  const prying = Math.max(1, (1.5 * fixing.standOffM * 1000) / penetrationMm)
  const holds = holdsBy(site.surface)
  return [
    check({
      code: 'fixing-pull',
      subject: node.label,
      need: penetrationMm > 0 ? pullN * prying : null,
      holding: holds === 'unknown' ? null : same(holdingN(frame, node, site, fixing, holds)),
      missing: holds === 'unknown' ? 'surface' : 'figure',
      unit: 'N',
      assumptions: holds === 'plug' ? ['plug-packet', 'prying'] : ['wet-wood', 'prying', 'safety-in-code'],
      source: holds === 'plug' ? 'plug-approval' : 'nds-12',
    }),
  ]
}

function hardestPulledEye(frame: Frame, lines: readonly WireLine[]): readonly [FrameNode, number] | null {
  const worstByLine = new Map<LineId, number>(
    lines.flatMap((line) => line.ids.map((id) => [id, line.worst.tensionN] as const)),
  )
  if (worstByLine.size === 0) return null
  const pulls = frame.nodes.map(() => [0, 0] as [number, number])
  for (const run of frame.runs) {
    const pull = worstByLine.get(run.line.id)
    if (pull === undefined) continue
    const [a, b] = [frame.nodes[run.from]!.at, frame.nodes[run.to]!.at]
    const ux = ((b.xM - a.xM) / run.lengthM) * pull
    const uy = ((b.yM - a.yM) / run.lengthM) * pull
    pulls[run.from]![0] += ux
    pulls[run.from]![1] += uy
    pulls[run.to]![0] -= ux
    pulls[run.to]![1] -= uy
  }
  let [worst, worstN] = [-1, -1]
  frame.nodes.forEach((node, i) => {
    const pullN = Math.hypot(...pulls[i]!)
    if (node.joint === 'eye' && pullN > worstN) [worst, worstN] = [i, pullN]
  })
  return worst < 0 ? null : [frame.nodes[worst]!, worstN]
}

function holdingN(
  frame: Frame,
  node: FrameNode,
  site: PlannedSite,
  fixing: Fixing,
  holds: 'plug' | 'thread',
): number {
  if (holds === 'thread') {
    const penetrationMm = fixing.lengthMm - THREAD_OUT_MM
    const { threadMm } = fixing
    return withdrawalN({ threadMm, penetrationMm, specificGravity: specificGravity.pine, exposure: 'wet' })
  }
  const spacingM = frame.nodes.reduce((least, other) => {
    if (other === node || other.joint !== 'eye') return least
    return Math.min(least, Math.hypot(other.at.xM - node.at.xM, other.at.yM - node.at.yM))
  }, Infinity)
  const edgeM = Math.min(node.at.xM, site.widthM - node.at.xM)
  return plugHoldingN(
    {
      ratedN: fixing.plugRatedN,
      fullSpacingM: fixing.plugFullSpacingM,
      fullEdgeM: fixing.plugFullEdgeM,
    },
    { spacingM, edgeM: edgeM < ON_EDGE_M ? fixing.plugFullEdgeM : edgeM },
  )
}
