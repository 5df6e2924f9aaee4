import type { Invitation, OpenSession, Session } from '@klados/contract'
import { v7 as uuidv7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { App } from '../src/area.ts'
import { addMember, cookieOf, invite, noteEntry, savePlace, signUp, startHarness } from './harness.ts'
import type { Harness, Person } from './harness.ts'

let harness: Harness
let app: App
beforeAll(async () => {
  harness = await startHarness({ hasDemo: true })
  app = harness.app
})
afterAll(() => harness.close())

const PASSWORD = 'tie it loosely'
const NEXT = 'wire by wire in April'
type Reply = Awaited<ReturnType<App['inject']>>
const codeOf = (reply: Reply) => reply.json<{ error?: { code: string } }>().error?.code
const as = (
  person: { cookie: string },
  method: 'GET' | 'PUT' | 'POST' | 'DELETE',
  url: string,
  payload?: object,
  headers: object = {},
) =>
  app.inject({ method, url, headers: { cookie: person.cookie, ...headers }, ...(payload ? { payload } : {}) })
const signIn = (email: string, password: string, more: object = {}, at = app) =>
  at.inject({ method: 'POST', url: '/api/session', payload: { email, password }, ...more })
const sessionOf = async (person: { cookie: string }) =>
  (await as(person, 'GET', '/api/session')).json<Session>()
const gardensOf = async (person: Person) =>
  (await sessionOf(person)).memberships.map(({ gardenId }) => gardenId)
const waitingFor = async (person: Person) =>
  (await as(person, 'GET', '/api/invitations')).json<Invitation[]>()
const accept = (person: { cookie: string }, gardenId: string, token?: string) =>
  as(person, 'POST', '/api/invitations/accept', { gardenId, ...(token ? { token } : {}) })

describe('an invitation', () => {
  it('makes nobody a member until they say so, and then once', async () => {
    const [owner, guest] = [await signUp(app), await signUp(app)]
    await invite(app, owner, guest, 'grower')
    expect(await gardensOf(guest)).toEqual([guest.gardenId])
    expect((await as(guest, 'GET', `/api/gardens/${owner.gardenId}`)).statusCode).toBe(404)
    expect(await waitingFor(guest)).toMatchObject([
      { gardenId: owner.gardenId, gardenName: 'Home', role: 'grower', invitedBy: 'Grower' },
    ])
    expect((await accept(guest, owner.gardenId)).statusCode).toBe(204)
    expect(await gardensOf(guest)).toContain(owner.gardenId)
    expect(codeOf(await accept(guest, owner.gardenId))).toBe('member/no-such-invitation')
    expect(await waitingFor(guest)).toEqual([])
  })

  it('is answered alike whether anybody has the address or nobody', async () => {
    const [owner, guest] = [await signUp(app), await signUp(app)]
    const ask = (email: string) =>
      as(owner, 'POST', `/api/gardens/${owner.gardenId}/members`, { email, role: 'grower' })
    const [known, unknown] = [await ask(guest.email), await ask('nobody.yet@example.org')]
    expect([known.statusCode, unknown.statusCode]).toEqual([201, 201])
    expect(Object.keys(known.json())).toEqual(Object.keys(unknown.json()))
    const garden = (await as(owner, 'GET', `/api/gardens/${owner.gardenId}`)).json<{ members: object[] }>()
    expect(garden.members).toHaveLength(1)
    expect(garden).toMatchObject({
      invitations: [{ email: guest.email }, { email: 'nobody.yet@example.org' }],
    })
  })

  it('to an address that nobody had is not theirs who sign up with it later, but by the link', async () => {
    const owner = await signUp(app)
    const email = `late.${uuidv7()}@example.org`
    const token = await invite(app, owner, { email }, 'viewer')
    const payload = { name: 'Late', email, password: PASSWORD, gardenName: 'Mine' }
    const signedUp = await app.inject({ method: 'POST', url: '/api/accounts', payload })
    const late = { cookie: cookieOf(signedUp.headers['set-cookie']) }
    expect((await as(late, 'GET', '/api/invitations')).json()).toEqual([])
    expect(codeOf(await accept(late, owner.gardenId))).toBe('member/no-such-invitation')
    const look = (gardenId: string) =>
      app.inject({ method: 'POST', url: '/api/invitations/look', payload: { gardenId, token } })
    expect((await look(owner.gardenId)).json()).toMatchObject({ gardenName: 'Home', role: 'viewer' })
    expect(codeOf(await look(uuidv7()))).toBe('member/no-such-invitation')
    expect((await accept(late, owner.gardenId, token)).statusCode).toBe(204)
    expect(codeOf(await look(owner.gardenId))).toBe('member/no-such-invitation')
  })

  it('is taken back by an owner and declined by the invited; a new one ends the link of before', async () => {
    const [owner, guest] = [await signUp(app), await signUp(app)]
    const first = await invite(app, owner, guest, 'grower')
    const second = await invite(app, owner, guest, 'viewer')
    expect(codeOf(await accept(guest, owner.gardenId, first))).toBe('member/no-such-invitation')
    const takeBack = () => as(owner, 'DELETE', `/api/gardens/${owner.gardenId}/invitations/${guest.email}`)
    expect((await takeBack()).statusCode).toBe(204)
    expect(codeOf(await takeBack())).toBe('member/no-such-invitation')
    expect(codeOf(await accept(guest, owner.gardenId, second))).toBe('member/no-such-invitation')
    await invite(app, owner, guest, 'grower')
    const decline = await as(guest, 'POST', '/api/invitations/decline', { gardenId: owner.gardenId })
    expect(decline.statusCode).toBe(204)
    expect(await waitingFor(guest)).toEqual([])
    expect(codeOf(await accept(guest, owner.gardenId))).toBe('member/no-such-invitation')
  })

  it('is not accepted under the role of the demo, and changes no role that somebody has', async () => {
    const [owner, guest] = [await signUp(app), await signUp(app)]
    await addMember(app, owner, guest, 'owner')
    const reply = await as(owner, 'POST', `/api/gardens/${owner.gardenId}/members`, {
      email: guest.email,
      role: 'viewer',
    })
    expect(codeOf(reply)).toBe('member/already')
    const token = await invite(app, owner, { email: 'else@example.org' }, 'viewer')
    expect((await accept(guest, owner.gardenId, token)).statusCode).toBe(204)
    expect((await sessionOf(guest)).memberships).toContainEqual({
      gardenId: owner.gardenId,
      gardenName: 'Home',
      role: 'owner',
      goesAt: null,
    })
  })
})

describe('an account is not taken over by a link for a new password', () => {
  const linkFor = (owner: Person, member: Person) =>
    as(owner, 'POST', `/api/gardens/${owner.gardenId}/members/${member.accountId}/reset-link`)
  const tokenFor = async (owner: Person, member: Person) => {
    const reply = await linkFor(owner, member)
    if (reply.statusCode !== 200) throw new Error(reply.body)
    return reply.json<{ path: string }>().path.split('#')[1]!
  }
  const use = (token: string) =>
    app.inject({ method: 'POST', url: '/api/account/new-password', payload: { token, next: NEXT } })
  const isTaken = async (token: string, victim: Person) => {
    await use(token)
    return (await signIn(victim.email, NEXT)).statusCode === 204
  }
  const remove = (owner: Person, member: Person) =>
    as(owner, 'DELETE', `/api/gardens/${owner.gardenId}/members/${member.accountId}`)
  const pair = async () => {
    const [owner, member] = [await signUp(app), await signUp(app)]
    await addMember(app, owner, member, 'grower')
    return { owner, member }
  }

  it('by inviting them: without their word there is no link', async () => {
    const [attacker, victim] = [await signUp(app), await signUp(app)]
    await invite(app, attacker, victim, 'grower')
    expect(codeOf(await linkFor(attacker, victim))).toBe('member/no-such-account')
  })

  it.each<readonly [string, (owner: Person, member: Person) => Promise<unknown>]>([
    [
      'after they have left',
      (owner, member) => as(member, 'DELETE', `/api/gardens/${owner.gardenId}/membership`),
    ],
    ['after they were taken out', (owner, member) => remove(owner, member)],
    [
      'after they were taken out and came again',
      async (owner, member) => {
        await remove(owner, member)
        await addMember(app, owner, member, 'grower')
      },
    ],
    [
      'after their role was changed, and changed back',
      async (owner, member) => {
        for (const role of ['viewer', 'grower'])
          await as(owner, 'PUT', `/api/gardens/${owner.gardenId}/members/${member.accountId}`, { role })
      },
    ],
    ['after they have signed in', (_, member) => signIn(member.email, PASSWORD)],
    [
      'after they have changed their password',
      (_, member) =>
        as(member, 'PUT', '/api/account/password', { current: PASSWORD, next: 'cane by cane in March' }),
    ],
    ['after they have come to have work of their own', (_, member) => savePlace(app, member)],
    [
      'after they have joined another garden that has something in it',
      async (_, member) => {
        const other = await signUp(app)
        await savePlace(app, other)
        await addMember(app, other, member, 'viewer')
      },
    ],
    [
      'after its maker is owner no more',
      async (owner) => {
        const heir = await signUp(app)
        await addMember(app, owner, heir, 'owner')
        await as(heir, 'PUT', `/api/gardens/${owner.gardenId}/members/${owner.accountId}`, { role: 'grower' })
      },
    ],
    [
      'after the garden was deleted',
      (owner) => as(owner, 'DELETE', `/api/gardens/${owner.gardenId}`, { name: 'Home' }),
    ],
  ])('%s', async (_, then) => {
    const { owner, member } = await pair()
    const token = await tokenFor(owner, member)
    await then(owner, member)
    expect(await isTaken(token, member)).toBe(false)
  })

  it('and one who has written in another garden of the same owner gets none', async () => {
    const { owner, member } = await pair()
    const second = (await as(owner, 'POST', '/api/gardens', { name: 'Second' })).json<{ id: string }>().id
    const there = { ...owner, gardenId: second }
    await addMember(app, there, member, 'grower')
    expect((await linkFor(owner, member)).statusCode).toBe(200)
    const placeId = await savePlace(app, there)
    await as(member, 'POST', `/api/gardens/${second}/entries`, { entries: [noteEntry(placeId)] })
    expect(codeOf(await linkFor(owner, member))).toBe('member/not-yours-to-reset')
  })

  it('is told of it at the next sign-in, until they have read it', async () => {
    const { owner, member } = await pair()
    await tokenFor(owner, member)
    const { notices } = await sessionOf(member)
    expect(notices).toMatchObject([{ kind: 'reset-link-made', byName: 'Grower', gardenName: 'Home' }])
    const url = `/api/account/notices/${notices![0]!.id}`
    await as(owner, 'DELETE', url)
    expect((await sessionOf(member)).notices).toHaveLength(1)
    await as(member, 'DELETE', url)
    expect((await sessionOf(member)).notices).toEqual([])
    expect((await use(await tokenFor(owner, member))).statusCode).toBe(204)
    const back = { cookie: cookieOf((await signIn(member.email, NEXT)).headers['set-cookie']) }
    expect((await sessionOf(back)).notices!.map(({ kind }) => kind)).toEqual([
      'reset-link-made',
      'password-set-by-link',
    ])
  })
})

describe('guesses from elsewhere', () => {
  it('slow down where they come from, longer each time, and not the owner', async () => {
    const strict = await startHarness({
      limits: { guesses: { free: 3, longestS: 900 } },
      trustedProxies: ['127.0.0.1'],
    })
    const owner = await signUp(strict.app)
    const from = (address: string) => ({ headers: { 'x-forwarded-for': address } })
    const guess = () => signIn(owner.email, 'guess', from('203.0.113.9'), strict.app)
    const codes = []
    for (let n = 0; n < 5; n++) codes.push((await guess()).statusCode)
    expect(codes).toEqual([401, 401, 401, 429, 429])
    // The account itself is not shut: not at home, nor for who is signed in, even from the guesser's own address.
    expect((await signIn(owner.email, PASSWORD, from('198.51.100.4'), strict.app)).statusCode).toBe(204)
    const change = await strict.app.inject({
      method: 'PUT',
      url: '/api/account/password',
      headers: { cookie: owner.cookie, ...from('203.0.113.9').headers },
      payload: { current: PASSWORD, next: NEXT },
    })
    expect(change.statusCode).toBe(204)
    await strict.close()
  })

  it('wait twice as long after each, up to the longest; a right one begins anew', async () => {
    const key = `test ${uuidv7()}`
    const wait = async (failures: number) => {
      await harness.accounts.query(
        `insert into guess (key, failures, last) values ($1, $2, clock_timestamp())
         on conflict (key) do update set failures = excluded.failures, last = excluded.last`,
        [key, failures],
      )
      const { rows } = await harness.accounts.query<{ s: number }>(`select take_guess($1, 3, 900) as s`, [
        key,
      ])
      return rows[0]!.s
    }
    expect([await wait(2), await wait(3), await wait(4), await wait(8), await wait(40)]).toEqual([
      0, 1, 2, 32, 900,
    ])
  })

  it('of a code that lets somebody back in are slowed likewise', async () => {
    const strict = await startHarness({ limits: { guesses: { free: 2, longestS: 900 } } })
    const owner = await signUp(strict.app)
    const recover = () =>
      strict.app.inject({
        method: 'POST',
        url: '/api/account/recover',
        payload: { email: owner.email, code: 'aaaa-bbbb-cccc-dddd', next: NEXT },
      })
    const codes = []
    for (let n = 0; n < 3; n++) codes.push((await recover()).statusCode)
    expect(codes).toEqual([404, 404, 429])
    await strict.close()
  })

  it('and a process without limits counts nothing that those with limits go by', async () => {
    const url = { ownerUrl: harness.ownerUrl, databaseUrl: harness.options.databaseUrl }
    const strict = await startHarness({ urls: url, limits: { signUps: { turns: 2, seconds: 600 } } })
    for (let n = 0; n < 5; n++) await signUp(app)
    await signUp(strict.app)
    await signUp(strict.app)
    await expect(signUp(strict.app)).rejects.toThrow(/too-many/)
    await strict.close()
  })
})

describe('recovery codes', () => {
  const make = (person: { cookie: string }, password = PASSWORD) =>
    as(person, 'POST', '/api/account/recovery-codes', { password })
  const recover = (email: string, code: string, next = NEXT) =>
    app.inject({ method: 'POST', url: '/api/account/recover', payload: { email, code, next } })

  it('let a sole owner back in, once each, without anybody’s help, and end every session', async () => {
    const [owner, other] = [await signUp(app), await signUp(app)]
    expect((await sessionOf(owner)).account!.recoveryCodes).toBe(0)
    expect(codeOf(await make(owner, 'not this one'))).toBe('session/wrong-credentials')
    const { codes } = (await make(owner)).json<{ codes: string[] }>()
    expect(new Set(codes).size).toBe(10)
    expect((await sessionOf(owner)).account!.recoveryCodes).toBe(10)
    expect(codeOf(await recover(other.email, codes[0]!))).toBe('account/no-such-code')
    expect(codeOf(await recover(owner.email, codes[0]!, 'password123'))).toBe('account/weak-password')
    // As somebody types it who reads it off paper.
    const typed = ` ${codes[0]!.toUpperCase().replaceAll('-', ' ')} `
    expect((await recover(owner.email, typed)).statusCode).toBe(204)
    expect((await sessionOf(owner)).account).toBeNull()
    expect(codeOf(await recover(owner.email, codes[0]!))).toBe('account/no-such-code')
    const back = { cookie: cookieOf((await signIn(owner.email, NEXT)).headers['set-cookie']) }
    expect(await sessionOf(back)).toMatchObject({
      account: { recoveryCodes: 9 },
      notices: [{ kind: 'password-set-by-code' }],
    })
    await make(back, NEXT)
    expect(codeOf(await recover(owner.email, codes[1]!))).toBe('account/no-such-code')
  })

  it('are kept as hashes alone', async () => {
    const owner = await signUp(app)
    const { codes } = (await make(owner)).json<{ codes: string[] }>()
    const { rows } = await harness.accounts.query<{ kept: string }>(
      `select encode(code_hash, 'escape') || encode(code_hash, 'hex') as kept from recovery_code`,
    )
    expect(rows.some(({ kept }) => codes.some((code) => kept.includes(code)))).toBe(false)
  })
})

describe('one’s own sessions', () => {
  const list = async (person: { cookie: string }) =>
    (await as(person, 'GET', '/api/account/sessions')).json<OpenSession[]>()

  it('are listed with what they were opened by, and end one by one', async () => {
    const [owner, other] = [await signUp(app), await signUp(app)]
    const agent = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0'
    const phone = await signIn(owner.email, PASSWORD, { headers: { 'user-agent': agent } })
    const elsewhere = { cookie: cookieOf(phone.headers['set-cookie']) }
    const [own, there] = await list(owner)
    expect(own).toMatchObject({ isThis: true })
    expect(there).toMatchObject({ isThis: false, browser: 'Firefox', system: 'Linux' })
    const end = (person: Person) => as(person, 'DELETE', `/api/account/sessions/${there!.id}`)
    expect(codeOf(await end(other))).toBe('account/no-such-session')
    expect((await sessionOf(elsewhere)).account).not.toBeNull()
    expect((await end(owner)).statusCode).toBe(204)
    expect((await sessionOf(elsewhere)).account).toBeNull()
    expect(await list(owner)).toHaveLength(1)
  })
})

describe('what is written', () => {
  it('under one account is not taken under another’s session, and stays free where nobody says', async () => {
    const [ada, ben] = [await signUp(app), await signUp(app)]
    await addMember(app, ada, ben, 'grower')
    const placeId = await savePlace(app, ada)
    const send = (writer?: string) =>
      as(
        ben,
        'POST',
        `/api/gardens/${ada.gardenId}/entries`,
        { entries: [noteEntry(placeId)] },
        writer ? { 'klados-writer': writer } : {},
      )
    expect(codeOf(await send(ada.accountId))).toBe('session/other-account')
    expect((await send(ben.accountId)).statusCode).toBe(200)
    expect((await send()).statusCode).toBe(200)
    const { entries } = (await as(ada, 'GET', `/api/gardens/${ada.gardenId}/journal`)).json<{
      entries: object[]
    }>()
    expect(entries).toHaveLength(2)
  })
})
