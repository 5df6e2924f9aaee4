import { upcastBody } from '@klados/contract/upcasts'
import { AREAS } from './paths.ts'

/** An answer that an earlier release has kept, as this one would have heard it. */
export function broughtUp(path: string, data: unknown): unknown {
  const area = AREAS.find((one) => one !== 'garden' && path.endsWith(`/${one}`))
  if (!area || area === 'garden' || !Array.isArray(data)) return data
  return data.map((document: { readonly body: unknown }) => ({
    ...document,
    body: upcastBody(area, document.body),
  }))
}
