import { readFileSync } from 'node:fs'
import { build } from 'esbuild'
import { inRoot } from './lib/paths.mjs'

/** The server, bundled; its npm packages stay outside, the workspace's own are bundled. */
const { dependencies } = JSON.parse(readFileSync(inRoot('apps/server/package.json'), 'utf8'))
await build({
  // The server, and beside it what it runs in processes and threads of their own.
  entryPoints: [
    'main',
    'files/press-worker',
    'exchange/import-worker',
    'standing/fold-worker',
    'accounts/reset-link',
  ].map((name) => inRoot(`apps/server/src/${name}.ts`)),
  entryNames: '[name]',
  outdir: inRoot('apps/server/dist'),
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  sourcemap: true,
  external: Object.keys(dependencies).filter((name) => !name.startsWith('@klados/')),
  logLevel: 'warning',
})
