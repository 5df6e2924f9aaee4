import type { FastifyReply } from 'fastify'

/**
 * Gives back what was taken for a caller when the reply is over: sent, broken off, or the caller gone. At once where that
 * has happened already, since the event that tells of it will not come again.
 */
export function whenGone(reply: FastifyReply, giveBack: () => void): void {
  if (isGone(reply)) giveBack()
  else reply.raw.once('close', giveBack)
}

export const isGone = ({ raw }: FastifyReply): boolean => raw.closed || raw.destroyed
