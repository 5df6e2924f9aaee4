const times = Number(process.env.KLADOS_RUNS ?? 1)

/** How often a property is tried: as often as the check has time for, and many times that in the long check. */
export const runs = (usual: number): number => usual * times

/** The time that a test of properties has for so many more tries, milliseconds. */
export const within = (usualMs: number): number => usualMs * times
