import { BALLAST_RANGE_KG, MAX_ID_LETTERS, POT_RANGE_M, frameKinds, isField } from '@klados/core/frame'
import type { Field, Fields, FrameKind, Pattern } from '@klados/core/frame'
import { z } from 'zod'
import { partId } from './numbers.ts'

const within = (min: number, max: number) => z.number().finite().min(min).max(max)
const pot = z.strictObject({
  shape: z.enum(['round', 'square']),
  widthM: within(...POT_RANGE_M),
  heightM: within(...POT_RANGE_M),
  ballastKg: within(...BALLAST_RANGE_KG),
  drainageM: within(0, POT_RANGE_M[1]),
  hasCharcoal: z.boolean(),
  isThere: z.boolean(),
})

/** The schema of a parameter, from its own record in core: each range stands there and nowhere else. */
function fieldSchema(field: Field): z.ZodType {
  switch (field.ask) {
    case 'length':
      return within(field.minM, field.maxM)
    case 'length-or-none':
      return within(field.minM, field.maxM).nullable()
    case 'number':
      return within(field.min, field.max)
    case 'whole':
      return z.number().int().min(field.min).max(field.max)
    case 'choice':
      return z.union(field.options.map((option) => z.literal(option)))
    case 'flag':
      return z.boolean()
    case 'stock':
    case 'screw':
      return partId
    case 'id':
      return z.string().min(1).max(MAX_ID_LETTERS)
    case 'link':
      return z.tuple([partId, partId])
    case 'pot':
      return field.canBeNone ? pot.nullable() : pot
    case 'one-of':
      return oneOfSchema(field.by, field.of)
    case 'list':
      return listSchema(field)
  }
}

function shapeOf(fields: Fields): Record<string, z.ZodType> {
  return Object.fromEntries(Object.entries(fields).map(([key, field]) => [key, fieldSchema(field)]))
}

function oneOfSchema(by: string, of: Readonly<Record<string, Fields>>): z.ZodType {
  const variants = Object.entries(of).map(([name, fields]) =>
    z.strictObject({ [by]: z.literal(name), ...shapeOf(fields) }),
  )
  return z.discriminatedUnion(by, variants as [(typeof variants)[number], ...typeof variants])
}

function listSchema({ min, max, of }: Extract<Field, { ask: 'list' }>): z.ZodType {
  if (isField(of)) return z.array(fieldSchema(of)).min(min).max(max)
  const items = z
    .array(z.strictObject(shapeOf(of)))
    .min(min)
    .max(max)
  if (!('id' in of)) return items
  return items.refine((parts) => new Set(parts.map((part) => part.id)).size === parts.length, {
    error: 'must have an id of its own each',
  })
}

/** The schema of one kind of frame. */
export function patternSchemaOf({ kind, fields }: Pick<FrameKind<string, Fields, never>, 'kind' | 'fields'>) {
  return z.strictObject({ kind: z.literal(kind), ...shapeOf(fields) })
}

const patterns = Object.values(frameKinds).map((kind) => patternSchemaOf(kind as never))

/**
 * Any pattern. Its members are made from the records that the pattern's own type is made of; zod cannot carry
 * that through a map, and a test holds that what every kind starts with comes through as it is.
 */
export const patternSchema = z.discriminatedUnion(
  'kind',
  patterns as [(typeof patterns)[number], ...typeof patterns],
) as unknown as z.ZodType<Pattern>
