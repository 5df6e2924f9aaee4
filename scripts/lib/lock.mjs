import { closeSync, mkdirSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs'
import { dirname } from 'node:path'

/**
 * When a process began, in ticks since the machine did: with the pid it names one process and no later one of
 * that pid.
 */
function startOf(pid) {
  try {
    return readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ').at(-1).split(' ')[19]
  } catch {
    return null
  }
}

/**
 * Takes the lock file for this process, or tells who holds it. A file left by a process that is gone is taken
 * over; two that start at once are told apart by the exclusive open.
 */
export function takeLock(file) {
  mkdirSync(dirname(file), { recursive: true })
  for (let tries = 0; tries < 2; tries++) {
    try {
      const handle = openSync(file, 'wx')
      writeSync(handle, `${process.pid} ${startOf(process.pid)}`)
      closeSync(handle)
      return { release: () => rmSync(file, { force: true }) }
    } catch (error) {
      if (error.code !== 'EEXIST') throw error
    }
    const pid = holderOf(file)
    if (pid !== null && pid !== process.pid) return { heldBy: pid }
    rmSync(file, { force: true })
  }
  return { heldBy: 0 }
}

/** The process that holds the lock and lives; null where there is none. */
export function holderOf(file) {
  try {
    const [pid, start] = readFileSync(file, 'utf8').split(' ')
    const now = startOf(Number(pid))
    return now !== null && (start === undefined || start === now) ? Number(pid) : null
  } catch {
    return null
  }
}
