import { holdsBy } from '../catalogue/index.ts'
import type { Fixing } from '../catalogue/index.ts'
import { plugHoldingN, specificGravity, withdrawalN } from '../fixings/index.ts'
import type { Frame, FrameNode, LineId } from '../frame/index.ts'
import type { WireLine } from '../loads/index.ts'
import { check, same } from './check.ts'
import type { Check, CheckContext } from './check.ts'
import { eyeDepth } from './eye-depth.ts'

/** Steel of ordinary eyes gives way at this, pascals (grade 4.8), and is taken to bear two thirds of it. */
const EYE_YIELD_PA = 320e6
const EYE_SAFETY = 1.5
/** Eyes may be made of steel so much better than it has to be. */
const OVERSTRENGTH = 1.5

/** Moment at which a round shank bends for good, newton metres: d³/6 times its yield. */
const plasticMomentNm = ({ threadMm }: Fixing) => ((threadMm / 1000) ** 3 / 6) * EYE_YIELD_PA

/** An eye on the very end of the place has wall beyond it: the place is a part of a wall. */
const ON_EDGE_M = 1e-6

/**
 * The eye that its wires pull hardest: their pulls in the worst hour add up as arrows, so a wire that passes
 * straight adds nothing.
 */
export function fixingChecks(context: CheckContext): Check[] {
  const { frame, site, fixing, lines, design } = context
  const pulled = hardestPulledEye(frame, lines)
  if (!pulled) return []
  const [node, worstN] = pulled
  const { stick } = fixing
  if (stick) return [stuckOn(context, stick, node, worstN)]
  const { inMm, standOffM } = eyeDepth(site, design, fixing, node)
  // An eye that bends pulls at its hole no harder than that.
  const pullN = Math.min(worstN, (OVERSTRENGTH * plasticMomentNm(fixing)) / standOffM)
  const bending = bendingCheck(context, standOffM)
  const holds = holdsBy(site.surface)
  if (inMm === null)
    return [
      ...bending,
      check({
        code: 'fixing-pull',
        subject: node.label,
        need: pullN,
        holding: null,
        missing: 'fence',
        unit: 'N',
        assumptions: ['wet-wood', 'prying'],
        source: 'nds-12',
      }),
    ]
  // Along the wall the wire pries: its pull times the stand-off, over two thirds of the length in the wall.
  const prying = (1.5 * standOffM * 1000) / inMm
  // In a plug what pulls out and what pushes across add up: N/N_R + V/V_R may be 1. A thread's tip holds nothing.
  const shares = holds === 'plug' ? 1 + prying : Math.max(1, prying)
  const threadMm = Math.max(0, Math.min(inMm, fixing.lengthMm - standOffM * 1000 - fixing.threadMm))
  return [
    ...bending,
    check({
      code: 'fixing-pull',
      subject: node.label,
      need: inMm > 0 ? pullN * shares : null,
      holding: holds === 'unknown' ? null : same(holdingN(context, node, threadMm, holds)),
      missing: holds === 'unknown' ? 'surface' : 'figure',
      unit: 'N',
      assumptions:
        holds === 'plug'
          ? ['plug-packet', 'prying', 'pull-and-shear']
          : ['wet-wood', 'prying', 'safety-in-code'],
      source: holds === 'plug' ? 'plug-approval' : 'nds-12',
    }),
  ]
}

/** A hook that is stuck on holds what its packet says, less in sun and rain. */
function stuckOn(
  { site }: CheckContext,
  stick: NonNullable<Fixing['stick']>,
  node: FrameNode,
  pullN: number,
): Check {
  const isOutside = site.setting === 'open' || site.setting === 'terrace'
  return check({
    code: 'fixing-pull',
    subject: node.label,
    need: pullN,
    holding: stick.surfaces.includes(site.surface)
      ? same(stick.ratedN * (isOutside ? stick.outdoorShare : 1))
      : null,
    missing: 'surface',
    unit: 'N',
    assumptions: isOutside ? ['outdoors-derated'] : [],
    source: 'pad-packet',
  })
}

/**
 * The pull that stays on an eye bends it about the wall, its stand-off from it. A hard frost pulls harder only until the eye
 * gives by a hair, so it is not among what stays.
 */
function bendingCheck({ frame, lines, fixing }: CheckContext, standOffM: number): Check[] {
  const stays = (line: WireLine) =>
    line.states.reduce(
      (most, { scenario, tensionN }) => (scenario === 'cold' ? most : Math.max(most, tensionN)),
      0,
    )
  const pulled = hardestPulledEye(frame, lines, stays)
  if (!pulled) return []
  const [node, pullN] = pulled
  return [
    check({
      code: 'eye-bending',
      subject: node.label,
      need: pullN * standOffM,
      holding: same(plasticMomentNm(fixing) / EYE_SAFETY),
      unit: 'Nm',
      assumptions: ['mild-steel', 'gives-in-frost'],
      source: 'statics',
    }),
  ]
}

export function hardestPulledEye(
  frame: Frame,
  lines: readonly WireLine[],
  tensionN: (line: WireLine) => number = (line) => line.worst.tensionN,
): readonly [FrameNode, number] | null {
  const worstByLine = new Map<LineId, number>(
    lines.flatMap((line) => line.ids.map((id) => [id, tensionN(line)] as const)),
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
  { frame, site, fixing }: CheckContext,
  node: FrameNode,
  penetrationMm: number,
  holds: 'plug' | 'thread',
): number {
  if (holds === 'thread') {
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
