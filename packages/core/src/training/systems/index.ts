import { levelTiers } from './level-tiers.ts'
import { roseFan } from './rose-fan.ts'
import { roseLevel } from './rose-level.ts'
import { caneOne, caneTwo, cordonCanes, spurCordon } from './vines.ts'

/** All systems that ship, in the order in which they are offered; one more is one file and its words. */
export const systems = [caneTwo, caneOne, spurCordon, cordonCanes, roseLevel, roseFan, levelTiers] as const
