import type { Page } from '@playwright/test'
import pg from 'pg'
import { havePlant, haveWall, journalId } from './people.ts'
import { grewBody, tieBody } from '../packages/core/test/bodies.ts'

/** Plants of a place, and the years that they have stood. */
const PLANTS = 8
const YEARS = 30
/** Entries of one plant: its trunk, and each year three canes with a tie each, seen once, and last year's taken off. */
const A_YEAR = 10
const BATCH = 5000
/** So many plants have a tie that wants to be looked at these days, however many there are. */
const DUE = 16

export const dayOf = (msAgo: number) => new Date(Date.now() - msAgo).toISOString().slice(0, 10)
const DAY_MS = 86_400_000

interface Written {
  readonly kind: string
  readonly at: string
  readonly plantId: string
  readonly body: object
}

/** Thirty years of one plant; its wood of the last year stands and is tied. */
function* livesOf(plantId: string, xM: number, n: number): Generator<Written> {
  const on = (year: number, day: number) => dayOf((YEARS - year) * 365 * DAY_MS - day * DAY_MS)
  const trunk = crypto.randomUUID()
  const grew = (pieceId: string, parent: object, path: object[], seasonsOld: number, at: string) => ({
    kind: 'piece.grew',
    at,
    plantId,
    body: grewBody(pieceId, { parent, path, seasonsOld, buds: 12 }),
  })
  const up = [
    { xM, yM: 0 },
    { xM, yM: 0.9 },
  ]
  yield grew(trunk, { on: 'crown', leadId: null }, up, 1, on(0, 0))
  let canes: string[] = []
  for (let year = 0; year < YEARS; year++) {
    for (const pieceId of canes)
      yield {
        kind: 'piece.removed',
        at: on(year, 40),
        plantId,
        body: { v: 1, pieceId, reason: 'winter' },
      }
    canes = [0, 1, 2].map(() => crypto.randomUUID())
    for (const [i, cane] of canes.entries()) {
      const path = [
        { xM, yM: 0.8 },
        { xM: xM + (i - 1) * 0.5, yM: 0.9 },
      ]
      yield grew(cane, { on: 'piece', pieceId: trunk, alongM: 0.8 }, path, 1, on(year, 41))
      const tieId = crypto.randomUUID()
      yield {
        kind: 'tie.made',
        at: on(year, 41),
        plantId,
        body: tieBody(tieId, cane, { alongM: 0.3, hitch: 'figureEight', loopLengthMm: 90 }),
      }
      if (year === YEARS - 1 ? n >= DUE || i > 0 : i === 0)
        yield {
          kind: 'tie.checked',
          at: on(year, year < YEARS - 1 ? 60 : 364),
          plantId,
          body: { v: 1, tieId },
        }
    }
  }
}

/**
 * A garden of about so many entries, which grows by places as gardens do: each has eight vines of thirty years, of which
 * the last year's wood stands. Tells its places.
 */
export async function haveLargeGarden(page: Page, garden: string, entries: number): Promise<string[]> {
  const ofPlant = YEARS * A_YEAR - 2
  const places = Math.max(1, Math.round(entries / (ofPlant * PLANTS)))
  const ids: string[] = []
  let written: (Written & { placeId: string })[] = []
  let at = Date.now() - entries
  const { account } = (await (await page.request.get('/api/session')).json()) as { account: { id: string } }
  const database = new pg.Client({ connectionString: process.env.DATABASE_URL })
  await database.connect()
  // As the server appends them, without the reading of each: thousands at once.
  const send = async () => {
    const rows = written.map(({ kind, at: day, plantId, placeId, body }, n) => ({
      entry_id: journalId(++at),
      place_id: placeId,
      plant_id: plantId,
      kind,
      at: day,
      recorded_at: new Date(at).toISOString(),
      supersedes: null,
      body,
      n,
    }))
    written = []
    await database.query(`select from append_entries($1, $2, $3::jsonb)`, [
      garden.replace('/g/', ''),
      account.id,
      JSON.stringify(rows),
    ])
  }
  for (let p = 0; p < places; p++) {
    const placeId = await haveWall(page, garden, {
      name: `Row ${p + 1}`,
      kind: 'row',
      surface: 'open',
      widthM: 10,
      firstForkM: 0,
    })
    ids.push(placeId)
    for (let k = 0; k < PLANTS; k++) {
      const xM = 0.6 + k * 1.2
      const plantId = await havePlant(page, garden, placeId, {
        name: `Vine ${p + 1}.${k + 1}`,
        kindId: 'wine-grape',
        xM,
        plantedOn: dayOf(YEARS * 365 * DAY_MS),
      })
      for (const entry of livesOf(plantId, xM, p * PLANTS + k)) {
        written.push({ ...entry, placeId })
        if (written.length === BATCH) await send()
      }
    }
  }
  if (written.length > 0) await send()
  await database.end()
  return ids
}
