import { upcastBody } from '@klados/contract/upcasts'
import { ask } from './request.ts'
import type { Reply } from './sync/answers.ts'
import type { Send } from './sync/rules.ts'

/** Makes the request for what is to be sent. What an earlier release left is brought up to this one first. */
export function transmit(send: Send): Promise<Reply> {
  const garden = `/gardens/${send.gardenId}`
  switch (send.kind) {
    case 'entries':
      return ask('POST', `${garden}/entries`, { entries: send.items.map((item) => item.entry) })
    case 'photo':
      return ask('PUT', `${garden}/files/${send.item.fileId}`, send.item.content)
    case 'document': {
      const [save] = send.item.saves
      const body = upcastBody(send.item.area, save.body)
      return ask('PUT', `${garden}/${send.item.area}/${send.item.documentId}`, { ...save, body })
    }
  }
}
