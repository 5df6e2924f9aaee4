import { mkdirSync } from 'node:fs'
import { inData } from './paths.mjs'

export const logFolder = inData('logs')
const SIZE = '2M'
const FILES = 5

/** A log that is kept: at two megabytes it begins anew, and four earlier files stay. */
export async function openLog(name) {
  const { createStream } = await import('rotating-file-stream')
  mkdirSync(logFolder, { recursive: true })
  const stream = createStream(`${name}.log`, { path: logFolder, size: SIZE, maxFiles: FILES })
  // A full disk takes no log; that is no reason to stop.
  stream.on('error', () => undefined)
  return stream
}
