import { readFileSync } from 'node:fs'
import { pathToFileURL } from 'node:url'
import { build } from 'esbuild'
import { inRoot } from './lib/paths.mjs'

/** What the server runs in processes and threads of their own. */
export const sideFiles = [
  'files/press-worker',
  'exchange/import-worker',
  'standing/fold-worker',
  'demo/model-worker',
]

/** Bundles files of the server into a folder; their npm packages stay outside, the workspace's own are bundled. */
export async function bundle(names, outdir) {
  const { dependencies } = JSON.parse(readFileSync(inRoot('apps/server/package.json'), 'utf8'))
  await build({
    entryPoints: names.map((name) => inRoot(`apps/server/src/${name}.ts`)),
    entryNames: '[name]',
    outdir,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    sourcemap: true,
    external: Object.keys(dependencies).filter((name) => !name.startsWith('@klados/')),
    logLevel: 'warning',
  })
}

if (import.meta.url === pathToFileURL(process.argv[1]).href)
  await bundle(['main', ...sideFiles, 'accounts/reset-link'], inRoot('apps/server/dist'))
