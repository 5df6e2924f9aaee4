import { readStanding } from '@klados/contract/standing'
import { lazyFold } from '@klados/core/part-fold'
import { anchorId } from '@klados/core/frame'
import { planFrame } from '@klados/core/plan'
import type { JournalPage, Session } from '@klados/contract'
import { replayFrames, replayWood } from '@klados/core/journal'
import { tieStanding } from '@klados/core/wood'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { createDemoCopies } from '../src/demo/copies.ts'
import { makeTarnClose } from '../src/demo/tarn-close.ts'
import { cookieOf, invite, noteEntry, signUp, startHarness } from './harness.ts'
import type { Harness } from './harness.ts'

let harness: Harness
beforeAll(async () => {
  harness = await startHarness({ hasDemo: true })
})
afterAll(() => harness.close())

describe('the demo garden', () => {
  it.each(['2026-01-15', '2026-03-05', '2026-06-20', '2026-11-24', '2028-02-29'])(
    'replays without a misfit and holds nothing after %s',
    (today) => {
      const demo = makeTarnClose(today)
      expect(replayWood(demo.entries).misfits).toEqual([])
      expect(demo.entries.every((entry) => entry.at <= today)).toBe(true)
      expect(demo.entries.length).toBeGreaterThan(200)
    },
  )

  it('is the sum of its plants: the wood of each follows from its own entries alone', () => {
    const { entries, plants } = makeTarnClose('2026-06-20')
    const whole = replayWood(entries)
    const own = plants.map(({ id }) => replayWood(entries.filter(({ plantId }) => plantId === id)))
    expect(new Map(own.flatMap(({ pieces }) => [...pieces]))).toEqual(whole.pieces)
    expect(new Map(own.flatMap(({ ties }) => [...ties]))).toEqual(whole.ties)
  })

  it('has a frame of many a kind, each without a problem and each post of the block built', () => {
    const demo = makeTarnClose('2026-06-20')
    const places = new Map(demo.places.map((place) => [place.id, place.body]))
    const plans = demo.frames.map(({ body }) => planFrame(places.get(body.placeId)!, body.design))
    expect(plans.flatMap((plan) => plan.problems)).toEqual([])
    expect(new Set(plans.map((plan) => plan.frame!.kind)).size).toBeGreaterThanOrEqual(6)
    const built = replayFrames(demo.entries)
    const trial = demo.frames.findIndex(({ id }) => (built.get(id)?.posts.size ?? 0) > 0)
    const block = built.get(demo.frames[trial]!.id)!
    expect(block.posts.size).toBe(plans[trial]!.markOut!.rows.filter((row) => row.what === 'post').length)
    expect(block.drives.get(anchorId('anchor-right'))).toMatchObject({ torqueNm: 380, isRefused: false })
    expect([...block.tensions.values()][0]!.map((log) => log.what)).toEqual(['set', 'found', 'found'])
  })

  it('has every tie on its wire, and most of them know which that is', () => {
    const demo = makeTarnClose('2026-11-24')
    const frames = new Map(
      demo.frames.flatMap(({ id, body }) => {
        const place = demo.places.find((one) => one.id === body.placeId)!
        const { frame } = planFrame(place.body, body.design)
        return frame ? [[id, frame] as const] : []
      }),
    )
    const ties = [...replayWood(demo.entries).ties.values()].filter((tie) => tie.endedOn === null)
    const standing = ties.map((tie) => ({ at: tie.at, ...tieStanding(tie, frames) }))
    expect(standing.filter((one) => one.is !== 'sound' && one.is !== 'unknown')).toEqual([])
    expect(standing.filter((one) => one.is === 'sound').length).toBeGreaterThan(ties.length / 2)
  })

  it('has nothing that would not hold, as it was built', () => {
    const demo = makeTarnClose('2026-11-24')
    const built = replayFrames(demo.entries)
    for (const { id, body } of demo.frames) {
      const place = demo.places.find((one) => one.id === body.placeId)!
      const { checks } = planFrame(place.body, body.design, { drives: built.get(id)?.drives ?? new Map() })
      expect(checks.filter((check) => check.verdict !== 'holds')).toEqual([])
    }
  })
})

describe('a copy of the demo garden', () => {
  const as = (cookie: string, method: 'GET' | 'POST' | 'PUT' | 'DELETE', url: string, payload?: object) =>
    harness.app.inject({ method, url, headers: { cookie }, ...(payload ? { payload } : {}) })
  const codeOf = (reply: { json: () => unknown }) =>
    (reply.json() as { error?: { code: string } }).error?.code
  const visit = async (payload?: object) => {
    const reply = await harness.app.inject({
      method: 'POST',
      url: '/api/session/demo',
      ...(payload ? { payload } : {}),
    })
    expect(reply.statusCode).toBe(204)
    return cookieOf(reply.headers['set-cookie'])
  }
  const sessionOf = async (cookie: string) => (await as(cookie, 'GET', '/api/session')).json<Session>()
  const gardenOf = async (cookie: string) => (await sessionOf(cookie)).memberships[0]!.gardenId
  const entriesOf = async (cookie: string, garden: string) =>
    (await as(cookie, 'GET', `/api/gardens/${garden}/journal`)).json<JournalPage>().entries
  const asOwner = async (sql: string) => {
    const owner = new pg.Client({ connectionString: harness.ownerUrl })
    await owner.connect()
    const result = await owner.query(sql)
    await owner.end()
    return result.rows as { n: number }[]
  }
  const signUpWith = (cookie: string, email: string, more: object = {}) =>
    as(cookie, 'POST', '/api/accounts', {
      name: 'Wren',
      email,
      password: 'tie it loosely',
      gardenName: 'Behind the shed',
      keepsDemo: true,
      ...more,
    })

  it('is a visitor’s own: whole, as of today, and what another writes in theirs is not in it', async () => {
    const [one, other] = [await visit(), await visit({ units: 'imperial' })]
    const session = await sessionOf(one)
    expect(session).toMatchObject({
      hasDemo: true,
      account: { isDemo: true, name: 'Rowan', units: 'metric' },
      memberships: [{ gardenName: 'Tarn Close', role: 'owner' }],
    })
    expect((await sessionOf(other)).account!.units).toBe('imperial')
    const goesIn = Date.parse(session.memberships[0]!.goesAt!) - Date.now()
    expect(goesIn).toBeGreaterThan(23.9 * 3_600_000)
    expect(goesIn).toBeLessThanOrEqual(24 * 3_600_000)

    const [mine, theirs] = [await gardenOf(one), await gardenOf(other)]
    expect(mine).not.toBe(theirs)
    const before = await entriesOf(one, mine)
    expect(replayWood(before).misfits).toEqual([])
    // In the order of the model, which is what a replay goes by.
    expect((await entriesOf(other, theirs)).map(({ id }) => id)).toEqual(before.map(({ id }) => id))
    // However large the demo grows, a device opens a copy by its folds as it opens any garden.
    const { folds } = readStanding((await as(one, 'GET', `/api/gardens/${mine}/standing`)).body)
    expect(folds.length).toBeGreaterThan(0)
    for (const fold of folds) expect(lazyFold(fold).brief().basis).toBeTruthy()
    const places = (await as(one, 'GET', `/api/gardens/${mine}/places`)).json<{ id: string }[]>()
    const payload = { entries: [noteEntry(places[0]!.id)] }
    expect((await as(one, 'POST', `/api/gardens/${mine}/entries`, payload)).statusCode).toBe(200)
    expect(await entriesOf(one, mine)).toHaveLength(before.length + 1)
    expect(await entriesOf(other, theirs)).toHaveLength(before.length)
    expect(codeOf(await as(one, 'GET', `/api/gardens/${theirs}/journal`))).toBe('garden/not-found')
    // Coming back finds it again.
    await as(one, 'POST', '/api/session/demo')
    expect(await gardenOf(one)).toBe(mine)
  })

  it('is the visitor’s alone: nobody is invited, no password is to be set, no other garden made', async () => {
    const cookie = await visit()
    const garden = await gardenOf(cookie)
    const invited = { email: 'somebody@example.org', role: 'owner' }
    expect(codeOf(await as(cookie, 'POST', `/api/gardens/${garden}/members`, invited))).toBe('garden/demo')
    expect(codeOf(await as(cookie, 'POST', `/api/gardens/${garden}/keep`, { name: 'Mine' }))).toBe(
      'account/demo',
    )
    expect(codeOf(await as(cookie, 'POST', '/api/gardens', { name: 'Mine' }))).toBe('account/demo')
    expect(codeOf(await as(cookie, 'DELETE', '/api/account', { password: 'x' }))).toBe('account/demo')
    expect(
      codeOf(
        await as(cookie, 'PUT', '/api/account/password', { current: 'x', next: 'wire by wire in April' }),
      ),
    ).toBe('account/demo')
  })

  it('is gone after a day with its visitor, as is the model; what was kept stays', async () => {
    const [gone, kept] = [await visit(), await visit()]
    const mine = await gardenOf(kept)
    const reply = await signUpWith(kept, 'wren.kept@example.org')
    expect(reply.statusCode).toBe(201)
    const own = cookieOf(reply.headers['set-cookie'])
    await asOwner(`update garden set created_at = created_at - interval '25 hours'`)
    await asOwner(`update account set created_at = created_at - interval '25 hours'`)
    const again = createDemoCopies(harness.pool, harness.options.databaseUrl)
    await again.keepUp()
    again.close()
    expect((await sessionOf(gone)).account).toBeNull()
    expect(await gardenOf(own)).toBe(mine)
    expect(await asOwner(`select count(*) as n from garden where is_demo and demo_day is null`)).toEqual([
      { n: 0 },
    ])
    // The model of today has been made anew, and the next visitor gets a copy of it.
    expect(await asOwner(`select count(*) as n from garden where demo_day is not null`)).toEqual([{ n: 1 }])
    const next = await visit()
    expect((await entriesOf(next, await gardenOf(next))).length).toBeGreaterThan(2000)
  })

  it('becomes a garden of one’s own on signing up, with what was done in it and without the crew', async () => {
    const cookie = await visit()
    const garden = await gardenOf(cookie)
    const [place] = (await as(cookie, 'GET', `/api/gardens/${garden}/places`)).json<{ id: string }[]>()
    const written = noteEntry(place!.id)
    await as(cookie, 'POST', `/api/gardens/${garden}/entries`, { entries: [written] })
    const was = (await sessionOf(cookie)).account!
    const reply = await signUpWith(cookie, 'wren@example.org', {
      currency: 'USD',
      latitudeDeg: -37,
      units: 'imperial',
    })
    expect(reply.statusCode).toBe(201)
    // Whoever held the visitor's session does not hold the account's.
    expect((await sessionOf(cookie)).account).toBeNull()
    const own = cookieOf(reply.headers['set-cookie'])
    expect(await sessionOf(own)).toMatchObject({
      account: { id: was.id, name: 'Wren', email: 'wren@example.org', isDemo: false, units: 'imperial' },
      memberships: [{ gardenId: garden, gardenName: 'Behind the shed', role: 'owner', goesAt: null }],
    })
    expect((await as(own, 'GET', `/api/gardens/${garden}`)).json()).toMatchObject({
      currency: 'USD',
      latitudeDeg: -37,
      members: [{ name: 'Wren', role: 'owner' }],
    })
    expect((await entriesOf(own, garden)).at(-1)!.id).toBe(written.id)
    expect(codeOf(await signUpWith(own, 'wren.again@example.org'))).toBe('demo/gone')
  })

  it('is not kept under an address that somebody has, and opens no invitation that was not meant for it', async () => {
    const { app } = harness
    const somebody = await signUp(app)
    const cookie = await visit()
    expect(codeOf(await signUpWith(cookie, somebody.email))).toBe('account/email-taken')
    expect((await sessionOf(cookie)).account!.isDemo).toBe(true)
    // Of two who take an address in the same moment one has it.
    const both = [await visit(), await visit()]
    const taken = await Promise.all(both.map((one) => signUpWith(one, 'twice@example.org')))
    expect(taken.map(({ statusCode }) => statusCode).sort()).toEqual([201, 409])
    // Invited after the visitor came and before they took the address: an address proves nothing here.
    const email = 'not-mine@example.org'
    await invite(app, somebody, { email }, 'owner')
    const own = cookieOf((await signUpWith(cookie, email)).headers['set-cookie'])
    expect((await as(own, 'GET', '/api/invitations')).json()).toEqual([])
    expect(codeOf(await as(own, 'POST', '/api/invitations/accept', { gardenId: somebody.gardenId }))).toBe(
      'member/no-such-invitation',
    )
  })

  it('stands beside the gardens of whoever has an account, once, and is kept by a name', async () => {
    const { cookie } = await signUp(harness.app)
    const { id } = (await as(cookie, 'POST', '/api/demo')).json<{ id: string }>()
    expect((await as(cookie, 'POST', '/api/demo')).json()).toEqual({ id })
    expect((await sessionOf(cookie)).memberships).toHaveLength(2)
    expect((await as(cookie, 'POST', `/api/gardens/${id}/keep`, { name: 'Trial ground' })).statusCode).toBe(
      204,
    )
    expect(codeOf(await as(cookie, 'POST', `/api/gardens/${id}/keep`, { name: 'Again' }))).toBe('demo/gone')
    expect((await sessionOf(cookie)).memberships).toContainEqual({
      gardenId: id,
      gardenName: 'Trial ground',
      role: 'owner',
      goesAt: null,
    })
  })
})
