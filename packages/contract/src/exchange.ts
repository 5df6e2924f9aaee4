import { z } from 'zod'
import { gardenSettingsSchema } from './account.ts'
import { frameBodySchema } from './frame.ts'
import { EXCHANGE_VERSION, FRAME_FILE_VERSION } from './limits.ts'
import { entrySchema } from './journal.ts'
import { idSchema, versionNumber } from './numbers.ts'
import { placeBodySchema } from './place.ts'
import { plantBodySchema } from './plant.ts'
import { storesBodySchema } from './stores.ts'

/**
 * `version` and `savedAt` tell, when a file comes back, whether it or what is stored is the newer. Version 1
 * had neither. `bodyVersion` tells since version 4 which release wrote the body.
 */
const documentOf = <Body extends z.ZodType>(body: Body) =>
  z.strictObject({
    id: idSchema,
    isRemoved: z.boolean(),
    version: versionNumber.nullable().default(null),
    savedAt: z.iso.datetime().nullable().default(null),
    bodyVersion: z.number().int().min(0).optional(),
    body,
  })

export const exchangedFileSchema = z.strictObject({
  id: idSchema,
  mediaType: z.enum(['image/jpeg', 'image/webp', 'image/png']),
  contentBase64: z.base64(),
})

/** The garden that a file is of. Files of version 1 do not say its id. */
export const exchangedGardenSchema = gardenSettingsSchema.extend({ id: idSchema.nullable().default(null) })

/**
 * The lists of a garden file: what one element of each is, how many there may be, and how many bytes one may
 * take.
 */
export const gardenFileLists = {
  places: { element: documentOf(placeBodySchema), most: 5000, mostBytes: 1_000_000 },
  frames: { element: documentOf(frameBodySchema), most: 5000, mostBytes: 1_000_000 },
  plants: { element: documentOf(plantBodySchema), most: 20_000, mostBytes: 1_000_000 },
  stores: { element: documentOf(storesBodySchema), most: 10, mostBytes: 1_000_000 },
  files: { element: exchangedFileSchema, most: 500, mostBytes: 17_000_000 },
  entries: { element: entrySchema, most: 500_000, mostBytes: 100_000 },
} as const
export type GardenFileList = keyof typeof gardenFileLists

const list = <Element extends z.ZodType>({ element, most }: { element: Element; most: number }) =>
  z.array(element).max(most)

/** A whole garden as a file: what it is, every document as it stands, the whole journal, its photos. */
export const gardenFileSchema = z.strictObject({
  format: z.literal('klados-garden'),
  version: z.literal(EXCHANGE_VERSION),
  garden: exchangedGardenSchema,
  places: list(gardenFileLists.places),
  frames: list(gardenFileLists.frames),
  plants: list(gardenFileLists.plants),
  stores: list(gardenFileLists.stores),
  files: list(gardenFileLists.files),
  entries: list(gardenFileLists.entries),
})
export type GardenFile = z.infer<typeof gardenFileSchema>

/** One frame with the measures of its place, to hand on or to take back in. */
export const frameFileSchema = z.strictObject({
  format: z.literal('klados-frame'),
  version: z.number().int().min(1).max(FRAME_FILE_VERSION),
  place: placeBodySchema.omit({ photo: true }),
  frame: frameBodySchema.omit({ placeId: true, stage: true }),
})
export type FrameFile = z.infer<typeof frameFileSchema>

const importCountsSchema = z.object({
  places: z.number().int(),
  frames: z.number().int(),
  plants: z.number().int(),
  stores: z.number().int(),
  files: z.number().int(),
  entries: z.number().int(),
})
export type ImportCounts = z.infer<typeof importCountsSchema>

/** A document that the garden has newer than the file, or other than it: which of the two shall stand? */
export const importQuestionSchema = z.object({
  kind: z.enum(['place', 'frame', 'plant', 'stores']),
  id: idSchema,
  name: z.string(),
  stored: z.object({ version: z.number().int(), savedAt: z.string(), savedBy: z.string() }),
  file: z.object({ version: z.number().int().nullable(), savedAt: z.string().nullable() }),
})
export type ImportQuestion = z.infer<typeof importQuestionSchema>

/** By document: what is stored stays, or what the file has becomes a further revision. */
export const importAnswersSchema = z.record(idSchema, z.enum(['keep', 'take']))
export type ImportAnswers = z.infer<typeof importAnswersSchema>

/**
 * The reply to an import is lines of JSON, each one of these: how far it is, and at the end one of the
 * others.
 */
export const importLineSchema = z.union([
  z.object({ share: z.number().min(0).max(1) }),
  z.object({ done: z.object({ gardenId: idSchema, counts: importCountsSchema }) }),
  /** Nothing has been changed; sent again with an answer for each, the file is taken in. */
  z.object({ questions: z.array(importQuestionSchema) }),
  z.object({ error: z.object({ code: z.string(), message: z.string() }) }),
])
export type ImportLine = z.infer<typeof importLineSchema>

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
