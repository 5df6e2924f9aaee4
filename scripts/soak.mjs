import { parseArgs } from 'node:util'
import { build, installPackages } from './lib/install.mjs'
import { step } from './lib/run.mjs'

/**
 * `npm run soak`: kills, crowds, bombs, lines that nobody reads or that trickle, a browser that dies, a backup under load, a large export. `--only kills,client` runs
 * some; the lengths are parameters, and `--short` makes all of them small.
 */
const { values } = parseArgs({
  options: {
    only: { type: 'string', default: 'kills,client,bombs,lines,crowd,backup,export' },
    kills: { type: 'string', default: '200' },
    writes: { type: 'string', default: '10000' },
    people: { type: 'string', default: '50' },
    seconds: { type: 'string', default: '120' },
    seed: { type: 'string', default: String(Date.now() % 1_000_000) },
    short: { type: 'boolean', default: false },
  },
})
const lengths = values.short
  ? {
      kills: 6,
      writes: 40,
      people: 10,
      seconds: 3,
      bombMb: 8,
      journal: 3000,
      lineSeconds: 4,
      isTimed: false,
      backupWrites: 200,
      exportMb: 64,
    }
  : {
      kills: Number(values.kills),
      writes: Number(values.writes),
      people: Number(values.people),
      seconds: Number(values.seconds),
      bombMb: 200,
      journal: 14_000,
      lineSeconds: 40,
      isTimed: true,
      backupWrites: 4000,
      exportMb: 2048,
    }

await installPackages()
await build()
const { createReport } = await import('./soak/klados.mjs')
const report = createReport()
const seed = Number(values.seed)
const parts = {
  kills: async () => (await import('./soak/kills.mjs')).soakKills({ ...lengths, seed, report }),
  client: async () => (await import('./soak/client.mjs')).soakClient({ ...lengths, seed, report }),
  bombs: async () => (await import('./soak/bombs.mjs')).soakBombs({ ...lengths, report }),
  lines: async () => (await import('./soak/lines.mjs')).soakLines({ ...lengths, report }),
  crowd: async () => (await import('./soak/crowd.mjs')).soakCrowd({ ...lengths, report }),
  export: async () => (await import('./soak/export.mjs')).soakExport({ ...lengths, report }),
  backup: async () =>
    (await import('./soak/backups.mjs')).soakBackup({ writes: lengths.backupWrites, report }),
}
step(`seed ${seed}`)
for (const name of values.only.split(',')) {
  try {
    await parts[name]()
  } catch (error) {
    report.say(name, error.stack ?? String(error), false)
  }
}
process.exit(report.misses() === 0 ? 0 : 1)
