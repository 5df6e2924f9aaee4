export { levelCable } from './level-cable.ts'
export type { LevelCable } from './level-cable.ts'
