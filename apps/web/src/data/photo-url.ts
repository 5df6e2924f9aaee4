import { useEffect } from 'react'
import { useAppSelector } from './store.ts'
import { photoKey } from './sync/items.ts'

/**
 * Addresses of photos that wait, by id: the outbox hands out another Blob of the same bytes at each reading.
 */
const local = new Map<string, string>()

/** Where a photo can be shown from: this device while it waits to be sent, the server from then on. */
export function usePhotoUrl(gardenId: string, fileId: string): string {
  const key = photoKey(fileId)
  const waiting = useAppSelector((state) => state.sync.items.find((item) => item.key === key))
  const isWaiting = waiting?.kind === 'photo'
  if (isWaiting && !local.has(fileId)) local.set(fileId, URL.createObjectURL(waiting.content))
  useEffect(() => {
    if (isWaiting) return
    const url = local.get(fileId)
    if (url) URL.revokeObjectURL(url)
    local.delete(fileId)
  }, [fileId, isWaiting])
  return (isWaiting && local.get(fileId)) || `/api/gardens/${gardenId}/files/${fileId}`
}
