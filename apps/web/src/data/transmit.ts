import { BODY_HEADER } from '@klados/contract/limits'
import { BODY_VERSIONS, isNewerBody, upcastBody } from '@klados/contract/upcasts'
import type * as Schemas from '@klados/contract/replies'
import type { z } from 'zod'
import { ask } from './request.ts'
import { createPhotoSender } from './send-photo.ts'
import type { Reply } from './sync/answers.ts'
import type { Send } from './sync/rules.ts'

const photos = createPhotoSender()

/**
 * Makes the request for what is to be sent, under the account that it was written under. What an earlier release left is
 * brought up to this one first.
 */
export async function transmit(send: Send, onSent: (bytes: number) => void): Promise<Reply> {
  const garden = `/gardens/${send.gardenId}`
  switch (send.kind) {
    case 'entries': {
      const entries = send.items.map((item) => item.entry)
      const reply = await ask('POST', `${garden}/entries`, { entries }, { writer: send.items[0]!.accountId })
      return checked(reply, 'appendReplySchema')
    }
    case 'photo': {
      const read = (body: unknown) => readAs(body, 'pieceReplySchema')
      return checked(
        await photos.send(send.gardenId, send.item, read, onSent),
        'fileReplySchema',
        send.item.fileId,
      )
    }
    case 'document': {
      const { area, documentId, saves, accountId } = send.item
      // Of the release before this, or of one after it that was at work here once: neither is written otherwise than it was.
      const { bodyVersion, ...save } = saves[0]
      const isNewer = isNewerBody(area, bodyVersion)
      const body = { ...save, body: isNewer ? save.body : upcastBody(area, save.body) }
      const headers = { [BODY_HEADER]: String(isNewer ? bodyVersion : BODY_VERSIONS[area]) }
      const reply = await ask('PUT', `${garden}/${area}/${documentId}`, body, { writer: accountId, headers })
      return checked(reply, 'savedReplySchema', documentId)
    }
  }
}

/** Before the first answer wants them, which on a slow line would wait for that. */
export const loadSchemas = () => import('@klados/contract/replies').catch(() => null)

/** The body as the schema has it; null where it is not that. Schemas are loaded with the first answer that wants one. */
async function readAs<Name extends keyof typeof Schemas>(
  body: unknown,
  name: Name,
): Promise<z.infer<(typeof Schemas)[Name]> | null> {
  const schemas = await loadSchemas()
  const parsed = schemas?.[name].safeParse(body)
  return (parsed?.data as z.infer<(typeof Schemas)[Name]> | undefined) ?? null
}

/** A success that does not say what a success says, or says it of something else, is no answer of ours. */
export async function checked(reply: Reply, name: keyof typeof Schemas, id?: string): Promise<Reply> {
  if (reply.kind === 'none' || reply.status < 200 || reply.status >= 300) return reply
  const told = (await readAs(reply.body, name)) as { readonly id?: unknown } | null
  return told && (id === undefined || told.id === id) ? reply : { kind: 'none' }
}
