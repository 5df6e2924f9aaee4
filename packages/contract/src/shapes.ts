import type { Shape, Shapes, ValueOf } from '@klados/core/shape'
import { z } from 'zod'
import { calendarDate, idSchema, pointInSpaceSchema, pointSchema } from './numbers.ts'

/**
 * The schema of a shape that core describes, typed as the value it stands for: the two are made of the same
 * record, which zod cannot carry through a map.
 */
export function shapeSchema<S extends Shape>(shape: S): z.ZodType<ValueOf<S>> {
  return schemaOf(shape) as z.ZodType<ValueOf<S>>
}

function schemaOf(shape: Shape): z.ZodType {
  switch (shape.is) {
    case 'uuid':
      return idSchema
    case 'part':
      return z.string().min(1).max(shape.max)
    case 'text':
      return z.string().trim().min(shape.min).max(shape.max)
    case 'day':
      return calendarDate
    case 'number': {
      const number = z.number().finite().max(shape.max)
      return shape.above ? number.gt(shape.min) : number.min(shape.min)
    }
    case 'whole':
      return z.number().int().min(shape.min).max(shape.max)
    case 'flag':
      return z.boolean()
    case 'choice':
      return z.union(shape.of.map((option) => z.literal(option)))
    case 'point':
      return pointSchema
    case 'path':
      return z.array(pointSchema).min(2).max(shape.max)
    case 'way':
      return z.array(pointInSpaceSchema).min(2).max(shape.max)
    case 'none-or':
      return schemaOf(shape.of).nullable()
    case 'list':
      return z.array(schemaOf(shape.of)).min(1).max(shape.max)
    case 'record':
      return recordSchema(shape.of)
    case 'one-of': {
      const variants = shape.of.map(recordSchema)
      return z.discriminatedUnion(shape.by, variants as [(typeof variants)[number], ...typeof variants])
    }
  }
}

function recordSchema(of: Shapes) {
  return z.strictObject(Object.fromEntries(Object.entries(of).map(([key, shape]) => [key, schemaOf(shape)])))
}
