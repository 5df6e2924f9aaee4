import type { PieceReply } from '@klados/contract'
import { MAX_PIECE_BYTES } from '@klados/contract/limits'
import { ask } from './request.ts'
import type { Reply } from './sync/answers.ts'
import type { PhotoItem } from './sync/items.ts'

/** A photo of so few bytes goes whole. */
const SMALL_BYTES = 24 * 1024
const LEAST_BYTES = 4 * 1024
/** A piece that took less is followed by a larger one, one that took more by a smaller one. */
const QUICK_MS = 2000
const SLOW_MS = 15_000

export interface PhotoSender {
  /** `read` takes the body of an answer for what it is, or for nothing. */
  readonly send: (
    gardenId: string,
    photo: PhotoItem,
    read: (body: unknown) => Promise<PieceReply | null>,
    onSent: (bytes: number) => void,
  ) => Promise<Reply>
}

/**
 * Sends photos piece by piece and answers as if they had gone whole. What the server has of one already is not sent again,
 * whenever and by which window that was sent.
 */
export function createPhotoSender(now: () => number = () => performance.now()): PhotoSender {
  /** As large as this line has been found to carry well. */
  let pieceBytes = SMALL_BYTES
  return {
    send: async (gardenId, { fileId, content, accountId }, read, onSent) => {
      const path = `/gardens/${gardenId}/files/${fileId}`
      const how = { writer: accountId, isAside: true }
      const whole = () => ask('PUT', path, content, how)
      if (content.size <= SMALL_BYTES) return whole()
      let reply = await ask('GET', `${path}/pieces`, undefined, how)
      for (;;) {
        // A server of the release before knows no pieces.
        if (reply.kind === 'ours' && reply.status === 404 && codeOf(reply) === 'route/not-found')
          return whole()
        if (reply.kind === 'none' || reply.status !== 200) return reply
        const told = await read(reply.body)
        if (!told) return { kind: 'none' }
        if (told.file) return { ...reply, body: told.file }
        onSent(told.upTo)
        const from = Math.min(told.upTo, content.size)
        const piece = content.slice(from, from + pieceBytes, content.type)
        const began = now()
        reply = await ask('PUT', `${path}/pieces?from=${from}&of=${content.size}`, piece, how)
        const tookMs = now() - began
        if (reply.kind === 'none' || tookMs > SLOW_MS) pieceBytes = Math.max(LEAST_BYTES, pieceBytes / 2)
        else if (tookMs < QUICK_MS) pieceBytes = Math.min(MAX_PIECE_BYTES, pieceBytes * 2)
      }
    },
  }
}

const codeOf = ({ body }: Extract<Reply, { kind: 'ours' }>): string | undefined =>
  (body as { error?: { code?: string } } | null)?.error?.code
