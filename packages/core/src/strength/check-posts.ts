import { secondMomentM4, stockMaterials, weakAxis } from '../catalogue/index.ts'
import type { Stock } from '../catalogue/index.ts'
import { FOOT_M, pullOutN } from '../ground/index.ts'
import type { Soil } from '../ground/index.ts'
import { check, same } from './check.ts'
import type { Assumption, Check } from './check.ts'

const FOOT_M2 = (Math.PI / 4) * FOOT_M ** 2
const CONCRETE_N_PER_M3 = 23_000
/** Weight that holds something down is counted at so much of itself. */
const WEIGHT_SAFETY = 1.5

interface Pressed {
  readonly subject: string
  /** Downward, newtons. */
  readonly needN: number
  readonly assumptions: readonly Assumption[]
}

/** A post pressed down on its foot in concrete: what the ground bears under it, and what rubs at its sides. */
export function bearingCheck(
  soil: Soil,
  { subject, needN, assumptions, depthM }: Pressed & { depthM: number },
): Check {
  const rubs = pullOutN(soil, { depthM, widthM: FOOT_M })
  const holding = (side: 0 | 1) => soil.verticalBearingPa[side] * FOOT_M2 + rubs[side]
  return check({
    code: 'post-bearing',
    subject,
    need: needN,
    holding: [holding(0), holding(1)],
    unit: 'N',
    missing: Number.isNaN(needN) ? 'wire' : 'figure',
    assumptions: ['foot-in-concrete', 'soil-by-feel', ...assumptions],
    source: 'ibc-1806',
    isStructural: true,
  })
}

/** What a foot in concrete holds down: its own weight, and the earth that rubs at its sides; newtons. */
export function footHoldsDownN(soil: Soil, depthM: number): readonly [number, number] {
  const weightN = (CONCRETE_N_PER_M3 * FOOT_M2 * depthM) / WEIGHT_SAFETY
  const rubs = pullOutN(soil, { depthM, widthM: FOOT_M })
  return [weightN + rubs[0], weightN + rubs[1]]
}

/** Slender posts and struts buckle at a third of what they would bear at most. */
const BUCKLING_SAFETY = 3
/** Length that buckles, in lengths of the post: held at both ends, or fixed in the ground and free above. */
const BUCKLES_AT = { hinged: 1, 'fixed-below': 2 } as const

/**
 * Load along a post or strut against what it buckles at about its weaker axis,
 * π²EI/L² over 3 (Euler).
 */
export function bucklingCheck(
  stock: Stock | undefined,
  {
    subject,
    needN,
    assumptions,
    lengthM,
    ends,
  }: Pressed & { lengthM: number; ends: keyof typeof BUCKLES_AT },
): Check {
  const material = stock && stockMaterials[stock.material]
  const holdsN =
    stock && material
      ? (Math.PI ** 2 * material.modulusPa * secondMomentM4(weakAxis(stock.section))) /
        (BUCKLES_AT[ends] * lengthM) ** 2 /
        BUCKLING_SAFETY
      : null
  return check({
    code: 'post-buckling',
    subject,
    need: needN,
    holding: holdsN === null ? null : same(holdsN),
    unit: 'N',
    missing: stock ? 'wire' : 'stock',
    assumptions: [ends === 'hinged' ? 'hinged-ends' : 'stands-by-itself', ...assumptions],
    source: 'euler',
    isStructural: true,
  })
}
