import { readFileSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { frameBodySchema, placeBodySchema, plantBodySchema, storesBodySchema } from '@klados/contract'
import { entryShapes } from '@klados/core/journal'
import type { Shape, Shapes } from '@klados/core/shape'
import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { BODY_VERSIONS } from '@klados/contract/upcasts'

/**
 * What has been stored by any release, by kind and version. A release of before holds what is of a later version, and
 * takes what is of its own for what it knows: so a shape, or a list of choices in one, never changes under its version.
 * With a new version, `NEW_SHAPES=1` writes it in; what is written there is never changed.
 */
const file = fileURLToPath(new URL('./stored-shapes.json', import.meta.url))
type Stored = Record<string, Record<string, unknown>>

const bodies = {
  places: placeBodySchema,
  frames: frameBodySchema,
  plants: plantBodySchema,
  stores: storesBodySchema,
}

function now(): Stored {
  const stored: Stored = {}
  const put = (kind: string, version: number, shape: unknown) =>
    ((stored[kind] ??= {})[String(version)] = shape)
  for (const [kind, shape] of Object.entries(entryShapes as Record<string, Shape>)) {
    const records: readonly Shapes[] =
      shape.is === 'one-of' ? shape.of : shape.is === 'record' ? [shape.of] : []
    for (const of of records) for (const v of of.v?.is === 'choice' ? of.v.of : []) put(kind, Number(v), of)
  }
  for (const [area, schema] of Object.entries(bodies))
    put(
      area,
      BODY_VERSIONS[area as keyof typeof bodies],
      z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }),
    )
  return JSON.parse(JSON.stringify(stored)) as Stored
}

describe('a stored shape', () => {
  const known = JSON.parse(readFileSync(file, 'utf8')) as Stored
  const current = now()
  if (process.env.NEW_SHAPES) {
    for (const [kind, versions] of Object.entries(current)) known[kind] = { ...versions, ...known[kind] }
    const lines = Object.entries(known).map(
      ([kind, versions]) => `${JSON.stringify(kind)}: ${JSON.stringify(versions)}`,
    )
    writeFileSync(file, `{\n${lines.join(',\n')}\n}\n`)
  }

  it.each(Object.keys(current))(
    'of %s is what it has been under its version, and a new one has a new version',
    (kind) => {
      for (const [version, shape] of Object.entries(current[kind]!))
        expect({ version, shape }).toEqual({ version, shape: known[kind]?.[version] })
    },
  )

  it('of entries is read in every version that was ever written', () => {
    for (const kind of Object.keys(entryShapes))
      expect(Object.keys(current[kind]!)).toEqual(expect.arrayContaining(Object.keys(known[kind]!)))
  })
})
