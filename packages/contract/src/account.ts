import { z } from 'zod'
import { idSchema, nameText } from './numbers.ts'

export const roles = ['viewer', 'grower', 'owner'] as const
export type Role = (typeof roles)[number]

export const unitSystemSchema = z.enum(['metric', 'imperial'])
const email = z.email().max(200).toLowerCase()
/** Long enough to resist guessing; the upper bound keeps the hash from being fed megabytes. */
const password = z.string().min(10).max(200)

export const signUpSchema = z.strictObject({
  name: nameText,
  email,
  password,
  gardenName: nameText,
  /** What is usual where the person is; metric where nobody says. */
  units: unitSystemSchema.default('metric'),
})
export const signInSchema = z.strictObject({ email, password: z.string().min(1).max(200) })
export const changePasswordSchema = z.strictObject({ current: z.string().min(1).max(200), next: password })
export const resetPasswordSchema = z.strictObject({ token: z.string().min(20).max(100), next: password })
export const deleteAccountSchema = z.strictObject({ password: z.string().min(1).max(200) })
/** A link that sets a new password, once: handed over by whoever made it, since there is no mail here. */
export const resetLinkSchema = z.object({ path: z.string(), expiresAt: z.string() })
/** The garden's own name, typed again: nobody deletes one by a slip. */
export const deleteGardenSchema = z.strictObject({ name: z.string().max(80) })
export const preferencesSchema = z.strictObject({ units: unitSystemSchema })

export const membershipSchema = z.object({ gardenId: idSchema, gardenName: z.string(), role: z.enum(roles) })
export const sessionSchema = z.object({
  account: z
    .object({
      id: idSchema,
      name: z.string(),
      email: z.string(),
      units: unitSystemSchema,
      /** Of the demo garden: everybody's, so with nothing of its own to change. */
      isDemo: z.boolean(),
    })
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

export type SignUp = z.input<typeof signUpSchema>
export type SignIn = z.infer<typeof signInSchema>
export type ResetLink = z.infer<typeof resetLinkSchema>
export type Session = z.infer<typeof sessionSchema>
export type Garden = z.infer<typeof gardenSchema>
export type GardenSettings = z.infer<typeof gardenSettingsSchema>
