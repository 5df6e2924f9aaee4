import type { FrameBody } from '@klados/contract'

/** A change to the design; changes of the same `what` in quick succession are one step of undo. */
export type Change = (what: string, design: Partial<FrameBody['design']>) => void

type Pattern = FrameBody['design']['pattern']
export type PatternOf<K extends Pattern['kind']> = Extract<Pattern, { kind: K }>
