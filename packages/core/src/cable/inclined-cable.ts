import { requireRange } from '../errors/index.ts'
import { MAX_STEPS } from './cable.ts'
import { LEAST, MOST_M, MOST_N, MOST_STIFFNESS_N } from './limits.ts'

/**
 * A wire between two supports at different heights. Forces in newtons, lengths in metres, positions from
 * support A.
 */
export interface InclinedCable {
  readonly horizontalTensionN: number
  /** Upward force of each support on the wire; negative where the support holds it down. */
  readonly verticalReactionAN: number
  readonly verticalReactionBN: number
  readonly tensionAN: number
  readonly tensionBN: number
  readonly lowestPointXM: number
  readonly lowestPointYM: number
  /** True when the wire hangs lower between its supports than at the lower one. */
  readonly lowestPointInside: boolean
  /** Greatest vertical distance below the straight chord. */
  readonly maxSagBelowChordM: number
}

/** Residual in metres over the size of the span at which the two equations count as solved. */
const CLOSURE = 1e-13

/**
 * A wire of given unstretched length from A (0, 0) to B (`horizontalDistanceM` > 0, `heightDifferenceM` of
 * any sign), by the exact elastic catenary (Irvine 1981, ch. 2). Unknown are the horizontal pull H and the
 * mean vertical force u; with p = wL0/2 the wire closes on B when HL0/EA + (H/w)[asinh((u+p)/H) −
 * asinh((u−p)/H)] is the distance and uL0/EA + (1/w)[√(H²+(u+p)²) − √(H²+(u−p)²)] the height. Newton's method
 * from the guess of Jayaraman and Knudson (1981), halving steps that do not come nearer. Throws `core/*`
 * unless all but the height difference are positive.
 */
export function inclinedCable(input: {
  readonly horizontalDistanceM: number
  readonly heightDifferenceM: number
  readonly unstretchedLengthM: number
  readonly weightNPerM: number
  readonly axialStiffnessN: number
}): InclinedCable {
  const h = requireRange('horizontalDistanceM', input.horizontalDistanceM, LEAST, MOST_M)
  const v = requireRange('heightDifferenceM', input.heightDifferenceM, -MOST_M, MOST_M)
  const L0 = requireRange('unstretchedLengthM', input.unstretchedLengthM, LEAST, MOST_M)
  const w = requireRange('weightNPerM', input.weightNPerM, LEAST, MOST_N)
  const EA = requireRange('axialStiffnessN', input.axialStiffnessN, LEAST, MOST_STIFFNESS_N)
  const { H, u } = solveForces(h, v, L0, w, EA)
  const p = (w * L0) / 2
  const [startV, endV] = [u - p, u + p]
  const at = (s: number) => pointOnCable(s, H, startV, w, EA)
  // The tangent is level where the vertical force changes sign, and parallel to the chord where it is H times
  // the slope.
  const levelAt = -startV / w
  const isInside = levelAt > 0 && levelAt < L0
  const lowest = isInside ? at(levelAt) : v >= 0 ? { x: 0, y: 0 } : { x: h, y: v }
  const parallel = at(Math.min(L0, Math.max(0, ((H * v) / h - startV) / w)))
  return {
    horizontalTensionN: H,
    verticalReactionAN: -startV,
    verticalReactionBN: endV,
    tensionAN: Math.hypot(H, startV),
    tensionBN: Math.hypot(H, endV),
    lowestPointXM: lowest.x,
    lowestPointYM: lowest.y,
    lowestPointInside: isInside,
    maxSagBelowChordM: (parallel.x * v) / h - parallel.y,
  }
}

function pointOnCable(s: number, H: number, startV: number, w: number, EA: number): { x: number; y: number } {
  const V = startV + w * s
  return {
    x: (H * s) / EA + (H / w) * (Math.asinh(V / H) - Math.asinh(startV / H)),
    y: (s * (startV + V)) / (2 * EA) + (Math.hypot(H, V) - Math.hypot(H, startV)) / w,
  }
}

function solveForces(h: number, v: number, L0: number, w: number, EA: number): { H: number; u: number } {
  const p = (w * L0) / 2
  const size = Math.hypot(h, v)
  let H = firstPull(h, v, L0, w, EA)
  let u = firstVertical(H, h, v, L0, w)
  let gap = closure(H, u)
  for (let step = 0; step < MAX_STEPS && gap.size > CLOSURE * size; step++) {
    const [a, b] = [(u + p) / H, (u - p) / H]
    const [ra, rb] = [Math.sqrt(1 + a * a), Math.sqrt(1 + b * b)]
    const xByH = L0 / EA + (Math.asinh(a) - Math.asinh(b) - a / ra + b / rb) / w
    const xByU = (1 / ra - 1 / rb) / w
    const yByU = L0 / EA + (a / ra - b / rb) / w
    const determinant = xByH * yByU - xByU * xByU
    let [dH, du] = [
      (-gap.x * yByU + gap.y * xByU) / determinant,
      (-gap.y * xByH + gap.x * xByU) / determinant,
    ]
    let next = null as { H: number; u: number; gap: typeof gap } | null
    for (let halving = 0; halving < 40 && !next; halving++) {
      const candidate = H + dH > 0 ? closure(H + dH, u + du) : null
      if (candidate && candidate.size < gap.size) next = { H: H + dH, u: u + du, gap: candidate }
      dH /= 2
      du /= 2
    }
    if (!next) break
    ;({ H, u, gap } = next)
  }
  return { H, u }

  function closure(pull: number, mean: number): { x: number; y: number; size: number } {
    const [a, b] = [mean + p, mean - p]
    const x = (pull * L0) / EA + (pull / w) * (Math.asinh(a / pull) - Math.asinh(b / pull)) - h
    const y = (mean * L0) / EA + (Math.hypot(pull, a) - Math.hypot(pull, b)) / w - v
    return { x, y, size: Math.hypot(x, y) }
  }
}

/** A taut wire's stretch, or a slack wire's catenary; the larger is the better start in between. */
function firstPull(h: number, v: number, L0: number, w: number, EA: number): number {
  const chord = Math.hypot(h, v)
  const taut = L0 < chord ? (EA * (chord / L0 - 1) * h) / chord : 0
  const slackness = 3 * ((L0 * L0 - v * v) / (h * h) - 1)
  const slack = slackness > 0 ? (w * h) / (2 * Math.sqrt(slackness)) : 0
  const parabola = Math.cbrt((EA * w * w * h * h) / 24)
  return taut > 0 ? taut + Math.min(parabola, taut) : Math.min(slack, Math.max(parabola, slack / 1e3))
}

/** Jayaraman and Knudson's vertical start: half the weight shifted by the slope of the chord. */
function firstVertical(H: number, h: number, v: number, L0: number, w: number): number {
  const lambda = (w * h) / (2 * H)
  return lambda > 1e-6 && L0 > Math.hypot(h, v) ? (w * v) / (2 * Math.tanh(lambda)) : (H * v) / h
}
