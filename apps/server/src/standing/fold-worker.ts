import { parentPort, workerData } from 'node:worker_threads'
import pg from 'pg'
import { APP_ROLE } from '../database/pool.ts'
import { foldGarden } from './fold-garden.ts'

export interface FoldJob {
  readonly gardenId: string
  readonly databaseUrl: string
}

/** Folds one garden, in a thread and on a connection of its own: thirty years take longer than others should wait. */
async function main({ gardenId, databaseUrl }: FoldJob): Promise<void> {
  const client = new pg.Client({
    connectionString: databaseUrl,
    options: `-c role=${APP_ROLE}`,
    connectionTimeoutMillis: 5000,
  })
  client.on('error', () => undefined)
  try {
    await client.connect()
    await client.query('begin')
    await client.query(`select set_config('klados.garden', $1, true)`, [gardenId])
    await foldGarden(client as unknown as pg.PoolClient, gardenId)
    await client.query('commit')
    parentPort!.postMessage('done')
  } finally {
    await client.end().catch(() => undefined)
  }
}

void main(workerData as FoldJob)
