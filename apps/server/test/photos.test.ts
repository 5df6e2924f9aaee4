import sharp from 'sharp'
import { v7 as uuidv7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { addMember, noteEntry, savePlace, signUp, startHarness, wallBody } from './harness.ts'
import type { Harness, Person } from './harness.ts'

let harness: Harness
let owner: Person
beforeAll(async () => {
  harness = await startHarness()
  owner = await signUp(harness.app)
})
afterAll(() => harness.close())

const at = (fileId: string) => `/api/gardens/${owner.gardenId}/files/${fileId}`
const send = (content: Buffer, fileId: string = uuidv7(), type = 'image/jpeg') =>
  harness.app.inject({
    method: 'PUT',
    url: at(fileId),
    headers: { cookie: owner.cookie, 'content-type': type },
    payload: content,
  })
const read = async (fileId: string) =>
  (await harness.app.inject({ url: at(fileId), headers: { cookie: owner.cookie } })).rawPayload
const picture = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#b59c7a' } })
const codeOf = (reply: { json: () => { error?: { code: string } } }) => reply.json().error?.code

describe('a photo', () => {
  it('is made small, loses where it was taken, and is read back whole from its chunks', async () => {
    const withPlace = await picture(4000, 2000)
      .jpeg()
      .withExif({ IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '55/1 36/1 0/1' } })
      .toBuffer()
    const fileId = uuidv7()
    expect((await send(withPlace, fileId)).json()).toEqual({ id: fileId, widthPx: 1800, heightPx: 900 })
    const stored = await sharp(await read(fileId)).metadata()
    expect([stored.exif, stored.width]).toEqual([undefined, 1800])
    const noise = await sharp({
      create: {
        width: 1800,
        height: 1800,
        channels: 3,
        noise: { type: 'gaussian', mean: 128, sigma: 60 },
        background: 'black',
      },
    })
      .png()
      .toBuffer()
    const large = uuidv7()
    await send(noise, large)
    const content = await read(large)
    expect(content.length).toBeGreaterThan(600_000)
    expect((await sharp(content).stats()).channels[0]!.stdev).toBeGreaterThan(30)
  })

  it('is encoded anew even where it is small and clean: nothing that was put behind it is kept', async () => {
    const secret = 'meet me at 55.6 N'
    const small = Buffer.concat([await picture(300, 200).jpeg().toBuffer(), Buffer.from(secret)])
    const fileId = uuidv7()
    expect((await send(small, fileId)).statusCode).toBe(200)
    expect((await read(fileId)).includes(secret)).toBe(false)
  })

  it('is told by its bytes, not by what it is called: PNG and WebP under any type, others refused by name', async () => {
    expect(
      (await send(await picture(40, 30).png().toBuffer(), uuidv7(), 'application/octet-stream')).statusCode,
    ).toBe(200)
    expect((await send(await picture(40, 30).webp().toBuffer())).statusCode).toBe(200)
    const heic = Buffer.concat([Buffer.from([0, 0, 0, 24]), Buffer.from('ftypheic'), Buffer.alloc(200)])
    for (const [content, name] of [
      [heic, 'HEIC'],
      [await picture(40, 30).gif().toBuffer(), 'GIF'],
      [await picture(40, 30).tiff().toBuffer(), 'TIFF'],
      [Buffer.from('<?xml version="1.0"?><svg onload="x"/>'), 'SVG'],
      [Buffer.from('%PDF-1.4'), 'PDF'],
    ] as const) {
      const reply = await send(content)
      expect([name, reply.statusCode, codeOf(reply)]).toEqual([name, 422, 'file/unsupported-kind'])
      expect(reply.json().error.message).toContain(name)
    }
    expect(codeOf(await send(Buffer.from('nothing of the kind')))).toBe('file/not-an-image')
    expect(codeOf(await send((await picture(40, 30).jpeg().toBuffer()).subarray(0, 60)))).toBe(
      'file/not-an-image',
    )
    expect((await send(Buffer.alloc(13 * 1024 * 1024))).statusCode).toBe(413)
  })

  it('of more pixels than any phone takes is refused before it is unpacked', async () => {
    const bomb = await sharp({
      create: { width: 12_000, height: 12_000, channels: 3, background: 'black' },
      limitInputPixels: false,
    })
      .png({ compressionLevel: 9 })
      .toBuffer()
    expect(bomb.length).toBeLessThan(1_000_000)
    expect(codeOf(await send(bomb))).toBe('file/too-many-pixels')
  })

  it('is taken once under its id, whatever is sent later', async () => {
    const fileId = uuidv7()
    await send(await picture(40, 30).png().toBuffer(), fileId)
    expect((await send(await picture(90, 90).png().toBuffer(), fileId)).json()).toMatchObject({ widthPx: 40 })
  })

  it('must be there before a place can show it, and stays while one does', async () => {
    const corner = (xPx: number, yPx: number, xM: number, yM: number) => ({
      pixel: { xPx, yPx },
      at: { xM, yM },
    })
    const photo = (fileId: string) => ({
      fileId,
      widthPx: 40,
      heightPx: 30,
      marks: [corner(0, 0, 0, 2), corner(40, 0, 9, 2), corner(40, 30, 9, 0), corner(0, 30, 0, 0)],
    })
    const placeId = uuidv7()
    const save = (fileId: string | null, basedOn = 0) =>
      harness.app.inject({
        method: 'PUT',
        url: `/api/gardens/${owner.gardenId}/places/${placeId}`,
        headers: { cookie: owner.cookie },
        payload: { saveId: uuidv7(), basedOn, body: { ...wallBody, photo: fileId && photo(fileId) } },
      })
    const remove = (fileId: string) =>
      harness.app.inject({ method: 'DELETE', url: at(fileId), headers: { cookie: owner.cookie } })
    expect(codeOf(await save(uuidv7()))).toBe('document/unknown-file')
    const fileId = uuidv7()
    await send(await picture(40, 30).jpeg().toBuffer(), fileId)
    expect((await save(fileId)).statusCode).toBe(200)
    expect(codeOf(await remove(fileId))).toBe('file/in-use')
    await save(null, 1)
    expect((await remove(fileId)).statusCode).toBe(204)
    expect(codeOf(await remove(fileId))).toBe('file/not-found')
  })
})

describe('a photo of the journal', () => {
  it('is waited for by its entry, and stays for as long as the journal has that', async () => {
    const placeId = await savePlace(harness.app, owner)
    const fileId = uuidv7()
    const entry = noteEntry(placeId, {
      kind: 'photo.taken',
      body: { v: 1, fileId, pieceIds: null, note: 'canker' },
    })
    const write = async () => {
      const reply = await harness.app.inject({
        method: 'POST',
        url: `/api/gardens/${owner.gardenId}/entries`,
        headers: { cookie: owner.cookie },
        payload: { entries: [entry] },
      })
      return reply.json<{ answers: { answer: string; code?: string }[] }>().answers[0]!
    }
    expect(await write()).toMatchObject({ answer: 'held', code: 'journal/unknown-photo' })
    await send(await picture(40, 30).jpeg().toBuffer(), fileId)
    expect(await write()).toMatchObject({ answer: 'taken' })
    const removed = await harness.app.inject({
      method: 'DELETE',
      url: at(fileId),
      headers: { cookie: owner.cookie },
    })
    expect(codeOf(removed)).toBe('file/in-use')
  })
})

describe('many photos at once', () => {
  it('wait their turn, each account its share, and all of them come to it', async () => {
    const people = [owner, ...(await Promise.all([1, 2, 3, 4].map(() => signUp(harness.app))))]
    for (const person of people.slice(1)) await addMember(harness.app, owner, person, 'grower')
    const photo = await picture(3000, 2000).jpeg().toBuffer()
    const sendAs = (person: Person) =>
      harness.app.inject({
        method: 'PUT',
        url: at(uuidv7()),
        headers: { cookie: person.cookie, 'content-type': 'image/jpeg' },
        payload: photo,
      })
    const replies = await Promise.all(
      people.flatMap((person) => [sendAs(person), sendAs(person), sendAs(person)]),
    )
    const codes = replies.map((reply) => reply.statusCode)
    expect(new Set(codes)).toEqual(new Set([200]))
    const after = await sendAs(owner)
    expect(after.statusCode).toBe(200)
  })
})
