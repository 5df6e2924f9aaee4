import type { FrameBody } from '@klados/contract'

/** A change as it was last made here: of what, when, and what came of it. */
export interface LastChange {
  readonly what: string
  readonly time: number
  readonly body: FrameBody
}

/** Keystrokes in one field, or one drag, within this time of each other are one step of undo. */
export const SAME_STEP_MS = 1500

/**
 * Whether a change goes on with the last one, so that undo takes both back at once. Not where what is
 * changed is no longer what came of it: undone meanwhile, or heard from another window, whose work would be
 * lost from the steps.
 */
export function isSameStep(
  last: LastChange | null,
  { what, time, from }: { readonly what: string; readonly time: number; readonly from: FrameBody },
): boolean {
  return last !== null && last.what === what && time - last.time < SAME_STEP_MS && last.body === from
}
