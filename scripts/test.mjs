import { execFileSync } from 'node:child_process'
import { createRecord, parts, prepare, tellAndExit } from './lib/checks.mjs'
import { root } from './lib/paths.mjs'

/**
 * The whole check, from a bare machine: what is missing is installed first. `--quick` leaves the browser out. What takes
 * much longer is in `npm run check:long`.
 */
const isQuick = process.argv.includes('--quick')

/** Another third with each commit; a commit has the same one wherever it is checked. */
function third() {
  const commits = execFileSync('git', ['rev-list', '--count', 'HEAD'], { cwd: root, encoding: 'utf8' })
  return Number(commits) % 3
}

async function main() {
  const { results, check } = createRecord()
  const taken = third()
  // Every test that leaves two thirds of something out goes by this.
  process.env.KLADOS_THIRD = String(taken)
  const started = Date.now()
  await prepare({ hasBrowser: !isQuick })
  results.push({ name: 'packages and programs', isGood: true, seconds: (Date.now() - started) / 1000 })
  // Three at a time, each of which keeps one core busy or less: what reads the sources, what runs them, and what waits.
  const reading = async () => {
    await check('types', parts.types)
    await check('format and lint', parts.style)
    await check('layers', parts.layers)
  }
  await check('build', parts.build)
  const isRead = reading()
  await check('tests of core and web', parts.pureTests)
  await isRead
  await Promise.all([
    check('tests of the server', parts.serverTests),
    isQuick ? null : check(`browser tests, third ${taken + 1} of the kinds of frame`, parts.browserTests),
  ])
  tellAndExit(results)
}

main().catch((error) => {
  process.stderr.write(`${error.message}\n`)
  process.exit(1)
})
