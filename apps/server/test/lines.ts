import { once } from 'node:events'
import { connect } from 'node:net'
import type { AddressInfo, Socket } from 'node:net'
import { setTimeout as pause } from 'node:timers/promises'
import type { Pool, PoolClient } from 'pg'
import type { App } from '../src/area.ts'

// Callers that behave badly, over real sockets.

/** Has the app listen, and answers its port. */
export async function listen(app: App): Promise<number> {
  await app.listen({ host: '127.0.0.1', port: 0 })
  return (app.server.address() as AddressInfo).port
}

export interface Asked {
  readonly method?: string
  readonly path: string
  readonly cookie: string
  readonly headers?: Readonly<Record<string, string>>
  /** Said to be so long; what is sent of it is the caller's affair. */
  readonly length?: number
}

/** A request's head on a line of its own; nothing of the answer is read. */
export async function ask(
  port: number,
  { method = 'GET', path, cookie, headers = {}, length }: Asked,
): Promise<Socket> {
  const socket = connect(port, '127.0.0.1')
  socket.on('error', () => undefined)
  await once(socket, 'connect')
  const lines = [
    `${method} ${path} HTTP/1.1`,
    'host: 127.0.0.1',
    `cookie: ${cookie}`,
    ...Object.entries(headers).map(([name, value]) => `${name}: ${value}`),
    ...(length === undefined ? [] : [`content-length: ${length}`]),
  ]
  socket.write(`${lines.join('\r\n')}\r\n\r\n`)
  socket.pause()
  return socket
}

/** The pool, with a word said before each of its statements and connections. */
export function stepping(pool: Pool, step: () => Promise<void>): Pool {
  const slow = (client: PoolClient): PoolClient =>
    new Proxy(client, {
      get: (of, key) => {
        const value = Reflect.get(of, key) as unknown
        if (key === 'query')
          return async (...args: unknown[]) => {
            await step()
            return (value as (...all: unknown[]) => unknown).apply(of, args)
          }
        return typeof value === 'function' ? (value as () => unknown).bind(of) : value
      },
    })
  return new Proxy(pool, {
    get: (of, key) => {
      if (key === 'connect')
        return async () => {
          await step()
          return slow(await of.connect())
        }
      if (key === 'query')
        return async (...args: Parameters<Pool['query']>) => {
          await step()
          return (of.query as (...all: unknown[]) => unknown)(...args)
        }
      const value = Reflect.get(of, key) as unknown
      return typeof value === 'function' ? (value as () => unknown).bind(of) : value
    },
  })
}

/** Resolves when it is so; throws when it does not come to be so. */
export async function until(isSo: () => boolean, what: string): Promise<void> {
  for (let tries = 0; tries < 800; tries++) {
    if (isSo()) return
    await pause(25)
  }
  throw new Error(`never: ${what}`)
}
