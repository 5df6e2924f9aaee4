import { levelId, nodeId } from '@klados/core/frame'
import type { LevelId, NodeId } from '@klados/core/frame'
import { v7 as uuidv7 } from 'uuid'

/** The last letters of a fresh UUID are chance alone: no part that went has had them. */
const chance = () => uuidv7().slice(-12)
export const newLevelId = (): LevelId => levelId(`l${chance()}`)
export const newNodeId = (): NodeId => nodeId(`n${chance()}`)
