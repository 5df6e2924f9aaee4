import type { LayingInstance } from './instance.ts'
import { solveLaying } from './solve.ts'
import type { LayingLimits } from './solve.ts'

/** What of an instance that cannot be met clashes: places among its requirements and its conflicts. */
export interface Clash {
  readonly requirements: readonly number[]
  readonly conflicts: readonly number[]
}

/**
 * Requirements and conflicts that cannot all be met together, none of which can be left out; `null` where all can. One
 * by one they are left out, and what the rest can be met without stays out.
 */
export function clashOf(instance: LayingInstance, limits: LayingLimits = {}): Clash | null {
  const bare: LayingInstance = {
    ...instance,
    tracks: [],
    crossings: [],
    candidates: instance.candidates.map((candidate) => ({
      ...candidate,
      options: candidate.options.map((option) => ({ ...option, cost: 0, covers: [] })),
    })),
    buds: { min: 0, max: 0, costPerBud: 0 },
  }
  let requirements = bare.requirements.map((_, i) => i)
  let conflicts = bare.conflicts.map((_, i) => i)
  const canBeMet = () => {
    const some = {
      ...bare,
      requirements: requirements.map((i) => bare.requirements[i]!),
      conflicts: conflicts.map((i) => bare.conflicts[i]!),
    }
    return solveLaying(some, limits).chosen !== null
  }
  if (canBeMet()) return null
  for (const i of [...requirements]) {
    const all = requirements
    requirements = all.filter((one) => one !== i)
    if (canBeMet()) requirements = all
  }
  for (const i of [...conflicts]) {
    const all = conflicts
    conflicts = all.filter((one) => one !== i)
    if (canBeMet()) conflicts = all
  }
  return { requirements, conflicts }
}
