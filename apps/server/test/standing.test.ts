import type { JournalPage, Standing } from '@klados/contract'
import { readStanding } from '@klados/contract/standing'
import { PART_FOLD_RULES, basisOf, foldPart, lazyFold, partOf } from '@klados/core/part-fold'
import type { PartFold } from '@klados/core/part-fold'
import pg from 'pg'
import type { PoolClient } from 'pg'
import { v7 as uuidv7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { grewBody } from '../../../packages/core/test/bodies.ts'
import { buildApp } from '../src/app.ts'
import { inGarden } from '../src/database/transaction.ts'
import { readEntriesOf } from '../src/journal/queries.ts'
import { gardensToFold } from '../src/database/to-fold.ts'
import { noteEntry, savePlace, savePlant, signUp, startHarness } from './harness.ts'
import type { Harness, Person } from './harness.ts'

let harness: Harness
let owner: Person
let places: string[]
let plants: string[]
beforeAll(async () => {
  harness = await startHarness()
})
afterAll(() => harness.close())

const ask = (path: string, app = harness.app) =>
  app.inject({ url: `/api/gardens/${owner.gardenId}${path}`, headers: { cookie: owner.cookie } })
const get = async <T>(path: string, app = harness.app): Promise<T> => (await ask(path, app)).json<T>()
const getStanding = async (query = '', app = harness.app): Promise<Standing> =>
  readStanding((await ask(`/standing${query}`, app)).body)
const append = async (entries: object[]) => {
  for (let n = 0; n < entries.length; n += 500) {
    const reply = await harness.app.inject({
      method: 'POST',
      url: `/api/gardens/${owner.gardenId}/entries`,
      headers: { cookie: owner.cookie },
      payload: { entries: entries.slice(n, n + 500) },
    })
    expect(reply.body).not.toMatch(/refused|held/)
  }
}
const grew = (n: number, rest: object = {}) =>
  noteEntry(places[n]!, {
    kind: 'piece.grew',
    plantId: plants[n]!,
    body: grewBody(uuidv7()),
    ...rest,
  })
const removed = ({ plantId, placeId, body }: ReturnType<typeof grew>, rest: object = {}) =>
  noteEntry(placeId as string, {
    kind: 'piece.removed',
    plantId,
    body: { v: 1, pieceId: (body as object as { pieceId: string }).pieceId, reason: '' },
    ...rest,
  })

/** What all entries of each part make at once, up to a number, by the journal that the server reads out. */
async function wanted(upTo: number): Promise<Map<string, PartFold>> {
  const { entries: all } = await get<JournalPage>('/journal')
  const entries = all.filter(({ seq }) => seq <= upTo)
  return new Map(
    [...new Set(entries.map(partOf))].map((part) => [
      part,
      foldPart(
        part,
        entries.filter((entry) => partOf(entry) === part),
      ),
    ]),
  )
}
async function expectStanding(app = harness.app): Promise<Standing> {
  const standing = await getStanding('', app)
  const folds = standing.folds.map(lazyFold)
  expect(new Map(folds.map((fold) => [fold.part, fold.whole()]))).toEqual(await wanted(standing.upTo))
  for (const { part, brief } of folds) {
    // Reckoned for the kind of its own plant; what was written of none has no days.
    expect(brief().basis).toBe(
      basisOf({ kindId: part.startsWith('place ') ? null : 'pear', hemisphere: 'north' }),
    )
  }
  return standing
}

const expectUpTo = (seq: number, app = harness.app) =>
  expect.poll(async () => (await expectStanding(app)).upTo, { timeout: 20_000 }).toBe(seq)

/** As if everything had been folded by other rules, into what means nothing here. */
const foldedBy = (rules: string) =>
  asOwner(async (client) => {
    await client.query(`update garden_fold set rules = $1`, [rules])
    await client.query(`update part_fold set fold = '{}'`)
  })

async function asOwner(work: (client: pg.Client) => Promise<unknown>): Promise<void> {
  const client = new pg.Client({ connectionString: harness.ownerUrl })
  await client.connect()
  await work(client)
  await client.end()
}

describe('what stands in a garden', () => {
  beforeAll(async () => {
    owner = await signUp(harness.app)
    places = [await savePlace(harness.app, owner), await savePlace(harness.app, owner)]
    plants = [
      await savePlant(harness.app, owner, places[0]!),
      await savePlant(harness.app, owner, places[1]!),
    ]
  })

  it('is nothing in an empty garden, and of a small one not told', async () => {
    expect(await expectStanding()).toMatchObject({ head: 0, upTo: 0, folds: [], greatestId: null })
    await append([noteEntry(places[0]!)])
    expect(await getStanding('?small=10')).toMatchObject({ head: 1, upTo: 0, folds: [] })
  })

  it('is what all entries come to, whether few have come since or many, dated back or taken back', async () => {
    const [pear, rose] = [grew(0), grew(1)]
    await append([pear, rose, noteEntry(places[1]!)])
    const first = await expectStanding()
    expect(first).toMatchObject({ head: 4, upTo: 4 })
    // Gone on from, then from all: one that is dated back, and one that takes another back.
    await append([removed(pear)])
    await expectStanding()
    const late = grew(0, { at: '2020-03-01' })
    await append([
      late,
      noteEntry(rose.placeId as string, {
        kind: 'entry.withdrawn',
        plantId: rose.plantId,
        supersedes: rose.id,
        body: { v: 1 },
      }),
    ])
    const then = await expectStanding()
    expect(then.upTo).toBe(7)
    expect(then.greatestId).toBe(
      (await get<JournalPage>('/journal')).entries
        .map(({ id }) => id)
        .sort()
        .at(-1),
    )
    // More than are folded where one stands: nobody waits for them, and they are folded all the same.
    await append(Array.from({ length: 260 }, (_, n) => grew(n % 2)))
    const soon = await expectStanding()
    expect(soon).toMatchObject({ head: 267 })
    await expectUpTo(267)
  })

  it('is folded once, by whichever of two servers is asked, and once more by other rules', async () => {
    const other = await buildApp(harness.options)
    await append(Array.from({ length: 150 }, (_, n) => grew(n % 2)))
    await Promise.all([expectStanding(), expectStanding(other)])
    await Promise.all([expectUpTo(417), expectUpTo(417, other)])
    await other.close()
    await foldedBy('of others')
    await expectStanding()
  })

  it('is made anew after a release, before somebody asks', async () => {
    await foldedBy('of the release before')
    const toFold = await gardensToFold(harness.ownerUrl, PART_FOLD_RULES)
    expect(toFold).toEqual([owner.gardenId])
    const released = await buildApp({ ...harness.options, toFold })
    await released.listen({ host: '127.0.0.1', port: 0 })
    await expect.poll(() => gardensToFold(harness.ownerUrl, PART_FOLD_RULES), { timeout: 20_000 }).toEqual([])
    await released.close()
    await expectStanding()
  })

  it('is there before somebody asks where a garden has gained much', async () => {
    await append(Array.from({ length: 2000 }, () => noteEntry(places[0]!)))
    await asOwner((client) => {
      const reach = async () =>
        (await client.query<{ up_to: string }>(`select up_to from garden_fold`)).rows[0]!.up_to
      return expect.poll(async () => Number(await reach()), { timeout: 20_000 }).toBeGreaterThanOrEqual(2000)
    })
  })
})

describe('the journal of one place, or of one plant', () => {
  it('is looked up by itself, and the garden is not gone through for it', async () => {
    const { gardenId } = await signUp(harness.app)
    await asOwner(async (client) => {
      await client.query(
        `insert into entry (garden_id, seq, entry_id, place_id, kind, at, recorded_at, written_by, body)
         select $1, n, gen_random_uuid(), gen_random_uuid(), 'note.written', '2026-03-01', now(),
           (select account_id from account limit 1), '{"v":1,"text":"seen"}'
         from generate_series(1, 4000) as n`,
        [gardenId],
      )
      await client.query('analyze entry')
    })
    const plan = await inGarden(harness.pool, gardenId, (client) => {
      const query = (text: string, values: unknown[]) => client.query(`explain ${text}`, values)
      return readEntriesOf({ query } as unknown as PoolClient, gardenId, [places[0]!], 3)
    })
    expect(JSON.stringify(plan)).toMatch(/Index Cond: .*CASE WHEN .* = s.subject/)
  })

  it('is what was written there, and all of the plants that were written of there', async () => {
    const moved = grew(0, { placeId: places[1]! })
    await append([moved])
    const { entries } = await get<JournalPage>('/journal')
    const { entries: there } = await get<JournalPage>(`/journal?place=${places[1]!}`)
    expect(there).toEqual(
      entries.filter(({ placeId, plantId }) => placeId === places[1] || plantId === plants[0]),
    )
    const { entries: of } = await get<JournalPage>(`/journal?of=${plants[1]!}`)
    expect(of).toEqual(entries.filter(({ plantId }) => plantId === plants[1]))
    const { entries: bare } = await get<JournalPage>(`/journal?of=${places[0]!}&limit=7&after=3`)
    expect(bare).toEqual(
      entries
        .filter(({ plantId, placeId, seq }) => plantId === null && placeId === places[0] && seq > 3)
        .slice(0, 7),
    )
  })

  it('is, where that is asked, of some kinds or of a time alone', async () => {
    await append([
      grew(0, { at: '2021-05-01' }),
      noteEntry(places[0]!, { at: '2021-05-02' }),
      grew(1, { at: '2021-05-03' }),
    ])
    const { entries } = await get<JournalPage>('/journal')
    const only = async (query: string) => (await get<JournalPage>(`/journal?${query}`)).entries
    expect(await only('kind=note.written,piece.removed')).toEqual(
      entries.filter(({ kind }) => kind === 'note.written' || kind === 'piece.removed'),
    )
    expect(await only('from=2021-05-01&until=2021-05-02')).toEqual(
      entries.filter(({ at }) => at >= '2021-05-01' && at <= '2021-05-02'),
    )
    expect(await only(`of=${plants[1]!}&kind=piece.grew&from=2021-05-02&until=2021-05-31`)).toEqual(
      entries.filter(({ plantId, at }) => plantId === plants[1] && at === '2021-05-03'),
    )
    // Page by page: the next begins after the last one that was told, whatever lay between.
    const paged: JournalPage['entries'][number][] = []
    for (let after = 0; ; ) {
      const page = await get<JournalPage>(`/journal?kind=note.written&limit=40&after=${after}`)
      if (page.entries.length === 0) break
      paged.push(...page.entries)
      after = page.last
    }
    expect(paged).toEqual(entries.filter(({ kind }) => kind === 'note.written'))
    const { statusCode } = await harness.app.inject({
      url: `/api/gardens/${owner.gardenId}/journal?kind=note.sung`,
      headers: { cookie: owner.cookie },
    })
    expect(statusCode).toBe(400)
  })
})
