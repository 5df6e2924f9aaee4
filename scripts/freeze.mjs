import { build, installPackages } from './lib/install.mjs'
import { inRoot } from './lib/paths.mjs'
import { run } from './lib/run.mjs'

/** What this release leaves on servers and devices, as fixtures for those that follow: `npm run freeze -- NAME`. */
const [name] = process.argv.slice(2)
if (!name) throw new Error('Say the name of the folder under e2e/frozen')
await installPackages()
await build()
const { withTestServer } = await import('./lib/test-server.mjs')
await withTestServer((env) =>
  run(inRoot('node_modules/.bin/tsx'), [inRoot('e2e/freeze.ts')], {
    env: { ...process.env, ...env, FROZEN: process.env.FROZEN ?? inRoot('e2e/frozen', name) },
  }),
)
