import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { relative } from 'node:path'
import { requireChromium } from './lib/debian.mjs'
import { build, installPackages } from './lib/install.mjs'
import { inRoot, inWork, root, workDir } from './lib/paths.mjs'
import { run, runQuietly, step } from './lib/run.mjs'

/**
 * The whole check, from a bare machine: what is missing is installed first. `--quick` leaves the browser out.
 */
const isQuick = process.argv.includes('--quick')
const bin = (name) => inRoot('node_modules/.bin', name)
const results = []

async function check(name, work) {
  const started = Date.now()
  step(name)
  let isGood = true
  await work().catch((error) => {
    isGood = false
    process.stdout.write(`${error.message}\n`)
  })
  results.push({ name, isGood, seconds: (Date.now() - started) / 1000 })
}

const reports = { vitest: inWork('vitest.json'), playwright: inWork('playwright.json') }

function readReports() {
  const read = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null)
  const [unit, browser] = [read(reports.vitest), read(reports.playwright)]
  const unitFailed = (unit?.testResults ?? []).flatMap(({ name, assertionResults }) =>
    assertionResults
      .filter(({ status }) => status === 'failed')
      .map(({ fullName }) => `${relative(root, name)}: ${fullName}`),
  )
  const browserTests = (browser?.suites ?? []).flatMap(testsIn)
  const named = (status) =>
    browserTests.filter((test) => test.status === status).map(({ name }) => `e2e/${name}`)
  return {
    passed: (unit?.numPassedTests ?? 0) + (browser?.stats.expected ?? 0) + (browser?.stats.flaky ?? 0),
    failed: (unit?.numFailedTests ?? 0) + (browser?.stats.unexpected ?? 0),
    failedNames: [...unitFailed, ...named('unexpected')],
    secondTimeNames: named('flaky'),
  }
}

function testsIn({ specs = [], suites = [] }) {
  return [
    ...specs.flatMap(({ file, title, tests }) =>
      tests.map(({ status }) => ({ name: `${file}: ${title}`, status })),
    ),
    ...suites.flatMap(testsIn),
  ]
}

async function main() {
  mkdirSync(workDir, { recursive: true })
  for (const report of Object.values(reports)) rmSync(report, { force: true })
  await installPackages()
  const { requirePostgres } = await import('./lib/postgres.mjs')
  await requirePostgres()
  if (!isQuick) await requireChromium()

  const tsc = (project) => runQuietly(bin('tsc'), ['-p', project], { cwd: root })
  await check('types', async () => {
    for (const project of [
      'packages/core',
      'packages/core/tsconfig.test.json',
      'packages/contract',
      'apps/server',
      'apps/web',
      'e2e',
    ])
      await tsc(project)
  })
  await check('lint', () => runQuietly(bin('eslint'), ['.', '--max-warnings', '0'], { cwd: root }))
  await check('format', () =>
    runQuietly(bin('prettier'), ['--check', '--log-level', 'warn', '.'], { cwd: root }),
  )
  await check('layers', () =>
    runQuietly(
      bin('depcruise'),
      ['--config', '.dependency-cruiser.cjs', '--output-type', 'err', 'packages', 'apps', 'e2e'],
      { cwd: root },
    ),
  )
  await check('build', build)
  await check('unit and server tests', () =>
    run(
      bin('vitest'),
      ['run', '--reporter=default', '--reporter=json', `--outputFile.json=${reports.vitest}`],
      { cwd: root, env: { ...process.env, NO_COLOR: '1' } },
    ),
  )
  if (!isQuick) {
    await check('browser tests', async () => {
      const { withTestServer } = await import('./lib/test-server.mjs')
      await withTestServer((env) =>
        run(bin('playwright'), ['test'], {
          cwd: inRoot('e2e'),
          env: { ...process.env, ...env, PLAYWRIGHT_JSON: reports.playwright },
        }),
      )
    })
  }

  if (!isQuick)
    await check('soak, short', () =>
      run(process.execPath, [inRoot('scripts/soak.mjs'), '--short'], { cwd: root }),
    )

  const { passed, failed, failedNames, secondTimeNames } = readReports()
  process.stdout.write('\n')
  for (const { name, isGood, seconds } of results) {
    process.stdout.write(`${isGood ? 'ok    ' : 'FAILED'}  ${name} (${seconds.toFixed(1)} s)\n`)
  }
  for (const name of failedNames) process.stdout.write(`failed: ${name}\n`)
  for (const name of secondTimeNames) process.stdout.write(`passed only the second time: ${name}\n`)
  const brokenChecks = results.filter((result) => !result.isGood).length
  // A check that is no test runner counts as one, or a lint failure would close on "0 failed".
  process.stdout.write(`\n${passed} passed, ${Math.max(failed, brokenChecks)} failed\n`)
  process.exit(brokenChecks === 0 && passed > 0 ? 0 : 1)
}

main().catch((error) => {
  process.stderr.write(`${error.message}\n`)
  process.exit(1)
})
