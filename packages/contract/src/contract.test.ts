import { standardCatalogue } from '@klados/core/catalogue'
import { planFrame } from '@klados/core/plan'
import { usualConditions } from '@klados/core/design'
import { describe, expect, it } from 'vitest'
import {
  appendSchema,
  entrySchema,
  errorStatus,
  frameDesignSchema,
  placeBodySchema,
  signUpSchema,
  storesBodySchema,
} from './index.ts'
import type { PlaceBody } from './index.ts'
import { pictureKind, pictureName } from './picture.ts'

const id = '01890a5d-ac96-774b-bcce-b302099a8057'
const entry = {
  id,
  placeId: id,
  plantId: null,
  kind: 'note.written',
  at: '2026-03-01',
  recordedAt: '2026-03-01T09:00:00.000Z',
  supersedes: null,
  body: { v: 1, text: 'first leaves' },
}
const parses = (value: unknown) => entrySchema.safeParse(value).success

describe('journal entries', () => {
  it('are taken as core knows them and refused with anything more, less or wrong', () => {
    expect(parses(entry)).toBe(true)
    expect(parses({ ...entry, extra: 1 })).toBe(false)
    expect(parses({ ...entry, at: '2026-02-30' })).toBe(false)
    expect(parses({ ...entry, kind: 'note.invented' })).toBe(false)
    expect(parses({ ...entry, body: { v: 2, text: 'x' } })).toBe(false)
    expect(parses({ ...entry, id: '9b1deb4d-3b7d-4bad-9bdd-2b0d7b3dcb6d' })).toBe(false)
  })

  it('are parsed one by one: a batch holds whatever was sent, for each to have its own answer', () => {
    expect(appendSchema.safeParse({ entries: [entry, 'no entry', null] }).success).toBe(true)
    expect(appendSchema.safeParse({ entries: [] }).success).toBe(false)
  })

  it('must say what they withdraw', () => {
    const withdrawal = { ...entry, kind: 'entry.withdrawn', body: { v: 1 } }
    expect(parses(withdrawal)).toBe(false)
    expect(parses({ ...withdrawal, supersedes: id })).toBe(true)
  })
})

const place: PlaceBody = {
  name: 'W',
  kind: 'wall',
  widthM: 9.2,
  usableHeightM: 1.65,
  firstForkM: 0.3,
  facingDeg: 180,
  surface: 'brick',
  setting: 'open',
  fence: null,
  viewingEnd: 'left',
  avoid: [],
  riseM: 0,
  uprights: null,
  levels: { firstM: 0.075, stepM: 0.075 },
  conditions: usualConditions,
  photo: null,
}

describe('pictures', () => {
  const bytes = (...parts: (string | number[])[]) =>
    Uint8Array.from(
      parts.flatMap((part) => (typeof part === 'string' ? [...part].map((c) => c.charCodeAt(0)) : part)),
    )
  it('are told by their first bytes, and those that are not taken have a name', () => {
    expect(pictureKind(bytes([0xff, 0xd8, 0xff, 0xe0]))).toBe('jpeg')
    expect(pictureKind(bytes('RIFF', [9, 9, 9, 9], 'WEBPVP8 '))).toBe('webp')
    expect(pictureKind(bytes('RIFF', [9, 9, 9, 9], 'WAVEfmt '))).toBe('unknown')
    expect(pictureName(bytes([0, 0, 0, 24], 'ftypmif1', [0, 0, 0, 0], 'heic'))).toBe('HEIC')
    expect(pictureName(bytes([0, 0, 0, 24], 'ftypavif'))).toBe('AVIF')
    expect(pictureName(bytes('<?xml version="1.0"?>\n<!-- a -->\n<svg xmlns="x">'))).toBe('SVG')
    expect(pictureName(bytes([0x89], 'PNG\r\n', [0x1a], '\n'))).toBeNull()
    expect(pictureKind(new Uint8Array())).toBe('unknown')
  })
})

describe('documents', () => {
  it('take the catalogue that ships as a garden’s own, and refuse a wire without a diameter', () => {
    const own = { catalogue: standardCatalogue, onHand: [] }
    expect(storesBodySchema.parse(own)).toEqual(own)
    const [wire, ...rest] = standardCatalogue.wires
    const thin = { ...standardCatalogue, wires: [{ ...wire, diameterMm: 0 }, ...rest] }
    expect(storesBodySchema.safeParse({ ...own, catalogue: thin }).success).toBe(false)
  })

  it('give core a design that it computes', () => {
    const design = frameDesignSchema.parse({
      pattern: {
        kind: 'tiers',
        levels: [
          { id: 'a', heightM: 0.5 },
          { id: 'b', heightM: 1 },
        ],
        maxSupportSpacingM: 2,
      },
      moveToleranceM: 0.05,
      dragged: {},
      ids: {},
      wireId: 'stainless-2',
      tensionN: 150,
      endWrapM: 0.15,
      wireEnding: null,
      strainers: 1,
      handlingLengthM: 20,
      endsAt: 'any',
      rolls: [{ lengthM: 25, price: 14 }],
      fixingId: 'eye-100',
      snap: 'none',
      light: null,
      setC: 12,
      plantKindId: 'pear',
      repeat: 2,
      standOffM: null,
      plantOffM: null,
      feetBallastKg: 0,
      unknown: [],
      boughtPrice: null,
    })
    expect(planFrame({ ...place, widthM: 5 }, design).problems).toEqual([])
  })

  it('have sizes within what a garden has', () => {
    expect(placeBodySchema.safeParse(place).success).toBe(true)
    for (const wrong of [
      { widthM: 0 },
      { widthM: 1e9 },
      { facingDeg: 360 },
      { name: '   ' },
      { firstForkM: -1 },
    ]) {
      expect(placeBodySchema.safeParse({ ...place, ...wrong }).success).toBe(false)
    }
  })
})

describe('accounts', () => {
  it('fold the address to lower case and refuse short passwords', () => {
    const form = { name: 'Ada', email: 'Ada@Example.org', password: 'long enough', gardenName: 'Home' }
    expect(signUpSchema.parse(form).email).toBe('ada@example.org')
    expect(signUpSchema.safeParse({ ...form, password: 'short' }).success).toBe(false)
  })
})

describe('error codes', () => {
  it('all answer with a client or server error', () => {
    for (const status of Object.values(errorStatus)) expect(status >= 400 && status < 600).toBe(true)
  })
})
