import type { Place, Plant } from '@klados/contract'
import { groundAt } from '@klados/core/frame'
import { distanceM, nearestAlong, withLength } from '@klados/core/geometry'
import type { Point } from '@klados/core/geometry'
import type { QuickStem } from '@klados/core/training'
import type { Parent, Piece, PieceRole } from '@klados/core/wood'
import type { NewEntry } from '../../data/record.ts'
import { stemEntries } from './enter/stem-entries.ts'

/** A line drawn from this near to other wood grows from that wood, where it begins. */
const GROWS_FROM_M = 0.05

/**
 * The entries for a drawn line. It sits on the wood that it starts on, at its place along that; else it comes
 * from the crown of the plant chosen, or of the nearest foot.
 */
export function drawnEntries(
  drawn: readonly Point[],
  stem: QuickStem,
  { seasonsOld, role }: { readonly seasonsOld: number; readonly role: PieceRole | null },
  bench: {
    place: Place
    plants: readonly Plant[]
    pieces: readonly Piece[]
    plantId: string | null
    on: string
  },
): { entries: NewEntry[]; pieceId: string } | null {
  const start = drawn[0]!
  const [under] = bench.pieces
    .filter((piece) => piece.removedOn === null)
    .map((piece) => ({ piece, near: nearestAlong(piece.path, start) }))
    .filter(({ near }) => near.distanceM <= GROWS_FROM_M)
    .sort((a, b) => a.near.distanceM - b.near.distanceM)
  const footGap = (plant: Plant) =>
    distanceM(start, { xM: plant.body.xM, yM: groundAt(bench.place.body, plant.body.xM) })
  const nearest = [...bench.plants].sort((a, b) => footGap(a) - footGap(b))[0]
  const plantId = under?.piece.plantId ?? bench.plantId ?? nearest?.id
  if (!plantId) return null
  const parent: Parent = stem.isBelowGraft
    ? { on: 'below-graft' }
    : under
      ? { on: 'piece', pieceId: under.piece.id, alongM: under.near.alongM }
      : { on: 'crown', leadId: null }
  // A length that was measured says more than one that was drawn.
  const path = withLength(drawn, stem.lengthM)
  return stemEntries(
    stem,
    { parent, path, seasonsOld: stem.seasonsOld ?? seasonsOld, role },
    { placeId: bench.place.id, plantId, at: bench.on },
  )
}
