import { spawn } from 'node:child_process'

/** Runs a command to its end, its output shown; rejects with the command and its exit code. */
export function run(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: 'inherit', ...options })
    child.on('error', reject)
    child.on('exit', (code, signal) => {
      if (code === 0) resolve()
      else reject(new Error(`${command} ${args.join(' ')} ended with ${signal ?? code}`))
    })
  })
}

/** As `run`, but collects the output; it is shown only when the command fails. */
export function runQuietly(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'], ...options })
    let output = ''
    child.stdout.on('data', (data) => (output += data))
    child.stderr.on('data', (data) => (output += data))
    child.on('error', reject)
    child.on('close', (code, signal) => {
      if (code === 0) resolve(output)
      else reject(new Error(`${command} ${args.join(' ')} ended with ${signal ?? code}\n${output}`))
    })
  })
}

export const step = (text) => process.stdout.write(`· ${text}\n`)
