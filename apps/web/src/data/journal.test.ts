import type { StoredEntry } from '@klados/contract'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { watchConnection } from './connection.ts'
import { openJournal, record, selectEntries, selectWoodNow } from './journal.ts'
import type { NewEntry } from './journal.ts'
import { saveDocument } from './saves.ts'
import { createStore } from './store.ts'

/** A server in miniature: it numbers entries, knows them by id, and can be away or say no. */
function fakeServer() {
  const entries: StoredEntry[] = []
  const state = { isAway: false, refuse: null as null | { status: number; code: string }, appends: 0 }
  const reply = (status: number, body: unknown) =>
    Promise.resolve(new Response(JSON.stringify(body), { status }))
  vi.stubGlobal('fetch', (url: string, init: RequestInit) => {
    if (state.isAway) return Promise.reject(new TypeError('connection refused'))
    if (state.refuse && init.method !== 'GET') return reply(state.refuse.status, { error: { code: state.refuse.code, message: 'no', current: { version: 7 } } }) // prettier-ignore
    if (init.method === 'POST') {
      state.appends++
      const sent = (JSON.parse(String(init.body)) as { entries: StoredEntry[] }).entries
      for (const entry of sent) {
        if (!entries.some((old) => old.id === entry.id))
          entries.push({ ...entry, seq: entries.length + 1, by: 'Me' })
      }
      return reply(200, { accepted: [] })
    }
    if (init.method === 'PUT') return reply(200, { id: 'doc', version: 1, body: {} })
    if (url.includes('/health')) return reply(200, { ok: true })
    const after = Number(/after=(\d+)/.exec(url)?.[1] ?? 0)
    const page = entries.filter((entry) => entry.seq > after).slice(0, 2)
    return reply(200, { entries: page, last: page.at(-1)?.seq ?? after })
  })
  return { entries, state }
}

const note = (text: string): NewEntry => ({ kind: 'note.written', placeId: 'p', plantId: null, at: '2026-03-01', body: { v: 1, text } }) // prettier-ignore
const settle = () => new Promise((resolve) => setTimeout(resolve, 20))

afterEach(() => vi.unstubAllGlobals())

describe('the journal in the browser', () => {
  it('reads page after page until there is no more', async () => {
    const server = fakeServer()
    for (let i = 0; i < 5; i++) server.entries.push({ ...note(`n${i}`), id: `id-${i}`, recordedAt: '', supersedes: null, seq: i + 1, by: 'Them' } as StoredEntry) // prettier-ignore
    const store = createStore()
    await store.dispatch(openJournal('g'))
    expect(store.getState().journal).toMatchObject({ status: 'ready', last: 5 })
    expect(selectEntries(store.getState())).toHaveLength(5)
  })

  it('shows what is written at once and holds it until the server has it, once', async () => {
    const server = fakeServer()
    const store = createStore()
    await store.dispatch(openJournal('g'))
    server.state.isAway = true
    store.dispatch(record([note('first')]))
    await settle()
    store.dispatch(record([note('second')]))
    await settle()
    expect(selectWoodNow(store.getState()).notes.map((n) => n.text)).toEqual(['first', 'second'])
    expect(store.getState().journal.outbox).toHaveLength(2)
    server.state.isAway = false
    await store.dispatch(openJournal('g'))
    expect(store.getState().journal.outbox).toHaveLength(0)
    expect(server.entries.map((entry) => (entry.body as { text: string }).text)).toEqual(['first', 'second'])
    expect(selectEntries(store.getState())).toHaveLength(2)
  })

  it('puts aside what the server refuses, says so, and goes on with the rest', async () => {
    const server = fakeServer()
    const store = createStore()
    await store.dispatch(openJournal('g'))
    server.state.refuse = { status: 422, code: 'journal/unknown-place' }
    store.dispatch(record([note('nowhere')]))
    await settle()
    expect(store.getState().journal).toMatchObject({ outbox: [], refused: { code: 'journal/unknown-place' } })
    server.state.refuse = null
    store.dispatch(record([note('somewhere')]))
    await settle()
    expect(server.entries).toHaveLength(1)
  })

  it('keeps what was written when the session is over', async () => {
    const server = fakeServer()
    const store = createStore()
    await store.dispatch(openJournal('g'))
    server.state.refuse = { status: 401, code: 'session/required' }
    store.dispatch(record([note('kept')]))
    await settle()
    expect(store.getState().journal.outbox).toHaveLength(1)
    expect(store.getState().journal.refused).toBeNull()
  })
})

describe('saving a document', () => {
  const save = { id: 'doc', basedOn: 1, body: {} as never }

  it('tells saved, waiting, conflict and refusal apart', async () => {
    const server = fakeServer()
    const store = createStore()
    const outcome = () => store.dispatch(saveDocument('places', 'g', save))
    expect((await outcome()).kind).toBe('saved')
    server.state.refuse = { status: 409, code: 'document/version-conflict' }
    expect(await outcome()).toEqual({ kind: 'conflict', current: { version: 7 } })
    server.state.refuse = { status: 422, code: 'document/unknown-place' }
    expect(await outcome()).toMatchObject({ kind: 'refused', code: 'document/unknown-place' })
    server.state.isAway = true
    expect((await outcome()).kind).toBe('waiting')
    expect(store.getState().saves.waiting).toEqual({ doc: true })
  })

  it('marks the server as away and as back', async () => {
    const server = fakeServer()
    const store = createStore()
    watchConnection(store)
    server.state.isAway = true
    await store.dispatch(saveDocument('places', 'g', save))
    expect(store.getState().connection.isAway).toBe(true)
    server.state.isAway = false
    await store.dispatch(saveDocument('places', 'g', save))
    expect(store.getState().connection.isAway).toBe(false)
  })
})
