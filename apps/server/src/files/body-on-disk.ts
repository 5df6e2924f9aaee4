import { randomUUID } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { readFile, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Transform } from 'node:stream'
import type { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { AppError } from '../errors.ts'

/** A request's body that lies on the disk until it is read: while it trickles in it takes no memory. */
export interface BodyOnDisk {
  readonly read: () => Promise<Buffer>
  readonly remove: () => Promise<void>
}

export async function takeBody(payload: Readable, mostBytes: number): Promise<BodyOnDisk> {
  const path = join(tmpdir(), `klados-photo-${randomUUID()}`)
  const remove = () => rm(path, { force: true })
  let bytes = 0
  const counted = new Transform({
    transform: (chunk: Buffer, _, done) => {
      bytes += chunk.length
      if (bytes > mostBytes)
        done(new AppError('request/too-large', 'The picture is larger than the server takes'))
      else done(null, chunk)
    },
  })
  try {
    await pipeline(payload, counted, createWriteStream(path, { mode: 0o600 }))
  } catch (error) {
    await remove()
    throw error
  }
  return { read: () => readFile(path), remove }
}
