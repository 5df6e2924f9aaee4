import { requireRange } from '../errors/index.ts'
import { LEAST, MOST_M, MOST_N, MOST_STIFFNESS_N } from './limits.ts'
import { spanSag, unstretchedOnSpan } from './span.ts'

export interface LevelCable {
  readonly sagM: number
  readonly arcLengthM: number
  readonly unstretchedLengthM: number
  readonly maxTensionN: number
  readonly verticalReactionN: number
  /** Stretched arc minus span, computed without cancellation. */
  readonly arcMinusSpanM: number
  /** Elastic stretch: arc minus unstretched length. */
  readonly arcMinusUnstretchedM: number
}

/**
 * A wire between two supports at one height, by the exact elastic catenary (H. M. Irvine, Cable Structures,
 * 1981, ch. 2). `spanM` > 0; `horizontalTensionN` H > 0, in the installed, stretched state; `weightNPerM` w ≥
 * 0 per metre of unstretched wire; `axialStiffnessN` EA > 0 (modulus times metal section). With x = wL0/2H:
 * span = H L0/EA + (2H/w) asinh x, solved for the unstretched length L0 by Newton's method, and sag = w
 * L0²/8EA + (H/w)(√(1+x²) − 1). Throws `core/out-of-range` or `core/not-finite` for anything else.
 */
export function levelCable(
  spanM: number,
  horizontalTensionN: number,
  weightNPerM: number,
  axialStiffnessN: number,
): LevelCable {
  const L = requireRange('spanM', spanM, LEAST, MOST_M)
  const H = requireRange('horizontalTensionN', horizontalTensionN, LEAST, MOST_N)
  const w = requireRange('weightNPerM', weightNPerM, 0, MOST_N)
  const EA = requireRange('axialStiffnessN', axialStiffnessN, LEAST, MOST_STIFFNESS_N)
  const L0 = unstretchedOnSpan(L, H, w, EA)
  const x = (w * L0) / (2 * H)
  const root = Math.sqrt(1 + x * x)
  const stretchM = integralOfTension(H, L0, x) / EA
  const slackM = L0 * curveExcess(x)
  return {
    sagM: spanSag(L0, H, w, EA),
    unstretchedLengthM: L0,
    arcLengthM: L0 + stretchM,
    arcMinusUnstretchedM: stretchM,
    // arc − span = stretch + L0 − span, with span from the equation above: only the small parts remain.
    arcMinusSpanM: stretchM - (H * L0) / EA + slackM,
    maxTensionN: H * root,
    verticalReactionN: (w * L0) / 2,
  }
}

/** ∫T ds over the unstretched wire = (H L0/2)(√(1+x²) + asinh(x)/x). */
function integralOfTension(H: number, L0: number, x: number): number {
  return (H * L0 * (Math.sqrt(1 + x * x) + (x === 0 ? 1 : Math.asinh(x) / x))) / 2
}

/** 1 − asinh(x)/x, by its series where the direct form would cancel. */
function curveExcess(x: number): number {
  const x2 = x * x
  if (x2 > 1e-3) return 1 - Math.asinh(x) / x
  return x2 / 6 - (3 * x2 * x2) / 40 + (5 * x2 * x2 * x2) / 112 - (35 * x2 ** 4) / 1152
}
