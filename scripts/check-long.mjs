import { execFileSync } from 'node:child_process'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { createRecord, parts, prepare, tellAndExit } from './lib/checks.mjs'
import { mutate } from './lib/mutation.mjs'
import { inRoot, root } from './lib/paths.mjs'

/**
 * What takes too long for each change: rules of the linter that ask for types, every property twenty times as often, the
 * journeys of every kind of frame, the whole soak, and mutations of what decides. `--only NAME` does one part,
 * `--every-line` mutates every line of a module and not a sample of them. The last result of each part stands in
 * docs/long-check.md.
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
  browser: ['browser tests, every kind of frame and every look', () => parts.browserTests()],
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
for (const [name, [title, work]] of Object.entries(all)) {
  if (only !== null && only !== name) continue
  await check(title, work)
  writeDown(results.at(-1))
}
tellAndExit(results)

/** Puts how a part ended in the place of how it ended before. */
function writeDown({ name, isGood, seconds }) {
  const file = inRoot('docs/long-check.md')
  const before = existsSync(file) ? readFileSync(file, 'utf8').split('\n') : []
  const rowsOf = (titles) => before.filter((line) => titles.some((title) => line.startsWith(`| ${title} |`)))
  const commit = execFileSync('git', ['rev-parse', '--short', 'HEAD'], { cwd: root, encoding: 'utf8' }).trim()
  const day = new Date().toISOString().slice(0, 10)
  const row = `| ${name} | ${isGood ? 'good' : 'FAILED'} | ${(seconds / 60).toFixed(1)} | ${day} | ${commit} |`
  const partRows = Object.values(all).flatMap(([title]) => (title === name ? [row] : rowsOf([title])))
  const scoreRows =
    scores.length > 0
      ? scores.map(
          ({ module, killed, of, share, lines, ofLines }) =>
            `| ${module} | ${share.toFixed(0)} % (${killed}) | ${of} | ${lines} | ${ofLines} |`,
        )
      : scoresOf(before)
  writeFileSync(
    file,
    [
      '# The long check',
      '',
      'The last result of each part of `npm run check:long`.',
      '',
      '| Part | Result | Minutes | Day | Commit |',
      '| --- | --- | --- | --- | --- |',
      ...partRows,
      ...(scoreRows.length === 0
        ? []
        : [
            '',
            'Small changes of the code that the tests noticed, in a sample of its lines:',
            '',
            '| Module | Noticed | Of | Lines | Of lines |',
            '| --- | --- | --- | --- | --- |',
            ...scoreRows,
          ]),
      '',
    ].join('\n'),
  )
}

function scoresOf(lines) {
  const head = lines.findIndex((line) => line.startsWith('| Module |'))
  return head < 0 ? [] : lines.slice(head + 2).filter(Boolean)
}
