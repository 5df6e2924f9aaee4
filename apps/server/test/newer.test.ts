import { BODY_VERSIONS } from '@klados/contract/upcasts'
import { v7 as uuidv7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { noteEntry, savePlace, signUp, startHarness, wallBody } from './harness.ts'
import type { Harness, Person } from './harness.ts'

let harness: Harness
let owner: Person
beforeAll(async () => {
  harness = await startHarness()
  owner = await signUp(harness.app)
})
afterAll(() => harness.close())

const at = (rest: string) => `/api/gardens/${owner.gardenId}${rest}`
const save = (headers: object = {}, body: object = wallBody) =>
  harness.app.inject({
    method: 'PUT',
    url: at(`/places/${uuidv7()}`),
    headers: { cookie: owner.cookie, ...headers },
    payload: { saveId: uuidv7(), basedOn: 0, body },
  })
const codeOf = (reply: { json: () => unknown }) => (reply.json() as { error?: { code: string } }).error?.code

describe('a document of a later release', () => {
  it('is held: neither refused as malformed, nor stripped of what is not known here', async () => {
    const later = { ...wallBody, terraces: 3 }
    const reply = await save({ 'klados-body-version': String(BODY_VERSIONS.places + 1) }, later)
    expect([reply.statusCode, codeOf(reply)]).toEqual([422, 'document/newer-version'])
    expect(codeOf(await save({}, later))).toBe('request/malformed')
    const own = await save({ 'klados-body-version': String(BODY_VERSIONS.places) })
    expect(own.json()).toMatchObject({ version: 1, bodyVersion: BODY_VERSIONS.places })
    expect((await save()).statusCode).toBe(200)
  })

  it('keeps a file that has it from being taken in by halves', async () => {
    const file = JSON.parse(
      (await harness.app.inject({ url: at('/export'), headers: { cookie: owner.cookie } })).body,
    ) as { places: { bodyVersion: number; body: object }[] }
    expect(file.places[0]!.bodyVersion).toBe(BODY_VERSIONS.places)
    file.places[0] = { ...file.places[0]!, bodyVersion: 99 }
    const form = `--b\r\ncontent-disposition: form-data; name="gardenId"\r\n\r\n${uuidv7()}\r\n--b\r\ncontent-disposition: form-data; name="file"; filename="g.json"\r\n\r\n${JSON.stringify(file)}\r\n--b--\r\n`
    const taken = await harness.app.inject({
      method: 'POST',
      url: '/api/gardens-from-file',
      headers: { cookie: owner.cookie, 'content-type': 'multipart/form-data; boundary=b' },
      payload: form,
    })
    expect(taken.body).toContain('exchange/unknown-version')
  })
})

describe('an entry of a later release', () => {
  it('is held by its sender, and keeps no other from being stored', async () => {
    const placeId = await savePlace(harness.app, owner)
    const reply = await harness.app.inject({
      method: 'POST',
      url: at('/entries'),
      headers: { cookie: owner.cookie },
      payload: {
        entries: [noteEntry(placeId, { body: { v: 2, text: 'a', mood: 'glad' } }), noteEntry(placeId)],
      },
    })
    expect(reply.json()).toMatchObject({
      answers: [{ answer: 'held', code: 'journal/unknown-kind' }, { answer: 'taken' }],
    })
  })
})
