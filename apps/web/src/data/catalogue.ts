import { standardCatalogue } from '@klados/core/catalogue'
import type { Catalogue } from '@klados/core/catalogue'
import type { StoresDocument } from '@klados/contract'
import { useStoresDocuments } from './documents.ts'

/**
 * The garden's stores, of which there is one document at the most: the oldest, should two have been made
 * apart.
 */
export function useStores(gardenId: string): StoresDocument | undefined {
  return useStoresDocuments(gardenId)?.find((stores) => !stores.isRemoved)
}

/** What can be bought: the garden's own catalogue, or the one that ships. */
export function useCatalogue(gardenId: string): Catalogue {
  return useStores(gardenId)?.body.catalogue ?? standardCatalogue
}
