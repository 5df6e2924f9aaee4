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
  /** Resolves when all that had been written by now is folded. */
  readonly bringUp: (gardenId: string) => Promise<void>
  /** Told what numbers have been given: a garden that has gained much is folded before somebody asks. */
  readonly gained: (gardenId: string, fromSeq: number, toSeq: number) => void
  readonly close: () => Promise<void>
}

/** So few entries are folded where one stands. */
const FEW = 100
/** A garden is folded each time that so many have come. */
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
  const bringUp = async (gardenId: string) => {
    const { upTo, rules, head } = await inGarden(pool, gardenId, (client) => findReach(client, gardenId))
    const isOurs = rules === PART_FOLD_RULES
    if (isOurs && upTo === head) return
    if ((isOurs || upTo === 0) && head - upTo <= FEW)
      await inGarden(pool, gardenId, (client) => foldGarden(client, gardenId))
    else await inThread(gardenId)
  }
  return {
    bringUp,
    gained: (gardenId, fromSeq, toSeq) => {
      if (Math.floor(fromSeq / EACH) === Math.floor(toSeq / EACH)) return
      // What is not folded now is folded when somebody asks.
      void bringUp(gardenId).catch(() => undefined)
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
