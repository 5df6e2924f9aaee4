import type { OutboxStore } from './outbox-store.ts'

/**
 * Runs `work` while no other window of this browser sends; false when another one does. `keep` prolongs it.
 */
export type SenderLock = (work: (keep: () => Promise<void>) => Promise<void>) => Promise<boolean>

/** Longer than a request may take, so that a window that lives never loses it in the middle. */
const LEASE_MS = 90_000

/** The browser's own locks, which go with the window that held them; they are there on secure pages alone. */
export function createSenderLock(
  store: OutboxStore,
  holder: string,
  locks: LockManager | undefined,
  now: () => number,
): SenderLock {
  if (locks) {
    return async (work) => {
      let isOurs = false
      await locks.request('klados-sender', { ifAvailable: true }, async (lock) => {
        if (!lock) return
        isOurs = true
        await work(() => Promise.resolve())
      })
      return isOurs
    }
  }
  const prolong = () => store.lease(holder, now(), now() + LEASE_MS)
  return async (work) => {
    if (!(await prolong())) return false
    try {
      await work(async () => {
        await prolong()
      })
    } finally {
      await store.release(holder)
    }
    return true
  }
}
