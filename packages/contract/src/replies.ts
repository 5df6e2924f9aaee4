import { z } from 'zod'
import { fileReplySchema, pieceReplySchema } from './file.ts'
import { appendReplySchema } from './journal.ts'
import { idSchema } from './numbers.ts'

// What a device goes by when it lets go of what it has written: nothing else that says 200 is the server's word.

/** The save of a document that is stored, or what it made when it was stored before. Of the body another may be stored. */
export const savedReplySchema = z.object({
  id: idSchema,
  version: z.number().int().min(1),
  savedAt: z.string(),
  savedBy: z.string(),
  body: z.looseObject({}),
})
export { appendReplySchema, fileReplySchema, pieceReplySchema }
