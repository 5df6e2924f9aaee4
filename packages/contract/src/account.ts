import { z } from 'zod'
import { languages } from './languages.ts'
import { idSchema, nameText } from './numbers.ts'

export const roles = ['viewer', 'grower', 'owner'] as const
export type Role = (typeof roles)[number]

export const unitSystemSchema = z.enum(['metric', 'imperial'])
const languageSchema = z.enum(languages)
const email = z.email().max(200).toLowerCase()
/** Long enough to resist guessing; the upper bound keeps the hash from being fed megabytes. */
const password = z.string().min(10).max(200)

const currencySchema = z.string().regex(/^[A-Z]{3}$/, { error: 'must be a currency code of three letters' })
/** North positive; decides the seasons. */
const latitudeSchema = z.number().min(-90).max(90)

/** By its name in the IANA list; what a browser does not know it cannot go by. */
const timeZoneSchema = z
  .string()
  .max(64)
  .refine(isTimeZone, { error: 'must be a time zone such as Europe/Berlin' })

function isTimeZone(name: string): boolean {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: name }) !== null
  } catch {
    return false
  }
}

export const signUpSchema = z.strictObject({
  name: nameText,
  email,
  password,
  gardenName: nameText,
  /** What is usual where the person is; metric where nobody says. */
  units: unitSystemSchema.default('metric'),
  /** Of the garden that is made for them; the usual ones where nobody says. */
  currency: currencySchema.optional(),
  latitudeDeg: latitudeSchema.optional(),
  /** As the browser calls it: nobody is sent away because this server knows it by another name. */
  timeZone: timeZoneSchema.optional().catch(undefined),
  /** A visitor of the demo takes the copy along as the garden, under the name that is given here. */
  keepsDemo: z.boolean().optional(),
})
/** Pages of before say nothing; what is usual where the visitor is. */
export const demoVisitSchema = z.strictObject({ units: unitSystemSchema.optional() }).nullish()
export const signInSchema = z.strictObject({ email, password: z.string().min(1).max(200) })
export const changePasswordSchema = z.strictObject({ current: z.string().min(1).max(200), next: password })
export const resetPasswordSchema = z.strictObject({ token: z.string().min(20).max(100), next: password })
export const deleteAccountSchema = z.strictObject({ password: z.string().min(1).max(200) })
/** A link that sets a new password, once: handed over by whoever made it, since there is no mail here. */
export const resetLinkSchema = z.object({ path: z.string(), expiresAt: z.string() })
/** The garden's own name, typed again: nobody deletes one by a slip. */
export const deleteGardenSchema = z.strictObject({ name: z.string().max(80) })
/** What is not named stays as it is. */
export const preferencesSchema = z.strictObject({
  units: unitSystemSchema.optional(),
  language: languageSchema.optional(),
})
export type Preferences = z.infer<typeof preferencesSchema>

/** Codes that let their owner back in, once each: shown when they are made and never again. */
export const makeRecoveryCodesSchema = z.strictObject({ password: z.string().min(1).max(200) })
export const recoveryCodesSchema = z.object({ codes: z.array(z.string()) })
export const recoverSchema = z.strictObject({
  email,
  code: z.string().trim().min(10).max(40),
  next: password,
})

/** One place where an account is signed in. */
export const openSessionSchema = z.object({
  id: idSchema,
  /** Of the browser and the system that opened it, as far as they say. */
  browser: z.string(),
  system: z.string(),
  openedAt: z.string(),
  usedAt: z.string(),
  isThis: z.boolean(),
})

/** What has been done about an account that its owner should know of. */
export const noticeKinds = ['reset-link-made', 'password-set-by-link', 'password-set-by-code'] as const
const noticeSchema = z.object({
  id: idSchema,
  kind: z.enum(noticeKinds),
  byName: z.string(),
  gardenName: z.string(),
  at: z.string(),
})

export const membershipSchema = z.object({
  gardenId: idSchema,
  gardenName: z.string(),
  role: z.enum(roles),
  /** When a copy of the demo garden goes; null of a garden that stays. */
  goesAt: z.string().nullable().optional(),
})
export const sessionSchema = z.object({
  account: z
    .object({
      id: idSchema,
      name: z.string(),
      email: z.string(),
      units: unitSystemSchema,
      /** Null as long as nobody has chosen one: then it is the browser's. */
      language: languageSchema.nullable().optional(),
      /** A visitor's, made with a copy of the demo garden and gone with it: there is no password to change. */
      isDemo: z.boolean(),
      /** How many are left. Absent, as all that is optional here, from servers and copies of the release before. */
      recoveryCodes: z.number().int().optional(),
    })
    .nullable(),
  memberships: z.array(membershipSchema),
  notices: z.array(noticeSchema).optional(),
  /** True when this server was started with the demo garden: one click then opens a copy of it. */
  hasDemo: z.boolean(),
})

export const gardenSettingsSchema = z.strictObject({
  name: nameText,
  latitudeDeg: latitudeSchema,
  currency: currencySchema,
  /** Whose days count here; null is each reader's own. Pages of before say nothing, and leave it as it is. */
  timeZone: timeZoneSchema.nullable().optional(),
})
export const gardenSchema = gardenSettingsSchema.extend({
  id: idSchema,
  role: z.enum(roles),
  members: z.array(
    z.object({ accountId: idSchema, name: z.string(), email: z.string(), role: z.enum(roles) }),
  ),
  /** Those that wait; shown to owners alone. */
  invitations: z
    .array(z.object({ email: z.string(), role: z.enum(roles), expiresAt: z.string() }))
    .optional(),
})
export const createGardenSchema = z.strictObject({ name: nameText })
export const gardenIdSchema = z.object({ id: idSchema })
export const addMemberSchema = z.strictObject({ email, role: z.enum(roles) })
/** A link that makes whoever is signed in a member, once: handed over, since there is no mail here. */
export const invitationLinkSchema = z.object({ path: z.string(), expiresAt: z.string() })
/** What waits for somebody's word: shown before they give it. */
export const invitationSchema = z.object({
  gardenId: idSchema,
  gardenName: z.string(),
  role: z.enum(roles),
  invitedBy: z.string(),
  expiresAt: z.string(),
})
const invitationToken = z.string().min(20).max(100)
export const lookAtInvitationSchema = z.strictObject({ gardenId: idSchema, token: invitationToken })
/** By the link's token, or without one for an invitation to one's own address. */
export const acceptInvitationSchema = z.strictObject({
  gardenId: idSchema,
  token: invitationToken.optional(),
})
export const declineInvitationSchema = z.strictObject({ gardenId: idSchema })
export const changeMemberSchema = z.strictObject({ role: z.enum(roles) })

export type SignUp = z.input<typeof signUpSchema>
export type SignIn = z.infer<typeof signInSchema>
export type ResetLink = z.infer<typeof resetLinkSchema>
export type RecoveryCodes = z.infer<typeof recoveryCodesSchema>
export type OpenSession = z.infer<typeof openSessionSchema>
export type Notice = z.infer<typeof noticeSchema>
export type Invitation = z.infer<typeof invitationSchema>
export type InvitationLink = z.infer<typeof invitationLinkSchema>
export type Session = z.infer<typeof sessionSchema>
export type Garden = z.infer<typeof gardenSchema>
export type GardenSettings = z.infer<typeof gardenSettingsSchema>
