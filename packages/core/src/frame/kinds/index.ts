import type { FrameKind } from '../kind.ts'
import { arch } from './arch.ts'
import { brush } from './brush.ts'
import { column } from './column.ts'
import { diamonds } from './diamonds.ts'
import { fan } from './fan.ts'
import { free } from './free.ts'
import { grid } from './grid.ts'
import { net } from './net.ts'
import { obelisk } from './obelisk.ts'
import { overhead } from './overhead.ts'
import { pole } from './pole.ts'
import { row } from './row.ts'
import { spiral } from './spiral.ts'
import { stakes } from './stakes.ts'
import { tiers } from './tiers.ts'
import { triangles } from './triangles.ts'
import { zigzag } from './zigzag.ts'

/** Every kind of frame, by its name. */
export const frameKinds = {
  tiers,
  diamonds,
  fan,
  zigzag,
  triangles,
  grid,
  free,
  row,
  overhead,
  arch,
  net,
  spiral,
  obelisk,
  pole,
  stakes,
  column,
  brush,
} as const

export type PatternKind = keyof typeof frameKinds
/** What is decided of one kind of frame; `PatternOfKind<'row'>` is that of a row. */
export type PatternOfKind<K extends PatternKind> = ReturnType<(typeof frameKinds)[K]['start']>
export type Pattern = { [K in PatternKind]: PatternOfKind<K> }[PatternKind]

/**
 * The record of a pattern's kind, typed for that pattern. The one cast: the compiler cannot see that a
 * pattern's `kind` picks the record that it was made for.
 */
export function kindOf<P extends { readonly kind: string }>(pattern: P): FrameKind<string, never, P> {
  return (frameKinds as unknown as Record<string, FrameKind<string, never, P>>)[pattern.kind]!
}
