import { spawnSync } from 'node:child_process'
import { rmSync } from 'node:fs'
import { createInterface } from 'node:readline'
import { setTimeout as pause } from 'node:timers/promises'
import { holderOf } from './lib/lock.mjs'

/**
 * Stands by the start command, which tells it line by line what runs. When that command is lost, killed
 * outright or with its terminal, it ends what was left: the server, then the database, then the lock. It
 * needs no package and hears no signal.
 */
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => undefined)

const [lockFile] = process.argv.slice(2)
const running = { server: null, database: null }
let isDismissed = false

const isAlive = (pid) => {
  try {
    process.kill(pid, 0)
    return true
  } catch {
    return false
  }
}
async function end(pid, ms) {
  const until = Date.now() + ms
  if (isAlive(pid)) process.kill(pid, 'SIGTERM')
  while (isAlive(pid) && Date.now() < until) await pause(50)
  if (isAlive(pid)) process.kill(pid, 'SIGKILL')
}

const lines = createInterface({ input: process.stdin })
lines.on('line', (line) => {
  const message = JSON.parse(line)
  if (message === 'dismissed') isDismissed = true
  else Object.assign(running, message)
})
lines.on('close', async () => {
  if (isDismissed) process.exit(0)
  const { server, database } = running
  if (server !== null) await end(server, 5000)
  if (database !== null) {
    const { pgCtl, data, uid, gid } = database
    const stop = (mode) =>
      spawnSync(pgCtl, ['-D', data, '-m', mode, '-w', '-t', '20', 'stop'], {
        cwd: '/',
        ...(uid === undefined ? {} : { uid, gid }),
      })
    if (stop('fast').status !== 0) stop('immediate')
  }
  if (holderOf(lockFile) === null) rmSync(lockFile, { force: true })
  process.exit(0)
})
