import { mkdirSync } from 'node:fs'
import { build, installPackages } from './lib/install.mjs'
import { inRoot } from './lib/paths.mjs'
import { run } from './lib/run.mjs'

/** One current picture of each main view, from the demo data, into docs/screenshots. */
await installPackages()
await build()
mkdirSync(inRoot('docs/screenshots'), { recursive: true })
const { withTestServer } = await import('./lib/test-server.mjs')
await withTestServer((env) =>
  run(inRoot('node_modules/.bin/tsx'), [inRoot('e2e/shots.ts')], {
    env: { ...process.env, ...env, SHOTS: process.env.SHOTS ?? inRoot('docs/screenshots') },
  }),
)
