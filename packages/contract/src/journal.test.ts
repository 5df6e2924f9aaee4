import { entryShapes } from '@klados/core/journal'
import type { Shape } from '@klados/core/shape'
import { describe, expect, it } from 'vitest'
import { entrySchema, latestVersion } from './index.ts'

const uuid = '01890a5d-ac96-774b-bcce-b302099a8057'
const head = {
  id: uuid,
  placeId: uuid,
  plantId: null,
  at: '2026-03-01',
  recordedAt: '2026-03-01T09:00:00.000Z',
  supersedes: uuid,
}

/** Something that a shape describes: every record whole, of alternatives the last. */
function sampleOf(shape: Shape): unknown {
  switch (shape.is) {
    case 'uuid':
      return uuid
    case 'part':
      return 'p0'
    case 'text':
      return 'as seen'
    case 'day':
      return '2026-03-01'
    case 'number':
      return shape.above ? (shape.min + shape.max) / 2 : shape.min
    case 'whole':
      return shape.max
    case 'flag':
      return true
    case 'choice':
      return shape.of.at(-1)
    case 'point':
      return { xM: 1, yM: 2 }
    case 'path':
      return [
        { xM: 1, yM: 2 },
        { xM: 1, yM: 3 },
      ]
    case 'way':
      return [
        { xM: 1, yM: 2, zM: 0 },
        { xM: 1, yM: 3, zM: -0.1 },
      ]
    case 'none-or':
      return sampleOf(shape.of)
    case 'list':
      return [sampleOf(shape.of)]
    case 'record':
      return Object.fromEntries(Object.entries(shape.of).map(([key, of]) => [key, sampleOf(of)]))
    case 'one-of':
      return sampleOf({ is: 'record', of: shape.of.at(-1)! })
  }
}
const kinds = Object.keys(entryShapes) as (keyof typeof entryShapes)[]

describe('every kind of entry', () => {
  it.each(kinds)(
    '%s is taken whole, and refused with a field more, one less, or of a later version',
    (kind) => {
      const body = sampleOf(entryShapes[kind]) as Record<string, unknown>
      const parse = (of: unknown) => entrySchema.safeParse({ ...head, kind, body: of })
      expect(parse(body).error?.issues).toBeUndefined()
      expect(parse({ ...body, extra: 1 }).success).toBe(false)
      for (const key of Object.keys(body)) {
        const { [key]: _, ...less } = body
        expect([key, parse(less).success]).toEqual([key, false])
      }
      expect(parse({ ...body, v: latestVersion(kind) + 1 }).success).toBe(false)
    },
  )

  it('holds numbers to their ranges and lines to two points at least', () => {
    const body = sampleOf(entryShapes['piece.grew']) as object
    const parses = (rest: object) =>
      entrySchema.safeParse({ ...head, kind: 'piece.grew', body: { ...body, ...rest } }).success
    expect(parses({ baseMm: 0 })).toBe(false)
    expect(parses({ baseMm: Number.NaN })).toBe(false)
    expect(parses({ path: [{ xM: 1, yM: 1 }] })).toBe(false)
    expect(parses({ seasonsOld: 1.5 })).toBe(false)
    expect(parses({ tipMm: null, buds: null, side: null, role: null })).toBe(true)
  })
})
