import { v7 as uuidv7 } from 'uuid'

/** The instant and the count within it that an id of version 7 begins with. */
interface Instant {
  readonly msecs: number
  readonly seq: number
}

/** A clock that runs further ahead than this is wrong, and the server refuses what it dates. */
const AHEAD_MS = 2 * 86_400_000
const MAX_SEQ = 0xffff_ffff

export interface HybridClock {
  /** An id that sorts after every id made or seen before, whatever the device's clock says. */
  readonly makeId: () => string
  /** Takes note of an id that the server has. */
  readonly see: (id: string) => void
  /** Takes note of an id of this device that the server has not judged yet, such as another window's. */
  readonly meet: (id: string) => void
}

/**
 * Where the greatest id that the server has is kept between visits; ids of our own that it never took are
 * not.
 */
export interface ClockMemory {
  readonly read: () => string | null
  readonly write: (id: string) => void
}

/**
 * Ids in the order in which things were written, on any device: what is written after an entry was read sorts
 * after it, even where the clock here is behind the one there. While the device's clock is ahead of all that
 * was seen, ids tell its time.
 */
export function createClock(memory: ClockMemory, now: () => number = Date.now): HybridClock {
  let seen: string | null = memory.read()
  let made: Instant = { msecs: 0, seq: 0 }
  return {
    makeId: () => {
      const present = now()
      const known = seen === null ? { msecs: 0, seq: 0 } : instantOf(seen)
      // A clock that was days ahead and has been set right since must not drag its error along.
      if (made.msecs > present + AHEAD_MS) made = { msecs: 0, seq: 0 }
      const before = later(made, known)
      made = present > before.msecs ? { msecs: present, seq: 0 } : next(before)
      return uuidv7(made)
    },
    meet: (id) => {
      made = later(made, instantOf(id))
    },
    see: (id) => {
      if (!tellsTime(id) || (seen !== null && id <= seen)) return
      seen = id
      memory.write(id)
    },
  }
}

/** Only ids of version 7 begin with an instant. */
const tellsTime = (id: string) => id[14] === '7'

/** The greatest of some ids that tell a time, for the clock to see: once for a page, not for each entry of it. */
export const greatestId = (ids: readonly string[], before: string | null = null): string | null =>
  ids.reduce((most, id) => (tellsTime(id) && (most === null || id > most) ? id : most), before)

function instantOf(id: string): Instant {
  const hex = id.replaceAll('-', '')
  const digit = (from: number, to: number) => Number.parseInt(hex.slice(from, to), 16)
  // 12 bits after the version, 20 of the 62 after the variant, as the uuid package lays out its count.
  return { msecs: digit(0, 12), seq: digit(13, 16) * 2 ** 20 + ((digit(16, 22) >>> 2) & 0xf_ffff) }
}

function later(a: Instant, b: Instant): Instant {
  return a.msecs > b.msecs || (a.msecs === b.msecs && a.seq > b.seq) ? a : b
}

function next({ msecs, seq }: Instant): Instant {
  return seq >= MAX_SEQ ? { msecs: msecs + 1, seq: 0 } : { msecs, seq: seq + 1 }
}
