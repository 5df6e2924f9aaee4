import type { Pool } from 'pg'
import { v7 as uuidv7 } from 'uuid'
import { inTransaction } from '../database/transaction.ts'
import { AppError } from '../errors.ts'
import { startThread } from '../side-entry.ts'
import type { ModelJob } from './model-worker.ts'
import { copyDemo, countDemos, endDemos, findOwnDemo, hasModel } from './queries.ts'

/** So many visitors at once: each has a megabyte of the database. */
const MOST = 500
const KEEP_UP_MS = 3_600_000

/** Copies of the demo garden, one for each visitor. */
export interface DemoCopies {
  /** The garden that is the account's copy: the one that it has, or one made now. */
  readonly copyFor: (accountId: string) => Promise<string>
  /** Makes the model of the day beforehand, and takes away what is older than a day, now and each hour. */
  readonly keepUp: () => Promise<void>
  readonly close: () => void
}

export function createDemoCopies(
  pool: Pool,
  databaseUrl: string,
  now: () => Date = () => new Date(),
): DemoCopies {
  let making: Promise<void> | null = null
  /** One at a time; whoever comes meanwhile waits for the same. */
  const makeModel = (day: string) => {
    making ??= runThread({ day, databaseUrl }).finally(() => (making = null))
    return making
  }
  const copy = (day: string, accountId: string) =>
    inTransaction(pool, async (client) => {
      if ((await countDemos(client)) >= MOST)
        throw new AppError(
          'demo/full',
          'So many are looking at the demo garden that there is no room just now',
        )
      const gardenId = uuidv7()
      return (await copyDemo(client, { day, gardenId, accountId })) ? gardenId : null
    })
  const keepUp = async () => {
    await endDemos(pool)
    const day = localDate(now())
    if (!(await hasModel(pool, day))) await makeModel(day)
  }
  const timer = setInterval(() => void keepUp().catch(() => undefined), KEEP_UP_MS)
  timer.unref()
  return {
    copyFor: async (accountId) => {
      const own = await findOwnDemo(pool, accountId)
      if (own) return own
      const day = localDate(now())
      const made = await copy(day, accountId)
      if (made) return made
      // Another server on this database may make it at the same moment; the day has one all the same.
      await makeModel(day).catch(() => undefined)
      const madeNow = await copy(day, accountId)
      if (!madeNow)
        throw new AppError(
          'server/unavailable',
          'The demo garden could not be made just now; try again shortly',
        )
      return madeNow
    },
    keepUp,
    close: () => clearInterval(timer),
  }
}

function runThread(job: ModelJob): Promise<void> {
  return new Promise((resolve, reject) => {
    const thread = startThread('demo/model-worker', { workerData: job })
    thread.on('message', () => resolve())
    thread.on('error', reject)
    thread.on('exit', () => reject(new Error('The model of the demo garden was not made')))
  })
}

function localDate(now: Date): string {
  const pad = (n: number) => String(n).padStart(2, '0')
  return `${now.getFullYear()}-${pad(now.getMonth() + 1)}-${pad(now.getDate())}`
}
