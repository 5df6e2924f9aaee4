import { budFormulas } from '@klados/core/budget'
import { formsPlanted } from '@klados/core/kinds'
import { z } from 'zod'
import { documentSchema, saveOf } from './document.ts'
import { calendarDate, idSchema, lengthM, nameText, nodeIdSchema } from './numbers.ts'

const buds = z.number().int().min(0).max(2000)
const budGoalSchema = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('plain'), aim: buds, min: buds, max: buds }),
  z.strictObject({
    by: z.literal('balanced'),
    formula: z.enum(budFormulas.map(({ id }) => id)),
    min: buds,
    max: buds,
    plain: buds,
  }),
])

export const plantBodySchema = z.strictObject({
  placeId: idSchema,
  name: nameText,
  kindId: z.string().min(1).max(60),
  /** Along the foot of the place, from its left end. */
  xM: lengthM,
  /** The start node it stands at, of whichever frame has it. */
  startNodeId: nodeIdSchema.nullable(),
  plantedOn: calendarDate,
  /** Training system, by its id; `null` while nobody has said. */
  system: z.string().min(1).max(60).nullable(),
  /** How many buds it is to keep; `null` leaves that to the garden's default. */
  budGoal: budGoalSchema.nullable(),
  rootstock: z.string().trim().max(80),
  /** Height of the graft above the soil; `null` for a plant on its own roots. */
  graftHeightM: lengthM.max(5).nullable(),
  /** The plant that it is a layer, sucker, cutting or division of. */
  motherId: idSchema.nullable(),
  formPlanted: z.enum(formsPlanted).nullable(),
  /** Where it goes up in more than one place, each from a start node of its own or from the same one. */
  leads: z
    .array(
      z.strictObject({ id: idSchema, name: z.string().trim().max(40), startNodeId: nodeIdSchema.nullable() }),
    )
    .max(8)
    .refine((leads) => new Set(leads.map((lead) => lead.id)).size === leads.length, {
      error: 'must have an id of its own each',
    }),
  ended: z.strictObject({ on: calendarDate, why: z.string().trim().max(200) }).nullable(),
})
export const plantSchema = documentSchema(plantBodySchema)
export const savePlantSchema = saveOf(plantBodySchema)
export type PlantBody = z.infer<typeof plantBodySchema>
export type Plant = z.infer<typeof plantSchema>
