import { chmodSync, existsSync, mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import { inWork } from './paths.mjs'
import { runQuietly, step } from './run.mjs'

/**
 * Programs of Debian packages that an ordinary user has unpacked: small scripts that start them where they
 * lie.
 */
export const unpackedBin = inWork('debian/bin')

/**
 * A package of Debian, where a program is missing: installed as root, otherwise unpacked into the project.
 */
export async function installDebian(name, why) {
  if (process.getuid?.() !== 0) return unpackDebian(name, why)
  step(`installing ${why} from Debian (${name})`)
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  await runQuietly('apt-get', ['update', '-qq'], { env })
  await runQuietly('apt-get', ['install', '-y', '-qq', '--no-install-recommends', name], { env })
}

/**
 * Path of Chromium without a window, which is installed or unpacked first where it is missing. The one with a window draws
 * its own frame around each page, seen or not, at a third more of the work.
 */
export async function requireChromium() {
  const name = 'chromium-headless-shell'
  const places = [join('/usr/bin', name), join(unpackedBin, name)]
  const found = () => places.find((place) => existsSync(place))
  if (!found()) await installDebian(name, 'Chromium')
  if (!found()) throw new Error(`Chromium was installed but was not found at ${places[0]}`)
  return found()
}

/** apt with lists and cache of its own needs no rights; it still reads which packages the system has. */
async function unpackDebian(name, why) {
  step(`fetching ${why} from Debian into the project (${name})`)
  const folder = inWork('debian')
  const archives = join(folder, 'cache/archives')
  for (const part of [join(folder, 'lists/partial'), join(archives, 'partial'), unpackedBin])
    mkdirSync(part, { recursive: true })
  const own = [
    `Dir::State::Lists=${join(folder, 'lists')}`,
    `Dir::Cache=${join(folder, 'cache')}`,
    'Debug::NoLocking=1',
    'APT::Update::Post-Invoke::=',
  ].flatMap((setting) => ['-o', setting])
  try {
    await runQuietly('apt-get', [...own, 'update', '-qq'])
    await runQuietly('apt-get', [
      ...own,
      'install',
      '-y',
      '-qq',
      '--no-install-recommends',
      '--download-only',
      name,
    ])
    const unpacked = join(folder, 'root')
    for (const file of readdirSync(archives).filter((file) => file.endsWith('.deb')))
      await runQuietly('dpkg-deb', ['-x', join(archives, file), unpacked])
    wrapPrograms(unpacked)
    rmSync(archives, { recursive: true })
  } catch (error) {
    throw new Error(
      `${why} is missing and could not be fetched. As root: apt-get install ${name}\n${error.message}`,
    )
  }
}

/** Programs that an earlier release unpacked and had no use for: found where they lie. */
export function requireTools(bin, names) {
  const unpacked = inWork('debian/root')
  const missing = () => names.filter((name) => !existsSync(join(bin, name)))
  if (missing().length > 0 && bin === unpackedBin && existsSync(unpacked)) wrapPrograms(unpacked)
  if (missing().length > 0)
    throw new Error(
      `${missing().join(' and ')} are not beside PostgreSQL's other programs in ${bin}; install the Debian package postgresql-client`,
    )
}

/** What `installDebian` is asked for, started with the libraries that were unpacked beside it. */
function wrapPrograms(unpacked) {
  const postgres = join(unpacked, 'usr/lib/postgresql')
  const programs = [
    join(unpacked, 'usr/lib/chromium/chromium-headless-shell'),
    ...(existsSync(postgres) ? readdirSync(postgres) : []).flatMap((version) =>
      ['initdb', 'postgres', 'pg_ctl', 'pg_dump', 'pg_restore'].map((program) =>
        join(postgres, version, 'bin', program),
      ),
    ),
  ].filter((program) => existsSync(program))
  const libraries = libraryFolders(unpacked).join(':')
  const fonts = inWork('debian/fonts.conf')
  const folders = ['/usr/share/fonts', join(unpacked, 'usr/share/fonts')].map(
    (folder) => `<dir>${folder}</dir>`,
  )
  writeFileSync(
    fonts,
    `<?xml version="1.0"?><fontconfig>${folders.join('')}<cachedir>${inWork('debian/fonts')}</cachedir></fontconfig>`,
  )
  for (const program of programs) {
    const script = join(unpackedBin, basename(program))
    writeFileSync(
      script,
      `#!/bin/sh\nFONTCONFIG_FILE='${fonts}' LD_LIBRARY_PATH='${libraries}' exec '${program}' "$@"\n`,
    )
    chmodSync(script, 0o755)
  }
}

/** Every folder with a library in it; some packages keep theirs in one of their own. */
function libraryFolders(unpacked) {
  const entries = readdirSync(unpacked, { recursive: true, withFileTypes: true })
  return [
    ...new Set(entries.filter(({ name }) => /\.so(\.|$)/.test(name)).map(({ parentPath }) => parentPath)),
  ]
}
