import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Garden } from '@klados/contract'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { buildApp } from '../src/app.ts'
import type { App } from '../src/area.ts'
import { createAppPool } from '../src/database/pool.ts'
import { signUp, startHarness } from './harness.ts'
import type { Harness } from './harness.ts'

let harness: Harness
let app: App
beforeAll(async () => {
  harness = await startHarness()
  const webRoot = mkdtempSync(join(tmpdir(), 'klados-web-'))
  mkdirSync(join(webRoot, 'assets'))
  writeFileSync(join(webRoot, 'index.html'), '<!doctype html><title>Klados</title>')
  writeFileSync(join(webRoot, 'assets', 'main-abc.js'), 'export {}')
  app = await buildApp({ ...harness.options, webRoot })
})
afterAll(async () => {
  await app.close()
  await harness.close()
})

describe('the pages', () => {
  it('are served at any address of the web app, fresh each time; assets may be kept for ever', async () => {
    for (const url of ['/', '/sign-in', '/g/some-garden/places/x/wood?on=2026-01-01']) {
      const reply = await app.inject({ url })
      expect(reply.statusCode).toBe(200)
      expect(reply.body).toContain('<title>Klados</title>')
      expect(reply.headers['cache-control']).toBe('no-cache')
    }
    const asset = await app.inject({ url: '/assets/main-abc.js' })
    expect(asset.headers['cache-control']).toContain('immutable')
  })

  it('are never the answer to a wrong address of the API, nor a way out of their folder', async () => {
    expect((await app.inject({ url: '/api/nothing' })).json()).toMatchObject({
      error: { code: 'route/not-found' },
    })
    for (const url of ['/../package.json', '/%2e%2e/%2e%2e/etc/passwd', '/assets/..%2f..%2fetc/passwd']) {
      const reply = await app.inject({ url })
      expect(reply.body).not.toContain('root:')
      expect(reply.statusCode < 500).toBe(true)
    }
  })
})

describe('a missing asset', () => {
  it('is a 404 in the one shape, never the page: a script tag would be handed HTML', async () => {
    for (const url of ['/assets/main-gone.js', '/assets/', '/favicon-gone.svg']) {
      const reply = await app.inject({ url })
      expect([url, reply.statusCode]).toEqual([url, 404])
      expect(reply.json()).toMatchObject({ error: { code: 'route/not-found' } })
    }
  })
})

describe('a database that is away', () => {
  it('is a 503 in the one shape, not a crash', async () => {
    const pool = createAppPool('postgres://nobody:x@127.0.0.1:9/none')
    const lost = await buildApp({ ...harness.options, pool, accounts: pool })
    const reply = await lost.inject({ url: '/api/health' })
    expect(reply.statusCode).toBe(503)
    expect(reply.json()).toMatchObject({ error: { code: 'server/unavailable' } })
    await lost.close()
    await pool.end()
  })
})

describe('garden settings', () => {
  it('are the owner’s to change, within what a garden can be', async () => {
    const owner = await signUp(app)
    const put = (payload: object) =>
      app.inject({
        method: 'PUT',
        url: `/api/gardens/${owner.gardenId}`,
        headers: { cookie: owner.cookie },
        payload,
      })
    expect((await put({ name: 'South', latitudeDeg: -41.3, currency: 'NZD' })).statusCode).toBe(204)
    const now = async () =>
      (
        await app.inject({ url: `/api/gardens/${owner.gardenId}`, headers: { cookie: owner.cookie } })
      ).json<Garden>()
    expect(await now()).toMatchObject({ name: 'South', latitudeDeg: -41.3, currency: 'NZD', role: 'owner' })
    // A page of before knows no time zones, and leaves the garden's as it is.
    const south = { name: 'South', latitudeDeg: -41.3, currency: 'NZD' }
    expect((await put({ ...south, timeZone: 'Pacific/Auckland' })).statusCode).toBe(204)
    expect((await put(south)).statusCode).toBe(204)
    expect((await now()).timeZone).toBe('Pacific/Auckland')
    expect((await put({ ...south, timeZone: 'Middle/Earth' })).statusCode).toBe(400)
    expect((await put({ ...south, timeZone: null })).statusCode).toBe(204)
    expect((await now()).timeZone).toBeNull()
    expect((await put({ name: 'South', latitudeDeg: 141, currency: 'NZD' })).statusCode).toBe(400)
    expect((await put({ name: 'South', latitudeDeg: 1, currency: 'dollars' })).statusCode).toBe(400)
  })

  it('make room for more than one garden of the same person', async () => {
    const owner = await signUp(app)
    const made = await app.inject({
      method: 'POST',
      url: '/api/gardens',
      headers: { cookie: owner.cookie },
      payload: { name: 'Allotment' },
    })
    expect(made.statusCode).toBe(201)
    const { memberships } = (
      await app.inject({ url: '/api/session', headers: { cookie: owner.cookie } })
    ).json<{ memberships: { gardenName: string }[] }>()
    expect(memberships.map((m) => m.gardenName)).toEqual(['Allotment', 'Home'])
  })
})
