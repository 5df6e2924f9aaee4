import { createReadStream } from 'node:fs'
import { EXCHANGE_VERSION, exchangedGardenSchema, gardenFileLists } from '@klados/contract'
import type { GardenFile, GardenFileList } from '@klados/contract'
import { isNewerBody, upcastBody } from '@klados/contract/upcasts'
import type { UpcastArea } from '@klados/contract/upcasts'
import { z } from 'zod'
import { AppError } from '../errors.ts'
import { readEntry } from '../journal/judge.ts'
import { Splitter, parseJson, pathOf } from './splitter.ts'

export type Element<List extends GardenFileList> = GardenFile[List][number]
type OnElements = { readonly [List in GardenFileList]?: (element: Element<List>) => void | Promise<void> }

const wholes = {
  format: { mostBytes: 1000 },
  version: { mostBytes: 1000 },
  garden: { mostBytes: 10_000 },
} as const

/** Goes through a garden's file once, piece by piece. Throws where it is no such file, or not sound. */
export async function readGarden(
  path: string,
  onBytes: (bytes: number) => void,
): Promise<GardenFile['garden']> {
  const found = new Map<string, unknown>()
  await pass(path, onBytes, (name, index, text) => {
    if (index === null) return void found.set(name, parseJson(text, pathOf(name, null)))
    const { most } = gardenFileLists[name as GardenFileList]
    // At once: a file of seventy million nothings is not gone through to its end.
    if (index >= most) throw new AppError('exchange/damaged', `The file has more than ${most} ${name}`)
  })
  const version = found.get('version')
  if (found.get('format') !== 'klados-garden')
    throw new AppError('exchange/unknown-version', 'This is not a garden file of Klados')
  if (!z.number().int().min(1).max(EXCHANGE_VERSION).safeParse(version).success)
    throw new AppError(
      'exchange/unknown-version',
      `This file is of version ${JSON.stringify(version)?.slice(0, 20)}; this release reads versions 1 to ${EXCHANGE_VERSION}`,
    )
  return checked(exchangedGardenSchema, found.get('garden'), pathOf('garden', null))
}

/** Goes through the file and hands on each element of the lists asked for, checked. */
export async function readElements(
  path: string,
  now: Date,
  onBytes: (bytes: number) => void,
  on: OnElements,
): Promise<void> {
  await pass(path, onBytes, async (name, index, text) => {
    const hand = on[name as GardenFileList] as ((element: unknown) => void | Promise<void>) | undefined
    if (index === null || !hand) return
    const where = pathOf(name, index)
    const value = upcast(name, parseJson(text, where))
    await hand(
      name === 'entries'
        ? checkedEntry(value, now, where)
        : checked(gardenFileLists[name as GardenFileList].element as z.ZodType, value, where),
    )
  })
}

/** A document of an earlier release gets what has been added since. */
function upcast(list: string, value: unknown): unknown {
  if (!isDocumentList(list) || typeof value !== 'object' || value === null) return value
  if (isNewerBody(list, (value as { bodyVersion?: unknown }).bodyVersion))
    throw new AppError(
      'exchange/unknown-version',
      'This file was written by a later release of Klados; take it in with that one',
    )
  return { ...value, body: upcastBody(list, (value as { body?: unknown }).body) }
}
const isDocumentList = (list: string): list is UpcastArea =>
  ['places', 'frames', 'plants', 'stores'].includes(list)

async function pass(
  path: string,
  onBytes: (bytes: number) => void,
  onPiece: ConstructorParameters<typeof Splitter>[1],
) {
  const splitter = new Splitter({ lists: gardenFileLists, wholes }, onPiece)
  for await (const chunk of createReadStream(path, { highWaterMark: 256 * 1024 })) {
    await splitter.write(chunk as Buffer)
    onBytes((chunk as Buffer).length)
  }
  splitter.end()
}

function checked<T>(schema: z.ZodType<T>, value: unknown, where: string): T {
  const parsed = schema.safeParse(value)
  if (parsed.success) return parsed.data
  const [issue] = parsed.error.issues
  throw new AppError('exchange/damaged', `${[where, ...issue!.path].join('.')}: ${issue!.message}`)
}

function checkedEntry(value: unknown, now: Date, where: string): Element<'entries'> {
  const read = readEntry(value, now)
  if ('entry' in read) return read.entry
  const { verdict } = read
  if (verdict.answer === 'good') throw new Error('an unread entry cannot be good')
  const [field] = 'fields' in verdict ? (verdict.fields ?? []) : []
  throw new AppError(
    'exchange/damaged',
    field ? `${where}.${field.path}: ${field.message}` : `${where}: ${verdict.message}`,
  )
}
