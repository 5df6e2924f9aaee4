import type { EntryOf } from '../fold/index.ts'
import { freeWay } from '../wood/index.ts'
import type { woodEntries } from '../wood/index.ts'
import type { ChoiceRecord } from './projection.ts'

type Woods = EntryOf<typeof woodEntries>
type DoneKind =
  | 'piece.cut'
  | 'piece.laid'
  | 'piece.lowered'
  | 'piece.removed'
  | 'piece.rubbed-out'
  | 'piece.meant'
/** What is written of the wood when a choice is carried out, without the heads of entries. */
export type WoodDone = {
  [K in DoneKind]: { readonly kind: K; readonly body: Extract<Woods, { kind: K }>['body'] }
}[DoneKind]

export interface DoneContext {
  /** How long each piece is now; what is not in it is gone and is left out. */
  readonly lengthM: (pieceId: string) => number | null
  /** Soft shoots are rubbed out, wood is cut off. */
  readonly isSoft: (pieceId: string) => boolean
  readonly reasonOf: (pieceId: string) => string
  /** Whether a piece sits, however deep, on another. */
  readonly isOn: (pieceId: string, under: string) => boolean
}

const LEVEL_DEG = 90

/** A choice as deeds to the wood: what comes off first, then what is cut, then what is laid. */
export function woodDone(
  choice: Pick<ChoiceRecord, 'decided' | 'followUps'>,
  { lengthM, isSoft, reasonOf, isOn }: DoneContext,
): WoodDone[] {
  const all = [...choice.decided, ...(choice.followUps ?? []).map((one) => ({ ...one, reason: '' }))].filter(
    ({ pieceId }) => lengthM(pieceId) !== null,
  )
  const off = new Set(all.filter(({ deed }) => deed === 'off').map(({ pieceId }) => pieceId))
  const isGone = (pieceId: string) => [...off].some((under) => under !== pieceId && isOn(pieceId, under))
  const standing = all.filter(({ pieceId }) => !isGone(pieceId))
  const removed = standing
    .filter(({ deed }) => deed === 'off')
    .map(({ pieceId }): WoodDone => {
      const body = { v: 1 as const, pieceId, reason: reasonOf(pieceId) }
      return isSoft(pieceId) ? { kind: 'piece.rubbed-out', body } : { kind: 'piece.removed', body }
    })
  const cut = standing.flatMap(({ pieceId, deed, cutM, aboveBuds }): WoodDone[] =>
    deed === 'off' || cutM === null || cutM <= 0 || cutM >= lengthM(pieceId)!
      ? []
      : [{ kind: 'piece.cut', body: { v: 1, pieceId, alongM: cutM, aboveBuds, reason: reasonOf(pieceId) } }],
  )
  const led = standing.flatMap(({ pieceId, deed, path, way: told }): WoodDone[] => {
    // What is kept is tied where it stands.
    if (path === null || deed === 'off' || deed === 'keep') return []
    // Plans of before wood had depth are carried out in the plane of the wall, as they were made.
    const way = told ?? freeWay(path)
    return deed === 'lower'
      ? [{ kind: 'piece.lowered', body: { v: 2, pieceId, way, angleDeg: LEVEL_DEG } }]
      : [{ kind: 'piece.laid', body: { v: 2, pieceId, way } }]
  })
  return [...removed, ...cut, ...led]
}
