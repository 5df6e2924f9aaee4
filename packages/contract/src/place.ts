import { fenceFields } from '@klados/core/design'
import type { Conditions, FenceMade } from '@klados/core/design'
import { surfaces } from '@klados/core/catalogue'
import { placeKinds, settings } from '@klados/core/frame'
import { z } from 'zod'
import { documentSchema, saveOf } from './document.ts'
import { degreesC, idSchema, lengthM, nameText, pointSchema, positiveLengthM } from './numbers.ts'

const what = z.string().trim().max(60)
export const avoidSpotSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    id: idSchema,
    kind: z.literal('point'),
    xM: lengthM,
    yM: lengthM,
    radiusM: positiveLengthM.max(10),
    what,
  }),
  z.strictObject({
    id: idSchema,
    kind: z.literal('band'),
    axis: z.enum(['vertical', 'horizontal']),
    fromM: lengthM,
    toM: lengthM,
    what,
  }),
])

export const soilIds = ['gravel', 'sand', 'loam', 'clay', 'soft-clay', 'peat'] as const

export const conditionsSchema = z.strictObject({
  soil: z.enum(soilIds),
  frostDepthM: lengthM.max(5),
  coldestC: degreesC,
  hottestC: degreesC,
  windMPerS: z.number().finite().min(0).max(80),
  snowPa: z.number().finite().min(0).max(20_000),
  iceMm: z.number().finite().min(0).max(100),
}) satisfies z.ZodType<Conditions>

const fenceSchema = z.strictObject(
  Object.fromEntries(
    Object.entries(fenceFields).map(([key, { is, min, max }]) => {
      const figure = z.number().finite().min(min).max(max)
      return [key, (is === 'count' ? figure.int() : figure).nullable()]
    }),
  ),
) as unknown as z.ZodType<FenceMade>

const rhythm = z.strictObject({ firstM: lengthM, stepM: positiveLengthM.max(20) })
const pixel = z.strictObject({
  xPx: z.number().finite().min(-1e5).max(1e5),
  yPx: z.number().finite().min(-1e5).max(1e5),
})
const mark = z.strictObject({ pixel, at: pointSchema })

/** A photo of the place with four points whose places on it are known. */
export const photoSchema = z.strictObject({
  fileId: idSchema,
  widthPx: z.number().int().min(1).max(20_000),
  heightPx: z.number().int().min(1).max(20_000),
  marks: z.tuple([mark, mark, mark, mark]),
})

export const placeBodySchema = z.strictObject({
  name: nameText,
  kind: z.enum(placeKinds),
  widthM: positiveLengthM,
  usableHeightM: positiveLengthM.max(50),
  firstForkM: lengthM.max(20),
  /** Direction the surface looks at, degrees clockwise from north; of a row, the way its front looks. */
  facingDeg: z.number().min(0).lt(360),
  surface: z.enum(surfaces),
  setting: z.enum(settings),
  viewingEnd: z.enum(['left', 'right']),
  avoid: z.array(avoidSpotSchema).max(200),
  /** How much higher the ground is at the right end than at the left. */
  riseM: z.number().finite().min(-200).max(200),
  uprights: rhythm.nullable(),
  levels: rhythm.nullable(),
  conditions: conditionsSchema,
  /** How a board fence is made; `null` where it is none or nobody has looked. */
  fence: fenceSchema.nullable(),
  photo: photoSchema.nullable(),
})

export const placeSchema = documentSchema(placeBodySchema)
export const savePlaceSchema = saveOf(placeBodySchema)
export type PlaceBody = z.infer<typeof placeBodySchema>
export type PlacePhoto = z.infer<typeof photoSchema>
export type Place = z.infer<typeof placeSchema>
