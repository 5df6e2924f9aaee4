import { upcastBody } from '@klados/contract/upcasts'

/** What is kept of a garden beside its journal: the queries that the screens ask. */
export const AREAS = ['garden', 'places', 'frames', 'plants', 'stores'] as const

export const pathOf = (area: (typeof AREAS)[number], gardenId: string): string =>
  area === 'garden' ? `/gardens/${gardenId}` : `/gardens/${gardenId}/${area}`

/** An answer that an earlier release has kept, as this one would have heard it. */
export function broughtUp(path: string, data: unknown): unknown {
  const area = AREAS.find((one) => one !== 'garden' && path.endsWith(`/${one}`))
  if (!area || area === 'garden' || !Array.isArray(data)) return data
  return data.map((document: { readonly body: unknown }) => ({
    ...document,
    body: upcastBody(area, document.body),
  }))
}
