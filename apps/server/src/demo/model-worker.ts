import { parentPort, workerData } from 'node:worker_threads'
import pg from 'pg'
import { APP_ROLE } from '../database/pool.ts'
import { writeModel } from './model.ts'
import { makeTarnClose } from './tarn-close.ts'

export interface ModelJob {
  readonly day: string
  readonly databaseUrl: string
}

/** Makes the model of a day, in a thread and on a connection of its own: a second in which others would wait. */
async function main({ day, databaseUrl }: ModelJob): Promise<void> {
  const client = new pg.Client({
    connectionString: databaseUrl,
    options: `-c role=${APP_ROLE}`,
    connectionTimeoutMillis: 5000,
  })
  client.on('error', () => undefined)
  try {
    await client.connect()
    await client.query('begin')
    await writeModel(client as unknown as pg.PoolClient, day, makeTarnClose(day))
    await client.query('commit')
    parentPort!.postMessage('done')
  } finally {
    await client.end().catch(() => undefined)
  }
}

void main(workerData as ModelJob)
