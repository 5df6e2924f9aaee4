interface About {
  readonly plantId: string | null
  readonly placeId: string
}
/** Before the id of a place in the name of the part that is of no plant. */
const OF_NO_PLANT = 'place '

/** The part of a journal that an entry belongs to: its plant, or what was written of no plant at its place. */
export const partOf = ({ plantId, placeId }: About): string => plantId ?? `${OF_NO_PLANT}${placeId}`

/** The id of the plant, or of the place, that a part is about. */
export const subjectOf = (part: string): string =>
  part.startsWith(OF_NO_PLANT) ? part.slice(OF_NO_PLANT.length) : part

/** Things that share a key together, in the order in which they came. */
export function grouped<T>(all: readonly T[], keyOf: (one: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>()
  for (const one of all) {
    const key = keyOf(one)
    const group = groups.get(key)
    if (group) group.push(one)
    else groups.set(key, [one])
  }
  return groups
}
