import type { AppendReply, JournalPage } from '@klados/contract'
import type { JournalEntry } from '@klados/core/journal'
import { v7 as uuidv7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { createAppPool } from '../src/database/pool.ts'
import { inGarden } from '../src/database/transaction.ts'
import { appendEntries } from '../src/journal/queries.ts'
import { noteEntry, savePlace, signUp, startHarness } from './harness.ts'
import type { Harness, Person } from './harness.ts'

let harness: Harness
let owner: Person
let placeId: string
beforeAll(async () => {
  harness = await startHarness()
  owner = await signUp(harness.app)
  placeId = await savePlace(harness.app, owner)
})
afterAll(() => harness.close())

const url = () => `/api/gardens/${owner.gardenId}/journal`
const append = (entries: object[]) =>
  harness.app.inject({
    method: 'POST',
    url: `/api/gardens/${owner.gardenId}/entries`,
    headers: { cookie: owner.cookie },
    payload: { entries },
  })
const answersTo = async (entries: object[]) => (await append(entries)).json<AppendReply>().answers
const answered = async (entries: object[]) =>
  (await answersTo(entries)).map((one) => (one.answer === 'taken' ? 'taken' : `${one.answer} ${one.code}`))
const after = async (n: number, limit = 5000) =>
  (
    await harness.app.inject({ url: `${url()}?after=${n}&limit=${limit}`, headers: { cookie: owner.cookie } })
  ).json<JournalPage>()
const lastSeq = async () => (await after(0)).last

describe('the journal', () => {
  it('numbers entries in the order they were sent and gives what is after a number', async () => {
    const start = await lastSeq()
    const entries = [1, 2, 3].map((n) => noteEntry(placeId, { body: { v: 1, text: `note ${n}` } }))
    expect(await answersTo(entries)).toEqual(entries.map((_, i) => ({ answer: 'taken', seq: start + 1 + i })))
    const page = await after(start, 2)
    expect(page.entries.map((e) => e.body)).toEqual([
      { v: 1, text: 'note 1' },
      { v: 1, text: 'note 2' },
    ])
    expect((await after(page.last)).entries.map((e) => e.id)).toEqual([entries[2]!.id])
    expect(await after(start + 3)).toEqual({ entries: [], last: start + 3, head: start + 3 })
  })

  it('gives back exactly what was written, and by whom', async () => {
    const start = await lastSeq()
    const entry = noteEntry(placeId)
    await append([entry])
    expect((await after(start)).entries).toEqual([{ ...entry, seq: start + 1, by: 'Grower' }])
  })

  it('is not changed by an entry that arrives twice, in one batch or in another', async () => {
    const start = await lastSeq()
    const entry = noteEntry(placeId)
    const taken = { answer: 'taken', seq: start + 1 }
    expect(await answersTo([entry, entry])).toEqual([taken, taken])
    expect(await answersTo([entry])).toEqual([taken])
    expect(await answersTo([noteEntry(placeId), entry])).toEqual([{ answer: 'taken', seq: start + 2 }, taken])
    expect((await after(start)).entries).toHaveLength(2)
  })

  it('stays without gaps and doubles when many write at once', async () => {
    const start = await lastSeq()
    const batches = Array.from({ length: 20 }, () => [
      noteEntry(placeId),
      noteEntry(placeId),
      noteEntry(placeId),
    ])
    await Promise.all([...batches, ...batches].map((batch) => append(batch)))
    const { entries } = await after(start)
    expect(entries.map((e) => e.seq)).toEqual(Array.from({ length: 60 }, (_, i) => start + 1 + i))
    expect(new Set(entries.map((e) => e.id)).size).toBe(60)
  })

  it('takes a withdrawal of an entry that it holds, earlier or in the same batch; another waits', async () => {
    const note = noteEntry(placeId)
    expect(await answered([note, undo(note.id)])).toEqual(['taken', 'taken'])
    expect(await answered([undo(note.id)])).toEqual(['taken'])
    expect(await answered([undo(uuidv7())])).toEqual(['held journal/unknown-entry'])
  })

  it('refuses more entries than a batch may hold', async () => {
    const many = Array.from({ length: 501 }, () => noteEntry(placeId))
    expect((await append(many)).statusCode).toBe(400)
  })

  it('keeps a page of the release before from dropping what it has not sent', async () => {
    const reply = await harness.app.inject({
      method: 'POST',
      url: url(),
      headers: { cookie: owner.cookie },
      payload: { entries: [noteEntry(placeId)] },
    })
    expect(reply.statusCode).toBe(503)
  })
})

const undo = (of: string, rest: object = {}) =>
  noteEntry(placeId, { kind: 'entry.withdrawn', body: { v: 1 }, supersedes: of, ...rest })
const DAY_MS = 86_400_000
const dayFromNow = (days: number) => new Date(Date.now() + days * DAY_MS).toISOString().slice(0, 10)

describe('appending', () => {
  it('reads no more of a journal that has grown since its plan was made than what is sent', async () => {
    const fresh = await startHarness()
    const writer = await signUp(fresh.app)
    const place = await savePlace(fresh.app, writer)
    // One connection, which keeps its plans.
    const pool = createAppPool(fresh.options.databaseUrl, 1)
    const BATCH = 50
    const readBy = () =>
      inGarden(pool, writer.gardenId, async (client) => {
        const read = async () => {
          const { rows } = await client.query<{ rows: string }>(
            `select coalesce(seq_tup_read, 0) + coalesce(idx_tup_fetch, 0) as rows
             from pg_stat_xact_user_tables where relname = 'entry'`,
          )
          return Number(rows[0]?.rows ?? 0)
        }
        const before = await read()
        const batch = Array.from({ length: BATCH }, () => noteEntry(place) as unknown as JournalEntry)
        await appendEntries(client, writer.gardenId, uuidv7(), batch)
        return (await read()) - before
      })
    for (let n = 0; n < 40; n++) await readBy()
    expect(await readBy()).toBeLessThan(4 * BATCH)
    await pool.end()
    await fresh.close()
  })
})

describe('every entry of a batch', () => {
  it('has an answer of its own: what is good is stored, whatever stands beside it', async () => {
    const start = await lastSeq()
    const foreign = await savePlace(harness.app, await signUp(harness.app))
    const good = [noteEntry(placeId), noteEntry(placeId)]
    const sent = [
      good[0]!,
      noteEntry(foreign),
      noteEntry(placeId, { plantId: uuidv7() }),
      noteEntry(placeId, { body: { v: 1, text: '' } }),
      noteEntry(placeId, { kind: 'leaf.counted', body: { v: 1, leaves: 3 } }),
      noteEntry(placeId, { body: { v: 2, text: 'of a later release' } }),
      noteEntry(placeId, { id: '9b1deb4d-3b7d-4bad-9bdd-2b0d7b3dcb6d' }),
      noteEntry(placeId, { body: { v: 1, text: 'a\0b' } }),
      noteEntry(placeId, { body: { v: 1, text: '\ud800' } }),
      'no entry at all' as unknown as object,
      good[1]!,
    ]
    expect(await answered(sent)).toEqual([
      'taken',
      'held journal/unknown-place',
      'held journal/unknown-plant',
      'refused request/malformed',
      'held journal/unknown-kind',
      'held journal/unknown-kind',
      'refused request/malformed',
      'refused request/malformed',
      'refused request/malformed',
      'refused request/malformed',
      'taken',
    ])
    expect((await after(start)).entries.map((e) => e.id)).toEqual(good.map((e) => e.id))
  })

  it('names the fields that are wrong', async () => {
    const [answer] = await answersTo([noteEntry(placeId, { at: '2026-02-30' })])
    expect(answer).toMatchObject({ fields: [{ path: 'at' }] })
  })

  it('may lie two days ahead of the server, for the sake of time zones, and no more, in its day or in its id', async () => {
    const ahead = (days: number) => noteEntry(placeId, { id: uuidv7({ msecs: Date.now() + days * DAY_MS }) })
    const sent = [
      noteEntry(placeId, { at: dayFromNow(1) }),
      noteEntry(placeId, { at: dayFromNow(4) }),
      ahead(1),
      ahead(3),
    ]
    expect(await answered(sent)).toEqual([
      'taken',
      'refused journal/too-late',
      'taken',
      'refused journal/too-late',
    ])
  })

  it('takes the place of no other than one of the same plant and place, and never its own', async () => {
    const elsewhere = await savePlace(harness.app, owner)
    const note = noteEntry(placeId)
    const self = uuidv7()
    const sent = [note, undo(note.id, { placeId: elsewhere }), undo(self, { id: self })]
    expect(await answered(sent)).toEqual([
      'taken',
      'refused journal/other-place',
      'refused journal/supersedes-itself',
    ])
  })
})
