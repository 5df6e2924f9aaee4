import { API_VERSION } from '@klados/contract'
import { v7 as uuidv7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { buildApp } from '../src/app.ts'
import type { App } from '../src/area.ts'
import { addMember, cookieOf, noteEntry, savePlace, signUp, startHarness } from './harness.ts'
import type { Harness, Person } from './harness.ts'

let harness: Harness
let app: App
beforeAll(async () => {
  harness = await startHarness()
  app = harness.app
})
afterAll(() => harness.close())

const PASSWORD = 'tie it loosely'
type Reply = Awaited<ReturnType<App['inject']>>
const codeOf = (reply: Reply) => reply.json<{ error?: { code: string } }>().error?.code
const as = (
  person: { cookie: string },
  method: 'GET' | 'PUT' | 'POST' | 'DELETE',
  url: string,
  payload?: object,
) => app.inject({ method, url, headers: { cookie: person.cookie }, ...(payload ? { payload } : {}) })
const signIn = (email: string, password: string) =>
  app.inject({ method: 'POST', url: '/api/session', payload: { email, password } })
const isIn = async (cookie: string) =>
  (await as({ cookie }, 'GET', '/api/session')).json<{ account: object | null }>().account !== null

describe('a password', () => {
  it('is changed by who knows it, and every other device is signed out', async () => {
    const person = await signUp(app)
    const elsewhere = cookieOf((await signIn(person.email, PASSWORD)).headers['set-cookie'])
    const change = (current: string, next: string) =>
      as(person, 'PUT', '/api/account/password', { current, next })
    expect(codeOf(await change('not this one', 'cane by cane in March'))).toBe('session/wrong-credentials')
    expect((await change(PASSWORD, 'cane by cane in March')).statusCode).toBe(204)
    expect(await isIn(person.cookie)).toBe(true)
    expect(await isIn(elsewhere)).toBe(false)
    expect((await signIn(person.email, PASSWORD)).statusCode).toBe(401)
    expect((await signIn(person.email, 'cane by cane in March')).statusCode).toBe(204)
  })

  it.each(['password123', '1234567890', 'qwertyuiop', 'aaaaaaaaaaaa'])(
    'such as %s is refused, with a word why',
    async (password) => {
      const payload = { name: 'Ada', email: `${uuidv7()}@example.org`, password, gardenName: 'Home' }
      expect(codeOf(await app.inject({ method: 'POST', url: '/api/accounts', payload }))).toBe(
        'account/weak-password',
      )
    },
  )

  it('may not be one’s own name or address', async () => {
    const payload = {
      name: 'Wilhelmina Rosenthal',
      email: 'wilhelmina.rosenthal@example.org',
      password: 'wilhelmina rosenthal',
      gardenName: 'Home',
    }
    expect(codeOf(await app.inject({ method: 'POST', url: '/api/accounts', payload }))).toBe(
      'account/weak-password',
    )
  })
})

describe('a link for a new password', () => {
  const linkFor = (owner: Person, member: Person) =>
    as(owner, 'POST', `/api/gardens/${owner.gardenId}/members/${member.accountId}/reset-link`)
  const use = (path: string, next = 'wire by wire in April') =>
    app.inject({
      method: 'POST',
      url: '/api/account/new-password',
      payload: { token: path.split('#')[1], next },
    })

  it('made by the owner of the only garden somebody works in sets it once and ends all their sessions', async () => {
    const [owner, member] = [await signUp(app), await signUp(app)]
    await addMember(app, owner, member, 'grower')
    const reply = await linkFor(owner, member)
    expect(reply.statusCode).toBe(200)
    const { path } = reply.json<{ path: string }>()
    const other = (await linkFor(owner, member)).json<{ path: string }>().path
    expect(codeOf(await use(path))).toBe('account/no-such-link')
    expect(codeOf(await use(other, 'password123'))).toBe('account/weak-password')
    expect((await use(other)).statusCode).toBe(204)
    expect(codeOf(await use(other))).toBe('account/no-such-link')
    expect(await isIn(member.cookie)).toBe(false)
    expect((await signIn(member.email, 'wire by wire in April')).statusCode).toBe(204)
  })

  it('cannot be made by somebody who would come into gardens that are not theirs', async () => {
    const [attacker, victim] = [await signUp(app), await signUp(app)]
    await savePlace(app, victim)
    await addMember(app, attacker, victim, 'grower')
    expect(codeOf(await linkFor(attacker, victim))).toBe('member/not-yours-to-reset')
    expect(codeOf(await linkFor(attacker, attacker))).toBe('member/not-yours-to-reset')
    const stranger = await signUp(app)
    expect(codeOf(await linkFor(attacker, stranger))).toBe('member/no-such-account')
  })

  it('is kept as a hash alone', async () => {
    const [owner, member] = [await signUp(app), await signUp(app)]
    await addMember(app, owner, member, 'grower')
    const token = (await linkFor(owner, member)).json<{ path: string }>().path.split('#')[1]!
    const { rows } = await harness.accounts.query<{ hash: Buffer }>(
      'select token_hash as hash from reset_link',
    )
    expect(
      rows.some(
        ({ hash }) => hash.toString('latin1').includes(token) || hash.toString('base64url').includes(token),
      ),
    ).toBe(false)
  })
})

describe('signing out everywhere', () => {
  it('ends every session of the account', async () => {
    const person = await signUp(app)
    const elsewhere = cookieOf((await signIn(person.email, PASSWORD)).headers['set-cookie'])
    await as(person, 'DELETE', '/api/sessions')
    expect([await isIn(person.cookie), await isIn(elsewhere)]).toEqual([false, false])
  })
})

describe('leaving', () => {
  it('is a member’s own to do, but for the last owner', async () => {
    const [owner, member] = [await signUp(app), await signUp(app)]
    await addMember(app, owner, member, 'viewer')
    const leave = (person: Person) => as(person, 'DELETE', `/api/gardens/${owner.gardenId}/membership`)
    expect((await leave(member)).statusCode).toBe(204)
    expect((await as(member, 'GET', `/api/gardens/${owner.gardenId}`)).statusCode).toBe(404)
    expect(codeOf(await leave(owner))).toBe('garden/last-owner')
  })

  it('a garden deleted takes everything in it along, at its owner’s word and with its name typed', async () => {
    const [owner, member] = [await signUp(app), await signUp(app)]
    await addMember(app, owner, member, 'grower')
    const placeId = await savePlace(app, owner)
    await as(owner, 'POST', `/api/gardens/${owner.gardenId}/entries`, { entries: [noteEntry(placeId)] })
    const remove = (person: Person, name: string) =>
      as(person, 'DELETE', `/api/gardens/${owner.gardenId}`, { name })
    expect((await remove(member, 'Home')).statusCode).toBe(403)
    expect(codeOf(await remove(owner, 'Hom'))).toBe('request/malformed')
    expect((await remove(owner, 'Home')).statusCode).toBe(204)
    expect((await as(owner, 'GET', `/api/gardens/${owner.gardenId}`)).statusCode).toBe(404)
  })

  it('an account deleted takes its lonely gardens along, leaves what it wrote in others, and asks first where it is the only owner', async () => {
    const [owner, member] = [await signUp(app), await signUp(app)]
    await addMember(app, owner, member, 'grower')
    const placeId = await savePlace(app, owner)
    await as(member, 'POST', `/api/gardens/${owner.gardenId}/entries`, { entries: [noteEntry(placeId)] })
    const remove = (person: Person, password = PASSWORD) => as(person, 'DELETE', '/api/account', { password })
    expect(codeOf(await remove(owner))).toBe('account/sole-owner')
    expect(codeOf(await remove(member, 'not this one'))).toBe('session/wrong-credentials')
    expect((await remove(member)).statusCode).toBe(204)
    expect(await isIn(member.cookie)).toBe(false)
    const { entries } = (await as(owner, 'GET', `/api/gardens/${owner.gardenId}/journal`)).json<{
      entries: { by: string }[]
    }>()
    expect(entries.map((entry) => entry.by)).toEqual([''])
    expect((await remove(owner)).statusCode).toBe(204)
  })
})

describe('what the garden’s queries may see', () => {
  it('is no hash, no session and no address of anybody outside the garden', async () => {
    const person = await signUp(app)
    for (const table of ['account', 'session', 'reset_link', 'throttle'])
      await expect(harness.pool.query(`select * from ${table}`)).rejects.toThrow(/permission denied/)
    for (const table of ['garden', 'entry', 'document', 'membership', 'file'])
      await expect(harness.accounts.query(`select * from ${table}`)).rejects.toThrow(/permission denied/)
    expect((await harness.pool.query('select * from member_contact')).rowCount).toBe(0)
    const { fields } = await harness.pool.query('select * from person limit 1')
    expect(fields.map((field) => field.name)).toEqual(['account_id', 'name'])
    expect(person.accountId).toBeDefined()
  })
})

describe('allowances', () => {
  it('of gardens and of bytes are the account’s that made them, whoever writes', async () => {
    const tight = await startHarness({ limits: { gardens: 2, bytes: 60_000 } })
    const [owner, member] = [await signUp(tight.app), await signUp(tight.app)]
    await addMember(tight.app, owner, member, 'grower')
    const send = (person: Person, method: 'PUT' | 'POST', url: string, payload: object) =>
      tight.app.inject({ method, url, headers: { cookie: person.cookie }, payload })
    expect((await send(owner, 'POST', '/api/gardens', { name: 'Two' })).statusCode).toBe(201)
    expect(codeOf(await send(owner, 'POST', '/api/gardens', { name: 'Three' }))).toBe('garden/too-many')
    const placeId = await savePlace(tight.app, owner)
    const entries = Array.from({ length: 40 }, () =>
      noteEntry(placeId, { body: { v: 1, text: 'x'.repeat(1900) } }),
    )
    expect(
      (await send(member, 'POST', `/api/gardens/${owner.gardenId}/entries`, { entries })).statusCode,
    ).toBe(200)
    expect(
      codeOf(
        await send(member, 'POST', `/api/gardens/${owner.gardenId}/entries`, {
          entries: [noteEntry(placeId)],
        }),
      ),
    ).toBe('garden/full')
    expect((await savePlace(tight.app, member)).length).toBe(36)
    await tight.close()
  })
})

describe('throttling', () => {
  it('is held across processes: what one has counted another knows', async () => {
    const strict = await startHarness({ limits: { signIns: { turns: 4, seconds: 60 } } })
    const twin = await buildApp(strict.options)
    const guess = (target: App, email: string) =>
      target.inject({ method: 'POST', url: '/api/session', payload: { email, password: 'guess' } })
    const codes = []
    for (let i = 0; i < 6; i++)
      codes.push((await guess(i % 2 === 0 ? strict.app : twin, 'a@example.org')).statusCode)
    expect(codes).toEqual([401, 401, 401, 401, 429, 429])
    const blocked = await guess(twin, 'a@example.org')
    expect(Number(blocked.headers['retry-after'])).toBeGreaterThan(0)
    await twin.close()
    await strict.close()
  })

  it('counts the caller behind a trusted proxy, and takes nobody else’s word for who that is', async () => {
    const limits = { signIns: { turns: 2, seconds: 60 } }
    const guessFrom = async (harnessAt: Harness, address: string, n: number) =>
      (
        await harnessAt.app.inject({
          method: 'POST',
          url: '/api/session',
          headers: { 'x-forwarded-for': address },
          payload: { email: `${n}@example.org`, password: 'guess' },
        })
      ).statusCode
    const behind = await startHarness({ limits, trustedProxies: ['127.0.0.1'] })
    expect([
      await guessFrom(behind, '203.0.113.1', 1),
      await guessFrom(behind, '203.0.113.1', 2),
      await guessFrom(behind, '203.0.113.1', 3),
      await guessFrom(behind, '203.0.113.2', 4),
    ]).toEqual([401, 401, 429, 401])
    await behind.close()
    const direct = await startHarness({ limits })
    expect([
      await guessFrom(direct, '203.0.113.1', 1),
      await guessFrom(direct, '203.0.113.2', 2),
      await guessFrom(direct, '203.0.113.3', 3),
    ]).toEqual([401, 401, 429])
    await direct.close()
  })

  it('holds one account from wherever it asks, and no other at the same address', async () => {
    const strict = await startHarness({
      limits: { requests: { turns: 30, seconds: 60 } },
      trustedProxies: ['127.0.0.1'],
    })
    const person = await signUp(strict.app)
    const ask = async (cookie: string, n: number) =>
      (
        await strict.app.inject({
          url: '/api/session',
          headers: { cookie, 'x-forwarded-for': `203.0.113.${n}` },
        })
      ).statusCode
    const codes = []
    for (let i = 0; i < 40; i++) codes.push(await ask(person.cookie, i))
    expect(codes.filter((code) => code === 429).length).toBeGreaterThan(5)
    expect(await ask('', 99)).toBe(200)
    await strict.close()
  })
})

describe('behind TLS', () => {
  it('the cookie is for TLS alone; on plain HTTP it is not, or nobody could sign in', async () => {
    const behind = await startHarness({ trustedProxies: ['127.0.0.1'] })
    await signUp(behind.app)
    const enter = async (proto: string) => {
      const reply = await behind.app.inject({
        method: 'POST',
        url: '/api/accounts',
        headers: { 'x-forwarded-proto': proto },
        payload: { name: 'A', email: `${uuidv7()}@example.org`, password: PASSWORD, gardenName: 'Home' },
      })
      return String(reply.headers['set-cookie'])
    }
    expect(await enter('https')).toMatch(/; Secure/)
    expect(await enter('http')).not.toMatch(/; Secure/)
    await behind.close()
  })
})

describe('every answer of the API', () => {
  it('carries our mark and is kept by nobody on the way, refusals and broken requests too', async () => {
    for (const url of ['/api/session', '/api/nothing', '/api/gardens/x', '/api/health']) {
      const { headers } = await app.inject({ url })
      expect([url, headers['klados-api'], headers['cache-control']]).toEqual([url, API_VERSION, 'no-store'])
    }
    const broken = await app.inject({ url: '/api/%' })
    expect(broken.statusCode).toBe(400)
    expect(codeOf(broken)).toBe('request/malformed')
    expect(broken.headers['klados-api']).toBe(API_VERSION)
  })
})
