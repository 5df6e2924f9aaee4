import type { AppendReply, JournalPage } from '@klados/contract'
import { v7 as uuidv7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
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
  harness.app.inject({ method: 'POST', url: url(), headers: { cookie: owner.cookie }, payload: { entries } })
const after = async (n: number, limit = 5000) =>
  (
    await harness.app.inject({ url: `${url()}?after=${n}&limit=${limit}`, headers: { cookie: owner.cookie } })
  ).json<JournalPage>()
const lastSeq = async () => (await after(0)).last

describe('the journal', () => {
  it('numbers entries in the order they were sent and gives what is after a number', async () => {
    const start = await lastSeq()
    const entries = [1, 2, 3].map((n) => noteEntry(placeId, { body: { v: 1, text: `note ${n}` } }))
    const reply = await append(entries)
    expect(reply.json<AppendReply>().accepted).toEqual(
      entries.map((e, i) => ({ id: e.id, seq: start + 1 + i })),
    )
    const page = await after(start, 2)
    expect(page.entries.map((e) => e.body)).toEqual([
      { v: 1, text: 'note 1' },
      { v: 1, text: 'note 2' },
    ])
    expect((await after(page.last)).entries.map((e) => e.id)).toEqual([entries[2]!.id])
    expect(await after(start + 3)).toEqual({ entries: [], last: start + 3 })
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
    const replies = [
      await append([entry, entry]),
      await append([entry]),
      await append([noteEntry(placeId), entry]),
    ]
    const seqs = replies.map((r) => r.json<AppendReply>().accepted.find((a) => a.id === entry.id)!.seq)
    expect(seqs).toEqual([start + 1, start + 1, start + 1])
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

  it('takes a withdrawal of an entry that it holds, earlier or in the same batch, and no other', async () => {
    const note = noteEntry(placeId)
    const undo = (of: string) =>
      noteEntry(placeId, { kind: 'entry.withdrawn', body: { v: 1 }, supersedes: of })
    expect((await append([note, undo(note.id)])).statusCode).toBe(200)
    expect((await append([undo(note.id)])).statusCode).toBe(200)
    const unknown = await append([undo(uuidv7())])
    expect(unknown.json()).toMatchObject({ error: { code: 'journal/unknown-entry' } })
  })

  it('speaks only of places and plants of its own garden, and writes nothing of a batch with one wrong entry', async () => {
    const start = await lastSeq()
    const other = await signUp(harness.app)
    const foreign = await savePlace(harness.app, other)
    const replies = [
      await append([noteEntry(placeId), noteEntry(foreign)]),
      await append([noteEntry(placeId, { plantId: uuidv7() })]),
    ]
    expect(replies.map((r) => [r.statusCode, r.json().error.code])).toEqual([
      [422, 'journal/unknown-place'],
      [422, 'journal/unknown-plant'],
    ])
    expect(await lastSeq()).toBe(start)
  })

  it('refuses more entries than a batch may hold, and ids that do not tell their time', async () => {
    const many = Array.from({ length: 501 }, () => noteEntry(placeId))
    expect((await append(many)).statusCode).toBe(400)
    expect(
      (await append([noteEntry(placeId, { id: '9b1deb4d-3b7d-4bad-9bdd-2b0d7b3dcb6d' })])).statusCode,
    ).toBe(400)
  })
})
