import { installPackages } from './lib/install.mjs'
import { inRoot, root } from './lib/paths.mjs'
import { run } from './lib/run.mjs'

await installPackages()
await run(inRoot('node_modules/.bin/tsx'), [inRoot('apps/server/bench/main.ts')], { cwd: root })
