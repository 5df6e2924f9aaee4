import { entryShapes } from '@klados/core/journal'
import type { EntryKind, JournalEntry } from '@klados/core/journal'
import { latestVersionOf } from '@klados/core/shape'
import { z } from 'zod'
import { MAX_ENTRIES } from './limits.ts'
import { calendarDate, idSchema } from './numbers.ts'
import { shapeSchema } from './shapes.ts'

const head = {
  id: z.uuidv7(),
  placeId: idSchema,
  plantId: idSchema.nullable(),
  at: calendarDate,
  recordedAt: z.iso.datetime(),
  supersedes: idSchema.nullable(),
}

const variants = Object.entries(entryShapes).map(([kind, shape]) =>
  z.strictObject({ ...head, kind: z.literal(kind as EntryKind), body: shapeSchema(shape) }),
)
type Variant = (typeof variants)[number]

/** One entry as it crosses the wire. A withdrawal has to say what it withdraws. */
export const entrySchema = z
  .discriminatedUnion('kind', variants as [Variant, ...Variant[]])
  .refine((entry) => entry.kind !== 'entry.withdrawn' || entry.supersedes !== null, {
    error: 'must say which entry it withdraws',
    path: ['supersedes'],
  })
  // The union's members are made from core's own shapes; zod cannot carry that through a map.
  .transform((entry) => entry as JournalEntry)

/**
 * Every kind of entry that this release knows; one of another kind comes from a later release and can wait
 * for it.
 */
export const entryKinds = Object.keys(entryShapes) as readonly EntryKind[]

/** The latest version of a kind's body that this release reads; a later one can wait for a later release. */
export function latestVersion(kind: EntryKind): number {
  return latestVersionOf(entryShapes[kind])
}

/**
 * What one request appends. Each entry is parsed by itself: one that cannot be read keeps no other from being
 * stored.
 */
export const appendSchema = z.strictObject({ entries: z.array(z.unknown()).min(1).max(MAX_ENTRIES) })

/** An entry as stored: its number in the garden's journal and who wrote it. */
export type StoredEntry = JournalEntry & { readonly seq: number; readonly by: string }

/**
 * What became of one entry. `taken`: it is stored, now or before. `held`: it cannot be stored yet, since it
 * names what is not here or is of a kind that this release does not know; sent later it may be taken.
 * `refused`: as it is it never will be.
 */
export const entryAnswerSchema = z.discriminatedUnion('answer', [
  z.object({ answer: z.literal('taken'), seq: z.number().int() }),
  z.object({ answer: z.literal('held'), code: z.string(), message: z.string() }),
  z.object({
    answer: z.literal('refused'),
    code: z.string(),
    message: z.string(),
    fields: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
  }),
])
/** One answer for each entry sent, in the order of sending. */
export const appendReplySchema = z.object({ answers: z.array(entryAnswerSchema) })
export type EntryAnswer = z.infer<typeof entryAnswerSchema>
export type AppendReply = z.infer<typeof appendReplySchema>
export interface JournalPage {
  readonly entries: readonly StoredEntry[]
  /** Ask for what is after this next; the same number as asked for means that there is no more. */
  readonly last: number
  /** The number of the garden's latest entry: below what a device has, the server was set back to an earlier day. */
  readonly head: number
}
