import { parentPort, workerData } from 'node:worker_threads'
import { inOwnTransaction } from '../database/own-transaction.ts'
import { foldGarden } from './fold-garden.ts'

export interface FoldJob {
  readonly gardenId: string
  readonly databaseUrl: string
}

/** Folds one garden, in a thread and on a connection of its own: thirty years take longer than others should wait. */
async function main({ gardenId, databaseUrl }: FoldJob): Promise<void> {
  await inOwnTransaction(databaseUrl, async (client) => {
    await client.query(`select set_config('klados.garden', $1, true)`, [gardenId])
    await foldGarden(client, gardenId)
  })
  parentPort!.postMessage('done')
}

void main(workerData as FoldJob)
