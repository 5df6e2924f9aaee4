import { Worker } from 'node:worker_threads'

/** Somebody else, in a thread of their own so that the sender's work is not theirs. */
export function watch(base, reader, server) {
  const worker = new Worker(new URL('./reader.mjs', import.meta.url), {
    workerData: { base, reader, server },
  })
  return {
    stop: () =>
      new Promise((resolve, reject) => {
        worker.once('message', resolve)
        worker.once('error', reject)
        worker.postMessage('stop')
      }),
  }
}
