import { API_HEADER } from '@klados/contract/limits'
import { copiedAccount } from './account-key.ts'
import { copyStore } from './copy-store.ts'

/** A photo as it lies on this device; `null` where it does not. */
export async function photoFromCopy(gardenId: string, fileId: string): Promise<Blob | null> {
  const accountId = copiedAccount()
  if (accountId === null) return null
  return (await copyStore.photo(accountId, gardenId, fileId).catch(() => undefined)) ?? null
}

/** Has a photo of the journal lie on this device, as it was taken or else as the server has it. */
export async function keepSeen(gardenId: string, fileId: string, taken?: Blob): Promise<void> {
  const accountId = copiedAccount()
  if (accountId === null || (await copyStore.photo(accountId, gardenId, fileId))) return
  const content = taken ?? (await photoOfServer(gardenId, fileId))
  // Signed out meanwhile, nobody wants it here any more.
  if (!content || copiedAccount() !== accountId) return
  await copyStore.keepSeen(accountId, gardenId, fileId, content)
}

async function photoOfServer(gardenId: string, fileId: string): Promise<Blob | null> {
  const reply = await fetch(`/api/gardens/${gardenId}/files/${fileId}`)
  return reply.ok && reply.headers.has(API_HEADER) ? reply.blob() : null
}

/**
 * Has the photos of a garden's places lie on this device, one after the other and without haste, and no others of
 * places: whoever stands before the wall without a signal wants to see it.
 */
export async function keepPhotos(gardenId: string, fileIds: readonly string[]): Promise<void> {
  const accountId = copiedAccount()
  if (accountId === null) return
  const here = await copyStore.photoIds(accountId, gardenId)
  const wanted = new Set(fileIds)
  const spent = here.filter((fileId) => !wanted.has(fileId))
  if (spent.length > 0) await copyStore.dropPhotos(accountId, gardenId, spent)
  for (const fileId of wanted) {
    if (here.includes(fileId) || document.visibilityState !== 'visible') continue
    const content = await photoOfServer(gardenId, fileId)
    if (!content) continue
    if (copiedAccount() !== accountId) return
    await copyStore.keepPhoto(accountId, gardenId, fileId, content)
  }
}
