/** What is kept of a garden beside its journal: the queries that the screens ask. */
export const AREAS = ['garden', 'places', 'frames', 'plants', 'stores'] as const

export const pathOf = (area: (typeof AREAS)[number], gardenId: string): string =>
  area === 'garden' ? `/gardens/${gardenId}` : `/gardens/${gardenId}/${area}`
