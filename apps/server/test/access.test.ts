import { v7 as uuidv7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { RouteAccess as Route } from '../src/access.ts'
import { buildApp } from '../src/app.ts'
import { addMember, savePlace, signUp, startHarness } from './harness.ts'
import type { Harness, Person } from './harness.ts'

let harness: Harness
let owner: Person
let stranger: Person
let viewer: Person
let routes: Route[]

beforeAll(async () => {
  harness = await startHarness()
  owner = await signUp(harness.app)
  stranger = await signUp(harness.app)
  viewer = await signUp(harness.app)
  await addMember(harness.app, owner, viewer, 'viewer')
  await savePlace(harness.app, owner)
  routes = harness.app.routeTable.filter((route) => route.method !== 'HEAD')
})
afterAll(() => harness.close())

const fill = (url: string) => url.replace(':gardenId', owner.gardenId).replace(/:\w+/g, () => uuidv7())
const call = (route: Route, cookie?: string) =>
  harness.app.inject({
    method: route.method as 'GET',
    url: fill(route.url),
    ...(cookie ? { headers: { cookie } } : {}),
    ...(route.method === 'GET' || route.method === 'DELETE' ? {} : { payload: {} }),
  })

describe('every route of the table', () => {
  it('is there: the enumeration finds gardens, documents and the journal', () => {
    expect(routes.length).toBeGreaterThan(15)
    expect(routes.map((r) => `${r.method} ${r.url}`)).toContain('POST /api/gardens/:gardenId/entries')
    for (const route of routes) {
      if (route.url.includes(':gardenId')) expect(['viewer', 'grower', 'owner']).toContain(route.access)
    }
  })

  it('turns away somebody who is not signed in, before reading what they sent', async () => {
    for (const route of routes.filter((r) => r.access !== 'public')) {
      const reply = await call(route)
      expect([route.url, reply.statusCode]).toEqual([route.url, 401])
      expect(reply.json()).toMatchObject({ error: { code: 'session/required' } })
    }
  })

  it('gives a member of another garden nothing, not even that the garden exists', async () => {
    for (const route of routes.filter((r) => r.url.includes(':gardenId'))) {
      const reply = await call(route, stranger.cookie)
      expect([route.url, reply.statusCode]).toEqual([route.url, 404])
      expect(reply.json()).toMatchObject({ error: { code: 'garden/not-found' } })
    }
  })

  it('lets a viewer read and refuses every write', async () => {
    // Leaving is everybody's own to do.
    const others = routes.filter((r) => r.url.includes(':gardenId') && !r.url.endsWith('/membership'))
    for (const route of others) {
      const reply = await call(route, viewer.cookie)
      if (route.method === 'GET')
        expect([route.url, reply.statusCode < 500 && ![401, 403].includes(reply.statusCode)]).toEqual([
          route.url,
          true,
        ])
      else expect([route.url, reply.statusCode]).toEqual([route.url, 403])
    }
  })

  it('changed nothing by all that', async () => {
    const reply = await harness.app.inject({
      url: `/api/gardens/${owner.gardenId}/places`,
      headers: { cookie: owner.cookie },
    })
    expect(reply.json()).toHaveLength(1)
  })
})

describe('a new route', () => {
  it('cannot be registered without saying who may use it', async () => {
    const app = await buildApp(harness.options)
    expect(() => app.get('/api/open', () => 'x')).toThrow(/does not say who may use it/)
    await app.close()
  })
})

describe('SQL under the app’s role', () => {
  it('sees no row of any garden’s table while no garden is set', async () => {
    const { rows } = await harness.pool.query<{ name: string }>(
      `select c.table_name as name from information_schema.columns c
       where c.column_name = 'garden_id' and c.table_schema = 'public'`,
    )
    expect(rows.map((r) => r.name).sort()).toEqual([
      'document',
      'document_revision',
      'entry',
      'file',
      'file_chunk',
      'file_piece',
      'garden',
      'garden_fold',
      'invitation',
      'member_contact',
      'membership',
      'part_fold',
    ])
    for (const { name } of rows) {
      expect((await harness.pool.query(`select 1 from ${name}`)).rowCount).toBe(0)
    }
  })

  it('cannot write into a garden that is not set, nor change what was written once, nor turn the rules off', async () => {
    const insert = `insert into membership (garden_id, account_id, role) values ($1, $2, 'owner')`
    await expect(harness.pool.query(insert, [owner.gardenId, stranger.accountId])).rejects.toThrow(
      /row-level security/,
    )
    await expect(harness.pool.query(`update entry set body = '{}'`)).rejects.toThrow(/permission denied/)
    await expect(harness.pool.query(`delete from document_revision`)).rejects.toThrow(/permission denied/)
    await expect(harness.pool.query(`alter table entry disable row level security`)).rejects.toThrow(
      /must be owner/,
    )
    const { rows } = await harness.pool.query<{ super: boolean }>(
      `select rolsuper or rolbypassrls as super from pg_roles where rolname = current_user`,
    )
    expect(rows[0]!.super).toBe(false)
  })
})

describe('requests from other sites', () => {
  it('are refused when they write, and only then', async () => {
    const headers = { cookie: owner.cookie, host: 'klados.test', origin: 'https://elsewhere.test' }
    const url = '/api/account/preferences'
    const write = await harness.app.inject({ method: 'PUT', url, headers, payload: { units: 'metric' } })
    expect(write.json()).toMatchObject({ error: { code: 'request/foreign-origin' } })
    const own = { ...headers, origin: 'http://klados.test' }
    expect(
      (await harness.app.inject({ method: 'PUT', url, headers: own, payload: { units: 'metric' } }))
        .statusCode,
    ).toBe(204)
    const hidden = { cookie: owner.cookie, 'sec-fetch-site': 'cross-site' }
    expect(
      (await harness.app.inject({ method: 'PUT', url, headers: hidden, payload: { units: 'metric' } }))
        .statusCode,
    ).toBe(403)
    expect((await harness.app.inject({ url: '/api/session', headers })).statusCode).toBe(200)
  })
})
