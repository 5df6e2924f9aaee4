import type { OutboxStore } from './outbox-store.ts'

/** Runs `work` while no other window of this browser sends; false when another one does. */
export type SenderLock = (work: () => Promise<void>) => Promise<boolean>

const LEASE_MS = 90_000
/** Prolonged meanwhile, so that a window that lives never loses it in the middle of a slow request. */
const PROLONG_EACH_MS = 20_000

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
        await work()
      })
      return isOurs
    }
  }
  // Where the outbox cannot be read no other window reads it either.
  const prolong = () => store.lease(holder, now(), now() + LEASE_MS).catch(() => true)
  return async (work) => {
    if (!(await prolong())) return false
    const timer = setInterval(() => void prolong(), PROLONG_EACH_MS)
    try {
      await work()
    } finally {
      clearInterval(timer)
      await store.release(holder).catch(() => undefined)
    }
    return true
  }
}
