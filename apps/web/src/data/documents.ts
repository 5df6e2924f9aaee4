import { isNewerBody } from '@klados/contract/upcasts'
import type { FrameDocument, Garden, Place, Plant, StoresDocument } from '@klados/contract'
import { api } from './api.ts'
import type { WithApi } from './api.ts'
import type { AREAS } from './copy/paths.ts'
import { useAppSelector } from './store.ts'
import { lastSave } from './sync/items.ts'
import type { DocumentArea, DocumentItem } from './sync/items.ts'
import { selectUnsentDocuments } from './sync/slice.ts'

interface Document {
  readonly id: string
  readonly version: number
  readonly isRemoved: boolean
  readonly note: string
  readonly savedAt: string
  readonly savedBy: string
  readonly bodyVersion?: number | undefined
  readonly body: unknown
}

/** What the server has, with what was saved here and has not reached it yet in its place. */
export function withUnsent<D extends Document>(stored: readonly D[], unsent: readonly DocumentItem[]): D[] {
  const waiting = new Map(unsent.map((item) => [item.documentId, item]))
  const merged = stored.map((document) => {
    const item = waiting.get(document.id)
    if (!item) return document
    waiting.delete(document.id)
    const { body, isRemoved } = lastSave(item)
    return { ...document, body, isRemoved } as D
  })
  // One that the server does not know yet has version 0: what is saved on top of it begins there too.
  const fresh = [...waiting.values()].map((item) => {
    const { body, isRemoved, note } = lastSave(item)
    return {
      id: item.documentId,
      version: 0,
      isRemoved,
      note,
      savedAt: new Date(0).toISOString(),
      savedBy: item.accountName,
      body,
    } as unknown as D
  })
  return [...merged, ...fresh]
}

interface Merge {
  readonly unsent: readonly DocumentItem[]
  readonly merged: Document[]
}
const merges = new WeakMap<readonly Document[], Merge>()

/** All that ask for the same are given the same object, so that what follows from it is reckoned once too. */
function mergedOnce<D extends Document>(stored: readonly D[], unsent: readonly DocumentItem[]): D[] {
  const known = merges.get(stored)
  if (known?.unsent === unsent) return known.merged as D[]
  const merged = withUnsent(stored, unsent)
  merges.set(stored, { unsent, merged })
  return merged
}

type Documents<D> = D[] | undefined
type AnswerIn = (state: WithApi) => { readonly data?: unknown }
const answers = new Map<string, AnswerIn>()

/**
 * What the server last said of a garden. Opening the garden asks for all of it and keeps it up to date: whoever shows it
 * only looks, since hundreds of lines do so, and all of them again with each tap.
 */
function answerOf(area: (typeof AREAS)[number], gardenId: string): AnswerIn {
  const key = `${area} ${gardenId}`
  const known = answers.get(key) ?? (api.endpoints[area as 'places'].select(gardenId) as AnswerIn)
  answers.set(key, known)
  return known
}

const isOfLater = (area: DocumentArea, { bodyVersion }: { readonly bodyVersion?: number | undefined }) =>
  isNewerBody(area, bodyVersion)
const reads = new WeakMap<readonly Document[], Document[]>()
/** Those that this release reads; mostly all of them, and then the very list. */
function readOf<D extends Document>(area: DocumentArea, stored: D[]): D[] {
  const known = reads.get(stored)
  if (known) return known as D[]
  const read = stored.some((one) => isOfLater(area, one))
    ? stored.filter((one) => !isOfLater(area, one))
    : stored
  reads.set(stored, read)
  return read
}

const EVERY: readonly DocumentArea[] = ['places', 'frames', 'plants', 'stores']
/** How many documents of a garden a later release has written: they are there, and not for this page to show. */
export const useNewerDocuments = (gardenId: string): number =>
  useAppSelector((state) =>
    EVERY.reduce((count, area) => {
      const stored = (answerOf(area, gardenId)(state).data as Document[] | undefined) ?? []
      return count + stored.length - readOf(area, stored).length
    }, 0),
  )

function useDocuments<D extends Document>(area: DocumentArea, gardenId: string): Documents<D> {
  return useAppSelector((state) => {
    const stored = answerOf(area, gardenId)(state).data as Documents<D>
    return stored && mergedOnce(readOf(area, stored), selectUnsentDocuments(state, area, gardenId))
  })
}

export const usePlaces = (gardenId: string): Documents<Place> => useDocuments('places', gardenId)
export const useFrames = (gardenId: string): Documents<FrameDocument> => useDocuments('frames', gardenId)
export const usePlants = (gardenId: string): Documents<Plant> => useDocuments('plants', gardenId)
export const useStoresDocuments = (gardenId: string): Documents<StoresDocument> =>
  useDocuments('stores', gardenId)

export const useGarden = (gardenId: string): Garden | undefined =>
  useAppSelector((state) => answerOf('garden', gardenId)(state).data as Garden | undefined)
