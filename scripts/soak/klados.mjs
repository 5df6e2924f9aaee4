import { spawn } from 'node:child_process'
import { readFileSync, readdirSync, rmSync } from 'node:fs'
import { setTimeout as pause } from 'node:timers/promises'
import { freePort } from '../lib/free-port.mjs'
import { inRoot, inWork } from '../lib/paths.mjs'

/** Klados as anybody starts it, with data of its own that go when it is over. */
export async function startKlados(name, env = {}) {
  const data = inWork(`soak-${name}-${process.pid}`)
  const port = await freePort()
  const child = spawn(process.execPath, [inRoot('scripts/start.mjs'), '--no-demo'], {
    env: { ...process.env, KLADOS_LIMITS: 'off', ...env, KLADOS_DATA: data, PORT: String(port) },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  let said = ''
  child.stdout.on('data', (chunk) => (said += chunk))
  const gone = new Promise((resolve) => child.once('exit', resolve))
  await Promise.race([
    gone.then(() => Promise.reject(new Error(`it did not start:\n${said}`))),
    (async () => {
      while (!said.includes('Klados is at')) await pause(50)
    })(),
  ])
  const base = `http://127.0.0.1:${port}`
  return {
    base,
    data,
    pid: child.pid,
    said: () => said,
    isUp: () => child.exitCode === null && child.signalCode === null,
    serverPid: () => childrenOf(child.pid).find((pid) => commandOf(pid).includes('main.mjs')),
    stop: async () => {
      child.kill('SIGINT')
      await gone
      rmSync(data, { recursive: true, force: true })
    },
  }
}

export function childrenOf(pid) {
  try {
    return readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8')
      .trim()
      .split(' ')
      .filter(Boolean)
      .map(Number)
  } catch {
    return []
  }
}
export const commandOf = (pid) => {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ')
  } catch {
    return ''
  }
}
/** Every process that runs now. */
export const allProcesses = () =>
  readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map(Number)
/** Kills every process that was started with this in its command, at once. */
export function killAll(text) {
  for (const pid of allProcesses()) {
    if (pid === process.pid || !commandOf(pid).includes(text)) continue
    try {
      process.kill(pid, 'SIGKILL')
    } catch {
      // It went with its parent.
    }
  }
}
/** Resident memory of a process in megabytes; 0 once it is gone. */
export function residentMb(pid) {
  try {
    return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))[1]) / 1024
  } catch {
    return 0
  }
}

let people = 0
/** Somebody with an account and a garden of their own, and a wall in it. */
export async function signUp(base) {
  const email = `soak.${process.pid}.${++people}@example.org`
  const reply = await fetch(
    `${base}/api/accounts`,
    post({ name: `Grower ${people}`, email, password: 'tie it loosely', gardenName: 'Home' }),
  )
  if (reply.status !== 201) throw new Error(`sign-up: ${reply.status} ${await reply.text()}`)
  const cookie = reply.headers.getSetCookie()[0].split(';')[0]
  const session = await (await fetch(`${base}/api/session`, { headers: { cookie } })).json()
  const gardenId = session.memberships[0].gardenId
  const placeId = crypto.randomUUID()
  const saved = await fetch(`${base}/api/gardens/${gardenId}/places/${placeId}`, {
    ...post({ saveId: crypto.randomUUID(), basedOn: 0, body: wall }, cookie),
    method: 'PUT',
  })
  if (!saved.ok) throw new Error(await saved.text())
  return { email, cookie, gardenId, placeId }
}
export const post = (body, cookie = '') => ({
  method: 'POST',
  body: JSON.stringify(body),
  headers: { 'content-type': 'application/json', cookie },
  signal: AbortSignal.timeout(60_000),
})
/** A wall as its grower measured it. */
export const wall = {
  name: 'South wall',
  kind: 'wall',
  widthM: 9.2,
  usableHeightM: 1.65,
  firstForkM: 0.3,
  facingDeg: 180,
  surface: 'brick',
  viewingEnd: 'left',
  avoid: [],
  riseM: 0,
  uprights: null,
  levels: null,
  photo: null,
  conditions: {
    soil: 'loam',
    frostDepthM: 0.5,
    coldestC: -15,
    hottestC: 35,
    windMPerS: 22,
    snowPa: 0,
    iceMm: 0,
  },
}

/** An entry as the client writes one. */
export async function note(placeId, text) {
  const { v7 } = await import('uuid')
  return {
    id: v7(),
    placeId,
    plantId: null,
    kind: 'note.written',
    at: new Date().toISOString().slice(0, 10),
    recordedAt: new Date().toISOString(),
    supersedes: null,
    body: { v: 1, text },
  }
}

export async function readJournal(base, { gardenId, cookie }) {
  const all = []
  for (let after = 0; ; ) {
    const page = await (
      await fetch(`${base}/api/gardens/${gardenId}/journal?after=${after}`, { headers: { cookie } })
    ).json()
    all.push(...page.entries)
    if (page.last === after) return all
    after = page.last
  }
}

export function percentile(times, share) {
  const sorted = [...times].sort((a, b) => a - b)
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? Number.NaN
}
/** Figures of a run, each beside what is wanted of it. */
export function createReport() {
  let misses = 0
  return {
    say: (name, value, isMet = true) => {
      if (!isMet) misses++
      process.stdout.write(`${isMet ? 'ok  ' : 'MISS'}  ${name.padEnd(64)} ${value}\n`)
    },
    misses: () => misses,
  }
}
/** Chance that can be had again: the seed is printed with the run. */
export function seeded(seed) {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32
  }
}
