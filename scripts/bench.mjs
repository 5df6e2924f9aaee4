import { build, installPackages } from './lib/install.mjs'
import { inRoot, root } from './lib/paths.mjs'
import { run } from './lib/run.mjs'

await installPackages()
await run(inRoot('node_modules/.bin/tsx'), [inRoot('apps/server/bench/main.ts')], { cwd: root })

await build()
const { withTestServer } = await import('./lib/test-server.mjs')
await withTestServer(async (env) => {
  for (const bench of ['e2e/bench-typing.ts', 'e2e/bench-pan.ts', 'e2e/bench-years.ts', 'e2e/bench-phone.ts'])
    await run(inRoot('node_modules/.bin/tsx'), [inRoot(bench)], { env: { ...process.env, ...env } })
})
