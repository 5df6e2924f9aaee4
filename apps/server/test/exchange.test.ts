import type { GardenFile } from '@klados/contract'
import { standardCatalogue } from '@klados/core/materials'
import sharp from 'sharp'
import { v7 as uuidv7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { noteEntry, savePlace, signUp, startHarness, wallBody } from './harness.ts'
import type { Harness, Person } from './harness.ts'

let harness: Harness
beforeAll(async () => {
  harness = await startHarness()
})
afterAll(() => harness.close())

const call = (person: Person, method: 'GET' | 'PUT' | 'POST', path: string, payload?: object) =>
  harness.app.inject({
    method,
    url: `/api/gardens/${person.gardenId}${path}`,
    headers: { cookie: person.cookie },
    ...(payload ? { payload } : {}),
  })
const exported = async (person: Person) => (await call(person, 'GET', '/export')).json<GardenFile>()
const sendPhoto = (person: Person, fileId: string, content: Buffer, type = 'image/jpeg') =>
  harness.app.inject({
    method: 'PUT',
    url: `/api/gardens/${person.gardenId}/files/${fileId}`,
    headers: { cookie: person.cookie, 'content-type': type },
    payload: content,
  })
const picture = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#b59c7a' } })

describe('photos', () => {
  it('are made small and lose where they were taken', async () => {
    const owner = await signUp(harness.app)
    const withPlace = await picture(4000, 2000)
      .jpeg()
      .withExif({ IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '55/1 36/1 0/1' } })
      .toBuffer()
    expect((await sharp(withPlace).metadata()).exif).toBeDefined()
    const fileId = uuidv7()
    expect((await sendPhoto(owner, fileId, withPlace)).json()).toEqual({ id: fileId, widthPx: 1800, heightPx: 900 }) // prettier-ignore
    const reply = await call(owner, 'GET', `/files/${fileId}`)
    expect(reply.headers['content-type']).toBe('image/jpeg')
    const stored = await sharp(reply.rawPayload).metadata()
    expect(stored.exif).toBeUndefined()
    expect(stored.width).toBe(1800)
  })

  it('are taken once under their id, whatever is sent later', async () => {
    const owner = await signUp(harness.app)
    const fileId = uuidv7()
    await sendPhoto(owner, fileId, await picture(40, 30).png().toBuffer(), 'image/png')
    const again = await sendPhoto(owner, fileId, await picture(90, 90).png().toBuffer(), 'image/png')
    expect(again.json()).toMatchObject({ widthPx: 40, heightPx: 30 })
  })

  it('are refused when they are no picture, too large, or of a kind that browsers would run', async () => {
    const owner = await signUp(harness.app)
    const refused = async (content: Buffer, type: string) => (await sendPhoto(owner, uuidv7(), content, type)).statusCode // prettier-ignore
    expect(await refused(Buffer.from('<svg onload="x"/>'), 'image/jpeg')).toBe(422)
    expect(await refused(Buffer.from('<svg/>'), 'image/svg+xml')).toBe(415)
    expect(await refused(Buffer.alloc(13 * 1024 * 1024), 'image/png')).toBe(413)
    expect((await harness.app.inject({ method: 'PUT', url: `/api/gardens/${owner.gardenId}/files/${uuidv7()}`, headers: { cookie: owner.cookie }, payload: {} })).statusCode).toBe(422) // prettier-ignore
  })

  it('must be there before a place can show them', async () => {
    const owner = await signUp(harness.app)
    const corner = (xPx: number, yPx: number, xM: number, yM: number) => ({
      pixel: { xPx, yPx },
      at: { xM, yM },
    })
    const photo = (fileId: string) => ({ fileId, widthPx: 40, heightPx: 30, marks: [corner(0, 0, 0, 2), corner(40, 0, 9, 2), corner(40, 30, 9, 0), corner(0, 30, 0, 0)] }) // prettier-ignore
    const save = (fileId: string) => call(owner, 'PUT', `/places/${uuidv7()}`, { saveId: uuidv7(), basedOn: 0, body: { ...wallBody, photo: photo(fileId) } }) // prettier-ignore
    expect((await save(uuidv7())).json()).toMatchObject({ error: { code: 'document/unknown-file' } })
    const fileId = uuidv7()
    await sendPhoto(owner, fileId, await picture(40, 30).jpeg().toBuffer())
    expect((await save(fileId)).statusCode).toBe(200)
  })
})

describe('a garden as a file', () => {
  const filled = async () => {
    const owner = await signUp(harness.app)
    const placeId = await savePlace(harness.app, owner)
    const frame = { placeId, name: 'Tiers', design: { pattern: { kind: 'tiers', heightsM: [0.5, 1], maxSupportSpacingM: 2 }, moveToleranceM: 0.05, dragged: {}, snap: 'none', wireId: 'stainless-2', tensionN: 150, rolls: [{ lengthM: 25, price: 14 }], light: null, endWrapM: 0.15, handlingLengthM: 20, fixingId: 'eye-100', setC: 12, plantKindId: 'pear', repeat: 1 } } // prettier-ignore
    await call(owner, 'PUT', `/frames/${uuidv7()}`, { saveId: uuidv7(), basedOn: 0, body: frame })
    await call(owner, 'PUT', `/stores/${uuidv7()}`, { saveId: uuidv7(), basedOn: 0, body: { catalogue: null, onHand: [{ what: 'good', refId: 'plug', lengthM: null, quantity: 40 }] } }) // prettier-ignore
    await sendPhoto(owner, uuidv7(), await picture(60, 40).jpeg().toBuffer())
    const first = noteEntry(placeId)
    await call(owner, 'POST', '/journal', { entries: [first, noteEntry(placeId, { supersedes: first.id })] })
    return owner
  }

  it('comes back from another garden the same, and taken in again changes nothing', async () => {
    const file = await exported(await filled())
    expect(file).toMatchObject({ places: [{}], frames: [{}], stores: [{}], files: [{}], entries: [{}, {}] })
    const other = await signUp(harness.app)
    const first = await call(other, 'POST', '/import', file)
    expect(first.json()).toEqual({ places: 1, frames: 1, plants: 0, stores: 1, files: 1, entries: 2 })
    const { garden: _, ...back } = await exported(other)
    const { garden: __, ...sent } = file
    expect(back).toEqual(sent)
    expect((await call(other, 'POST', '/import', file)).json()).toEqual({ places: 0, frames: 0, plants: 0, stores: 0, files: 0, entries: 0 }) // prettier-ignore
  })

  it('refuses other files, other versions, damage and missing references, in words, and changes nothing', async () => {
    const file = await exported(await filled())
    const other = await signUp(harness.app)
    const refusal = async (wrong: object) => (await call(other, 'POST', '/import', wrong)).json<{ error: { code: string; message: string } }>().error // prettier-ignore
    expect(await refusal({ hello: 1 })).toMatchObject({ code: 'exchange/unknown-version' })
    expect(await refusal({ ...file, version: 2 })).toMatchObject({ code: 'exchange/unknown-version', message: expect.stringMatching(/version 2.*version 1/) }) // prettier-ignore
    const damaged = {
      ...file,
      places: [{ ...file.places[0]!, body: { ...file.places[0]!.body, widthM: -1 } }],
    }
    expect(await refusal(damaged)).toMatchObject({ code: 'request/malformed', message: expect.stringMatching(/places\.0\.body\.widthM/) }) // prettier-ignore
    expect(await refusal({ ...file, places: [] })).toMatchObject({ code: 'exchange/missing-reference' })
    expect((await exported(other)).places).toEqual([])
  })

  it('of an earlier release is taken in with what was taken for granted then', async () => {
    const file = await exported(await filled())
    const { ties: _, ...catalogue } = standardCatalogue
    const fan = { kind: 'fan', ribs: 9, spreadDeg: 150, wireStepM: 0.3, maxSupportSpacingM: 1.8, ribStockId: 'cane-24' } // prettier-ignore
    const [frame, stores] = [file.frames[0]!, file.stores[0]!]
    const earlier = {
      ...file,
      frames: [{ ...frame, body: { ...frame.body, design: { ...frame.body.design, pattern: fan } } }],
      stores: [{ ...stores, body: { ...stores.body, catalogue } }],
    }
    const other = await signUp(harness.app)
    expect((await call(other, 'POST', '/import', earlier)).statusCode).toBe(200)
    const back = await exported(other)
    expect(back.frames[0]!.body.design.pattern).toEqual({ ...fan, ribReachM: null })
    expect(back.stores[0]!.body.catalogue).toEqual(standardCatalogue)
  })

  it('is described by a published schema', async () => {
    const schema = (await harness.app.inject({ url: '/api/schema/klados.json' })).json<{ $defs: { garden: { required: string[] } } }>() // prettier-ignore
    expect(schema.$defs.garden.required).toEqual(expect.arrayContaining(['format', 'version', 'places', 'entries'])) // prettier-ignore
  })
})
