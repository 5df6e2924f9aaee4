import { once } from 'node:events'
import { readFileSync } from 'node:fs'
import { request } from 'node:https'
import type { IncomingMessage } from 'node:http'
import type { AddressInfo } from 'node:net'
import { fileURLToPath } from 'node:url'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { buildApp } from '../src/app.ts'
import { startHarness } from './harness.ts'
import type { Harness } from './harness.ts'

let harness: Harness
beforeAll(async () => {
  harness = await startHarness()
})
afterAll(() => harness.close())

// Made for this test alone, and trusted by nobody else.
const file = (name: string) => readFileSync(fileURLToPath(new URL(`tls/${name}.pem`, import.meta.url)))

it('speaks HTTPS with a certificate that it is given, and its cookie is then for TLS alone', async () => {
  const tls = { cert: file('cert'), key: file('key') }
  const app = await buildApp({ ...harness.options, tls })
  try {
    await app.listen({ host: '127.0.0.1', port: 0 })
    const { port } = app.server.address() as AddressInfo
    const body = JSON.stringify({
      name: 'Grower',
      email: 'tls@example.org',
      password: 'tie it loosely',
      gardenName: 'Home',
    })
    const asked = request({
      host: 'localhost',
      port,
      path: '/api/accounts',
      method: 'POST',
      ca: tls.cert,
      headers: { 'content-type': 'application/json', 'content-length': Buffer.byteLength(body) },
    })
    asked.end(body)
    const [reply] = (await once(asked, 'response')) as [IncomingMessage]
    reply.resume()
    expect(reply.statusCode).toBeLessThan(300)
    expect(reply.headers['set-cookie']?.[0]).toMatch(/; Secure/i)
  } finally {
    await app.close()
  }
})
