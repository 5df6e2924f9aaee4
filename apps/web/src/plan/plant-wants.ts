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
    return { want: starts.length, have: starts.length - freeNodes.length, freeNodes }
  }
  if (frame.plants.length > 0) {
    return { want: Math.max(frame.plants.length, here.length), have: here.length, freeNodes: [] }
  }
  const kind = findKind(kindId ?? here[0]?.body.kindId ?? '')
  const want = kind ? spacedAlong(place.body.widthM, kind.spacingM).length : here.length
  return { want: Math.max(want, here.length), have: here.length, freeNodes: [] }
}

export function usePlantWants(gardenId: string, place: Place, frame: Frame | null): PlantWants | null {
  const plants = usePlants(gardenId)
  return frame && plants ? plantWants(place, frame, plants) : null
}
