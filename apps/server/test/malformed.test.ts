import { standardCatalogue } from '@klados/core/catalogue'
import fc from 'fast-check'
import { v7 as uuidv7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { RouteAccess as Route } from '../src/access.ts'
import { noteEntry, savePlace, signUp, startHarness, wallBody, tiersDesign, plantBody } from './harness.ts'
import type { Harness, Person } from './harness.ts'
import { runs, within } from '../../../packages/core/test/runs.ts'

let harness: Harness
let owner: Person
let placeId: string
let routes: Route[]
beforeAll(async () => {
  harness = await startHarness()
  owner = await signUp(harness.app)
  placeId = await savePlace(harness.app, owner)
  // What ends the session or the membership would end the test; the journal's old address answers 503 by
  // design.
  routes = harness.app.routeTable.filter(
    ({ method, url }) =>
      method !== 'HEAD' &&
      !(method === 'DELETE' && /session|members/.test(url)) &&
      !(method === 'POST' && url.endsWith('/journal')),
  )
})
afterAll(() => harness.close())

const save = (body: object) => ({ saveId: uuidv7(), basedOn: 0, body })
/** Requests that would be taken, for the routes that are written to: what goes wrong is changed in them. */
const sound = () => ({
  places: save(wallBody),
  frames: save({ placeId, name: 'Tiers', design: tiersDesign }),
  plants: save(plantBody(placeId)),
  stores: save({ catalogue: standardCatalogue, onHand: [] }),
  entries: { entries: [noteEntry(placeId)] },
  other: {
    name: 'Yard',
    email: 'x@example.org',
    password: 'long enough to pass',
    gardenName: 'Yard',
    role: 'grower',
    units: 'metric',
    latitudeDeg: 50,
    currency: 'EUR',
  },
})
const bodyFor = ({ url }: Route) => {
  const bodies = sound()
  const key = Object.keys(bodies).find((name) => url.includes(`/${name}`)) as keyof typeof bodies | undefined
  return bodies[key ?? 'other']
}

const strangeArb = fc.oneof(
  fc.constantFrom(
    null,
    true,
    -1,
    1e308,
    -1e308,
    0.1 + 0.2,
    '',
    '\u0000',
    ' ',
    '‮',
    'x'.repeat(5000),
    [],
    {},
    [[[[]]]],
    { $gt: '' },
    '2024-02-30',
    "'; drop table entry; --",
  ),
  fc.jsonValue(),
)
/**
 * Steps down into the body, each a share of the way through the keys that are there; at the end something
 * strange.
 */
const changeArb = fc.record({
  steps: fc.array(fc.double({ min: 0, max: 0.999, noNaN: true }), { minLength: 1, maxLength: 5 }),
  value: fc.option(strangeArb, { nil: undefined }),
})

function changed(body: unknown, steps: readonly number[], value: unknown): unknown {
  if (body === null || typeof body !== 'object' || steps.length === 0) return value
  const keys = Object.keys(body)
  if (keys.length === 0) return value
  const key = keys[Math.floor(steps[0]! * keys.length)]!
  const copy: Record<string, unknown> = Array.isArray(body) ? ([...body] as never) : { ...body }
  copy[key] = changed(copy[key], steps.slice(1), value)
  return copy
}

const counts = async () => {
  const at = (path: string) =>
    harness.app.inject({ url: `/api/gardens/${owner.gardenId}/${path}`, headers: { cookie: owner.cookie } })
  const [places, frames, plants, stores, journal] = await Promise.all(
    ['places', 'frames', 'plants', 'stores', 'journal'].map(at),
  )
  return [places, frames, plants, stores]
    .map((reply) => reply!.json<object[]>().length)
    .concat(journal!.json<{ entries: object[] }>().entries.length)
}

async function expectRefusedWell(
  reply: { statusCode: number; json: () => unknown; headers: object },
  what: string,
) {
  expect([what, reply.statusCode < 500]).toEqual([what, true])
  if (reply.statusCode >= 400)
    expect(reply.json()).toMatchObject({
      error: { code: expect.stringMatching(/^[\w-]+\/[\w-]+$/), message: expect.any(String) },
    })
}

describe('a malformed request', () => {
  it(
    'to any route is answered below 500, in the one shape, and changes nothing when it is refused',
    async () => {
      const writes = routes.filter((route) => route.method === 'PUT' || route.method === 'POST')
      expect(writes.length).toBeGreaterThan(8)
      await fc.assert(
        fc.asyncProperty(fc.constantFrom(...writes), changeArb, async (route, { steps, value }) => {
          const before = await counts()
          const url = route.url.replace(':gardenId', owner.gardenId).replace(/:\w+/g, () => uuidv7())
          const payload = changed(bodyFor(route), steps, value) as object
          const headers = { cookie: owner.cookie, 'content-type': 'application/json' }
          const reply = await harness.app.inject({
            method: route.method as 'PUT',
            url,
            headers,
            payload: JSON.stringify(payload ?? null),
          })
          await expectRefusedWell(
            reply,
            `${route.method} ${route.url} ${JSON.stringify(payload)?.slice(0, 300)}`,
          )
          if (reply.statusCode >= 400) expect(await counts()).toEqual(before)
        }),
        { numRuns: runs(150) },
      )
    },
    within(60_000),
  )

  it(
    'with a strange address or query is answered below 500',
    async () => {
      const partArb = fc.oneof(
        fc.constantFrom('%00', '..', '%2e%2e', 'null', '-1', '1e9', "'", 'a'.repeat(300)),
        fc.webSegment(),
      )
      await fc.assert(
        fc.asyncProperty(fc.constantFrom(...routes), partArb, partArb, async (route, part, query) => {
          const url = route.url.replace(':gardenId', owner.gardenId).replace(/:\w+/g, part)
          const isRead = route.method === 'GET' || route.method === 'DELETE'
          const reply = await harness.app.inject({
            method: route.method as 'GET',
            url: `${url}?after=${query}&limit=${part}`,
            headers: { cookie: owner.cookie },
            ...(isRead ? {} : { payload: {} }),
          })
          expect([route.method, url, query, reply.statusCode < 500]).toEqual([route.method, url, query, true])
        }),
        { numRuns: runs(120) },
      )
    },
    within(60_000),
  )

  it('that is no JSON, too large, or of another kind is refused by name', async () => {
    const put = (payload: string, type: string) =>
      harness.app.inject({
        method: 'PUT',
        url: `/api/gardens/${owner.gardenId}/places/${uuidv7()}`,
        headers: { cookie: owner.cookie, 'content-type': type },
        payload,
      })
    for (const [payload, type, status] of [
      ['{"saveId":', 'application/json', 400],
      ['<place/>', 'application/xml', 415],
      [JSON.stringify({ x: 'y'.repeat(3_000_000) }), 'application/json', 413],
    ] as const) {
      const reply = await put(payload, type)
      expect([type, reply.statusCode]).toEqual([type, status])
      await expectRefusedWell(reply, type)
    }
  })
})
