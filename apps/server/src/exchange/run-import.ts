import type { ImportLine } from '@klados/contract'
import { startThread } from '../side-entry.ts'
import type { ImportJob } from './take-in.ts'

/** A garden of half a million entries takes half of this, which is mostly their ids. */
const MAX_HEAP_MB = 320

/** Runs an import in a thread of its own; every line it says is handed on, the last of them never `share`. */
export function runImport(job: ImportJob, databaseUrl: string, onLine: (line: ImportLine) => void) {
  const worker = startThread('exchange/import-worker', {
    workerData: { job, databaseUrl },
    resourceLimits: { maxOldGenerationSizeMb: MAX_HEAP_MB, maxYoungGenerationSizeMb: 32 },
  })
  let isOver = false
  const say = (line: ImportLine) => {
    if (isOver) return
    isOver = !('share' in line)
    onLine(line)
  }
  const fail = (code: string, message: string) => say({ error: { code, message } })
  worker.on('message', say)
  worker.on('error', (error: Error & { code?: string }) =>
    error.code === 'ERR_WORKER_OUT_OF_MEMORY'
      ? fail('exchange/too-large', 'The file has more in it than the server can hold at once')
      : fail('server/failed', 'Something went wrong here; nothing was changed'),
  )
  const ended = new Promise<void>((resolve) => {
    worker.on('exit', () => {
      fail('server/failed', 'Taking the file in ended early; nothing was changed')
      resolve()
    })
  })
  return { ended, stop: () => void worker.terminate() }
}
