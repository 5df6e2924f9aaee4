import { z } from 'zod'
import { documentSchema, saveOf } from './document.ts'
import { idSchema, lengthM, nameText, positiveLengthM } from './numbers.ts'

const what = z.string().trim().max(60)
export const avoidSpotSchema = z.discriminatedUnion('kind', [
  z.strictObject({ id: idSchema, kind: z.literal('point'), xM: lengthM, yM: lengthM, radiusM: positiveLengthM.max(10), what }),
  z.strictObject({ id: idSchema, kind: z.literal('band'), axis: z.enum(['vertical', 'horizontal']), fromM: lengthM, toM: lengthM, what }),
]) // prettier-ignore

export const surfaces = ['brick', 'render', 'concrete', 'boards', 'posts'] as const

export const placeBodySchema = z.strictObject({
  name: nameText,
  kind: z.enum(['wall', 'fence']),
  widthM: positiveLengthM,
  usableHeightM: positiveLengthM.max(50),
  firstForkM: lengthM.max(20),
  /** Direction the surface looks at, degrees clockwise from north. */
  facingDeg: z.number().min(0).lt(360),
  surface: z.enum(surfaces),
  viewingEnd: z.enum(['left', 'right']),
  avoid: z.array(avoidSpotSchema).max(200),
})

export const placeSchema = documentSchema(placeBodySchema)
export const savePlaceSchema = saveOf(placeBodySchema)
export type PlaceBody = z.infer<typeof placeBodySchema>
export type Place = z.infer<typeof placeSchema>
