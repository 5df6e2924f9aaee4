import { readFileSync } from 'node:fs'
import { build } from 'esbuild'
import { inRoot } from './lib/paths.mjs'

/** The server as one file; its npm packages stay outside, the workspace's own are bundled. */
const { dependencies } = JSON.parse(readFileSync(inRoot('apps/server/package.json'), 'utf8'))
await build({
  entryPoints: [inRoot('apps/server/src/main.ts')],
  outfile: inRoot('apps/server/dist/main.mjs'),
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  sourcemap: true,
  external: Object.keys(dependencies).filter((name) => !name.startsWith('@klados/')),
  logLevel: 'warning',
})
