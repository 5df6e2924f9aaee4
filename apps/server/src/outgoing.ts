import { randomUUID } from 'node:crypto'
import { open } from 'node:fs/promises'
import type { FileHandle } from 'node:fs/promises'
import { rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'

import { AppError } from './errors.ts'

/** So much is kept in memory; what is longer goes to the disk. */
const IN_MEMORY = 256 * 1024
const SLICE = 64 * 1024

/**
 * Takes all of the pieces and gives them back as a stream that can be read as slowly as the caller likes: whatever they
 * were read from is free by then. Holds little in memory; what it puts on the disk goes with the stream, or the process.
 * Stops with `server/unavailable` once it is not wanted any more.
 */
export async function putBy(pieces: AsyncIterable<string>, isWanted: () => boolean): Promise<Readable> {
  let parts: Buffer[] = []
  let bytes = 0
  let file: FileHandle | null = null
  const flush = async () => {
    file ??= await openNameless()
    await file.write(Buffer.concat(parts))
    parts = []
    bytes = 0
  }
  try {
    for await (const piece of pieces) {
      if (!isWanted()) throw new AppError('server/unavailable', 'Nobody waits for this any more')
      const part = Buffer.from(piece)
      parts.push(part)
      bytes += part.length
      if (bytes >= IN_MEMORY) await flush()
    }
    if (!file) return inSlices(Buffer.concat(parts))
    await flush()
    return (file as FileHandle).createReadStream({ start: 0, highWaterMark: SLICE })
  } catch (error) {
    await (file as FileHandle | null)?.close()
    throw error
  }
}

/** A file that is gone when it is closed, whoever closes it. */
async function openNameless(): Promise<FileHandle> {
  const path = join(tmpdir(), `klados-out-${randomUUID()}`)
  const file = await open(path, 'wx+', 0o600)
  await rm(path)
  return file
}

/** In slices, so that it can be seen how much of it a slow reader has taken. */
export function inSlices(content: Buffer): Readable {
  const slices = function* () {
    for (let from = 0; from < content.length; from += SLICE) yield content.subarray(from, from + SLICE)
  }
  return Readable.from(slices(), { objectMode: false, highWaterMark: SLICE })
}
