export { budsAlong } from './buds.ts'
export type { Bud, DisplayList, Mark, NodeMark, Role, TieMark, WoodAge } from './display-list.ts'
export { drawFrame, drawWall, drawWood } from './elevation.ts'
export type { WoodView } from './elevation.ts'
