import { createServer } from 'node:net'

/** Outgoing connections are given ports from 32768 on (Linux): one of them may have a server's port when it comes back to it. */
const [FIRST, LAST] = [15_000, 32_000]

/** A port on loopback that nobody listens on, and that stays free for a server that is stopped and started again. */
export async function freePort() {
  for (;;) {
    const port = FIRST + Math.floor(Math.random() * (LAST - FIRST))
    const probe = createServer()
    const isFree = await new Promise((resolve) => {
      probe.once('error', () => resolve(false))
      probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)))
    })
    if (isFree) return port
  }
}
