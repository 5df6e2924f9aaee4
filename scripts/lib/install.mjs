import { createHash } from 'node:crypto'
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { inRoot, inWork, root, workDir } from './paths.mjs'
import { pressFolder } from './press.mjs'
import { runQuietly, step } from './run.mjs'

const stampFile = (name) => inWork(`${name}.stamp`)
const readStamp = (name) => (existsSync(stampFile(name)) ? readFileSync(stampFile(name), 'utf8') : '')
function writeStamp(name, value) {
  mkdirSync(workDir, { recursive: true })
  writeFileSync(stampFile(name), value)
}

/**
 * npm packages as the lock file says, unless they are there already. The stamp is written only after success.
 */
export async function installPackages() {
  const wanted = createHash('sha256')
    .update(readFileSync(inRoot('package-lock.json')))
    .digest('hex')
  if (readStamp('packages') === wanted && existsSync(inRoot('node_modules'))) return
  step('installing packages')
  rmSync(stampFile('packages'), { force: true })
  // The npm that started this script, so that its own settings hold; plain npm where node was called by hand.
  const npm = process.env.npm_execpath
  const args = ['ci', '--include=dev', '--no-audit', '--no-fund', '--loglevel=error']
  if (npm?.endsWith('.js')) await runQuietly(process.execPath, [npm, ...args], { cwd: root })
  else await runQuietly('npm', args, { cwd: root })
  writeStamp('packages', wanted)
}

/** Builds web and server where a source is newer in content than the last build. */
export async function build() {
  const wanted = hashOfSources()
  if (readStamp('build') === wanted && existsSync(inRoot('apps/web/dist/index.html'))) return
  step('building')
  rmSync(stampFile('build'), { force: true })
  const earlier = keepAssets()
  await Promise.all([
    runQuietly(process.execPath, [inRoot('node_modules/vite/bin/vite.js'), 'build'], {
      cwd: inRoot('apps/web'),
      // Whoever builds: a test runner says of itself that it is not production.
      env: { ...process.env, NODE_ENV: 'production' },
    }),
    runQuietly(process.execPath, [inRoot('scripts/build-server.mjs')], { cwd: root }),
  ])
  // Before the last build's assets come back beside the new ones: only these are kept on devices.
  await runQuietly(process.execPath, [inRoot('scripts/build-sw.mjs')], { cwd: root })
  bringBack(earlier)
  await pressFolder(inRoot('apps/web/dist'))
  writeStamp('build', wanted)
}

const assetFolder = inRoot('apps/web/dist/assets')
const keptFolder = inWork('last-assets')
const ownAssets = inWork('own-assets.json')
const listAssets = () => (existsSync(assetFolder) ? readdirSync(assetFolder) : [])

/**
 * Puts by the assets that the last build made itself: a page of it that is still open may ask for one of them
 * yet.
 */
function keepAssets() {
  const own = existsSync(ownAssets) ? JSON.parse(readFileSync(ownAssets, 'utf8')) : listAssets()
  rmSync(keptFolder, { recursive: true, force: true })
  mkdirSync(keptFolder, { recursive: true })
  for (const name of own)
    if (existsSync(join(assetFolder, name))) copyFileSync(join(assetFolder, name), join(keptFolder, name))
  return own
}

/** Those of the last build lie beside the new ones, for one build; what was older is gone. */
function bringBack(earlier) {
  const fresh = listAssets()
  writeFileSync(ownAssets, JSON.stringify(fresh))
  for (const name of earlier)
    if (!fresh.includes(name) && existsSync(join(keptFolder, name)))
      copyFileSync(join(keptFolder, name), join(assetFolder, name))
  rmSync(keptFolder, { recursive: true, force: true })
}

function hashOfSources() {
  const hash = createHash('sha256')
  const visit = (path) => {
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path).sort()) {
        if (!['node_modules', 'dist', 'test'].includes(name)) visit(join(path, name))
      }
    } else if (!/\.test\.tsx?$/.test(path)) hash.update(path.slice(root.length)).update(readFileSync(path))
  }
  for (const part of [
    'packages',
    'apps',
    'scripts/build-server.mjs',
    'scripts/build-sw.mjs',
    'scripts/lib/press.mjs',
    'package-lock.json',
  ])
    visit(inRoot(part))
  return hash.digest('hex')
}
