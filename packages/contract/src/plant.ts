import { z } from 'zod'
import { documentSchema, saveOf } from './document.ts'
import { calendarDate, idSchema, lengthM, nameText, nodeIdSchema } from './numbers.ts'

export const plantBodySchema = z.strictObject({
  placeId: idSchema,
  name: nameText,
  kindId: z.string().min(1).max(60),
  /** Along the foot of the place, from its left end. */
  xM: lengthM,
  /** The start node it stands at, of whichever frame has it. */
  startNodeId: nodeIdSchema.nullable(),
  plantedOn: calendarDate,
})
export const plantSchema = documentSchema(plantBodySchema)
export const savePlantSchema = saveOf(plantBodySchema)
export type PlantBody = z.infer<typeof plantBodySchema>
export type Plant = z.infer<typeof plantSchema>
