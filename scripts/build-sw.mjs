import { createHash } from 'node:crypto'
import { readFileSync, readdirSync } from 'node:fs'
import { build } from 'esbuild'
import { inRoot } from './lib/paths.mjs'

/** The service worker of the web build that lies in dist, with the list of its files. */
const dist = inRoot('apps/web/dist')
const files = readdirSync(dist, { recursive: true, withFileTypes: true })
  .filter((entry) => entry.isFile())
  .map((entry) => `${entry.parentPath}/${entry.name}`.slice(dist.length))
  .filter((path) => path !== '/sw.js' && !path.endsWith('.map'))
  .sort()
const entries = files.map((url) => ({
  url,
  // Assets carry a hash of their content in their names.
  revision: url.startsWith('/assets/')
    ? null
    : createHash('sha256')
        .update(readFileSync(`${dist}${url}`))
        .digest('hex')
        .slice(0, 16),
}))
await build({
  entryPoints: [inRoot('apps/web/src/offline/sw.ts')],
  outfile: `${dist}/sw.js`,
  bundle: true,
  minify: true,
  target: 'es2022',
  define: { __FILES__: JSON.stringify(entries), 'process.env.NODE_ENV': '"production"' },
  logLevel: 'warning',
})
