import type { FastifyReply } from 'fastify'
import { AppError } from './errors.ts'
import { isGone, whenGone } from './gone.ts'

/** How many of something heavy may go on at once in this process, in all and for one account. */
export interface SlotLimits {
  readonly inAll: number
  readonly ofOne: number
  /** How long somebody waits for a turn. */
  readonly waitMs: number
}

export interface Slots {
  /**
   * Resolves with a turn, which ends with the reply or when `end` is called, whichever is first. Throws `server/busy` when
   * none came in time.
   */
  readonly take: (reply: FastifyReply, accountId: string) => Promise<{ readonly end: () => void }>
  /** Does some work in a turn of its own, which ends when the work does: also where nobody waits for it any more. */
  readonly run: <T>(reply: FastifyReply, accountId: string, work: () => Promise<T>) => Promise<T>
  /** Turns that are taken, and those that are waited for. */
  readonly held: () => number
}

interface Waiting {
  readonly accountId: string
  readonly begin: () => void
}
interface Turn {
  readonly end: () => void
}
/** More waits of one account than this are no person's. */
const MOST_WAITING_OF_ONE = 40

export function createSlots({ inAll, ofOne, waitMs }: SlotLimits): Slots {
  const taken = new Map<string, number>()
  let all = 0
  let waiting: readonly Waiting[] = []
  const ofAccount = (accountId: string) => taken.get(accountId) ?? 0
  const isFree = (accountId: string) => all < inAll && ofAccount(accountId) < ofOne
  const count = (accountId: string, by: 1 | -1) => {
    all += by
    const now = ofAccount(accountId) + by
    if (now > 0) taken.set(accountId, now)
    else taken.delete(accountId)
  }
  /** The next turn goes to whoever has the fewest, and among those to whoever has waited longest. */
  const next = () => {
    for (;;) {
      let first: Waiting | null = null
      for (const one of waiting)
        if (isFree(one.accountId) && (!first || ofAccount(one.accountId) < ofAccount(first.accountId)))
          first = one
      if (!first) return
      first.begin()
    }
  }
  const begin = (accountId: string): Turn => {
    count(accountId, 1)
    let isOver = false
    const end = () => {
      if (isOver) return
      isOver = true
      count(accountId, -1)
      next()
    }
    return { end }
  }
  const turnOf = (reply: FastifyReply, accountId: string): Promise<Turn> => {
    if (isGone(reply)) return Promise.reject(busy())
    if (isFree(accountId) && waiting.length === 0) return Promise.resolve(begin(accountId))
    if (waiting.filter((one) => one.accountId === accountId).length >= MOST_WAITING_OF_ONE)
      return Promise.reject(busy())
    return new Promise((resolve, reject) => {
      const leave = () => {
        clearTimeout(timer)
        waiting = waiting.filter((one) => one !== own)
      }
      const fail = () => {
        leave()
        reject(busy())
      }
      const own: Waiting = {
        accountId,
        begin: () => {
          leave()
          resolve(begin(accountId))
        },
      }
      const timer = setTimeout(fail, waitMs)
      waiting = [...waiting, own]
      whenGone(reply, fail)
      next()
    })
  }
  return {
    held: () => all + waiting.length,
    take: async (reply, accountId) => {
      const turn = await turnOf(reply, accountId)
      whenGone(reply, turn.end)
      return turn
    },
    run: async (reply, accountId, work) => {
      const turn = await turnOf(reply, accountId)
      try {
        return await work()
      } finally {
        turn.end()
      }
    },
  }
}

function busy(): AppError {
  return new AppError('server/busy', 'The server has its hands full with this; try again shortly')
}
