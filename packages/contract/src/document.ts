import { z } from 'zod'
import { idSchema, versionNumber } from './numbers.ts'

/** A document with a version: every save makes the next one, and earlier ones stay as revisions. */
export function documentSchema<Body extends z.ZodType>(body: Body) {
  return z.object({
    id: idSchema,
    version: versionNumber,
    isRemoved: z.boolean(),
    note: z.string(),
    savedAt: z.string(),
    savedBy: z.string(),
    /** Which release’s shape the body has; absent from servers of before, which brought all bodies up to their own. */
    bodyVersion: z.number().int().min(0).optional(),
    body,
  })
}

/** What a question about changes asks: since when, and of a page that knows so many upcasts. */
export const changedQuery = z.object({
  since: z.iso.datetime(),
  upcasts: z.coerce.number().int().min(0),
})

/**
 * The documents of a kind that were saved since, or all of them where the page that asks is of another release; and the
 * check of all there are of the kind: whoever comes to another one with these reads them whole.
 */
export function changedSchema<Stored extends z.ZodType>(stored: Stored) {
  return z.object({ check: z.number().int().min(0), documents: z.array(stored) })
}

/**
 * One save. `basedOn` is the version that was changed, 0 for a new document; a save based on an older version
 * than the stored one is refused with the stored one attached. The same save sent twice counts once, by its
 * `saveId`.
 */
export function saveOf<Body extends z.ZodType>(body: Body) {
  return z.strictObject({
    saveId: idSchema,
    basedOn: z.number().int().min(0).max(1_000_000),
    isRemoved: z.boolean().default(false),
    note: z.string().trim().max(300).default(''),
    body,
  })
}
