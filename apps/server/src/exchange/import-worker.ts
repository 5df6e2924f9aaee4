import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { parentPort, workerData } from 'node:worker_threads'
import { errorStatus } from '@klados/contract'
import type { ImportLine } from '@klados/contract'
import pg from 'pg'
import { APP_ROLE } from '../database/pool.ts'
import { describeError } from '../errors.ts'
import { createPress } from '../files/press.ts'
import type { SmallImage } from '../files/image.ts'
import { takeIn } from './take-in.ts'
import type { ImportJob } from './take-in.ts'

const { job, databaseUrl } = workerData as { job: ImportJob; databaseUrl: string }
const say = (line: ImportLine) => parentPort!.postMessage(line)
const SHARE_STEP = 0.01

/**
 * One import, in a thread of its own and on a connection of its own: the server answers others meanwhile, the
 * thread's memory has a bound, and ended at any moment it leaves a transaction that was never committed.
 */
async function main(): Promise<void> {
  const press = createPress()
  const folder = await mkdtemp(join(dirname(job.path), 'photos-'))
  const sizes = new Map<string, Omit<SmallImage, 'content'>>()
  const client = new pg.Client({
    connectionString: databaseUrl,
    options: `-c role=${APP_ROLE}`,
    connectionTimeoutMillis: 5000,
  })
  client.on('error', () => undefined)
  let told = 0
  try {
    await client.connect()
    await client.query('begin')
    const outcome = await takeIn(job, {
      client: client as unknown as pg.PoolClient,
      now: new Date(),
      makeSmall: press.makeSmall,
      keep: {
        put: async (id, { content, ...size }) => {
          sizes.set(id, size)
          await writeFile(join(folder, id), content)
        },
        take: async (id) => ({ content: await readFile(join(folder, id)), ...sizes.get(id)! }),
      },
      onShare: (share) => {
        if (share - told < SHARE_STEP) return
        told = share
        say({ share })
      },
    })
    await client.query('questions' in outcome ? 'rollback' : 'commit')
    say(outcome)
  } catch (error) {
    const { code, body } = describeError(error as Error)
    if (errorStatus[code] >= 500) process.stderr.write(`${(error as Error).stack}\n`)
    say({ error: body.error })
  } finally {
    await client.end().catch(() => undefined)
    press.close()
    await rm(folder, { recursive: true, force: true })
  }
}

void main()
