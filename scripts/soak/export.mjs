import { setTimeout as pause } from 'node:timers/promises'
import { connect } from '../lib/backup.mjs'
import { ownerUrl } from './crowd.mjs'
import { residentMb, signUp, startKlados } from './klados.mjs'

const MOST_MB = 300
const PHOTO_KB = 512
const AT_ONCE = 100

/** A garden of many seasons with its photos goes out as a file: the server holds a photo of it at a time. */
export async function soakExport({ exportMb, report }) {
  const klados = await startKlados('export')
  try {
    const person = await signUp(klados.base)
    const photos = Math.ceil((exportMb * 1024) / PHOTO_KB)
    await fill(await ownerUrl(klados), person, photos)
    const server = klados.serverPid()
    let mostMb = 0
    let isOver = false
    const watching = (async () => {
      while (!isOver) {
        mostMb = Math.max(mostMb, residentMb(server))
        await pause(20)
      }
    })()
    const before = residentMb(server)
    const started = Date.now()
    const reply = await fetch(`${klados.base}/api/gardens/${person.gardenId}/export`, {
      headers: { cookie: person.cookie },
    })
    let bytes = 0
    let end = ''
    for await (const chunk of reply.body) {
      bytes += chunk.length
      end = Buffer.from(chunk).toString('latin1').slice(-4)
    }
    isOver = true
    await watching
    report.say(
      `an export of ${exportMb} MB of photos`,
      `${(bytes / 1e6).toFixed(0)} MB in ${((Date.now() - started) / 1000).toFixed(0)} s; server ${mostMb.toFixed(0)} MB, before ${before.toFixed(0)} MB`,
      reply.ok && end.trim().endsWith('}') && bytes > exportMb * 1e6 && mostMb < MOST_MB,
    )
  } finally {
    await klados.stop()
  }
}

/** Photos that nobody took, put where the server would have put them. */
async function fill(url, { gardenId, email }, photos) {
  const sql = await connect(url)
  for (let n = 0; n < photos; n += AT_ONCE)
    await sql.query(
      `with added as (
         insert into file (garden_id, file_id, media_type, width_px, height_px, bytes, added_by)
         select $1, gen_random_uuid(), 'image/jpeg', 1600, 1200, $4 * 1024,
           (select account_id from account where email = $2)
         from generate_series(1, $3) returning file_id)
       insert into file_chunk (garden_id, file_id, n, content)
       select $1, file_id, k, decode(repeat(md5(random()::text), 16384), 'hex')
       from added, generate_series(0, $4 / 256 - 1) as k`,
      [gardenId, email, Math.min(AT_ONCE, photos - n), PHOTO_KB],
    )
  await sql.end()
}
