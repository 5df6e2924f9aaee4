import { z } from 'zod'
import { idSchema, nameText } from './numbers.ts'

export const roles = ['viewer', 'grower', 'owner'] as const
export type Role = (typeof roles)[number]

export const unitSystemSchema = z.enum(['metric', 'imperial'])
const email = z.email().max(200).toLowerCase()
/** Long enough to resist guessing; the upper bound keeps the hash from being fed megabytes. */
const password = z.string().min(10).max(200)

export const signUpSchema = z.strictObject({ name: nameText, email, password, gardenName: nameText })
export const signInSchema = z.strictObject({ email, password: z.string().min(1).max(200) })
export const preferencesSchema = z.strictObject({ units: unitSystemSchema })

export const membershipSchema = z.object({ gardenId: idSchema, gardenName: z.string(), role: z.enum(roles) })
export const sessionSchema = z.object({
  account: z
    .object({ id: idSchema, name: z.string(), email: z.string(), units: unitSystemSchema })
    .nullable(),
  memberships: z.array(membershipSchema),
  /** True when this server was started with the demo garden: one click then signs in. */
  hasDemo: z.boolean(),
})

export const gardenSettingsSchema = z.strictObject({
  name: nameText,
  /** North positive; decides the seasons. */
  latitudeDeg: z.number().min(-90).max(90),
  currency: z.string().regex(/^[A-Z]{3}$/, { error: 'must be a currency code of three letters' }),
})
export const gardenSchema = gardenSettingsSchema.extend({
  id: idSchema,
  role: z.enum(roles),
  members: z.array(
    z.object({ accountId: idSchema, name: z.string(), email: z.string(), role: z.enum(roles) }),
  ),
})
export const createGardenSchema = z.strictObject({ name: nameText })
export const addMemberSchema = z.strictObject({ email, role: z.enum(roles) })
export const changeMemberSchema = z.strictObject({ role: z.enum(roles) })

export type SignUp = z.infer<typeof signUpSchema>
export type SignIn = z.infer<typeof signInSchema>
export type Session = z.infer<typeof sessionSchema>
export type Garden = z.infer<typeof gardenSchema>
export type GardenSettings = z.infer<typeof gardenSettingsSchema>
