import type { Place, Plant } from '@klados/contract'
import { distance3M, inSpace, nearestOnPath, pathOfLength } from '@klados/core/geometry'
import type { DeepPoint, Look } from '@klados/core/geometry'
import type { QuickStem } from '@klados/core/training'
import { wayFrom, wayRound } from '@klados/core/wood'
import type { Parent, PieceRole, Stretch } from '@klados/core/wood'
import type { NewEntry } from '../../data/record.ts'
import { stemEntries } from './enter/stem-entries.ts'
import { footOf } from './foot.ts'
import type { WoodBenchData } from './use-bench.ts'

/** A line drawn from this near to other wood grows from that wood, where it begins. */
const GROWS_FROM_M = 0.05

/**
 * The entries for a drawn line. It sits on the wood that it starts on, at its place along that; else it comes
 * from the crown of the plant chosen, or of the nearest foot.
 */
export function drawnEntries(
  drawn: readonly DeepPoint[],
  stem: QuickStem,
  { seasonsOld, role }: { readonly seasonsOld: number; readonly role: PieceRole | null },
  {
    place,
    data,
    plantId: chosenId,
    on,
    look,
  }: {
    readonly place: Place
    readonly data: WoodBenchData
    readonly plantId: string | null
    readonly on: string
    readonly look: Look
  },
): { entries: NewEntry[]; pieceId: string } | null {
  const start = drawn[0]!
  // From the front nobody sees how far back a line begins.
  const isFlat = start.zM === undefined
  const seen = (path: readonly DeepPoint[]) => (isFlat ? path.map(({ xM, yM }) => ({ xM, yM })) : path)
  const [under] = data.pieces
    .filter((piece) => piece.removedOn === null)
    .map((piece) => ({ piece, near: nearestOnPath(seen(piece.path), start) }))
    .filter(({ near }) => near.distanceM <= GROWS_FROM_M)
    .sort((a, b) => a.near.distanceM - b.near.distanceM)
  const footGap = (plant: Plant) => distance3M(start, seen([footOf(place, data, plant)])[0]!)
  const nearest = [...data.plants].sort((a, b) => footGap(a) - footGap(b))[0]
  const plantId = under?.piece.plantId ?? chosenId ?? nearest?.id
  if (!plantId) return null
  const alongM = under ? nearestOnPath(under.piece.path, under.near.point).alongM : 0
  const parent: Parent = stem.isBelowGraft
    ? { on: 'below-graft' }
    : under
      ? { on: 'piece', pieceId: under.piece.id, alongM }
      : { on: 'crown', leadId: null }
  // A length that was measured says more than one that was drawn.
  const path = pathOfLength(drawn, stem.lengthM)
  return stemEntries(
    stem,
    { parent, way: wayOf(path, look, data), seasonsOld: stem.seasonsOld ?? seasonsOld, role },
    { placeId: place.id, plantId, at: on },
  )
}

/** What a drawn line runs along: what it was drawn over where that was unrolled, else the tracks it lies on. */
function wayOf(path: readonly DeepPoint[], look: Look, { tracks, round }: WoodBenchData): Stretch[] {
  if (look.from !== 'unrolled' || !round) return wayFrom(path, tracks)
  const pole = tracks.find(({ part }) => part.on === 'member' && part.memberId === round.memberId) ?? null
  return wayRound(path.map(inSpace), round.round, pole)
}
