import { anchorId } from '@klados/core/frame'
import { planFrame } from '@klados/core/plan'
import type { JournalPage, Session } from '@klados/contract'
import { replayFrames, replayWood } from '@klados/core/journal'
import { tieStanding } from '@klados/core/wood'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { seedDemo } from '../src/demo/seed.ts'
import { makeTarnClose } from '../src/demo/tarn-close.ts'
import { cookieOf, noteEntry, startHarness } from './harness.ts'
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

  it('opens with one click, is made once, and anew on a later day only while nobody has written in it', async () => {
    const day = (n: number) => new Date(Date.now() + n * 86_400_000)
    const { ownerUrl, pool, app } = harness
    expect(await seedDemo(ownerUrl, pool, day(0))).toBe('seeded')
    expect(await seedDemo(ownerUrl, pool, day(0))).toBe('kept')
    expect(await seedDemo(ownerUrl, pool, day(2))).toBe('seeded')

    const cookie = cookieOf(
      (await app.inject({ method: 'POST', url: '/api/session/demo' })).headers['set-cookie'],
    )
    const session = (await app.inject({ url: '/api/session', headers: { cookie } })).json<Session>()
    expect(session).toMatchObject({
      hasDemo: true,
      memberships: [{ gardenName: 'Tarn Close', role: 'owner' }],
    })
    const base = `/api/gardens/${session.memberships[0]!.gardenId}`
    const journal = (await app.inject({ url: `${base}/journal`, headers: { cookie } })).json<JournalPage>()
    expect(replayWood(journal.entries).misfits).toEqual([])

    const places = (await app.inject({ url: `${base}/places`, headers: { cookie } })).json<{ id: string }[]>()
    const payload = { entries: [noteEntry(places[0]!.id)] }
    expect(
      (await app.inject({ method: 'POST', url: `${base}/entries`, headers: { cookie }, payload })).statusCode,
    ).toBe(200)
    expect(await seedDemo(ownerUrl, pool, day(4))).toBe('kept')
  })
})
