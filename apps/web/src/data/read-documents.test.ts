import { checkOf } from '@klados/contract/check'
import { API_HEADER, API_VERSION } from '@klados/contract/limits'
import fc from 'fast-check'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { readDocuments } from './read-documents.ts'

interface Doc {
  readonly id: string
  readonly version: number
  readonly savedAt: string
}
const idOf = (name: string) => `00000000-0000-7000-8000-${name.charCodeAt(0).toString(16).padStart(12, '0')}`
const at = (second: number) => `2026-03-01T00:00:${String(second).padStart(2, '0')}.000Z`
const doc = (name: string, version: number, second: number): Doc => ({
  id: idOf(name),
  version,
  savedAt: at(second),
})

/** A server that answers as ours does, and tells what it was asked. */
function serve(documents: readonly Doc[]): string[] {
  const asked: string[] = []
  vi.stubGlobal('fetch', (url: string) => {
    asked.push(url.replace(/&upcasts=\d+$/, ''))
    const since = new URL(url, 'http://garden').searchParams.get('since')
    const body =
      since === null
        ? documents
        : {
            check: checkOf(documents),
            documents: documents.filter(({ savedAt }) => savedAt >= since),
          }
    return Promise.resolve(new Response(JSON.stringify(body), { headers: { [API_HEADER]: API_VERSION } }))
  })
  return asked
}
afterEach(() => vi.unstubAllGlobals())

describe('documents that are read again', () => {
  it('are read whole where none is here, and then only what was saved since', async () => {
    const first = [doc('a', 1, 1), doc('b', 2, 5)]
    expect(serve(first)).toEqual([])
    expect(await readDocuments('/plants', [])).toEqual(first)
    const asked = serve([doc('a', 2, 7), doc('b', 2, 5), doc('c', 1, 8)])
    const now = await readDocuments('/plants', first)
    expect(now).toEqual([doc('a', 2, 7), doc('b', 2, 5), doc('c', 1, 8)])
    expect(asked).toEqual([`/api/plants/changed?since=${encodeURIComponent(first[1]!.savedAt)}`])
  })

  it('are the very list that they were where nothing was saved', async () => {
    const here = [doc('a', 1, 1), doc('b', 2, 5)]
    serve(here)
    expect(await readDocuments('/plants', here)).toBe(here)
  })

  it('are those of the server in the end, also where it was set back to an earlier day and written on since', async () => {
    const saved = fc.array(fc.constantFrom(...'abcde'), { maxLength: 12 })
    await fc.assert(
      fc.asyncProperty(saved, saved, saved, async (before, lost, since) => {
        let second = 0
        const history = (names: readonly string[], from: ReadonlyMap<string, Doc>) => {
          const now = new Map(from)
          for (const name of names) now.set(name, doc(name, (now.get(name)?.version ?? 0) + 1, ++second))
          return now
        }
        const kept = history(before, new Map())
        const here = [...history(lost, kept).values()]
        const there = [...history(since, kept).values()]
        serve(there)
        const byId = (docs: readonly Doc[]) => [...docs].sort((a, b) => (a.id < b.id ? -1 : 1))
        expect(byId(await readDocuments('/plants', here))).toEqual(byId(there))
      }),
    )
  })
})
