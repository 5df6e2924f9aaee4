import type { SeasonStage } from '@klados/core/season'
import type { QuickStem } from '@klados/core/training'
import type { Parent, PieceRole, Stretch } from '@klados/core/wood'
import { v7 as uuidv7 } from 'uuid'
import type { NewEntry } from '../../../data/record.ts'

/** What is told of in winter grew last summer; in summer it is growing. */
export const seasonsOfNew = (stage: SeasonStage): 0 | 1 =>
  stage === 'dormant' || stage === 'bud-swell' || stage === 'leaf-fall' ? 1 : 0

/** Where a stem that was called out or drawn stands. */
export interface Standing {
  readonly parent: Parent
  readonly way: readonly Stretch[]
  readonly seasonsOld: number
  readonly role: PieceRole | null
}

/** A stem as entries: that it grew, and what was seen of it. */
export function stemEntries(
  { baseMm, tipMm, buds, side, bends, light, fault, health }: QuickStem,
  { parent, way, seasonsOld, role }: Standing,
  head: { readonly placeId: string; readonly plantId: string; readonly at: string },
): { readonly pieceId: string; readonly entries: NewEntry[] } {
  const pieceId = uuidv7()
  const entries: NewEntry[] = [
    {
      ...head,
      kind: 'piece.grew',
      body: { v: 3, pieceId, parent, way, seasonsOld, baseMm, tipMm, buds, side, role, isTypical: false },
    },
  ]
  if (bends !== null || light !== null || fault !== null)
    entries.push({ ...head, kind: 'piece.seen', body: { v: 1, pieceId, bends, light, fault } })
  if (health !== null)
    entries.push({ ...head, kind: 'piece.judged', body: { v: 1, pieceId, health, reason: '' } })
  return { pieceId, entries }
}
