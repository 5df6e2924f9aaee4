import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { relative } from 'node:path'
import { requireChromium } from './debian.mjs'
import { build, installPackages } from './install.mjs'
import { inRoot, inWork, root, workDir } from './paths.mjs'
import { run, runQuietly, step } from './run.mjs'

/** The parts that the quick, the whole and the long check are put together of. */

const bin = (name) => inRoot('node_modules/.bin', name)
const quietly = (command, args, env = {}) =>
  runQuietly(command, args, { cwd: root, env: { ...process.env, ...env } })
const reports = {
  pure: inWork('tests-pure.json'),
  server: inWork('tests-server.json'),
  browser: inWork('tests-browser.json'),
}

const PROJECTS = [
  'packages/core',
  'packages/core/tsconfig.test.json',
  'packages/contract',
  'apps/server',
  'apps/web',
  'e2e',
]

/**
 * By TypeScript 7, several times as fast as 6, which is here for the slower linter; both call themselves tsc. In one thread: each
 * of several works out much of the same, and the other core is not idle.
 */
async function types() {
  for (const project of PROJECTS)
    await quietly(inRoot('node_modules/typescript-native/bin/tsc'), ['-p', project, '--singleThreaded'])
}
const style = () => quietly(bin('biome'), ['check', '--error-on-warnings', '.'])
/** Rules that ask a compiler, for types or for what React could keep, and all the others of that linter beside them. */
const lintTyped = () => quietly(bin('eslint'), ['.', '--max-warnings', '0'])
const layers = () =>
  quietly(bin('depcruise'), [
    ...['--config', '.dependency-cruiser.cjs', '--output-type', 'err'],
    ...['packages', 'apps', 'e2e'],
  ])

/** Tests of some of vitest's projects, with `times` as many tries of each property as usual. */
const unitTests = (report, projects, workers, times = 1) =>
  run(
    bin('vitest'),
    [
      ...['run', '--reporter=default', '--reporter=json', `--outputFile.json=${report}`],
      ...[`--maxWorkers=${workers}`, ...projects.map((name) => `--project=${name}`)],
    ],
    { cwd: root, env: { ...process.env, NO_COLOR: '1', KLADOS_RUNS: String(times) } },
  )
/** What keeps its core busy. */
const pureTests = (times) => unitTests(reports.pure, ['core', 'web'], 2, times)
/** What mostly waits: for a database, for a server to start, for a time to pass. */
const serverTests = (times) => unitTests(reports.server, ['server'], 2, times)

async function browserTests() {
  const { withTestServer } = await import('./test-server.mjs')
  await withTestServer((env) =>
    run(bin('playwright'), ['test'], {
      cwd: inRoot('e2e'),
      env: {
        ...process.env,
        ...env,
        PLAYWRIGHT_JSON: reports.browser,
      },
    }),
  )
}

const soak = () => run(process.execPath, [inRoot('scripts/soak.mjs')], { cwd: root })

export const parts = {
  types,
  style,
  lintTyped,
  layers,
  build,
  pureTests,
  serverTests,
  browserTests,
  soak,
}

/** What every check needs on a bare machine. */
export async function prepare({ hasBrowser }) {
  mkdirSync(workDir, { recursive: true })
  for (const report of Object.values(reports)) rmSync(report, { force: true })
  await installPackages()
  const { requirePostgres } = await import('./postgres.mjs')
  await requirePostgres()
  if (hasBrowser) await requireChromium()
}

/** Does parts of a check and remembers how each ended. */
export function createRecord() {
  const results = []
  return {
    results,
    async check(name, work) {
      const started = Date.now()
      step(name)
      let isGood = true
      await work().catch((error) => {
        isGood = false
        process.stdout.write(`${error.message}\n`)
      })
      const seconds = (Date.now() - started) / 1000
      results.push({ name, isGood, seconds })
      step(`${name}: ${isGood ? 'done' : 'FAILED'} in ${seconds.toFixed(1)} s`)
    },
  }
}

/** Tells how all parts ended and ends the process so. */
export function tellAndExit(results) {
  const { passed, failed, failedNames, secondTimeNames } = readReports()
  process.stdout.write('\n')
  for (const { name, isGood, seconds } of results) {
    process.stdout.write(`${isGood ? 'ok    ' : 'FAILED'}  ${name} (${seconds.toFixed(1)} s)\n`)
  }
  for (const name of failedNames) process.stdout.write(`failed: ${name}\n`)
  for (const name of secondTimeNames) process.stdout.write(`passed only the second time: ${name}\n`)
  const broken = results.filter((result) => !result.isGood).length
  // A check that is no test runner counts as one, or a lint failure would close on "0 failed".
  process.stdout.write(`\n${passed} passed, ${Math.max(failed, broken)} failed\n`)
  process.exit(broken === 0 && passed > 0 ? 0 : 1)
}

function readReports() {
  const read = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null)
  const units = [read(reports.pure), read(reports.server)].filter((report) => report !== null)
  const browser = read(reports.browser)
  const sum = (of) => units.reduce((total, report) => total + of(report), 0)
  const unitFailed = units
    .flatMap(({ testResults }) => testResults)
    .flatMap(({ name, assertionResults }) =>
      assertionResults
        .filter(({ status }) => status === 'failed')
        .map(({ fullName }) => `${relative(root, name)}: ${fullName}`),
    )
  const browserTests = (browser?.suites ?? []).flatMap(testsIn)
  const named = (status) =>
    browserTests.filter((test) => test.status === status).map(({ name }) => `e2e/${name}`)
  return {
    passed: sum((one) => one.numPassedTests) + (browser?.stats.expected ?? 0) + (browser?.stats.flaky ?? 0),
    failed: sum((one) => one.numFailedTests) + (browser?.stats.unexpected ?? 0),
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
