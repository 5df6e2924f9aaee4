import { requirePositive, requireRange } from '../errors/index.ts'
import { MAX_STEPS, RELATIVE_STEP } from './cable.ts'
import type { CableMaterial } from './cable.ts'
import { spanSag, unstretchedOnSpan, unstretchedSlope } from './span.ts'

/**
 * A wire as it was strained: level spans over which it can slide, its horizontal pull, the temperature that
 * day.
 */
export interface InstalledCable {
  readonly spansM: readonly number[]
  readonly horizontalTensionN: number
  readonly temperatureC: number
  /**
   * Give of both line ends together: newtons for each metre that they come nearer. Infinite for rigid ends.
   */
  readonly endStiffnessNPerM?: number
}

/** What the wire meets later. Loads are newtons per metre of unstretched wire, over its whole length. */
export interface CableLoad {
  readonly temperatureC: number
  /** Crop, leaf or ice, on top of the wire's own weight. */
  readonly verticalNPerM: number
  /** Across the row, level. */
  readonly windNPerM: number
  /** Permanent stretch since it was strained, as a share of its length. */
  readonly permanentStrain?: number
}

export interface CableState {
  readonly horizontalTensionN: number
  readonly maxTensionN: number
  readonly resultantLoadNPerM: number
  /** Of the plane of the wire from the vertical, radians. */
  readonly swingRad: number
  /** In the plane of the load, in the order of the spans. */
  readonly sagsInPlaneM: readonly number[]
  readonly unstretchedLengthsM: readonly number[]
}

/**
 * Pull and sag of a wire after a change of temperature, load or length: the unstretched length is kept, one
 * horizontal pull holds in all spans (the wire slides over its posts), the ends are rigid or give in
 * proportion. Exact elastic catenary (Irvine 1981, ch. 2); the resultant of weight and wind acts in one swung
 * plane. A wire that would have to be pushed hangs at the small pull of its own weight; without any weight
 * its pull is 0. Throws `core/*` for spans, pulls or stiffness that are not positive and for loads that are
 * negative.
 */
export function cableState(cable: CableMaterial, installed: InstalledCable, load: CableLoad): CableState {
  const EA = requirePositive('axialStiffnessN', cable.axialStiffnessN)
  const w = requireRange('weightNPerM', cable.weightNPerM, 0)
  const H1 = requirePositive('horizontalTensionN', installed.horizontalTensionN)
  requireRange('spans', installed.spansM.length, 1, 10_000)
  for (const spanM of installed.spansM) requirePositive('spanM', spanM)
  requireRange('installTemperatureC', installed.temperatureC, -100, 200)
  requireRange('temperatureC', load.temperatureC, -100, 200)
  const q = requireRange('verticalNPerM', load.verticalNPerM, 0)
  const p = requireRange('windNPerM', load.windNPerM, 0)
  const strain = requireRange('permanentStrain', load.permanentStrain ?? 0, -0.5, 0.5)
  const giveMPerN =
    installed.endStiffnessNPerM === undefined
      ? 0
      : 1 / requirePositive('endStiffnessNPerM', installed.endStiffnessNPerM)
  const { spansM } = installed
  const wr = p === 0 ? w + q : Math.sqrt((w + q) ** 2 + p * p)
  const growth = 1 + cable.expansionPerC * (load.temperatureC - installed.temperatureC) + strain
  let total = 0
  for (const spanM of spansM) total += unstretchedOnSpan(spanM, H1, w, EA)
  const H = solvePull({ spansM, totalM: total * growth, H1, wr, EA, giveMPerN })
  return describe(spansM, giveMPerN * (H - H1), total * growth, H, wr, EA, Math.atan2(p, w + q))
}

interface Problem {
  readonly spansM: readonly number[]
  readonly totalM: number
  readonly H1: number
  readonly wr: number
  readonly EA: number
  readonly giveMPerN: number
}

/** Below this pull a wire is slack for every purpose; it keeps divisions by the pull finite. */
const LEAST_PULL_N = 1e-9

/**
 * The pull at which the spans together hold exactly the wire there is. The length held falls as the pull
 * rises, so the root is one; Newton from the parabola's guess, kept inside a bracket that every step narrows.
 */
function solvePull(problem: Problem): number {
  const { spansM, totalM, wr, EA } = problem
  let low = LEAST_PULL_N
  let high = Infinity
  let H = parabolicPull(problem)
  for (let step = 0; step < MAX_STEPS; step++) {
    const { error, slope } = excess(problem, H)
    if (error > 0) low = H
    else high = H
    let next = H - error / slope
    if (!(next > low && next < high)) next = high === Infinity ? low * 4 : (low + high) / 2
    if (Math.abs(next - H) <= RELATIVE_STEP * 10 * H || high - low <= RELATIVE_STEP * H) return next
    H = next
  }
  // Without weight a wire longer than its spans has no pull at all.
  return wr === 0 && totalM > spansM.reduce((sum, s) => sum + s, 0) ? 0 : H
  function excess({ H1, giveMPerN }: Problem, pull: number): { error: number; slope: number } {
    const shortening = spansM.length === 0 ? 0 : (giveMPerN * (pull - H1)) / spansM.length
    let length = 0
    let slope = 0
    for (const spanM of spansM) {
      const L0 = unstretchedOnSpan(Math.max(spanM / 2, spanM - shortening), pull, wr, EA)
      length += L0
      slope += unstretchedSlope(L0, pull, wr, EA)
    }
    return { error: length - totalM, slope: slope - giveMPerN / (1 + pull / EA) }
  }
}

/**
 * Root of H²(H − EA(Σs/L0 − 1)) = EA w² Σs³ / 24Σs, the parabola's equation of state, by a few Newton steps
 * from above.
 */
function parabolicPull({ spansM, totalM, wr, EA }: Problem): number {
  let sum = 0
  let cubes = 0
  for (const s of spansM) {
    sum += s
    cubes += s * s * s
  }
  const straight = EA * (sum / totalM - 1)
  const load = (EA * wr * wr * cubes) / (24 * sum)
  let H = Math.max(straight, 0) + Math.cbrt(load)
  for (let step = 0; step < 12 && H > LEAST_PULL_N; step++) {
    const next = H - (H * H * (H - straight) - load) / (3 * H * H - 2 * H * straight)
    if (!(next > 0) || Math.abs(next - H) < 1e-6 * H) break
    H = next
  }
  return Math.max(H, LEAST_PULL_N * 10)
}

function describe(
  spansM: readonly number[],
  shorteningM: number,
  totalM: number,
  H: number,
  wr: number,
  EA: number,
  swingRad: number,
): CableState {
  if (H <= LEAST_PULL_N && wr === 0) {
    return {
      horizontalTensionN: 0,
      maxTensionN: 0,
      resultantLoadNPerM: 0,
      swingRad: 0,
      sagsInPlaneM: spansM.map(() => 0),
      unstretchedLengthsM: [...spansM],
    }
  }
  // One span keeps exactly its wire; the solved pull would give it back only to the solver's last digit.
  const lengths =
    spansM.length === 1
      ? [totalM]
      : spansM.map((s) => unstretchedOnSpan(s - shorteningM / spansM.length, H, wr, EA))
  let longest = 0
  for (const L0 of lengths) longest = Math.max(longest, L0)
  return {
    horizontalTensionN: H,
    maxTensionN: H * Math.sqrt(1 + ((wr * longest) / (2 * H)) ** 2),
    resultantLoadNPerM: wr,
    swingRad: wr === 0 ? 0 : swingRad,
    sagsInPlaneM: lengths.map((L0) => spanSag(L0, H, wr, EA)),
    unstretchedLengthsM: lengths,
  }
}

/**
 * The permanent strain that a reading betrays: by how much, as a share of its length, the wire must have
 * grown since it was strained to show this pull bare at this temperature. Negative where it was tightened.
 * Level spans, rigid ends.
 */
export function strainFromReading(
  cable: CableMaterial,
  installed: InstalledCable,
  reading: { readonly horizontalTensionN: number; readonly temperatureC: number },
): number {
  const EA = requirePositive('axialStiffnessN', cable.axialStiffnessN)
  const w = requireRange('weightNPerM', cable.weightNPerM, 0)
  const H1 = requirePositive('horizontalTensionN', installed.horizontalTensionN)
  const H2 = requirePositive('horizontalTensionN', reading.horizontalTensionN)
  let before = 0
  let now = 0
  for (const spanM of installed.spansM) {
    before += unstretchedOnSpan(requirePositive('spanM', spanM), H1, w, EA)
    now += unstretchedOnSpan(spanM, H2, w, EA)
  }
  const shortening = installed.endStiffnessNPerM === undefined ? 0 : (H2 - H1) / installed.endStiffnessNPerM
  return (
    (now - shortening) / before - 1 - cable.expansionPerC * (reading.temperatureC - installed.temperatureC)
  )
}
