import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { inRoot, inWork, root } from './paths.mjs'
import { run, step } from './run.mjs'

/** What decides for the grower: modules of core, and the pure parts of sending. */
const MODULES = {
  ...Object.fromEntries(
    ['training', 'laying', 'wood', 'ties', 'choices', 'season', 'budget'].map((name) => [
      name,
      [`packages/core/src/${name}/**/*.ts`],
    ]),
  ),
  sync: ['rules', 'answers', 'items', 'waits', 'clock-ahead', 'clock'].map(
    (name) => `apps/web/src/data/sync/${name}.ts`,
  ),
}

/**
 * Changes the code of each module in small ways and tells how many of the changes the tests noticed. What has not changed
 * since the last run is not tried again. `only` names one module.
 */
export async function mutate(only) {
  const scores = []
  for (const [module, files] of Object.entries(MODULES)) {
    if (only && only !== module) continue
    step(`mutations of ${module}`)
    const score = await mutateOne(module, files)
    step(`${module}: ${score.killed} of ${score.of} noticed, ${score.share.toFixed(0)} %`)
    scores.push(score)
  }
  return scores
}

async function mutateOne(module, files) {
  const folder = inWork(join('mutation', module))
  mkdirSync(folder, { recursive: true })
  const report = join(folder, 'report.json')
  const settings = join(folder, 'settings.json')
  writeFileSync(
    settings,
    JSON.stringify({
      testRunner: 'vitest',
      plugins: ['@stryker-mutator/vitest-runner'],
      vitest: { configFile: 'vitest.mutation.config.ts' },
      mutate: [...files, '!**/*.test.ts', '!**/index.ts'],
      incremental: true,
      incrementalFile: join(folder, 'incremental.json'),
      tempDirName: inWork('mutation/sandbox'),
      inPlace: false,
      concurrency: 2,
      coverageAnalysis: 'perTest',
      ignoreStatic: true,
      timeoutMS: 20_000,
      reporters: ['json'],
      jsonReporter: { fileName: report },
      ignorePatterns: ['.klados', 'docs', 'e2e/frozen', 'apps/web/dist', 'apps/server/dist', 'test-results'],
    }),
  )
  await run(inRoot('node_modules/.bin/stryker'), ['run', settings], { cwd: root })
  if (!existsSync(report)) throw new Error(`no report of the mutations of ${module}`)
  return { module, ...scoreOf(JSON.parse(readFileSync(report, 'utf8'))) }
}

function scoreOf({ files }) {
  const states = Object.values(files).flatMap(({ mutants }) => mutants.map(({ status }) => status))
  const killed = states.filter((state) => state === 'Killed' || state === 'Timeout').length
  const of = killed + states.filter((state) => state === 'Survived' || state === 'NoCoverage').length
  return { killed, of, share: of === 0 ? 100 : (killed / of) * 100 }
}
