import { requireFinite, requirePositive, requireRange } from '../errors/index.ts'
import type { CableMaterial } from './cable.ts'
import { inclinedCable } from './inclined-cable.ts'
import type { InclinedCable } from './inclined-cable.ts'
import type { CableLoad } from './state.ts'

/**
 * A single slanting span as it was strained: its pull along the chord, bare, and the temperature that day.
 */
export interface InstalledSlant {
  readonly horizontalDistanceM: number
  readonly heightDifferenceM: number
  readonly tensionN: number
  readonly temperatureC: number
}

/**
 * A slanting wire after a change of temperature and vertical load: the unstretched length that gives the pull
 * set is found by the secant method on the exact inclined catenary, then kept. Wind is not counted: out of
 * the plane of a slanting span there is no closed form, and the level span of its length (`cableState`)
 * covers it. Throws `core/*` as `inclinedCable` does.
 */
export function slantState(cable: CableMaterial, installed: InstalledSlant, load: CableLoad): InclinedCable {
  const h = requirePositive('horizontalDistanceM', installed.horizontalDistanceM)
  const v = requireFinite('heightDifferenceM', installed.heightDifferenceM)
  const tension = requirePositive('tensionN', installed.tensionN)
  const at = (unstretchedLengthM: number, weightNPerM: number) =>
    inclinedCable({
      horizontalDistanceM: h,
      heightDifferenceM: v,
      unstretchedLengthM,
      weightNPerM,
      axialStiffnessN: cable.axialStiffnessN,
    })
  const chord = Math.hypot(h, v)
  const wanted = (tension * h) / chord
  const error = (L0: number) => at(L0, cable.weightNPerM).horizontalTensionN / wanted - 1
  let L0 = unstretchedGuess(chord, tension, (cable.weightNPerM * h) / chord, cable.axialStiffnessN)
  let before = L0 * (1 + 1e-6)
  let errorBefore = error(before)
  for (let step = 0; step < 30; step++) {
    const now = error(L0)
    if (Math.abs(now) < 1e-12 || now === errorBefore) break
    const next = L0 - (now * (L0 - before)) / (now - errorBefore)
    ;[before, errorBefore] = [L0, now]
    L0 = next > 0 ? next : L0 / 2
  }
  const growth =
    1 + cable.expansionPerC * (load.temperatureC - installed.temperatureC) + (load.permanentStrain ?? 0)
  return at(L0 * growth, cable.weightNPerM + requireRange('verticalNPerM', load.verticalNPerM, 0))
}

/** By the parabola with the load's part across the chord: chord + (w⊥L)²L/24T² less the stretch TL/EA. */
function unstretchedGuess(chord: number, tension: number, across: number, EA: number): number {
  return (chord * (1 + (across * chord) ** 2 / (24 * tension * tension))) / (1 + tension / EA)
}
