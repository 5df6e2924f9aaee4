import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { createRecord, parts, prepare, tellAndExit } from './lib/checks.mjs'
import { mutate } from './lib/mutation.mjs'
import { inRoot, root } from './lib/paths.mjs'

/**
 * What takes too long for each change: rules of the linter that ask for types, every property twenty times as often, the
 * journeys of every kind of frame, the whole soak, and mutations of what decides. `--only NAME` does one part, `--every-line`
 * mutates every line of a module and not a sample of them. Its last result stands in docs/long-check.md.
 */
const only = process.argv.includes('--only') ? process.argv[process.argv.indexOf('--only') + 1] : null
const everyLine = process.argv.includes('--every-line')
const TIMES = 20

const { results, check } = createRecord()
let scores = []
const all = {
  lint: ['lint by types', parts.lintTyped],
  unit: [
    `tests of core, web and server, each property ${TIMES} times as often`,
    async () => {
      await parts.pureTests(TIMES)
      await parts.serverTests(TIMES)
    },
  ],
  browser: ['browser tests, every kind of frame', () => parts.browserTests()],
  soak: ['soak', parts.soak],
  mutation: [
    'mutation',
    async () => {
      scores = await mutate({ everyLine })
      const low = scores.filter(({ share }) => share < 80)
      if (low.length > 0)
        throw new Error(`fewer than 80 % killed in ${low.map(({ module }) => module).join(', ')}`)
    },
  ],
}

await prepare({ hasBrowser: true })
await check('build', parts.build)
for (const [name, [title, work]] of Object.entries(all))
  if (only === null || only === name) await check(title, work)
if (only === null) writeFileSync(inRoot('docs/long-check.md'), written())
tellAndExit(results)

function written() {
  const commit = execFileSync('git', ['rev-parse', '--short', 'HEAD'], { cwd: root, encoding: 'utf8' }).trim()
  const day = new Date().toISOString().slice(0, 10)
  return [
    '# The long check',
    '',
    `\`npm run check:long\` on ${day}, at ${commit}.`,
    '',
    '| Part | Result | Minutes |',
    '| --- | --- | --- |',
    ...results.map(
      ({ name, isGood, seconds }) =>
        `| ${name} | ${isGood ? 'good' : 'FAILED'} | ${(seconds / 60).toFixed(1)} |`,
    ),
    '',
    'Small changes of the code that the tests noticed, in a sample of its lines:',
    '',
    '| Module | Noticed | Of | Lines | Of lines |',
    '| --- | --- | --- | --- | --- |',
    ...scores.map(
      ({ module, killed, of, share, lines, ofLines }) =>
        `| ${module} | ${share.toFixed(0)} % (${killed}) | ${of} | ${lines} | ${ofLines} |`,
    ),
    '',
  ].join('\n')
}
