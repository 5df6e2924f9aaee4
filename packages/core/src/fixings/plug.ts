import { requirePositive, requireRange } from '../errors/index.ts'

/**
 * A plug's own figures, from its packet: the load it is rated for, and the distances at which that holds in
 * full.
 */
export interface PlugRating {
  readonly ratedN: number
  readonly fullSpacingM: number
  readonly fullEdgeM: number
}

/** Nearer than this share of the full distance a plug counts for nothing: the brick splits. */
const LEAST_SHARE = 0.5

/**
 * What a plug may carry where it sits, newtons: its rated load, falling in proportion as a neighbour or an
 * edge comes nearer than the packet's full distance, and nothing at less than half of it. The usual reduction
 * of anchor approvals (characteristic spacing and edge), kept linear.
 */
export function plugHoldingN(
  rating: PlugRating,
  place: { readonly spacingM: number; readonly edgeM: number },
): number {
  const share = (actualM: number, fullM: number) => {
    const part = requireRange('distanceM', actualM, 0) / requirePositive('fullDistanceM', fullM)
    return part < LEAST_SHARE ? 0 : Math.min(1, part)
  }
  const spacing = share(Math.min(place.spacingM, 1e6), rating.fullSpacingM)
  const edge = share(Math.min(place.edgeM, 1e6), rating.fullEdgeM)
  return requirePositive('ratedN', rating.ratedN) * spacing * edge
}
