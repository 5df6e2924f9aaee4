import { holdsBy } from '../catalogue/index.ts'
import type { Fixing } from '../catalogue/index.ts'
import { plugHoldingN, specificGravity, withdrawalN } from '../fixings/index.ts'
import type { Frame, FrameNode, LineId } from '../frame/index.ts'
import type { WireLine } from '../loads/index.ts'
import { check, same, worstOf } from './check.ts'
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
 * The eye that is nearest to being pulled out: the pulls of its wires in the worst hour add up as arrows, so a wire that
 * passes straight adds nothing. On boards each eye holds by what is behind it, so all of them are looked at.
 */
export function fixingChecks(context: CheckContext): Check[] {
  const { frame, site, fixing, lines } = context
  const pulled = pulledEyes(frame, lines)
  const hardest = hardestOf(pulled)
  if (!hardest) return []
  if (fixing.stick) return [stuckOn(context, fixing.stick, ...hardest)]
  const looked = site.surface === 'boards' ? pulled.map((one) => pullCheck(context, ...one)) : []
  const worst = worstOf(looked, ({ need, holding }) =>
    need === null || holding === null ? Infinity : need / holding[0],
  )
  return [...bendingCheck(context), worst ?? pullCheck(context, ...hardest)]
}

function pullCheck(context: CheckContext, node: FrameNode, worstN: number): Check {
  const { site, fixing, design } = context
  const { inMm, standOffM } = eyeDepth(site, design, fixing, node)
  // An eye that bends pulls at its hole no harder than that.
  const pullN = Math.min(worstN, (OVERSTRENGTH * plasticMomentNm(fixing)) / standOffM)
  const holds = holdsBy(site.surface)
  const about = { code: 'fixing-pull', subject: node.label, unit: 'N' } as const
  if (inMm === null)
    return check({
      ...about,
      need: pullN,
      holding: null,
      missing: 'fence',
      assumptions: ['wet-wood', 'prying'],
      source: 'nds-12',
    })
  // Along the wall the wire pries: its pull times the stand-off, over two thirds of the length in the wall.
  const prying = (1.5 * standOffM * 1000) / inMm
  // In a plug what pulls out and what pushes across add up: N/N_R + V/V_R may be 1. A thread's tip holds nothing.
  const shares = holds === 'plug' ? 1 + prying : Math.max(1, prying)
  const threadMm = Math.max(0, Math.min(inMm, fixing.lengthMm - standOffM * 1000 - fixing.threadMm))
  return check({
    ...about,
    need: inMm > 0 ? pullN * shares : null,
    holding: holds === 'unknown' ? null : same(holdingN(context, node, threadMm, holds)),
    missing: holds === 'unknown' ? 'surface' : 'figure',
    assumptions:
      holds === 'plug'
        ? ['plug-packet', 'prying', 'pull-and-shear']
        : ['wet-wood', 'prying', 'safety-in-code'],
    source: holds === 'plug' ? 'plug-approval' : 'nds-12',
  })
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
function bendingCheck({ frame, site, design, lines, fixing }: CheckContext): Check[] {
  const stays = (line: WireLine) =>
    line.states.reduce(
      (most, { scenario, tensionN }) => (scenario === 'cold' ? most : Math.max(most, tensionN)),
      0,
    )
  const bent = pulledEyes(frame, lines, stays).map(
    ([node, pullN]) => [node, pullN * eyeDepth(site, design, fixing, node).standOffM] as const,
  )
  const hardest = hardestOf(bent)
  if (!hardest) return []
  const [node, momentNm] = hardest
  return [
    check({
      code: 'eye-bending',
      subject: node.label,
      need: momentNm,
      holding: same(plasticMomentNm(fixing) / EYE_SAFETY),
      unit: 'Nm',
      assumptions: ['mild-steel', 'gives-in-frost'],
      source: 'statics',
    }),
  ]
}

const SAME_PLACE_M = 1e-6
type Pulled = readonly [FrameNode, number]
export const hardestOf = (pulled: readonly Pulled[]): Pulled | undefined => worstOf(pulled, ([, N]) => N)

/** What each eye is pulled with by the wires that meet at it, newtons; none where nothing is strained. */
export function pulledEyes(
  frame: Frame,
  lines: readonly WireLine[],
  tensionN: (line: WireLine) => number = (line) => line.worst.tensionN,
): Pulled[] {
  const byLine = new Map<LineId, number>(
    lines.flatMap((line) => line.ids.map((id) => [id, tensionN(line)] as const)),
  )
  if (byLine.size === 0) return []
  const pulls = frame.nodes.map(() => [0, 0] as [number, number])
  for (const run of frame.runs) {
    const pull = byLine.get(run.line.id)
    // Nodes that went to one rail have nothing strained between them.
    if (pull === undefined || run.lengthM < SAME_PLACE_M) continue
    const [a, b] = [frame.nodes[run.from]!.at, frame.nodes[run.to]!.at]
    const ux = ((b.xM - a.xM) / run.lengthM) * pull
    const uy = ((b.yM - a.yM) / run.lengthM) * pull
    pulls[run.from]![0] += ux
    pulls[run.from]![1] += uy
    pulls[run.to]![0] -= ux
    pulls[run.to]![1] -= uy
  }
  return frame.nodes.flatMap((node, i) =>
    node.joint === 'eye' ? [[node, Math.hypot(...pulls[i]!)] as const] : [],
  )
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
