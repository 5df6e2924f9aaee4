import type { Place } from '@klados/contract'
import { drawWood } from '@klados/core/drawing'
import type { DisplayList, Mark, TieMark } from '@klados/core/drawing'
import { groundAt } from '@klados/core/frame'
import type { Tie } from '@klados/core/wood'
import { useMemo } from 'react'
import { drawPlace } from '../../plan/lay-out.ts'
import type { WoodBenchData } from './use-bench.ts'

/** Everything on the wood bench's sheet: wall, wires, wood and ties of the day, plants at the foot. */
export function useBenchDrawing(
  place: Place,
  data: WoodBenchData,
  on: string,
  standAtM: number | null,
  unsettled: ReadonlySet<string>,
  /** What stays in ink while the rest is quiet; `null` leaves all of it in ink. */
  inInk: ReadonlySet<string> | null,
  isCrowded: boolean,
): DisplayList {
  const { plants, frames, catalogue, pieces, ties, hemisphere, urgencies } = data
  return useMemo(() => {
    const kinds = new Map(plants.map((plant) => [plant.id, plant.body.kindId]))
    const tieState = (tie: Tie): TieMark => {
      if (unsettled.has(tie.id)) return 'due'
      const urgency = urgencies.get(tie.id)
      return urgency === 'overdue' || urgency === 'due' ? urgency : 'sound'
    }
    const feet: Mark[] = plants
      .filter((plant) => plant.body.plantedOn <= on)
      .map((plant) => ({
        kind: 'foot',
        id: plant.id,
        at: { xM: plant.body.xM, yM: groundAt(place.body, plant.body.xM) },
        label: isCrowded ? '' : plant.body.name,
      }))
    const shown = new Set(plants.filter((plant) => plant.body.plantedOn <= on).map((plant) => plant.id))
    return [
      ...drawPlace(place.body, frames, catalogue),
      ...drawWood(
        pieces.filter((piece) => shown.has(piece.plantId)),
        ties.filter((tie) => shown.has(tie.plantId)),
        {
          on,
          hemisphere,
          kindOf: (id) => kinds.get(id) ?? '',
          tieState,
          isQuiet: (pieceId) => inInk !== null && !inInk.has(pieceId),
        },
      ),
      ...feet,
      ...(standAtM === null
        ? []
        : [{ kind: 'foot' as const, id: 'standing', at: { xM: standAtM, yM: 0 }, label: '' }]),
    ]
  }, [
    place,
    plants,
    frames,
    catalogue,
    pieces,
    ties,
    hemisphere,
    urgencies,
    on,
    standAtM,
    unsettled,
    inInk,
    isCrowded,
  ])
}
