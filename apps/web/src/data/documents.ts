import type { FrameDocument, Place, Plant, StoresDocument } from '@klados/contract'
import { useMemo } from 'react'
import { api } from './api.ts'
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

function useMerged<D extends Document>(
  area: DocumentArea,
  gardenId: string,
  data: readonly D[] | undefined,
): D[] | undefined {
  const unsent = useAppSelector((state) => selectUnsentDocuments(state, area, gardenId))
  return useMemo(() => data && mergedOnce(data, unsent), [data, unsent])
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

export function usePlaces(gardenId: string): Place[] | undefined {
  return useMerged('places', gardenId, api.usePlacesQuery(gardenId).data)
}
export function useFrames(gardenId: string): FrameDocument[] | undefined {
  return useMerged('frames', gardenId, api.useFramesQuery(gardenId).data)
}
export function usePlants(gardenId: string): Plant[] | undefined {
  return useMerged('plants', gardenId, api.usePlantsQuery(gardenId).data)
}
export function useStoresDocuments(gardenId: string): StoresDocument[] | undefined {
  return useMerged('stores', gardenId, api.useStoresQuery(gardenId).data)
}
