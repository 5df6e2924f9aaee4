import { useEffect, useState } from 'react'
import { photoFromCopy } from './copy/photos.ts'
import { useAppSelector } from './store.ts'
import { photoKey } from './sync/items.ts'

/**
 * Addresses of photos that wait, by id: the outbox hands out another Blob of the same bytes at each reading.
 */
const local = new Map<string, string>()

/** A picture of nothing, as long as it is not known whether the photo lies here. */
const NOTHING_YET = 'data:image/gif;base64,R0lGODlhAQABAAAAACwAAAAAAQABAAA='

/** Where a photo can be shown from: this device while it waits to be sent or was kept here, else the server. */
export function usePhotoUrl(gardenId: string, fileId: string): string {
  const key = photoKey(fileId)
  const waiting = useAppSelector((state) => state.sync.items.find((item) => item.key === key))
  const isWaiting = waiting?.kind === 'photo'
  if (isWaiting && !local.has(fileId)) local.set(fileId, URL.createObjectURL(waiting.content))
  const [kept, setKept] = useState<{ readonly fileId: string; readonly url: string } | null>(null)
  useEffect(() => {
    if (isWaiting) return
    const url = local.get(fileId)
    if (url) URL.revokeObjectURL(url)
    local.delete(fileId)
    let own: string | undefined
    let isGone = false
    void photoFromCopy(gardenId, fileId).then((content) => {
      if (isGone) return
      if (content) own = URL.createObjectURL(content)
      setKept({ fileId, url: own ?? `/api/gardens/${gardenId}/files/${fileId}` })
    })
    return () => {
      isGone = true
      if (own) URL.revokeObjectURL(own)
    }
  }, [gardenId, fileId, isWaiting])
  if (isWaiting) return local.get(fileId)!
  return kept?.fileId === fileId ? kept.url : NOTHING_YET
}
