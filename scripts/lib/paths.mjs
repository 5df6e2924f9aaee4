import { fileURLToPath } from 'node:url'
import { join } from 'node:path'

export const root = fileURLToPath(new URL('../..', import.meta.url)).replace(/\/$/, '')
/** Everything that a run makes and git ignores: stamps, locks, the private database. */
export const workDir = join(root, '.klados')
export const inWork = (...parts) => join(workDir, ...parts)
/** Where Klados keeps what is its users': the database, its lock, its logs. KLADOS_DATA puts it elsewhere. */
export const inData = (...parts) => join(process.env.KLADOS_DATA ?? workDir, ...parts)
export const inRoot = (...parts) => join(root, ...parts)
