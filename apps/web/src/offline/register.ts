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

/** So long nothing has come over the line before all the pages are fetched, and so long one waits for that at most. */
const QUIET_MS = 1500
const LONGEST_MS = 20_000

/** A first visit on a slow line waits for the screen that was asked for, not for all the others as well. */
function whenQuiet(): Promise<void> {
  return new Promise((resolve) => {
    const done = () => {
      observer.disconnect()
      clearTimeout(quiet)
      clearTimeout(longest)
      resolve()
    }
    const observer = new PerformanceObserver(() => {
      clearTimeout(quiet)
      quiet = setTimeout(done, QUIET_MS)
    })
    let quiet = setTimeout(done, QUIET_MS)
    const longest = setTimeout(done, LONGEST_MS)
    observer.observe({ type: 'resource' })
  })
}

/**
 * Keeps the pages on this device. A newer release waits until somebody takes it: nothing is changed under one's hands.
 */
export async function register(): Promise<void> {
  if (!canWorkAway()) return
  if (!navigator.serviceWorker.controller) await whenQuiet()
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
