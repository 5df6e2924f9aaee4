import type { IncomingMessage } from 'node:http'
import type { Socket } from 'node:net'
import type { App } from './area.ts'

/** What a line has to carry, either way, while something is on it: a tenth of the slowest that people work over. */
export interface LineLimits {
  readonly leastBytesPerS: number
  /** Looked at over so long: a line may rest for a moment. */
  readonly overMs: number
}

interface Watched {
  /** What is coming in on it. */
  request: IncomingMessage | null
  sent: number
  read: number
  /** Since when the line has had something to carry without a break. */
  sendingSince: number
  readingSince: number
}

/**
 * Ends connections on which somebody reads or sends next to nothing: what is held for them is wanted by others. A line
 * on which nothing is under way may rest as long as it likes.
 */
export function watchLines(app: App, { leastBytesPerS, overMs }: LineLimits): void {
  const lines = new Map<Socket, Watched>()
  const look = () => {
    const now = performance.now()
    const least = (leastBytesPerS * overMs) / 1000
    for (const [socket, line] of lines) {
      const sent = socket.bytesWritten - socket.writableLength
      if (socket.writableLength === 0 || sent - line.sent >= least)
        [line.sent, line.sendingSince] = [sent, now]
      const isComing = line.request !== null && !line.request.complete
      if (!isComing || socket.bytesRead - line.read >= least)
        [line.read, line.readingSince] = [socket.bytesRead, now]
      if (now - line.sendingSince > overMs || now - line.readingSince > overMs) socket.destroy()
    }
  }
  const timer = setInterval(look, overMs / 4)
  timer.unref()
  app.server.on('connection', (socket: Socket) => {
    const now = performance.now()
    lines.set(socket, { request: null, sent: 0, read: 0, sendingSince: now, readingSince: now })
    socket.once('close', () => lines.delete(socket))
  })
  app.addHook('onRequest', async ({ raw }) => {
    const line = lines.get(raw.socket)
    if (!line) return
    line.request = raw
    line.read = raw.socket.bytesRead
    line.readingSince = performance.now()
  })
  app.addHook('onClose', async () => clearInterval(timer))
}
