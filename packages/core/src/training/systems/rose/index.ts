import { roseFan } from './fan.ts'
import { roseLevel } from './level.ts'

export const roses = [roseLevel, roseFan] as const
