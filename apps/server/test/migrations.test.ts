import { mkdtempSync, copyFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { frameBodySchema, placeBodySchema } from '@klados/contract'
import pg from 'pg'
import { v7 as uuidv7 } from 'uuid'
import { describe, expect, inject, it } from 'vitest'
import { migrate } from '../src/database/migrate.ts'

const folder = fileURLToPath(new URL('../migrations', import.meta.url))

/** Documents as release 0.1.0 wrote them: kept as they were for ever. */
const frozen = {
  place: { name: 'South wall', kind: 'wall', widthM: 9.2, usableHeightM: 1.65, firstForkM: 0.3, facingDeg: 180, surface: 'brick', viewingEnd: 'left', avoid: [] },
  frame: {
    placeId: '01890a5d-ac96-774b-bcce-b302099a8057',
    name: 'Tiers',
    design: { pattern: { kind: 'tiers', heightsM: [0.5, 1], maxSupportSpacingM: 2 }, moveToleranceM: 0.05, dragged: { 't0.0': { xM: 0.1, yM: 0.5 } }, wireId: 'stainless-2', tensionN: 150, endWrapM: 0.15, handlingLengthM: 20, rolls: [{ lengthM: 25, price: 14 }], fixingId: 'eye-100' },
  },
} // prettier-ignore

describe('migrations', () => {
  it('bring the data of the last release to what this one reads, revisions too', async () => {
    const admin = new pg.Client({ connectionString: inject('adminUrl') })
    await admin.connect()
    const name = `m_${uuidv7().replaceAll('-', '')}`
    await admin.query(`create database ${name}`)
    await admin.end()
    const url = Object.assign(new URL(inject('adminUrl')), { pathname: `/${name}` }).toString()
    const old = mkdtempSync(join(tmpdir(), 'klados-migrations-'))
    copyFileSync(join(folder, '0001_foundation.sql'), join(old, '0001_foundation.sql'))
    await migrate(url, old)
    const client = new pg.Client({ connectionString: url })
    await client.connect()
    const [garden, account] = [uuidv7(), uuidv7()]
    await client.query(`insert into garden (garden_id, name) values ($1, 'Old')`, [garden])
    for (const kind of ['place', 'frame'] as const) {
      const values = [garden, kind, uuidv7(), JSON.stringify(frozen[kind]), account]
      await client.query(`insert into document (garden_id, kind, document_id, version, is_removed, note, body, saved_by) values ($1, $2, $3, 1, false, '', $4, $5)`, values) // prettier-ignore
      await client.query(`insert into document_revision (garden_id, kind, document_id, version, save_id, is_removed, note, body, saved_by) values ($1, $2, $3, 1, $3, false, '', $4, $5)`, values) // prettier-ignore
    }
    expect(await migrate(url, folder)).toEqual(['0002_frames_of_every_kind'])
    for (const table of ['document', 'document_revision']) {
      const { rows } = await client.query<{ kind: string; body: unknown }>(`select kind, body from ${table} order by kind`) // prettier-ignore
      expect(frameBodySchema.parse(rows[0]!.body)).toMatchObject(frozen.frame)
      expect(placeBodySchema.parse(rows[1]!.body)).toMatchObject(frozen.place)
    }
    await client.end()
  })
})
