import { fork } from 'node:child_process'
import type { ChildProcess, ForkOptions } from 'node:child_process'
import { dirname, join } from 'node:path'
import { fileURLToPath, pathToFileURL } from 'node:url'
import { Worker } from 'node:worker_threads'
import type { WorkerOptions } from 'node:worker_threads'

/**
 * In the bundle a side file lies next to the server; in the sources it lies in its area and is read through
 * tsx. Tests bundle side files once, since to read them anew takes longer than most of what they do.
 */
const bundledIn =
  process.env.KLADOS_SIDE_FILES ??
  (import.meta.url.endsWith('.mjs') ? dirname(fileURLToPath(import.meta.url)) : null)
const isBundled = bundledIn !== null
const fileOf = (path: string) =>
  isBundled
    ? join(bundledIn, `${path.split('/').at(-1)}.mjs`)
    : fileURLToPath(new URL(`./${path}.ts`, import.meta.url))

/** A file of the server, named `area/name`, in a process of its own. */
export function startProcess(path: string, options: ForkOptions): ChildProcess {
  return fork(fileOf(path), { ...options, execArgv: isBundled ? [] : ['--import', 'tsx'] })
}

/** A file of the server, named `area/name`, in a thread of its own. */
export function startThread(path: string, options: WorkerOptions): Worker {
  const file = fileOf(path)
  if (isBundled) return new Worker(file, options)
  // A thread does not take on the loader of the process that starts it.
  const url = JSON.stringify(pathToFileURL(file).href)
  return new Worker(`import('tsx/esm/api').then(({ register }) => { register(); return import(${url}) })`, {
    ...options,
    eval: true,
  })
}
