import { caneFruit } from './cane-fruit/index.ts'
import { levelTiers } from './level-tiers/index.ts'
import { nodeRooters } from './node-rooters/index.ts'
import { overheadKiwi } from './overhead-kiwi/index.ts'
import { roses } from './rose/index.ts'
import { stoneFruit } from './stone-fruit/index.ts'
import { vines } from './vine/index.ts'

/** All systems that ship, in the order in which they are offered; one more is its folder and its line here. */
export const systems = [
  ...vines,
  ...roses,
  levelTiers,
  ...stoneFruit,
  ...caneFruit,
  ...nodeRooters,
  ...overheadKiwi,
] as const
