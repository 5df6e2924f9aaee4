import type { Pool } from 'pg'
import { inGarden } from '../database/transaction.ts'
import { AppError } from '../errors.ts'
import { startThread } from '../side-entry.ts'
import { PART_FOLD_RULES } from '@klados/core/part-fold'
import { foldGarden } from './fold-garden.ts'
import type { FoldJob } from './fold-worker.ts'
import { findReach } from './queries.ts'

/** Brings what stands of gardens up to date, when somebody asks and now and then before that. */
export interface Folding {
  /**
   * Resolves when what stands can be told: as of now, or as of so few entries ago that whoever asks has read those sooner
   * than they are folded, which is then begun.
   */
  readonly bringUp: (gardenId: string) => Promise<void>
  /** Told what numbers have been given: a garden that has gained much is folded before somebody asks. */
  readonly gained: (gardenId: string, fromSeq: number, toSeq: number) => void
  /** Folds some gardens anew, one after the other, and lets whoever asks for another go between. */
  readonly renew: (gardenIds: readonly string[]) => Promise<void>
  readonly close: () => Promise<void>
}

/** So few entries are folded where one stands. */
const FEW = 100
/** A garden is folded each time that so many have come, and fewer nobody waits for. */
const EACH = 2000
const MAX_HEAP_MB = 320

export function createFolding(pool: Pool, databaseUrl: string): Folding {
  /** One thread at a time: it is nobody's hurry but for the first visit, and that is one. */
  let last: Promise<void> = Promise.resolve()
  const going = new Set<() => Promise<unknown>>()
  let isClosed = false
  /** Turns that are yet to begin, by garden: whoever asks meanwhile is served by the same one. */
  const queued = new Map<string, Promise<void>>()
  const inThread = (gardenId: string): Promise<void> => {
    const there = queued.get(gardenId)
    if (there) return there
    const turn = last.then(() => {
      queued.delete(gardenId)
      return isClosed ? undefined : runThread(gardenId, databaseUrl, going)
    })
    queued.set(gardenId, turn)
    last = turn.catch(() => undefined)
    return turn
  }
  // What is not folded now is folded when somebody asks.
  const begin = (gardenId: string) => void inThread(gardenId).catch(() => undefined)
  const bringUp = async (gardenId: string) => {
    const { upTo, rules, head } = await inGarden(pool, gardenId, (client) => findReach(client, gardenId))
    const isOurs = rules === PART_FOLD_RULES
    const since = head - upTo
    if (isOurs && since === 0) return
    if ((isOurs || upTo === 0) && since <= FEW)
      await inGarden(pool, gardenId, (client) => foldGarden(client, gardenId))
    else if (isOurs && upTo > 0 && since <= EACH) begin(gardenId)
    else await inThread(gardenId)
  }
  return {
    bringUp,
    gained: (gardenId, fromSeq, toSeq) => {
      if (Math.floor(fromSeq / EACH) === Math.floor(toSeq / EACH)) return
      begin(gardenId)
    },
    renew: async (gardenIds) => {
      // One that does not fold is told to whoever asks for it.
      for (const gardenId of gardenIds) if (!isClosed) await bringUp(gardenId).catch(() => undefined)
    },
    close: async () => {
      isClosed = true
      await Promise.all([...going].map((end) => end()))
      await last
    },
  }
}

function runThread(gardenId: string, databaseUrl: string, going: Set<() => Promise<unknown>>): Promise<void> {
  return new Promise((resolve, reject) => {
    const thread = startThread('standing/fold-worker', {
      workerData: { gardenId, databaseUrl } satisfies FoldJob,
      resourceLimits: { maxOldGenerationSizeMb: MAX_HEAP_MB },
    })
    const end = () => thread.terminate()
    going.add(end)
    thread.on('message', () => resolve())
    thread.on('error', reject)
    thread.on('exit', () => {
      going.delete(end)
      reject(new AppError('server/unavailable', 'What stands could not be told just now; try again shortly'))
    })
  })
}
