import { readFile, readdir, writeFile } from 'node:fs/promises'
import { extname } from 'node:path'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'

const PRESSED = new Set(['.js', '.css', '.json', '.html', '.svg', '.webmanifest'])
const [asBrotli, asGzip] = [promisify(brotliCompress), promisify(gzip)]

/**
 * Lays every text file of a folder beside itself as brotli and as gzip, pressed as hard as it goes: the server then sends a
 * first visitor what lies there, and presses nothing while they wait.
 */
export async function pressFolder(folder) {
  const files = (await readdir(folder, { recursive: true, withFileTypes: true }))
    .filter((entry) => entry.isFile() && PRESSED.has(extname(entry.name)))
    .map((entry) => `${entry.parentPath}/${entry.name}`)
  await Promise.all(
    files.map(async (file) => {
      const content = await readFile(file)
      const params = { [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY }
      await Promise.all([
        asBrotli(content, { params }).then((pressed) => writeFile(`${file}.br`, pressed)),
        asGzip(content, { level: constants.Z_BEST_COMPRESSION }).then((pressed) =>
          writeFile(`${file}.gz`, pressed),
        ),
      ])
    }),
  )
}
