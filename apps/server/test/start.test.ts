import { spawn } from 'node:child_process'
import type { ChildProcess } from 'node:child_process'
import { existsSync, readFileSync, readdirSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { build } from '../../../scripts/lib/install.mjs'
import { freePort } from '../../../scripts/lib/free-port.mjs'
import { inRoot, inWork } from '../../../scripts/lib/paths.mjs'
import { startPostgres } from '../../../scripts/lib/postgres.mjs'

const data = inWork(`start-test-${process.pid}`)
const isFree = (port: number) =>
  new Promise<boolean>((resolve) => {
    const probe = createServer()
    probe.on('error', () => resolve(false))
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)))
  })
let port: number

beforeAll(async () => {
  await build()
  port = await freePort()
}, 120_000)
afterAll(() => rmSync(data, { recursive: true, force: true }))

interface Started {
  readonly child: ChildProcess
  readonly said: () => string
  readonly gone: Promise<number | null>
}
/** `npm start` as anybody calls it, with data of its own; resolves once it says where it is. */
function start(): Started {
  const child = spawn(process.execPath, [inRoot('scripts/start.mjs'), '--no-demo'], {
    env: { ...process.env, KLADOS_DATA: data, PORT: String(port) },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let said = ''
  child.stdout!.on('data', (chunk) => (said += String(chunk)))
  child.stderr!.on('data', (chunk) => (said += String(chunk)))
  const gone = new Promise<number | null>((resolve) => child.once('exit', (code) => resolve(code)))
  return { child, said: () => said, gone }
}
async function until(what: () => boolean | Promise<boolean>, ms = 30_000): Promise<boolean> {
  for (const end = Date.now() + ms; Date.now() < end; await pause(50)) if (await what()) return true
  return false
}
/** Every process that was given this test's data, or works on it. */
const processes = () =>
  readdirSync('/proc').filter((name) => {
    if (!/^\d+$/.test(name) || Number(name) === process.pid) return false
    try {
      return (
        readFileSync(join('/proc', name, 'cmdline'), 'utf8').includes(data) ||
        readFileSync(join('/proc', name, 'environ'), 'utf8').includes(data)
      )
    } catch {
      return false
    }
  })

describe('npm start', () => {
  it('killed outright, twice, leaves neither process, port nor lock, and starts again each time', async () => {
    for (let round = 0; round < 2; round++) {
      const { child, said, gone } = start()
      expect([await until(() => said().includes('Klados is at')), said()]).toEqual([true, said()])
      expect(said()).toContain(`127.0.0.1:${port}`)
      child.kill('SIGKILL')
      await gone
      expect(await until(() => processes().length === 0)).toBe(true)
      expect(await isFree(port)).toBe(true)
      expect(existsSync(join(data, 'start.lock'))).toBe(false)
    }
  }, 120_000)

  it('says in one line what it brings back, on the same port, and says where its logs are', async () => {
    const { child, said, gone } = start()
    await until(() => said().includes('Klados is at'))
    expect(said()).toContain(`Logs are in ${join(data, 'logs')}`)
    const server = processes().find((pid) =>
      readFileSync(join('/proc', pid, 'cmdline'), 'utf8').includes('main.mjs'),
    )!
    process.kill(Number(server), 'SIGKILL')
    expect(await until(() => said().includes('the server is back'))).toBe(true)
    expect(
      said()
        .split('\n')
        .filter((line) => line.includes('SIGKILL')),
    ).toEqual(['· the server ended (SIGKILL); starting it again'])
    expect((await fetch(`http://127.0.0.1:${port}/api/health`)).status).toBe(200)
    child.kill('SIGINT')
    expect(await gone).toBe(0)
    expect(readFileSync(join(data, 'logs', 'server.log'), 'utf8')).toContain('listening')
  }, 60_000)

  it('gives up at once, with the reason, on a database that a later release has been at', async () => {
    const server = await startPostgres(join(data, 'postgres'))
    const client = new pg.Client({ connectionString: server.ownerUrl('klados') })
    await client.connect()
    await client.query(`insert into migration (name, run_on) values ('0999_of_tomorrow', now())`)
    await client.end()
    await server.stop()
    const { said, gone } = start()
    expect(await gone).toBe(1)
    expect(said()).toMatch(/later release of Klados \(it has 0999_of_tomorrow\)/)
    expect(said()).not.toContain('starting it again')
    expect(await until(() => processes().length === 0)).toBe(true)
  }, 60_000)
})
