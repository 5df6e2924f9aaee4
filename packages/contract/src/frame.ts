import { MOST_STRAINERS, wireEndings } from '@klados/core/catalogue'
import { unknownParts } from '@klados/core/design'
import type { FrameDesign } from '@klados/core/design'
import { BALLAST_RANGE_KG } from '@klados/core/frame'
import { z } from 'zod'
import { documentSchema, saveOf } from './document.ts'
import { MAX_AXES, MAX_AXIS, MAX_DRAGGED } from './limits.ts'
import {
  degreesC,
  forceN,
  idSchema,
  lengthM,
  money,
  nameText,
  partId,
  pointSchema,
  positiveLengthM,
} from './numbers.ts'
import { patternSchema } from './pattern.ts'

const rolls = z
  .array(z.strictObject({ lengthM: positiveLengthM.max(5000), price: money }))
  .min(1)
  .max(6)
  .readonly()
const wireChoice = { wireId: partId, tensionN: forceN.max(100_000), rolls }

export const frameDesignSchema = z.strictObject({
  pattern: patternSchema,
  moveToleranceM: lengthM.max(5),
  dragged: z
    .record(z.string().max(60), pointSchema)
    .refine((dragged) => Object.keys(dragged).length <= MAX_DRAGGED, {
      error: `at most ${MAX_DRAGGED} nodes`,
    }),
  snap: z.enum(['none', 'uprights', 'levels', 'both']),
  ids: z
    .record(z.string().max(40), z.array(partId).max(MAX_AXIS).readonly())
    .refine((ids) => Object.keys(ids).length <= MAX_AXES, { error: `at most ${MAX_AXES} axes` }),
  ...wireChoice,
  light: z.strictObject(wireChoice).nullable(),
  endWrapM: lengthM.max(5),
  wireEnding: z.enum(wireEndings).nullable(),
  strainers: z.number().int().min(1).max(MOST_STRAINERS),
  handlingLengthM: positiveLengthM,
  endsAt: z.enum(['any', 'edge']).default('any'),
  fixingId: partId,
  setC: degreesC,
  plantKindId: partId.nullable(),
  repeat: z.number().int().min(1).max(1000),
  standOffM: lengthM.max(1).nullable(),
  plantOffM: lengthM.max(10).nullable(),
  feetBallastKg: z.number().finite().min(BALLAST_RANGE_KG[0]).max(BALLAST_RANGE_KG[1]),
  unknown: z.array(z.enum(unknownParts)).max(unknownParts.length).readonly(),
  boughtPrice: money.nullable(),
}) satisfies z.ZodType<FrameDesign>

/**
 * What is to become of a frame: one idea among the variants of its place, the one that is to be built, or one that
 * stands already.
 */
export const frameStages = ['idea', 'chosen', 'stands'] as const
export type FrameStage = (typeof frameStages)[number]

export const frameBodySchema = z.strictObject({
  placeId: idSchema,
  name: nameText,
  stage: z.enum(frameStages),
  design: frameDesignSchema,
})
export const frameSchema = documentSchema(frameBodySchema)
export const saveFrameSchema = saveOf(frameBodySchema)
export type FrameBody = z.infer<typeof frameBodySchema>
export type FrameDocument = z.infer<typeof frameSchema>
