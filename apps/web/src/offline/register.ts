import type { Workbox } from 'workbox-window'

type Listener = () => void
const listeners = new Set<Listener>()
let waiting: Workbox | null = null

/** Whether a newer release lies ready on this device. */
export const isReleaseWaiting = (): boolean => waiting !== null
export function onRelease(listener: Listener): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

/** Takes the release that is ready; every window of Klados comes back on it. */
export function takeRelease(): void {
  waiting?.messageSkipWaiting()
}

/** Whether this address can be opened without a signal: browsers allow it only where the line is secured. */
export const canWorkAway = (): boolean => isSecureContext && 'serviceWorker' in navigator

const LOOK_AGAIN_MS = 60 * 60_000

/**
 * Keeps the pages on this device. A newer release waits until somebody takes it: nothing is changed under one's hands.
 */
export async function register(): Promise<void> {
  if (!canWorkAway()) return
  const { Workbox } = await import('workbox-window')
  const workbox = new Workbox('/sw.js')
  workbox.addEventListener('waiting', () => {
    waiting = workbox
    listeners.forEach((listener) => listener())
  })
  workbox.addEventListener('controlling', ({ isUpdate }) => {
    if (isUpdate) location.reload()
  })
  await workbox.register().catch(() => undefined)
  setInterval(() => {
    if (document.visibilityState === 'visible') void workbox.update().catch(() => undefined)
  }, LOOK_AGAIN_MS)
  // Else the browser may throw the copy away when the disk runs short.
  await navigator.storage?.persist?.().catch(() => false)
}
