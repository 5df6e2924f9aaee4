import { MAX_DRAGGED, MAX_TIERS } from './limits.ts'
import { z } from 'zod'
import { documentSchema, saveOf } from './document.ts'
import { idSchema, lengthM, nameText, pointSchema, positiveLengthM } from './numbers.ts'

export const patternSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('tiers'),
    heightsM: z.array(lengthM).min(1).max(MAX_TIERS),
    maxSupportSpacingM: positiveLengthM,
  }),
  z.strictObject({
    kind: z.literal('diamonds'),
    cell: z.discriminatedUnion('by', [
      z.strictObject({ by: z.literal('width'), widthM: positiveLengthM }),
      z.strictObject({
        by: z.literal('count'),
        count: z.number().int().min(1).max(2000),
        halfAtEnd: z.boolean(),
      }),
    ]),
    cellHeightM: positiveLengthM.nullable(),
    rows: z.number().int().min(1).max(3),
    closeCutEnd: z.boolean(),
  }),
])

export const frameDesignSchema = z.strictObject({
  pattern: patternSchema,
  moveToleranceM: lengthM.max(5),
  dragged: z
    .record(z.string().max(40), pointSchema)
    .refine((dragged) => Object.keys(dragged).length <= MAX_DRAGGED, {
      error: `at most ${MAX_DRAGGED} nodes`,
    }),
  wireId: z.string().max(60),
  tensionN: z.number().finite().gt(0).max(100_000),
  endWrapM: lengthM.max(5),
  handlingLengthM: positiveLengthM,
  rolls: z
    .array(z.strictObject({ lengthM: positiveLengthM, price: z.number().min(0).max(1e6) }))
    .min(1)
    .max(6),
  fixingId: z.string().max(60),
})

export const frameBodySchema = z.strictObject({
  placeId: idSchema,
  name: nameText,
  design: frameDesignSchema,
})
export const frameSchema = documentSchema(frameBodySchema)
export const saveFrameSchema = saveOf(frameBodySchema)
export type FrameBody = z.infer<typeof frameBodySchema>
export type FrameDocument = z.infer<typeof frameSchema>
