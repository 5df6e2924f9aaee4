import { API_HEADER, API_VERSION } from '@klados/contract/limits'
import { pieceReplySchema } from '@klados/contract/replies'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { createPhotoSender } from './send-photo.ts'
import type { PhotoItem } from './sync/items.ts'
import { checked } from './transmit.ts'

const fileId = '0195a000-0000-7000-8000-0000000000f1'
const bytes = new Uint8Array(300_000).map((_, n) => n % 251)
const photo = { fileId, content: new Blob([bytes], { type: 'image/jpeg' }), accountId: 'me' } as PhotoItem
afterEach(() => vi.unstubAllGlobals())

/** A server that keeps what it gets, and does to the n-th request what the test says. */
function server(trouble: (n: number) => 'cut' | 'busy' | null = () => null) {
  let stored = new Uint8Array()
  const state = { requests: 0, sent: 0, writers: new Set<string | null>() }
  const answer = (status: number, body: object, headers: Record<string, string> = {}) =>
    new Response(JSON.stringify(body), { status, headers: { [API_HEADER]: API_VERSION, ...headers } })
  vi.stubGlobal('fetch', async (url: string, init: RequestInit) => {
    const what = trouble(++state.requests)
    const body = init.body ? new Uint8Array(await (init.body as Blob).arrayBuffer()) : new Uint8Array()
    state.sent += body.length
    if (init.method === 'PUT') state.writers.add(new Headers(init.headers).get('klados-writer'))
    if (what === 'busy')
      return answer(503, { error: { code: 'server/busy', message: '' } }, { 'retry-after': '3' })
    const from = Number(new URL(url, 'http://x').searchParams.get('from'))
    if (init.method === 'PUT' && from === stored.length) stored = new Uint8Array([...stored, ...body])
    if (what === 'cut') throw new TypeError('cut')
    const isWhole = stored.length === bytes.length
    return answer(200, {
      upTo: stored.length,
      file: isWhole ? { id: fileId, widthPx: 3, heightPx: 2 } : null,
    })
  })
  return { state, stored: () => stored }
}
const read = (body: unknown) => Promise.resolve(pieceReplySchema.parse(body))
const go = (told: number[] = [], sender = createPhotoSender()) =>
  sender.send('g', photo, read, (sent) => told.push(sent))

describe('a photo', () => {
  it('goes in pieces under its writer’s name, tells how far it is, and is answered as if it had gone whole', async () => {
    const { stored, state } = server()
    const told: number[] = []
    expect(await go(told)).toMatchObject({ status: 200, body: { id: fileId } })
    expect(stored()).toEqual(bytes)
    expect(state.writers).toEqual(new Set(['me']))
    expect(told[0]).toBe(0)
    expect(told).toEqual([...told].sort((a, b) => a - b))
    expect(told.length).toBeGreaterThan(2)
  })

  it('goes on where it stopped, whether the last answer was lost or the server had no time', async () => {
    const { stored, state } = server((n) => (n === 4 ? 'cut' : n === 7 ? 'busy' : null))
    const replies = [await go(), await go(), await go()]
    expect(replies.map((one) => (one.kind === 'none' ? 'none' : one.status))).toEqual(['none', 503, 200])
    expect(replies[1]).toMatchObject({ retryAfterS: 3 })
    expect(stored()).toEqual(bytes)
    // No more of it twice than the piece that was on its way.
    expect(state.sent).toBeLessThan(bytes.length * 1.9)
  })

  it('goes whole to a server of the release before', async () => {
    const seen: string[] = []
    vi.stubGlobal('fetch', (url: string, init: RequestInit) => {
      seen.push(`${init.method} ${url.replace(/.*\/files\//, '')}`)
      const isPieces = url.includes('/pieces')
      const body = isPieces
        ? { error: { code: 'route/not-found', message: '' } }
        : { id: fileId, widthPx: 1, heightPx: 1 }
      return Promise.resolve(
        new Response(JSON.stringify(body), {
          status: isPieces ? 404 : 200,
          headers: { [API_HEADER]: API_VERSION },
        }),
      )
    })
    expect(await go()).toMatchObject({ status: 200 })
    expect(seen).toEqual([`GET ${fileId}/pieces`, `PUT ${fileId}`])
  })
})

describe('an answer that says “taken”', () => {
  const ours = (body: unknown) => ({ kind: 'ours', status: 200, body, retryAfterS: null }) as const
  const saved = {
    id: fileId,
    version: 3,
    savedAt: '2026-03-01T12:00:00.000Z',
    savedBy: 'Isla',
    body: { v: 1 },
  }
  it('is held to what such an answer says, and of what', async () => {
    expect(await checked(ours(saved), 'savedReplySchema', fileId)).toEqual(ours(saved))
    expect(await checked(ours(saved), 'savedReplySchema', 'another')).toEqual({ kind: 'none' })
    for (const body of [null, {}, 'ok', { ...saved, version: '3' }, { ...saved, body: null }])
      expect(await checked(ours(body), 'savedReplySchema', fileId)).toEqual({ kind: 'none' })
    const refused = { kind: 'ours', status: 409, body: {}, retryAfterS: null } as const
    expect(await checked(refused, 'savedReplySchema', fileId)).toBe(refused)
  })
})
