import { z } from 'zod'
import { idSchema } from './numbers.ts'

/** A stored photo: where it can be fetched under its garden, and how large it is now. */
export const fileReplySchema = z.object({
  id: idSchema,
  widthPx: z.number().int(),
  heightPx: z.number().int(),
})
/** How much of a photo the server has, from its beginning on; and the photo, once that is all and it is stored. */
export const pieceReplySchema = z.object({ upTo: z.number().int().min(0), file: fileReplySchema.nullable() })
export type PieceReply = z.infer<typeof pieceReplySchema>
export type FileReply = z.infer<typeof fileReplySchema>
