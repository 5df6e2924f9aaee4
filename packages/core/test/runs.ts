const times = Number(process.env.KLADOS_RUNS ?? 1)

/**
 * How often a property is tried: as often as the check has time for, many times that in the long check, and a part of it
 * for each of many mutations.
 */
export const runs = (usual: number): number => Math.ceil(usual * times)

/** The time that a test of properties has for so many more tries, milliseconds. */
export const within = (usualMs: number): number => usualMs * Math.max(1, times)
