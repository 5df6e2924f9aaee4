import { closeSync, mkdirSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs'
import { dirname } from 'node:path'

const isAlive = (pid) => {
  try {
    process.kill(pid, 0)
    return true
  } catch (error) {
    return error.code === 'EPERM'
  }
}

/**
 * Takes the lock file for this process, or tells who holds it. A file left by a process that is gone is taken over; two
 * that start at once are told apart by the exclusive open.
 */
export function takeLock(file) {
  mkdirSync(dirname(file), { recursive: true })
  for (let tries = 0; tries < 2; tries++) {
    try {
      const handle = openSync(file, 'wx')
      writeSync(handle, String(process.pid))
      closeSync(handle)
      return { release: () => rmSync(file, { force: true }) }
    } catch (error) {
      if (error.code !== 'EEXIST') throw error
    }
    const pid = Number(readFileSync(file, 'utf8'))
    if (pid > 0 && pid !== process.pid && isAlive(pid)) return { heldBy: pid }
    rmSync(file, { force: true })
  }
  return { heldBy: 0 }
}
