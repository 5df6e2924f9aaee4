import { setTimeout as pause } from 'node:timers/promises'
import { connect } from '../lib/backup.mjs'
import { inRoot } from '../lib/paths.mjs'
import { note, percentile, post, signUp, startKlados } from './klados.mjs'

/**
 * Fifty people who each write once a second, all in one garden and each in their own: does everybody get
 * through?
 */
export async function soakCrowd({ people, seconds, report }) {
  const klados = await startKlados('crowd')
  try {
    const crowd = []
    for (let i = 0; i < people; i++) crowd.push(await signUp(klados.base))
    const [host] = crowd
    for (const { email, cookie } of crowd.slice(1)) {
      const added = await fetch(
        `${klados.base}/api/gardens/${host.gardenId}/members`,
        post({ email, role: 'grower' }, host.cookie),
      )
      if (!added.ok) throw new Error(await added.text())
      const joined = await fetch(
        `${klados.base}/api/invitations/accept`,
        post({ gardenId: host.gardenId }, cookie),
      )
      if (!joined.ok) throw new Error(await joined.text())
    }
    const baseMs = await commitMs(klados)
    report.say('one row committed, same database, p95', `${baseMs.toFixed(1)} ms`)
    for (const where of ['one garden', `${people} gardens`]) {
      const times = []
      const errors = []
      const write = async (person, i) => {
        const { gardenId, placeId } = where === 'one garden' ? host : person
        await pause((1000 * i) / people)
        for (let n = 0; n < seconds; n++) {
          const due = performance.now() + 1000
          const entry = await note(placeId, `${i} ${n}`)
          const start = performance.now()
          const reply = await fetch(
            `${klados.base}/api/gardens/${gardenId}/entries`,
            post({ entries: [entry] }, person.cookie),
          ).catch((error) => error)
          const body = reply.ok ? await reply.json() : null
          times.push(performance.now() - start)
          if (body?.answers?.[0]?.answer !== 'taken') errors.push(reply.status ?? String(reply))
          await pause(Math.max(0, due - performance.now()))
        }
      }
      await Promise.all(crowd.map(write))
      const p95 = percentile(times, 0.95)
      report.say(
        `${people} people, a write a second each, ${seconds} s, in ${where}`,
        `${times.length} writes, ${errors.length} errors, median ${percentile(times, 0.5).toFixed(1)} ms, p95 ${p95.toFixed(1)} ms = ${(p95 / baseMs).toFixed(1)} x a commit`,
        errors.length === 0,
      )
    }
  } finally {
    await klados.stop()
  }
}

/**
 * What this machine and disk need for the least that can be made durable: p95 of a row of its own, committed.
 */
async function commitMs(klados) {
  const client = await connect(await ownerUrl(klados))
  await client.query('create table if not exists one_row (n integer)')
  const times = []
  for (let n = 0; n < 300; n++) {
    const start = performance.now()
    await client.query('insert into one_row values ($1)', [n])
    times.push(performance.now() - start)
  }
  await client.query('drop table one_row')
  await client.end()
  return percentile(times, 0.95)
}

export async function ownerUrl(klados) {
  process.env.KLADOS_DATA = klados.data
  const { startPostgres } = await import(inRoot('scripts/lib/postgres.mjs'))
  const server = await startPostgres(`${klados.data}/postgres`)
  return server.ownerUrl('klados')
}
