import { createWriteStream } from 'node:fs'
import { mkdtemp, rm, stat } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import type { Multipart } from '@fastify/multipart'
import { AppError } from '../errors.ts'

export interface Spooled {
  readonly path: string
  readonly sizeBytes: number
  readonly fields: ReadonlyMap<string, string>
}

/** What the reader of forms finds wrong with one carries no mark of the system, of the framework, or of ours. */
const isOfForm = (error: NodeJS.ErrnoException & { statusCode?: number }): boolean =>
  !(error instanceof AppError) && error.statusCode === undefined && error.syscall === undefined

/**
 * Puts an upload by in a folder of its own, with the fields that came along. Whole on disk first, so that a
 * slow line holds no connection of the database and no transaction.
 */
export async function spool(
  parts: AsyncIterable<Multipart>,
): Promise<Spooled & { remove: () => Promise<void> }> {
  const folder = await mkdtemp(join(tmpdir(), 'klados-import-'))
  const remove = () => rm(folder, { recursive: true, force: true })
  const path = join(folder, 'garden.json')
  const fields = new Map<string, string>()
  let hasFile = false
  try {
    for await (const part of parts) {
      if (part.type === 'field') fields.set(part.fieldname, String(part.value))
      else {
        hasFile = true
        await pipeline(part.file, createWriteStream(path))
        if (part.file.truncated)
          throw new AppError('exchange/too-large', 'The file is larger than the server takes')
      }
    }
    if (!hasFile) throw new AppError('request/malformed', 'Send the file as a part of the form')
    return { path, sizeBytes: (await stat(path)).size, fields, remove }
  } catch (error) {
    await remove()
    throw isOfForm(error as NodeJS.ErrnoException)
      ? new AppError('request/malformed', 'The form could not be read')
      : error
  }
}
