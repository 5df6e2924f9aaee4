import { checkOf } from '@klados/contract/check'
import { UPCASTS } from '@klados/contract/upcasts'
import { request } from './request.ts'

interface Versioned {
  readonly id: string
  readonly version: number
  readonly savedAt: string
}

/**
 * The documents of a kind as the server has them. Of those that are here already only what was saved since is read: a
 * garden of thousands of plants is not sent again for one of them. Where nothing was, the very list that was here.
 */
export async function readDocuments<D extends Versioned>(
  path: string,
  here: readonly D[],
): Promise<readonly D[]> {
  const latest = here.reduce((last, { savedAt }) => (savedAt > last ? savedAt : last), '')
  if (latest) {
    const asked = `${path}/changed?since=${encodeURIComponent(latest)}&upcasts=${UPCASTS}`
    const { check, documents } = await request<{ check: number; documents: readonly D[] }>('GET', asked)
    const now = withChanged(here, documents)
    if (checkOf(now) === check) return now
    // Something is missing, or the server was set back: then what is here is not to be built on.
  }
  return request<readonly D[]>('GET', path)
}

/** In the place of each the one that was read now, new ones after them. */
export function withChanged<D extends Versioned>(here: readonly D[], changed: readonly D[]): readonly D[] {
  const now = new Map(here.map((document) => [document.id, document]))
  let isSame = true
  for (const document of changed) {
    const before = now.get(document.id)
    if (before?.version === document.version && before.savedAt === document.savedAt) continue
    now.set(document.id, document)
    isSame = false
  }
  return isSame ? here : [...now.values()]
}
