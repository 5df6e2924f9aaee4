import { requireRange } from '../errors/index.ts'
import { MOST_M, MOST_N } from './limits.ts'

export interface WirePull {
  readonly heightM: number
  readonly tensionN: number
}

export interface LineEnd {
  /** Sum of tension times height: what the end assembly has to resist. */
  readonly momentAtGroundNm: number
  readonly totalWireTensionN: number
}

/** Level pull and moment at the ground line of all wires that end at a post. */
export function lineEnd(wires: readonly WirePull[]): LineEnd {
  let momentAtGroundNm = 0
  let totalWireTensionN = 0
  for (const wire of wires) {
    const pull = requireRange('tensionN', wire.tensionN, 0, MOST_N)
    momentAtGroundNm += pull * requireRange('heightM', wire.heightM, 0, MOST_M)
    totalWireTensionN += pull
  }
  return { momentAtGroundNm, totalWireTensionN }
}

export interface HeldEnd extends LineEnd {
  /** Tension of a tie-back, compression of a strut. */
  readonly memberForceN: number
  /** In the direction of the wires' pull; negative when the foot has to be kept from going outward. */
  readonly horizontalReactionAtFootN: number
  /** Upward from the ground on the post; negative when the post wants to lift. */
  readonly verticalReactionAtFootN: number
  readonly anchorHorizontalN: number
  readonly anchorVerticalN: number
  readonly anchorDistanceM: number
}

/**
 * Forces at an end post, hinged at the ground line, held by a tie-back on the far side from the wires or by a
 * strut on their side, from `attachHeightM` down to the ground at `angleFromGroundRad`: force = Σ T h /
 * (attach height cos angle). A tie-back presses the post down; a strut of the same force lifts it. Statics of
 * a hinged post.
 */
export function heldEnd(
  wires: readonly WirePull[],
  holder: {
    readonly kind: 'tie-back' | 'strut'
    readonly attachHeightM: number
    readonly angleFromGroundRad: number
  },
): HeldEnd {
  const end = lineEnd(wires)
  const height = requireRange('attachHeightM', holder.attachHeightM, 1e-4, MOST_M)
  const angle = requireRange('angleFromGroundRad', holder.angleFromGroundRad, 0.02, Math.PI / 2 - 0.02)
  const anchorHorizontalN = end.momentAtGroundNm / height
  const anchorVerticalN = anchorHorizontalN * Math.tan(angle)
  return {
    ...end,
    memberForceN: anchorHorizontalN / Math.cos(angle),
    horizontalReactionAtFootN: anchorHorizontalN - end.totalWireTensionN,
    verticalReactionAtFootN: holder.kind === 'tie-back' ? anchorVerticalN : -anchorVerticalN,
    anchorHorizontalN,
    anchorVerticalN,
    anchorDistanceM: height / Math.tan(angle),
  }
}
