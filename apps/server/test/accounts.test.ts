import type { Session } from '@klados/contract'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { addMember, cookieOf, signUp, startHarness } from './harness.ts'
import type { Harness, Person } from './harness.ts'

let harness: Harness
let owner: Person
beforeAll(async () => {
  harness = await startHarness()
  owner = await signUp(harness.app)
})
afterAll(() => harness.close())

const signIn = (email: string, password: string) =>
  harness.app.inject({ method: 'POST', url: '/api/session', payload: { email, password } })

describe('signing up and in', () => {
  it('makes an account with a garden of its own and opens a session', async () => {
    const session = (
      await harness.app.inject({ url: '/api/session', headers: { cookie: owner.cookie } })
    ).json<Session>()
    expect(session.memberships).toEqual([
      { gardenId: owner.gardenId, gardenName: 'Home', role: 'owner', goesAt: null },
    ])
    expect(session.account).toMatchObject({ email: owner.email, units: 'metric' })
    expect(session.hasDemo).toBe(false)
  })

  it('keeps no password and no token that could be used', async () => {
    const { rows } = await harness.accounts.query(
      `select password_hash, encode(token_hash, 'hex') as token from account join session using (account_id)`,
    )
    const token = owner.cookie.split('=')[1]!
    for (const row of rows) {
      expect(row.password_hash).toMatch(/^\$argon2id\$/)
      expect(row.token).not.toContain(token)
    }
  })

  it('answers a wrong password and an unknown address alike', async () => {
    const wrong = await signIn(owner.email, 'not this one')
    const unknown = await signIn('nobody@example.org', 'not this one')
    expect(wrong.statusCode).toBe(401)
    expect(unknown.json()).toEqual(wrong.json())
  })

  it('refuses an address twice, in any case of letters', async () => {
    const payload = {
      name: 'Again',
      email: owner.email.toUpperCase(),
      password: 'tie it loosely',
      gardenName: 'Two',
    }
    const reply = await harness.app.inject({ method: 'POST', url: '/api/accounts', payload })
    expect(reply.json()).toMatchObject({ error: { code: 'account/email-taken' } })
  })

  it('makes the first garden with the currency and the latitude that were told, or the usual ones', async () => {
    const gardenOf = async (told: object) => {
      const email = `told${Math.random()}@example.org`
      const payload = { name: 'Told', email, password: 'tie it loosely', gardenName: 'Far', ...told }
      const made = await harness.app.inject({ method: 'POST', url: '/api/accounts', payload })
      if (made.statusCode !== 201) return made.json() as object
      const headers = { cookie: cookieOf(made.headers['set-cookie']) }
      const session = await harness.app.inject({ url: '/api/session', headers })
      const [{ gardenId }] = session.json().memberships
      return (await harness.app.inject({ url: `/api/gardens/${gardenId}`, headers })).json() as object
    }
    expect(await gardenOf({ currency: 'NZD', latitudeDeg: -39 })).toMatchObject({
      currency: 'NZD',
      latitudeDeg: -39,
    })
    expect(await gardenOf({})).toMatchObject({ currency: 'EUR', latitudeDeg: 52 })
    expect(await gardenOf({ currency: 'pounds' })).toMatchObject({ error: {} })
    expect(await gardenOf({ timeZone: 'Pacific/Auckland' })).toMatchObject({ timeZone: 'Pacific/Auckland' })
    // Nobody is sent away because of a name that this server does not know.
    expect(await gardenOf({ timeZone: 'Middle/Earth' })).toMatchObject({ timeZone: null })
    expect(await gardenOf({ latitudeDeg: 120 })).toMatchObject({ error: {} })
  })

  it('ends the session on signing out, for that cookie too', async () => {
    const cookie = cookieOf((await signIn(owner.email, 'tie it loosely')).headers['set-cookie'])
    await harness.app.inject({ method: 'DELETE', url: '/api/session', headers: { cookie } })
    const after = await harness.app.inject({ url: `/api/gardens/${owner.gardenId}`, headers: { cookie } })
    expect(after.statusCode).toBe(401)
  })

  it('names the fields that are wrong', async () => {
    const reply = await harness.app.inject({
      method: 'POST',
      url: '/api/accounts',
      payload: { name: '', email: 'x' },
    })
    expect(reply.statusCode).toBe(400)
    const paths = reply.json<{ error: { fields: { path: string }[] } }>().error.fields.map((f) => f.path)
    expect(paths).toEqual(expect.arrayContaining(['email', 'password']))
  })

  it('slows down guessing', async () => {
    const strict = await startHarness({ limits: { guesses: { free: 3, longestS: 60 } } })
    const guess = () =>
      strict.app.inject({
        method: 'POST',
        url: '/api/session',
        payload: { email: 'a@example.org', password: 'guess' },
      })
    const codes = []
    for (let i = 0; i < 5; i++) codes.push((await guess()).statusCode)
    expect(codes).toEqual([401, 401, 401, 429, 429])
    expect((await guess()).json()).toMatchObject({ error: { code: 'request/too-many' } })
    await strict.close()
  })

  it('has no demo door when the server was started without the demo', async () => {
    const reply = await harness.app.inject({ method: 'POST', url: '/api/session/demo' })
    expect(reply.statusCode).toBe(404)
  })

  it('remembers the unit system', async () => {
    const headers = { cookie: owner.cookie }
    await harness.app.inject({
      method: 'PUT',
      url: '/api/account/preferences',
      headers,
      payload: { units: 'imperial' },
    })
    const session = (await harness.app.inject({ url: '/api/session', headers })).json<Session>()
    expect(session.account!.units).toBe('imperial')
  })

  it('are changed one by one, and a language is nobody’s until it is chosen', async () => {
    const headers = { cookie: owner.cookie }
    const prefer = (payload: object) =>
      harness.app.inject({ method: 'PUT', url: '/api/account/preferences', headers, payload })
    const account = async () =>
      (await harness.app.inject({ url: '/api/session', headers })).json<Session>().account!
    expect(await account()).toMatchObject({ units: 'imperial', language: null })
    await prefer({ language: 'en-US' })
    expect(await account()).toMatchObject({ units: 'imperial', language: 'en-US' })
    await prefer({ units: 'metric' })
    expect(await account()).toMatchObject({ units: 'metric', language: 'en-US' })
    expect((await prefer({ language: 'tlh' })).statusCode).toBe(400)
  })
})

describe('members', () => {
  it('join by address, change role, leave; the last owner stays', async () => {
    const other = await signUp(harness.app)
    await addMember(harness.app, owner, other, 'grower')
    const garden = () =>
      harness.app.inject({ url: `/api/gardens/${owner.gardenId}`, headers: { cookie: other.cookie } })
    expect((await garden()).json()).toMatchObject({ name: 'Home', role: 'grower' })
    const member = (person: Person, method: 'PUT' | 'DELETE', payload?: object) =>
      harness.app.inject({
        method,
        url: `/api/gardens/${owner.gardenId}/members/${person.accountId}`,
        headers: { cookie: owner.cookie },
        ...(payload ? { payload } : {}),
      })
    expect((await member(owner, 'PUT', { role: 'viewer' })).json()).toMatchObject({
      error: { code: 'garden/last-owner' },
    })
    expect((await member(other, 'PUT', { role: 'viewer' })).statusCode).toBe(204)
    expect((await garden()).json()).toMatchObject({ role: 'viewer' })
    expect((await member(other, 'DELETE')).statusCode).toBe(204)
    expect((await garden()).statusCode).toBe(404)
  })
})

describe('what comes back', () => {
  it('carries a content policy and keeps other sites from framing it', async () => {
    const { headers } = await harness.app.inject({ url: '/api/session' })
    expect(headers['content-security-policy']).toContain("default-src 'self'")
    expect(headers['content-security-policy']).toContain("frame-ancestors 'none'")
    expect(headers['content-security-policy']).not.toContain('unsafe')
  })

  it('describes itself as OpenAPI', async () => {
    const api = (await harness.app.inject({ url: '/api/openapi.json' })).json<{ paths: object }>()
    expect(Object.keys(api.paths)).toContain('/api/gardens/{gardenId}/journal')
  })
})
