import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { inRoot, inWork, root } from './paths.mjs'
import { run } from './run.mjs'

/** What decides for the grower: modules of core, and the pure parts of sending. */
const MODULES = {
  ...Object.fromEntries(
    ['training', 'laying', 'wood', 'ties', 'choices', 'season', 'budget'].map((name) => [
      name,
      readdirSync(inRoot('packages/core/src', name), { recursive: true })
        .filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts') && !file.endsWith('index.ts'))
        .map((file) => `packages/core/src/${name}/${file}`),
    ]),
  ),
  sync: ['rules', 'answers', 'items', 'waits', 'clock-ahead', 'clock'].map(
    (name) => `apps/web/src/data/sync/${name}.ts`,
  ),
}
/** So many lines are changed together: a change that reaches over more is left to the run over every line. */
const PIECE_LINES = 15
/** Of each module in one run, other ones with each commit. */
const SAMPLE_LINES = 45

/** Of the tries of a property, for each change: what is wrong is found by few, or by none. */
const SHARE_OF_RUNS = 0.1

/**
 * Changes the code of each module in small ways and tells how many of the changes the tests noticed: in a sample of its
 * lines, other ones with each commit, or in every line, which takes hours. What has not changed since the last run is not
 * tried again. `only` names one module.
 */
export async function mutate({ only, everyLine }) {
  const folder = inWork('mutation')
  mkdirSync(folder, { recursive: true })
  const seed = execFileSync('git', ['rev-list', '--count', 'HEAD'], { cwd: root, encoding: 'utf8' }).trim()
  const modules = Object.entries(MODULES)
    .filter(([name]) => !only || name === only)
    .map(([name, files]) => {
      const whole = files.flatMap((file) => piecesOf(file, Infinity))
      const taken = everyLine
        ? whole
        : sampleOf(
            files.flatMap((file) => piecesOf(file, PIECE_LINES)),
            seed,
          )
      return { name, whole, taken }
    })
  const report = join(folder, 'report.json')
  const settings = join(folder, 'settings.json')
  rmSync(report, { force: true })
  writeFileSync(
    settings,
    JSON.stringify({
      testRunner: 'vitest',
      plugins: ['@stryker-mutator/vitest-runner'],
      vitest: { configFile: 'vitest.mutation.config.ts' },
      mutate: modules.flatMap(({ taken }) => taken.map(({ file, from, to }) => `${file}:${from}-${to}`)),
      incremental: true,
      incrementalFile: join(folder, 'incremental.json'),
      tempDirName: join(folder, 'sandbox'),
      inPlace: false,
      concurrency: 2,
      coverageAnalysis: 'perTest',
      ignoreStatic: true,
      timeoutMS: 20_000,
      reporters: ['json', 'progress-append-only'],
      jsonReporter: { fileName: report },
      ignorePatterns: ['.klados', 'docs', 'e2e/frozen', 'apps/web/dist', 'apps/server/dist', 'test-results'],
    }),
  )
  await run(inRoot('node_modules/.bin/stryker'), ['run', settings], {
    cwd: root,
    env: { ...process.env, KLADOS_RUNS: String(SHARE_OF_RUNS) },
  })
  if (!existsSync(report)) throw new Error('no report of the mutations')
  const { files } = JSON.parse(readFileSync(report, 'utf8'))
  return modules.map(({ name, whole, taken }) => ({
    module: name,
    ...scoreOf(taken.flatMap((one) => mutantsIn(files, one))),
    lines: linesOf(taken),
    ofLines: linesOf(whole),
  }))
}

const linesOf = (pieces) => pieces.reduce((sum, { from, to }) => sum + to - from + 1, 0)

/** The lines of a file in pieces of so many, without its imports. */
function piecesOf(file, size) {
  const lines = readFileSync(inRoot(file), 'utf8').trimEnd().split('\n')
  const first = lines.findLastIndex((line) => / from '.*'$/.test(line)) + 1
  const of = Math.min(size, lines.length - first)
  return Array.from({ length: Math.ceil((lines.length - first) / of) }, (_, at) => ({
    file,
    from: first + at * of + 1,
    to: Math.min(lines.length, first + (at + 1) * of),
  }))
}

function sampleOf(pieces, seed) {
  const chance = ({ file, from }) => createHash('sha1').update(`${seed} ${file} ${from}`).digest('hex')
  const drawn = pieces
    .map((one) => ({ one, at: chance(one) }))
    .sort((a, b) => (a.at < b.at ? -1 : 1))
    .map(({ one }) => one)
  const enough = drawn.findIndex((_, at) => linesOf(drawn.slice(0, at + 1)) >= SAMPLE_LINES)
  return enough < 0 ? drawn : drawn.slice(0, enough + 1)
}

/** Those of a file's mutants that lie wholly in a piece of it; the report may hold those of earlier runs beside them. */
const mutantsIn = (files, { file, from, to }) =>
  (files[file]?.mutants ?? []).filter(({ location: { start, end } }) => start.line >= from && end.line <= to)

function scoreOf(mutants) {
  const count = (...wanted) => mutants.filter(({ status }) => wanted.includes(status)).length
  const killed = count('Killed', 'Timeout')
  const of = killed + count('Survived', 'NoCoverage')
  return { killed, of, share: of === 0 ? 100 : (killed / of) * 100 }
}
