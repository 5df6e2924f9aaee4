import type { NodeId } from '@klados/core/frame'
import { isCalendarDate } from '@klados/core/season'
import { z } from 'zod'

/** Metres at a place: finite, and no longer than a row can be. */
export const lengthM = z.number().finite().min(0).max(1000)
export const positiveLengthM = z.number().finite().gt(0).max(1000)
export const pointSchema = z.strictObject({
  xM: z.number().finite().min(-100).max(1100),
  yM: z.number().finite().min(-10).max(200),
})
/** A point with how far it lies behind the front plane of its place. */
export const pointInSpaceSchema = pointSchema.extend({ zM: z.number().finite().min(-200).max(200) })
export const idSchema = z.uuid()
export const calendarDate = z
  .string()
  .refine(isCalendarDate, { error: 'must be a calendar date such as 2026-03-01' })
export const nameText = z.string().trim().min(1).max(80)
export const versionNumber = z.number().int().min(1).max(1_000_000)
/** Ids of a frame's own parts, and of what is in the catalogue. */
export const partId = z.string().min(1).max(60)
/** Id of a node of a frame: core brands it, and what is parsed here is what it makes of it. */
export const nodeIdSchema = partId as unknown as z.ZodType<NodeId>
export const count = (most: number) => z.number().int().min(1).max(most)
export const money = z.number().finite().min(0).max(1e6)
export const degreesC = z.number().finite().min(-60).max(80)
export const forceN = z.number().finite().gt(0).max(1e6)
