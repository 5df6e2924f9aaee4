import type { Readable } from 'node:stream'
import { EXCHANGE_VERSION } from '@klados/contract'
import type { Pool, PoolClient } from 'pg'
import { listDocuments } from '../documents/queries.ts'
import type { DocumentKind } from '../documents/queries.ts'
import { findFileHead, listFileIds, readFile } from '../files/queries.ts'
import { findGarden } from '../gardens/queries.ts'
import { readEntries } from '../journal/queries.ts'
import { inSnapshot } from '../database/transaction.ts'
import { putBy } from '../outgoing.ts'

const ENTRIES_AT_ONCE = 1000
const documentLists: readonly (readonly [string, DocumentKind])[] = [
  ['places', 'place'],
  ['frames', 'frame'],
  ['plants', 'plant'],
  ['stores', 'stores'],
]

/**
 * Everything that a garden is, as JSON text that can be read slowly: documents at their last version, the photos, the
 * journal whole. All of it as of one moment, whoever writes meanwhile; no more than a piece of a photo or a thousand
 * entries in memory.
 */
export function writeOut(pool: Pool, gardenId: string, isWanted: () => boolean): Promise<Readable> {
  return inSnapshot(pool, gardenId, (client) => putBy(pieces(client, gardenId), isWanted))
}

async function* pieces(client: PoolClient, gardenId: string): AsyncGenerator<string> {
  const { id, name, latitudeDeg, currency } = await findGarden(client, gardenId)
  const head = {
    format: 'klados-garden',
    version: EXCHANGE_VERSION,
    garden: { id, name, latitudeDeg, currency },
  }
  yield JSON.stringify(head).slice(0, -1)
  for (const [list, kind] of documentLists) yield* listOf(list, documents(client, gardenId, kind))
  yield* listOf('files', files(client, gardenId))
  yield* listOf('entries', entries(client, gardenId))
  yield '}\n'
}

/** What an element is written as: all at once, or what of it comes in pieces. */
type Written = object | AsyncGenerator<string>

async function* listOf(name: string, elements: AsyncGenerator<Written>): AsyncGenerator<string> {
  yield `,\n"${name}":[`
  let separator = '\n'
  for await (const element of elements) {
    yield separator
    if (Symbol.asyncIterator in element) yield* element
    else yield JSON.stringify(element)
    separator = ',\n'
  }
  yield ']'
}

async function* documents(client: PoolClient, gardenId: string, kind: DocumentKind): AsyncGenerator<object> {
  for (const { id, isRemoved, version, savedAt, bodyVersion, body } of await listDocuments(
    client,
    gardenId,
    kind,
  ))
    yield { id, isRemoved, version, savedAt, bodyVersion, body }
}

async function* files(client: PoolClient, gardenId: string): AsyncGenerator<AsyncGenerator<string>> {
  for (const id of await listFileIds(client, gardenId)) {
    const { mediaType } = (await findFileHead(client, gardenId, id))!
    yield fileOf({ id, mediaType }, readFile(client, gardenId, id))
  }
}

/** Three bytes are four letters: what is left of a piece goes with the next. */
const BASE64_BYTES = 3

async function* fileOf(head: object, content: AsyncGenerator<Buffer>): AsyncGenerator<string> {
  yield `${JSON.stringify(head).slice(0, -1)},"contentBase64":"`
  let left = Buffer.alloc(0)
  for await (const piece of content) {
    const all = Buffer.concat([left, piece])
    const whole = all.length - (all.length % BASE64_BYTES)
    yield all.toString('base64', 0, whole)
    left = all.subarray(whole)
  }
  yield `${left.toString('base64')}"}`
}

async function* entries(client: PoolClient, gardenId: string): AsyncGenerator<object> {
  for (let after = 0; ; ) {
    const page = await readEntries(client, gardenId, after, ENTRIES_AT_ONCE)
    if (page.length === 0) return
    for (const { seq, by: _, ...entry } of page) {
      after = seq
      yield entry
    }
  }
}
