import type { Place, Plant } from '@klados/contract'
import { groundAt } from '@klados/core/frame'
import { distanceM, nearestAlong } from '@klados/core/geometry'
import type { Point } from '@klados/core/geometry'
import type { Piece } from '@klados/core/wood'
import { v7 as uuidv7 } from 'uuid'
import type { NewEntry } from '../../data/journal.ts'
import type { PieceTraits } from './DrawPanel.tsx'

/** A line drawn from this near to other wood grows from that wood, where it begins. */
const GROWS_FROM_M = 0.05

/**
 * The entry for a drawn line. It sits on the wood that it starts on, at its place along that; else it comes
 * from the crown of the plant chosen, or of the nearest foot.
 */
export function newPieceEntry(
  path: readonly Point[],
  { role, ageSeasons, baseMm }: PieceTraits,
  bench: {
    place: Place
    plants: readonly Plant[]
    pieces: readonly Piece[]
    plantId: string | null
    on: string
  },
): { entry: NewEntry; pieceId: string } | null {
  const start = path[0]!
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
  const pieceId = uuidv7()
  return {
    pieceId,
    entry: {
      kind: 'piece.grew',
      placeId: bench.place.id,
      plantId,
      at: bench.on,
      body: {
        v: 1,
        pieceId,
        parent: under
          ? { on: 'piece', pieceId: under.piece.id, alongM: under.near.alongM }
          : { on: 'crown', leadId: null },
        path,
        seasonsOld: ageSeasons,
        baseMm,
        tipMm: null,
        buds: null,
        side: null,
        role,
      },
    },
  }
}
