import { z } from 'zod'
import { idSchema } from './numbers.ts'

/** A stored photo: where it can be fetched under its garden, and how large it is now. */
export const fileReplySchema = z.object({
  id: idSchema,
  widthPx: z.number().int(),
  heightPx: z.number().int(),
})
export type FileReply = z.infer<typeof fileReplySchema>
