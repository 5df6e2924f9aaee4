import { join } from 'node:path'
import { inRoot } from '../lib/paths.mjs'
import { runQuietly } from '../lib/run.mjs'
import { connect, hashTables, readBackup } from '../lib/backup.mjs'
import { note, post, readJournal, signUp, startKlados } from './klados.mjs'
import { ownerUrl } from './crowd.mjs'
import { rmSync } from 'node:fs'

/** A backup taken while people write, restored into an empty server, and compared row by row. */
export async function soakBackup({ writes, report }) {
  const klados = await startKlados('backup')
  const file = join(inRoot('.klados'), `soak-${process.pid}.backup`)
  const person = await signUp(klados.base)
  const before = new Set()
  let isOver = false
  const write = async () => {
    for (let n = 0; !isOver; n++) {
      const entries = await Promise.all(
        Array.from({ length: 20 }, () => note(person.placeId, `while it is backed up ${n}`)),
      )
      const reply = await fetch(
        `${klados.base}/api/gardens/${person.gardenId}/entries`,
        post({ entries }, person.cookie),
      )
      if (reply.ok) for (const { id } of entries) before.add(id)
    }
  }
  const writers = [write(), write()]
  try {
    while (before.size < writes) await new Promise((resolve) => setTimeout(resolve, 20))
    const atStart = new Set(before)
    await runQuietly(process.execPath, [inRoot('scripts/backup.mjs'), file], {
      env: { ...process.env, KLADOS_DATA: klados.data },
    })
    isOver = true
    await Promise.all(writers)
    const all = await readJournal(klados.base, person)
    const head = await readBackup(file)
    report.say(
      'a backup under load',
      `${head.tables.entry.rows} entries of ${all.length} in the end`,
      head.tables.entry.rows >= atStart.size,
    )
    await klados.stop()

    const empty = await startKlados('restored')
    const { data } = empty
    // Stopped, its data kept: the restore puts by the empty database that it has.
    process.kill(empty.pid, 'SIGINT')
    while (empty.isUp()) await new Promise((resolve) => setTimeout(resolve, 50))
    await runQuietly(process.execPath, [inRoot('scripts/restore.mjs'), file], {
      env: { ...process.env, KLADOS_DATA: data },
    })
    const client = await connect(await ownerUrl({ data }))
    const tables = await hashTables(client)
    const { rows } = await client.query('select entry_id as id, seq from entry order by seq')
    await client.end()
    const wrong = Object.keys(head.tables).filter((name) => tables[name].hash !== head.tables[name].hash)
    const ids = new Set(rows.map((row) => row.id))
    const lost = [...atStart].filter((id) => !ids.has(id)).length
    const isOrdered = rows.every(({ id, seq }, n) => all[n].id === id && Number(seq) === all[n].seq)
    report.say(
      '  restored: tables that differ by a row',
      `${wrong.length} of ${Object.keys(head.tables).length}`,
      wrong.length === 0,
    )
    report.say('  acknowledged before the backup began and not in it', String(lost), lost === 0)
    report.say('  entries under their ids and numbers', isOrdered ? 'all' : 'not all', isOrdered)
    const { startPostgres } = await import('../lib/postgres.mjs')
    await (await startPostgres(`${data}/postgres`)).stop()
    rmSync(data, { recursive: true, force: true })
  } finally {
    isOver = true
    rmSync(file, { force: true })
    if (klados.isUp()) await klados.stop()
  }
}
