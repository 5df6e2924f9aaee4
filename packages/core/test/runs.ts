const times = Number(process.env.KLADOS_RUNS ?? 1)

/**
 * How often a property is tried: as often as the check has time for, many times that in the long check, and a part of it
 * for each of many mutations.
 */
export const runs = (usual: number): number => Math.ceil(usual * times)

const { KLADOS_THIRD } = process.env
/** A third of what repeats for every kind of frame and takes long, another third with each commit; the long check takes all. */
export const thirdOf = <T>(all: readonly T[]): readonly T[] =>
  KLADOS_THIRD === undefined ? all : all.filter((_, at) => at % 3 === Number(KLADOS_THIRD))

/** The time that a test of properties has for so many more tries, milliseconds. */
export const within = (usualMs: number): number => usualMs * Math.max(1, times)
