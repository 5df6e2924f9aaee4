import { parentPort, workerData } from 'node:worker_threads'
import { inOwnTransaction } from '../database/own-transaction.ts'
import { writeModel } from './model.ts'
import { makeTarnClose } from './tarn-close.ts'

export interface ModelJob {
  readonly day: string
  readonly databaseUrl: string
}

/** Makes the model of a day, in a thread and on a connection of its own: a second in which others would wait. */
async function main({ day, databaseUrl }: ModelJob): Promise<void> {
  await inOwnTransaction(databaseUrl, (client) => writeModel(client, day, makeTarnClose(day)))
  parentPort!.postMessage('done')
}

void main(workerData as ModelJob)
