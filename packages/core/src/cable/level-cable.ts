import { requirePositive, requireRange } from '../errors/index.ts'

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

/** Relative step at which Newton's iteration on L0 stops; beyond it doubles cannot tell the lengths apart. */
const LENGTH_TOLERANCE = 1e-15
const MAX_STEPS = 60

/**
 * A wire between two supports at one height, by the exact elastic catenary (H. M. Irvine, Cable Structures, 1981,
 * ch. 2). `spanM` > 0; `horizontalTensionN` H > 0, in the installed, stretched state; `weightNPerM` w ≥ 0 per metre of
 * unstretched wire; `axialStiffnessN` EA > 0 (modulus times metal section). With x = wL0/2H:
 * span = H L0/EA + (2H/w) asinh x, solved for the unstretched length L0 by Newton's method, and
 * sag = w L0²/8EA + (H/w)(√(1+x²) − 1). Throws `core/out-of-range` or `core/not-finite` for anything else.
 */
export function levelCable(
  spanM: number,
  horizontalTensionN: number,
  weightNPerM: number,
  axialStiffnessN: number,
): LevelCable {
  const L = requirePositive('spanM', spanM)
  const H = requirePositive('horizontalTensionN', horizontalTensionN)
  const w = requireRange('weightNPerM', weightNPerM, 0)
  const EA = requirePositive('axialStiffnessN', axialStiffnessN)
  const L0 = unstretchedLength(L, H, w, EA)
  const x = (w * L0) / (2 * H)
  const root = Math.sqrt(1 + x * x)
  // √(1+x²) − 1 written as x²/(1+√(1+x²)): a taut wire has x near 1e-4, where the difference would lose half its digits.
  const sagM = (w * L0 * L0) / (8 * EA) + (L0 * x) / (2 * (1 + root))
  const stretchM = integralOfTension(H, L0, x) / EA
  const slackM = L0 * curveExcess(x)
  return {
    sagM,
    unstretchedLengthM: L0,
    arcLengthM: L0 + stretchM,
    arcMinusUnstretchedM: stretchM,
    // arc − span = stretch + L0 − span, with span from the equation above: only the small parts remain.
    arcMinusSpanM: stretchM - (H * L0) / EA + slackM,
    maxTensionN: H * root,
    verticalReactionN: (w * L0) / 2,
  }
}

function unstretchedLength(L: number, H: number, w: number, EA: number): number {
  if (w === 0) return L / (1 + H / EA)
  let L0 = L / (1 + H / EA)
  for (let step = 0; step < MAX_STEPS; step++) {
    const x = (w * L0) / (2 * H)
    const error = (H * L0) / EA + (2 * H * Math.asinh(x)) / w - L
    const slope = H / EA + 1 / Math.sqrt(1 + x * x)
    const next = L0 - error / slope
    // The curve is concave and rising, so Newton from the left never overshoots below zero.
    if (Math.abs(next - L0) <= LENGTH_TOLERANCE * L0) return next
    L0 = next
  }
  return L0
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
