import { upcastBody } from '@klados/contract/upcasts'
import type { z } from 'zod'
import { ask } from './request.ts'
import { sendPhoto } from './send-photo.ts'
import type { Reply } from './sync/answers.ts'
import type { Send } from './sync/rules.ts'

/** Loaded when something is first sent: a garden opens without it. */
const schemas = () => import('@klados/contract/replies')

/**
 * Makes the request for what is to be sent, under the account that it was written under. What an earlier release left is
 * brought up to this one first.
 */
export async function transmit(send: Send, onSent: (bytes: number) => void): Promise<Reply> {
  const garden = `/gardens/${send.gardenId}`
  switch (send.kind) {
    case 'entries': {
      const { appendReplySchema } = await schemas()
      const entries = send.items.map((item) => item.entry)
      const how = { writer: send.items[0]!.accountId }
      return checked(await ask('POST', `${garden}/entries`, { entries }, how), appendReplySchema)
    }
    case 'photo': {
      const { fileReplySchema, pieceReplySchema } = await schemas()
      const reply = await sendPhoto(send.gardenId, send.item, pieceReplySchema, onSent)
      return checked(reply, fileReplySchema, send.item.fileId)
    }
    case 'document': {
      const { savedReplySchema } = await schemas()
      const { area, documentId, saves, accountId } = send.item
      const body = { ...saves[0], body: upcastBody(area, saves[0].body) }
      const reply = await ask('PUT', `${garden}/${area}/${documentId}`, body, { writer: accountId })
      return checked(reply, savedReplySchema, documentId)
    }
  }
}

/** A success that does not say what a success says, or says it of something else, is no answer of ours. */
export function checked(reply: Reply, schema: z.ZodType, id?: string): Reply {
  if (reply.kind === 'none' || reply.status < 200 || reply.status >= 300) return reply
  const parsed = schema.safeParse(reply.body)
  const isOfIt = id === undefined || (parsed.data as { id?: unknown } | undefined)?.id === id
  return parsed.success && isOfIt ? reply : { kind: 'none' }
}
