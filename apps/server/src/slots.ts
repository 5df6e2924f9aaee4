import type { FastifyReply } from 'fastify'
import { AppError } from './errors.ts'

/** How many of something heavy may go on at once in this process, in all and for one account. */
export interface Slots {
  /** Takes a slot until the reply is over, or throws `server/busy`. */
  readonly hold: (reply: FastifyReply, accountId: string) => void
}

export function createSlots(atOnce: number, atOnceOfOne: number): Slots {
  const taken = new Map<string, number>()
  let all = 0
  return {
    hold: (reply, accountId) => {
      const own = taken.get(accountId) ?? 0
      if (all >= atOnce || own >= atOnceOfOne)
        throw new AppError('server/busy', 'The server has its hands full with this; try again shortly')
      all++
      taken.set(accountId, own + 1)
      // The one event that comes whether the reply was sent, broke, or the caller went away.
      reply.raw.once('close', () => {
        all--
        const left = taken.get(accountId)! - 1
        if (left > 0) taken.set(accountId, left)
        else taken.delete(accountId)
      })
    },
  }
}
