import { isIP, isIPv6 } from 'node:net'
import type { Pool } from 'pg'
import { takeTurns } from './accounts/queries.ts'
import { AppError } from './errors.ts'

/** So many turns within so many seconds, over all server processes together. */
export interface Limit {
  readonly turns: number
  readonly seconds: number
}

export interface Throttle {
  /** Throws `request/too-many` once `who` has had their turns at `what`. */
  readonly take: (what: string, who: string, limit: Limit) => Promise<void>
}

/**
 * Where many turns are allowed a process takes this share of them at once, so that most requests ask nobody.
 */
const LEASE_SHARE = 1 / 50
/** More keys than this are kept by an attack alone; the oldest go first. */
const MAX_KEYS = 20_000

interface Lease {
  left: number
  readonly until: number
  readonly isSpent: boolean
}

/** Counts turns in the database, so that several processes agree, and across their restarts. */
export function createThrottle(pool: Pool): Throttle {
  const leases = new Map<string, Lease>()
  return {
    take: async (what, who, { turns, seconds }) => {
      if (turns === Number.POSITIVE_INFINITY) return
      const key = `${what} ${who}`
      const now = Date.now()
      const lease = leases.get(key)
      if (lease && lease.until > now) {
        if (lease.isSpent) throw tooMany(lease.until - now)
        if (lease.left-- > 0) return
      }
      const wanted = Math.max(1, Math.floor(turns * LEASE_SHARE))
      const taken = await takeTurns(pool, key, seconds, wanted)
      const isSpent = taken > turns
      leases.delete(key)
      leases.set(key, { left: wanted - 1, until: now + seconds * 1000, isSpent })
      if (leases.size > MAX_KEYS) leases.delete(leases.keys().next().value!)
      if (isSpent) throw tooMany(seconds * 1000)
    },
  }
}

function tooMany(waitMs: number): AppError {
  const seconds = Math.max(1, Math.ceil(waitMs / 1000))
  return new AppError('request/too-many', `Too many tries; wait ${seconds} s and try again`, {
    retryAfterS: seconds,
  })
}

/** One person's address: of IPv6 the network that one household has, since it can pick any address within. */
export function addressKey(address: string): string {
  if (!isIP(address) || !isIPv6(address)) return address
  const [head = '', tail = ''] = address.split('::')
  const left = head === '' ? [] : head.split(':')
  const right = tail === '' ? [] : tail.split(':')
  const groups = address.includes('::')
    ? [...left, ...Array.from({ length: 8 - left.length - right.length }, () => '0'), ...right]
    : left
  return groups
    .slice(0, 4)
    .map((group) => group.padStart(4, '0'))
    .join(':')
}
