import { checkOf } from '@klados/contract/check'
import { UPCASTS } from '@klados/contract/upcasts'
import { v7 as uuidv7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { savePlace, signUp, startHarness, wallBody, plantBody } from './harness.ts'
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

const put = (path: string, payload: object) =>
  harness.app.inject({
    method: 'PUT',
    url: `/api/gardens/${owner.gardenId}/${path}`,
    headers: { cookie: owner.cookie },
    payload,
  })
const get = (path: string) =>
  harness.app.inject({ url: `/api/gardens/${owner.gardenId}/${path}`, headers: { cookie: owner.cookie } })
const save = (basedOn: number, body: object, rest: object = {}) => ({
  saveId: uuidv7(),
  basedOn,
  body,
  ...rest,
})
const plant = (rest: object = {}) => ({ ...plantBody(placeId), ...rest })

describe('a document', () => {
  it('gets a version with every save, keeps all of them, and shows who saved what', async () => {
    const id = uuidv7()
    await put(`places/${id}`, save(0, wallBody))
    const second = await put(
      `places/${id}`,
      save(1, { ...wallBody, widthM: 9.4 }, { note: 'measured again' }),
    )
    expect(second.json()).toMatchObject({
      id,
      version: 2,
      note: 'measured again',
      savedBy: 'Grower',
      body: { widthM: 9.4 },
    })
    const revisions = (await get(`places/${id}/revisions`)).json<
      { version: number; body: { widthM: number } }[]
    >()
    expect(revisions.map((r) => [r.version, r.body.widthM])).toEqual([
      [2, 9.4],
      [1, 9.2],
    ])
  })

  it('is read by its id, and with the others of its kind whole or a page at a time', async () => {
    const ids = [uuidv7(), uuidv7(), uuidv7()]
    for (const id of ids) await put(`plants/${id}`, save(0, plant()))
    expect((await get(`plants/${ids[1]}`)).json()).toMatchObject({ id: ids[1], version: 1 })
    expect((await get(`plants/${uuidv7()}`)).statusCode).toBe(404)
    // An id names a document of its kind, and of no other.
    expect((await get(`frames/${ids[1]}`)).statusCode).toBe(404)
    const all = (await get('plants')).json<{ id: string }[]>().map(({ id }) => id)
    expect(all).toEqual(expect.arrayContaining(ids))
    const paged: string[] = []
    for (;;) {
      const after = paged.length > 0 ? `&after=${paged.at(-1)}` : ''
      const page = (await get(`plants?limit=2${after}`)).json<{ id: string }[]>()
      if (page.length === 0) break
      paged.push(...page.map(({ id }) => id))
    }
    expect(paged).toEqual(all)
    expect((await get('plants?limit=0')).statusCode).toBe(400)
  })

  it('is told since a time with what was saved since, and with a check of all there are of its kind', async () => {
    const ids = [uuidv7(), uuidv7()]
    for (const id of ids) await put(`plants/${id}`, save(0, plant()))
    type Listed = { id: string; version: number; savedAt: string }[]
    const before = (await get('plants')).json<Listed>()
    // What is saved in the same minute may come again: a save that began sooner may have ended later.
    const { body: later } = await put(`plants/${ids[0]}`, save(1, plant({ name: 'Again' })))
    const { savedAt } = JSON.parse(later) as Listed[number]
    const asked = (since: string, upcasts = UPCASTS) =>
      get(`plants/changed?since=${encodeURIComponent(since)}&upcasts=${upcasts}`)
    const { documents, check } = (await asked(savedAt)).json<{ documents: Listed; check: number }>()
    expect(documents.find(({ id }) => id === ids[0])).toMatchObject({ version: 2, body: { name: 'Again' } })
    const now = before.map((one) => documents.find(({ id }) => id === one.id) ?? one)
    expect(check).toBe(checkOf(now))
    expect(check).not.toBe(checkOf(before))
    const afterwards = new Date(Date.parse(savedAt) + 120_000).toISOString()
    expect((await asked(afterwards)).json()).toEqual({ documents: [], check })
    // A page of another release is told all: what it has may be of another form.
    const { documents: whole } = (await asked(afterwards, UPCASTS - 1)).json<{ documents: Listed }>()
    expect(whole).toHaveLength(now.length)
    expect((await asked('yesterday')).statusCode).toBe(400)
  })

  it('refuses a save on an old version with the stored one attached, and changes nothing', async () => {
    const id = uuidv7()
    await put(`plants/${id}`, save(0, plant()))
    await put(`plants/${id}`, save(1, plant({ name: 'Mine' })))
    const stale = await put(`plants/${id}`, save(1, plant({ name: 'Theirs' })))
    expect(stale.statusCode).toBe(409)
    expect(stale.json()).toMatchObject({
      error: { code: 'document/version-conflict', current: { version: 2, body: { name: 'Mine' } } },
    })
    const again = await put(`plants/${id}`, save(0, plant({ name: 'New?' })))
    expect(again.statusCode).toBe(409)
  })

  it('counts a save once however often it is sent', async () => {
    const id = uuidv7()
    const first = save(0, plant())
    const replies = [await put(`plants/${id}`, first), await put(`plants/${id}`, first)]
    expect(replies.map((r) => [r.statusCode, r.json().version])).toEqual([
      [200, 1],
      [200, 1],
    ])
  })

  it('lets one of two saves at the same moment through', async () => {
    const id = uuidv7()
    await put(`plants/${id}`, save(0, plant()))
    const codes = (
      await Promise.all([1, 2, 3, 4].map((n) => put(`plants/${id}`, save(1, plant({ name: `N${n}` })))))
    ).map((r) => r.statusCode)
    expect(codes.sort()).toEqual([200, 409, 409, 409])
  })

  it('stands at a place of its own garden or not at all', async () => {
    const other = await signUp(harness.app)
    const foreign = await savePlace(harness.app, other)
    const reply = await put(`plants/${uuidv7()}`, save(0, plant({ placeId: foreign })))
    expect(reply.json()).toMatchObject({ error: { code: 'document/unknown-place' } })
    expect((await put(`plants/${uuidv7()}`, save(3, plant()))).statusCode).toBe(404)
  })
})

describe('bad requests', () => {
  it.each([
    ['no body', {}, 400],
    ['a foreign key in the body', save(0, { ...wallBody, colour: 'red' }), 400],
    ['a wall of no width', save(0, { ...wallBody, widthM: 0 }), 400],
    ['text that cannot be stored', save(0, { ...wallBody, name: 'a\u0000b' }), 400],
    ['a lone surrogate', save(0, { ...wallBody, name: 'x\ud800' }), 400],
  ])('with %s get a 4xx of the one shape', async (_, payload, status) => {
    const reply = await put(`places/${uuidv7()}`, payload)
    expect(reply.statusCode).toBe(status)
    expect(reply.json()).toMatchObject({ error: { code: expect.any(String), message: expect.any(String) } })
  })

  it('that are no JSON, too large, of another type or at no address get one too', async () => {
    const url = `/api/gardens/${owner.gardenId}/places/${uuidv7()}`
    const send = (payload: string, type: string) =>
      harness.app.inject({
        method: 'PUT',
        url,
        headers: { cookie: owner.cookie, 'content-type': type },
        payload,
      })
    const replies = [
      await send('{"body":', 'application/json'),
      await send(JSON.stringify({ body: 'x'.repeat(2_000_000) }), 'application/json'),
      await send('<a/>', 'text/xml'),
      await put('places/not-an-id', save(0, wallBody)),
      await harness.app.inject({ url: '/api/nowhere' }),
      await get(`frames/${uuidv7()}/revisions`),
    ]
    expect(replies.map((r) => r.statusCode)).toEqual([400, 413, 415, 400, 404, 404])
    for (const reply of replies) expect(reply.json()).toHaveProperty('error.code')
  })
})
