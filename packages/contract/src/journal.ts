import type { EntryBodies, EntryKind, JournalEntry } from '@klados/core/journal'
import { hitches, stemParts } from '@klados/core/wood'
import { z } from 'zod'
import { MAX_ENTRIES } from './limits.ts'
import {
  calendarDate,
  degreesC,
  forceN,
  idSchema,
  lengthM,
  anchorIdSchema,
  lineIdSchema,
  memberIdSchema,
  nodeIdSchema,
  pointSchema,
} from './numbers.ts'

const v = z.literal(1)
const line = z.array(pointSchema).min(2).max(200)
const diameterMm = z.number().finite().gt(0).max(2000)
const loopLengthMm = z.number().finite().gt(0).max(20_000)
const reason = z.string().trim().max(200)
const materialId = z.string().min(1).max(60)

const tension = {
  v,
  frameId: idSchema,
  line: lineIdSchema,
  tensionN: forceN.max(100_000),
  temperatureC: degreesC,
}

/** A body schema for every kind of entry; the compiler holds them to the shapes that core replays. */
const bodies = {
  'stem.drawn': z.strictObject({
    v,
    stemId: idSchema,
    part: z.enum(stemParts),
    parentStemId: idSchema.nullable(),
    points: line,
    ageSeasons: z.number().int().min(0).max(200),
    diameterMm,
  }),
  'stem.redrawn': z.strictObject({ v, stemId: idSchema, points: line, why: z.enum(['grown', 'laid']) }),
  'stem.measured': z.strictObject({ v, stemId: idSchema, diameterMm }),
  'stem.shortened': z.strictObject({
    v,
    stemId: idSchema,
    toLengthM: z.number().finite().gt(0).max(1000),
    reason,
  }),
  'stem.removed': z.strictObject({ v, stemId: idSchema, reason }),
  'tie.made': z.strictObject({
    v,
    tieId: idSchema,
    stemId: idSchema,
    at: pointSchema,
    materialId,
    hitch: z.enum(hitches),
    supportDiameterMm: diameterMm,
    stemDiameterMm: diameterMm,
    loopLengthMm,
  }),
  'tie.checked': z.strictObject({ v, tieId: idSchema }),
  'tie.loosened': z.strictObject({ v, tieId: idSchema, loopLengthMm, stemDiameterMm: diameterMm }),
  'tie.replaced': z.strictObject({
    v,
    tieId: idSchema,
    newTieId: idSchema,
    materialId,
    hitch: z.enum(hitches),
    loopLengthMm,
    stemDiameterMm: diameterMm,
  }),
  'tie.removed': z.strictObject({ v, tieId: idSchema, reason }),
  'tie.postponed': z.strictObject({ v, tieId: idSchema, untilOn: calendarDate }),
  'fixing.set': z.strictObject({ v, frameId: idSchema, nodeId: nodeIdSchema, at: pointSchema }),
  'post.placed': z.strictObject({
    v,
    frameId: idSchema,
    postId: memberIdSchema,
    xM: z.number().finite().min(-100).max(1100),
  }),
  'anchor.driven': z.strictObject({
    v,
    frameId: idSchema,
    anchorId: anchorIdSchema,
    depthM: lengthM.max(20),
    angleDeg: z.number().finite().min(0).max(80),
    torqueNm: z.number().finite().min(0).max(20_000).nullable(),
    reworks: z.number().int().min(0).max(50),
    isRefused: z.boolean(),
    movedM: lengthM.max(100),
    pullTestN: z.number().finite().min(0).max(1e6).nullable(),
  }),
  'wire.tensioned': z.strictObject(tension),
  'wire.measured': z.strictObject(tension),
  'note.written': z.strictObject({ v, text: z.string().trim().min(1).max(2000) }),
  'entry.withdrawn': z.strictObject({ v }),
} satisfies { [K in EntryKind]: z.ZodType<EntryBodies[K]> }

const head = {
  id: z.uuidv7(),
  placeId: idSchema,
  plantId: idSchema.nullable(),
  at: calendarDate,
  recordedAt: z.iso.datetime(),
  supersedes: idSchema.nullable(),
}

const variants = Object.entries(bodies).map(([kind, body]) =>
  z.strictObject({ ...head, kind: z.literal(kind as EntryKind), body }),
)
type Variant = (typeof variants)[number]

/** One entry as it crosses the wire. A withdrawal has to say what it withdraws. */
export const entrySchema = z
  .discriminatedUnion('kind', variants as [Variant, ...Variant[]])
  .refine((entry) => entry.kind !== 'entry.withdrawn' || entry.supersedes !== null, {
    error: 'must say which entry it withdraws',
    path: ['supersedes'],
  })
  // The union's members are made from `bodies`, which is checked against core above; zod cannot carry that
  // through a map.
  .transform((entry) => entry as JournalEntry)

/**
 * Every kind of entry that this release knows; one of another kind comes from a later release and can wait
 * for it.
 */
export const entryKinds = Object.keys(bodies) as readonly EntryKind[]
/** The version that this release writes and reads of every body. */
export const ENTRY_BODY_VERSION = 1

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
}
