import { z } from 'zod'
import { frameBodySchema } from './frame.ts'
import { EXCHANGE_VERSION } from './limits.ts'
import { entrySchema } from './journal.ts'
import { idSchema, nameText } from './numbers.ts'
import { placeBodySchema } from './place.ts'
import { plantBodySchema } from './plant.ts'
import { storesBodySchema } from './stores.ts'

const documentOf = <Body extends z.ZodType>(body: Body) =>
  z.strictObject({ id: idSchema, isRemoved: z.boolean(), body })

export const exchangedFileSchema = z.strictObject({
  id: idSchema,
  mediaType: z.enum(['image/jpeg', 'image/webp', 'image/png']),
  contentBase64: z.base64(),
})

/** A whole garden as a file: what it is, every document as it stands, the whole journal, its photos. */
export const gardenFileSchema = z.strictObject({
  format: z.literal('klados-garden'),
  version: z.literal(EXCHANGE_VERSION),
  garden: z.strictObject({ name: nameText, latitudeDeg: z.number().min(-90).max(90), currency: z.string().regex(/^[A-Z]{3}$/) }), // prettier-ignore
  places: z.array(documentOf(placeBodySchema)).max(5000),
  frames: z.array(documentOf(frameBodySchema)).max(5000),
  plants: z.array(documentOf(plantBodySchema)).max(20_000),
  stores: z.array(documentOf(storesBodySchema)).max(10),
  files: z.array(exchangedFileSchema).max(500),
  entries: z.array(entrySchema).max(200_000),
})
export type GardenFile = z.infer<typeof gardenFileSchema>

/** One frame with the measures of its place, to hand on or to take back in. */
export const frameFileSchema = z.strictObject({
  format: z.literal('klados-frame'),
  version: z.literal(EXCHANGE_VERSION),
  place: placeBodySchema.omit({ photo: true }),
  frame: frameBodySchema.omit({ placeId: true }),
})
export type FrameFile = z.infer<typeof frameFileSchema>

/** What the header of a file says, read before the rest, so that a file of another kind or release is named as that. */
export const fileHeaderSchema = z.looseObject({ format: z.string(), version: z.number() })

export const importReplySchema = z.object({
  places: z.number().int(),
  frames: z.number().int(),
  plants: z.number().int(),
  stores: z.number().int(),
  files: z.number().int(),
  entries: z.number().int(),
})
export type ImportReply = z.infer<typeof importReplySchema>

/** JSON Schema (draft 2020-12) of the files, as published by the server. */
export function exchangeJsonSchema(): object {
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'Klados files',
    $defs: {
      garden: z.toJSONSchema(gardenFileSchema, { io: 'input', unrepresentable: 'any' }),
      frame: z.toJSONSchema(frameFileSchema, { io: 'input', unrepresentable: 'any' }),
    },
    oneOf: [{ $ref: '#/$defs/garden' }, { $ref: '#/$defs/frame' }],
  }
}
