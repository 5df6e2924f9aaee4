import { setTimeout as pause } from 'node:timers/promises'
import {
  allProcesses,
  commandOf,
  note,
  percentile,
  post,
  readJournal,
  seeded,
  signUp,
  startKlados,
} from './klados.mjs'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'

const WRITERS = 4
const BACK_MS = 60_000

/**
 * Kills of the server, of the database's backends and of the postmaster, under load: is it back each time, is
 * anything lost?
 */
export async function soakKills({ kills, seed, report }) {
  const klados = await startKlados('kills')
  const chance = seeded(seed)
  try {
    const person = await signUp(klados.base)
    const url = `${klados.base}/api/gardens/${person.gardenId}/entries`
    const acknowledged = new Set()
    let isOver = false
    // As an outbox does: an entry is sent until its answer has come.
    const write = async (writer) => {
      for (let n = 0; !isOver; n++) {
        const entry = await note(person.placeId, `${writer} ${n}`)
        for (let isTaken = false; !isTaken; ) {
          const reply = await fetch(url, post({ entries: [entry] }, person.cookie)).catch(() => null)
          const body = reply?.ok ? await reply.json().catch(() => null) : null
          isTaken = body?.answers?.[0]?.answer === 'taken'
          if (isTaken) acknowledged.add(entry.id)
          else if (isOver && !klados.isUp()) return
          else await pause(50)
        }
        await pause(10)
      }
    }
    const writers = Array.from({ length: WRITERS }, (_, i) => write(i))
    const backMs = { server: [], backend: [], postmaster: [] }
    for (let i = 0; i < kills; i++) {
      await pause(200 + chance() * 600)
      const kind = ['server', 'backend', 'postmaster'][i % 3]
      // What was killed last may be on its way back: its pool of connections, say.
      let pid = pidOf(kind, klados, chance)
      for (const since = Date.now(); pid === null; pid = pidOf(kind, klados, chance)) {
        if (Date.now() - since > BACK_MS)
          throw new Error(`no ${kind} to kill (kill ${i + 1})\n${klados.said()}`)
        await pause(10)
      }
      const before = acknowledged.size
      const since = Date.now()
      try {
        process.kill(pid, 'SIGKILL')
      } catch {
        // It ended by itself between the look and the kill, as a backend may: that is no other matter.
      }
      await pause(20)
      // Back when every writer could write again.
      while (acknowledged.size < before + WRITERS * 2) {
        if (!klados.isUp()) throw new Error(`it gave up after ${i + 1} kills:\n${klados.said()}`)
        if (Date.now() - since > BACK_MS)
          throw new Error(`not back a minute after the ${kind} was killed (kill ${i + 1})\n${klados.said()}`)
        await pause(10)
      }
      backMs[kind].push(Date.now() - since)
    }
    isOver = true
    await Promise.all(writers)
    const stored = await readJournal(klados.base, person)
    const ids = new Set(stored.map((entry) => entry.id))
    const lost = [...acknowledged].filter((id) => !ids.has(id)).length
    const gaps = stored.filter((entry, n) => entry.seq !== n + 1).length
    const done = Object.values(backMs).flat().length
    report.say(
      `${done} kills under ${WRITERS} writers: back by itself each time`,
      `${done} of ${kills}`,
      done === kills,
    )
    for (const [kind, times] of Object.entries(backMs))
      report.say(
        `  back after the ${kind} was killed`,
        `median ${percentile(times, 0.5)} ms, longest ${Math.max(...times)} ms`,
      )
    report.say('  acknowledged entries lost', `${lost} of ${acknowledged.size}`, lost === 0)
    report.say(
      '  stored twice, or numbers missing',
      `${stored.length - ids.size} and ${gaps}`,
      stored.length === ids.size && gaps === 0,
    )
  } finally {
    await klados.stop()
  }
}

function pidOf(kind, klados, chance) {
  if (kind === 'server') return klados.serverPid() ?? null
  const processes = allProcesses()
  const postmaster =
    processes.find(
      (pid) =>
        commandOf(pid).includes(`${klados.data}/`) &&
        commandOf(pid).includes('postgres') &&
        commandOf(pid).includes(' -D '),
    ) ?? postmasterElsewhere(processes, klados)
  if (kind === 'postmaster') return postmaster ?? null
  const backends = processes.filter(
    (pid) => /postgres: klados_web/.test(commandOf(pid)) && parentOf(pid) === postmaster,
  )
  return backends[Math.floor(chance() * backends.length)] ?? null
}

/**
 * The data of a database may lie elsewhere, when its user cannot enter the project: then it is told by its
 * parent's port.
 */
function postmasterElsewhere(processes, klados) {
  return processes.find(
    (pid) => / -D /.test(commandOf(pid)) && /postgres/.test(commandOf(pid)) && parentOf(pid) === klados.pid,
  )
}
function parentOf(pid) {
  try {
    return Number(
      readFileSync(join('/proc', String(pid), 'stat'), 'utf8')
        .split(') ')
        .at(-1)
        .split(' ')[1],
    )
  } catch {
    return null
  }
}
