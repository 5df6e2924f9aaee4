import { standardCatalogue } from '@klados/core/catalogue'
import { copyFileSync, mkdtempSync, readdirSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { frameBodySchema, placeBodySchema, storesBodySchema } from '@klados/contract'
import pg from 'pg'
import { v7 as uuidv7 } from 'uuid'
import { describe, expect, inject, it } from 'vitest'
import { upcastBody, upcastIds } from '@klados/contract/upcasts'
import type { UpcastArea } from '@klados/contract/upcasts'
import { migrate } from '../src/database/migrate.ts'
import { createAccountsPool } from '../src/database/pool.ts'

const folder = fileURLToPath(new URL('../migrations', import.meta.url))

/** Documents as release 0.1.0 wrote them: kept as they were for ever. */
const frozen = {
  place: {
    name: 'South wall',
    kind: 'wall',
    widthM: 9.2,
    usableHeightM: 1.65,
    firstForkM: 0.3,
    facingDeg: 180,
    surface: 'brick',
    viewingEnd: 'left',
    avoid: [],
  },
  frame: {
    placeId: '01890a5d-ac96-774b-bcce-b302099a8057',
    name: 'Tiers',
    design: {
      pattern: { kind: 'tiers', heightsM: [0.5, 1], maxSupportSpacingM: 2 },
      moveToleranceM: 0.05,
      dragged: { 't0.0': { xM: 0.1, yM: 0.5 } },
      wireId: 'stainless-2',
      tensionN: 150,
      endWrapM: 0.15,
      handlingLengthM: 20,
      rolls: [{ lengthM: 25, price: 14 }],
      fixingId: 'eye-100',
    },
  },
}

/** Parts that came with 0003, as a release before it wrote them. */
const { ties: _, ...catalogue } = standardCatalogue
const goods = catalogue.goods.filter((good) => good.id !== 'pot')
const arch = {
  kind: 'arch',
  spanM: 1.2,
  heightM: 2.2,
  depthM: 1,
  hoops: 2,
  rungStepM: 0.3,
  buriedM: 0.3,
  hoopStockId: 'tube-steel-21',
  rungStockId: 'rod-steel-6',
}
const fan = {
  kind: 'fan',
  ribs: 9,
  spreadDeg: 150,
  wireStepM: 0.3,
  maxSupportSpacingM: 1.8,
  ribStockId: 'cane-24',
}
const designOf = (pattern: object) => ({
  ...frozen.frame.design,
  snap: 'none',
  light: null,
  setC: 12,
  plantKindId: null,
  repeat: 1,
  pattern,
})
const later = (pattern: object) => ({
  frame: { ...frozen.frame, design: designOf(pattern) },
  stores: { catalogue: { ...catalogue, goods }, onHand: [] },
})

/**
 * Frames as release 4 wrote them: levels without names, rows with the wire that a level is of for what it
 * does.
 */
const tiers = { kind: 'tiers', heightsM: [0.45, 0.85, 1.25], maxSupportSpacingM: 2.4 }
const row = {
  kind: 'row',
  maxPostSpacingM: 6,
  postHeightM: 1.9,
  postBuriedM: 0.7,
  postStockId: 'post-round-100',
  endStockId: 'post-round-140',
  endBuriedM: 0.9,
  endLeanDeg: 10,
  end: { kind: 'tied-back', attachHeightM: 1.6, angleDeg: 45, screwId: 'screw-eye-1200' },
  armStockId: 'batten-20x30',
  levels: [
    { heightM: 0.8, slot: 'main', form: 'single', spreadM: 0, liftM: 0 },
    { heightM: 1.3, slot: 'light', form: 'pair', spreadM: 0.4, liftM: 0.2 },
  ],
  waterHeightM: 0.4,
  plantSpacingM: 1.2,
}
const release4 = (pattern: object) => ({
  frame: { ...frozen.frame, design: { ...designOf(pattern), endsAt: 'any' } },
})

/** In which order goods stand tells nothing. */
const byId = (stores: object) => {
  const { catalogue, ...rest } = stores as { catalogue: { goods: { id: string }[] } }
  const goods = [...catalogue.goods].sort((a, b) => (a.id < b.id ? -1 : 1))
  return { ...rest, catalogue: { ...catalogue, goods } }
}

describe('migrations', () => {
  it.each([
    { until: 1, bodies: frozen, schemas: { place: placeBodySchema, frame: frameBodySchema } },
    { until: 2, bodies: later(arch), schemas: { frame: frameBodySchema, stores: storesBodySchema } },
    { until: 2, bodies: later(fan), schemas: { frame: frameBodySchema } },
    { until: 4, bodies: release4(row), schemas: { frame: frameBodySchema } },
    { until: 4, bodies: release4(tiers), schemas: { frame: frameBodySchema } },
  ])(
    'bring the data of release $until to what this one reads, revisions too',
    async ({ until, bodies, schemas }) => {
      const client = await databaseAt(until)
      const [garden, account] = [uuidv7(), uuidv7()]
      await client.query(`insert into garden (garden_id, name) values ($1, 'Old')`, [garden])
      for (const [kind, body] of Object.entries(bodies)) {
        const values = [garden, kind, uuidv7(), JSON.stringify(body), account]
        await client.query(
          `insert into document (garden_id, kind, document_id, version, is_removed, note, body, saved_by) values ($1, $2, $3, 1, false, '', $4, $5)`,
          values,
        )
        await client.query(
          `insert into document_revision (garden_id, kind, document_id, version, save_id, is_removed, note, body, saved_by) values ($1, $2, $3, 1, $3, false, '', $4, $5)`,
          values,
        )
      }
      expect(await migrate(client.url, folder)).toEqual(
        files.slice(until).map((file) => file.replace('.sql', '')),
      )
      for (const table of ['document', 'document_revision']) {
        for (const [kind, schema] of Object.entries(schemas)) {
          const { rows } = await client.query(`select body from ${table} where kind = '${kind}'`)
          const { body } = rows[0] as { body: object }
          // Read back as it is stored: what a schema would fill in by itself has to be there already.
          expect(schema.parse(body)).toEqual(body)
          if (kind === 'stores')
            expect(byId(body)).toEqual(byId({ catalogue: standardCatalogue, onHand: [] }))
          else
            expect(body).toMatchObject(
              upcastBody(`${kind}s` as UpcastArea, bodies[kind as keyof typeof bodies]) as object,
            )
        }
      }
      await client.end()
    },
  )

  it('name the levels of a frame as the journal has known them, and say what each is for', () => {
    const pattern = (body: object) =>
      (upcastBody('frames', body) as { design: { pattern: { levels: unknown } } }).design.pattern
    expect(pattern(release4(tiers).frame)).toEqual({
      kind: 'tiers',
      levels: [
        { id: 't0', heightM: 0.45 },
        { id: 't1', heightM: 0.85 },
        { id: 't2', heightM: 1.25 },
      ],
      maxSupportSpacingM: 2.4,
    })
    expect(pattern(release4(row).frame).levels).toEqual([
      { id: 'w0', role: 'carrying', heightM: 0.8, form: 'single', spreadM: 0, liftM: 0 },
      { id: 'w1', role: 'foliage', heightM: 1.3, form: 'pair', spreadM: 0.4, liftM: 0.2 },
    ])
  })

  it('go through the bodies of a database once, and say which steps they have had', async () => {
    const client = await databaseAt(4)
    await migrate(client.url, folder)
    const { rows } = await client.query(
      `select upcast from body_upcast where kind = 'frame' order by had_at, upcast`,
    )
    expect(rows.map((one: { upcast: string }) => one.upcast).sort()).toEqual([...upcastIds('frames')].sort())
    await client.query(`update body_upcast set had_at = '2000-01-01'`)
    expect(await migrate(client.url, folder)).toEqual([])
    const again = await client.query(
      `select count(*)::integer as n from body_upcast where had_at > '2000-01-02'`,
    )
    expect(again.rows).toEqual([{ n: 0 }])
    await client.end()
  })

  it('bring what lay in a browser or a file to the same as what lay in the database', () => {
    const cases = [
      { area: 'places', body: frozen.place, schema: placeBodySchema },
      { area: 'frames', body: frozen.frame, schema: frameBodySchema },
      { area: 'frames', body: later(arch).frame, schema: frameBodySchema },
      { area: 'frames', body: later(fan).frame, schema: frameBodySchema },
      { area: 'frames', body: release4(row).frame, schema: frameBodySchema },
      { area: 'frames', body: release4(tiers).frame, schema: frameBodySchema },
    ] as const
    for (const { area, body, schema } of cases) {
      const up = upcastBody(area, body)
      expect(schema.parse(up)).toEqual(up)
      expect(upcastBody(area, up)).toEqual(up)
    }
    expect(upcastBody('frames', null)).toBeNull()
  })

  it('are waited for by a server that starts while another runs them', async () => {
    const ownerUrl = await emptyDatabase()
    const all = await Promise.all([1, 2, 3].map(() => migrate(ownerUrl, folder)))
    expect(all.map(({ length }) => length).sort()).toEqual([0, 0, readdirSync(folder).length])
  })

  it('keep people, sessions, photos and members of release 3, whole, under the roles of this one', async () => {
    const client = await databaseAt(3)
    const [garden, ada, rowan, file, place] = [uuidv7(), uuidv7(), uuidv7(), uuidv7(), uuidv7()]
    const photo = Buffer.from(Array.from({ length: 600_000 }, (_, i) => (i * 7) % 251))
    for (const [id, email] of [
      [ada, 'ada@example.org'],
      [rowan, 'rowan@tarn-close.invalid'],
    ])
      await client.query(
        `insert into account (account_id, email, name, password_hash) values ($1, $2, 'Ada', 'hash')`,
        [id, email],
      )
    await client.query(
      `insert into session (token_hash, account_id, expires_at) values ('\\x01', $1, now() + interval '1 day')`,
      [ada],
    )
    await client.query(`insert into garden (garden_id, name) values ($1, 'Old')`, [garden])
    await client.query(
      `insert into membership (garden_id, account_id, role) values ($1, $2, 'owner'), ($1, $3, 'grower')`,
      [garden, ada, rowan],
    )
    await client.query(
      `insert into file (garden_id, file_id, media_type, width_px, height_px, content, added_by) values ($1, $2, 'image/jpeg', 30, 20, $3, $4)`,
      [garden, file, photo, ada],
    )
    await client.query(
      `insert into document_revision (garden_id, kind, document_id, version, save_id, is_removed, note, body, saved_by) values ($1, 'place', $2, 1, $2, false, '', '{"name": "W"}', $3)`,
      [garden, place, ada],
    )
    await migrate(client.url, folder)
    const {
      rows: [stored],
    } = await client.query(
      `select g.made_by, g.bytes, f.bytes as photo_bytes, (select string_agg(content, '' order by n) from file_chunk) as content, (select count(*)::integer from file_chunk) as chunks from garden g join file f using (garden_id)`,
    )
    expect(stored).toMatchObject({ made_by: ada, photo_bytes: 600_000, chunks: 3 })
    expect(Number(stored.bytes)).toBe(600_000 + '{"name": "W"}'.length)
    expect(photo.equals(stored.content as Buffer)).toBe(true)
    const accounts = createAccountsPool(client.url, 1)
    const { rows } = await accounts.query(
      `select email, is_demo from account join session using (account_id)`,
    )
    expect(rows).toEqual([{ email: 'ada@example.org', is_demo: false }])
    expect((await accounts.query(`select from account where is_demo`)).rowCount).toBe(1)
    await accounts.end()
    await client.end()
  })
})

const files = readdirSync(folder).sort()

/** The address of a new database with nothing in it. */
async function emptyDatabase(): Promise<string> {
  const admin = new pg.Client({ connectionString: inject('adminUrl') })
  await admin.connect()
  const name = `m_${uuidv7().replaceAll('-', '')}`
  await admin.query(`create database ${name}`)
  await admin.end()
  return Object.assign(new URL(inject('adminUrl')), { pathname: `/${name}` }).toString()
}

/** A new database with the first so many migrations. */
async function databaseAt(until: number): Promise<pg.Client & { readonly url: string }> {
  const url = await emptyDatabase()
  const old = mkdtempSync(join(tmpdir(), 'klados-migrations-'))
  for (const file of files.slice(0, until)) copyFileSync(join(folder, file), join(old, file))
  await migrate(url, old)
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  return Object.assign(client, { url })
}
