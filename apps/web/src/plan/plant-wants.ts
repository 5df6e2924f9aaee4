import type { Place, Plant } from '@klados/contract'
import type { Frame, NodeId } from '@klados/core/frame'
import { findKind, spacedAlong } from '@klados/core/kinds'
import { usePlants } from '../data/documents.ts'
import { standingAt } from '../data/standing.ts'

export interface PlantWants {
  readonly want: number
  readonly have: number
  /** Start nodes of the pattern at which nothing stands. */
  readonly freeNodes: readonly { readonly id: NodeId; readonly number: number; readonly xM: number }[]
  /** Where plants are wanted and none stands, along the wall, from its left end on. */
  readonly free: readonly { readonly xM: number; readonly startNodeId: NodeId | null }[]
}

/**
 * How many plants a pattern wants: one at each start node or spot, or where it has none, as many as the
 * kind's spacing allows.
 */
export function plantWants(
  place: Place,
  frame: Frame,
  plants: readonly Plant[],
  kindId?: string,
): PlantWants {
  const here = standingAt(plants, place.id)
  const starts = frame.nodes.filter((node) => node.isStart)
  if (starts.length > 0) {
    const taken = new Set(here.map((plant) => plant.body.startNodeId))
    const freeNodes = starts
      .filter((node) => !taken.has(node.id))
      .map((node) => ({ id: node.id, number: node.number, xM: node.at.xM }))
      .sort((a, b) => a.number - b.number)
    const free = freeNodes.map(({ id, xM }) => ({ xM, startNodeId: id })).sort((a, b) => a.xM - b.xM)
    return { want: starts.length, have: starts.length - freeNodes.length, freeNodes, free }
  }
  if (frame.plants.length > 0) {
    // What stands behind the front plane is known by its spot; in front of it by where it is along the place.
    const behind = frame.plants.filter(({ at }) => at.zM !== 0)
    const isBehind = ({ body }: Plant) => behind.some(({ id }) => id === body.startNodeId)
    const front = frame.plants.filter(({ at }) => at.zM === 0).map(({ at }) => at.xM)
    const taken = new Set(here.map(({ body }) => body.startNodeId))
    return {
      want: Math.max(frame.plants.length, here.length),
      have: here.length,
      freeNodes: [],
      free: [
        ...freeOf(
          front,
          here.filter((plant) => !isBehind(plant)),
        ),
        ...behind.filter(({ id }) => !taken.has(id)).map(({ id, at }) => ({ xM: at.xM, startNodeId: id })),
      ],
    }
  }
  const kind = findKind(kindId ?? here[0]?.body.kindId ?? '')
  const spots = kind ? spacedAlong(place.body.widthM, kind.spacingM) : []
  const want = kind ? spots.length : here.length
  return {
    want: Math.max(want, here.length),
    have: here.length,
    freeNodes: [],
    free: freeOf(spots, here),
  }
}

/** Spots that no plant stands nearer to than half the way to the next spot. */
function freeOf(spotsM: readonly number[], here: readonly Plant[]): PlantWants['free'] {
  const sorted = [...spotsM].sort((a, b) => a - b)
  const apartM = Math.min(...sorted.slice(1).map((xM, i) => xM - sorted[i]!))
  return sorted
    .filter((xM) => here.every(({ body }) => Math.abs(body.xM - xM) >= apartM / 2))
    .map((xM) => ({ xM, startNodeId: null }))
}

export function usePlantWants(gardenId: string, place: Place, frame: Frame | null): PlantWants | null {
  const plants = usePlants(gardenId)
  return frame && plants ? plantWants(place, frame, plants) : null
}
