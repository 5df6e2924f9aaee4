import type { Place } from '@klados/contract'
import { drawUnrolled, drawWood } from '@klados/core/drawing'
import type { DisplayList, Mark, TieMark } from '@klados/core/drawing'
import type { Frame } from '@klados/core/frame'
import type { Catalogue } from '@klados/core/catalogue'
import { seenPoint } from '@klados/core/geometry'
import type { Look } from '@klados/core/geometry'
import type { Tie } from '@klados/core/wood'
import { useMemo } from 'react'
import { drawLaid, drawPlace, stockWidths } from '../../plan/lay-out.ts'
import { footOf } from './foot.ts'
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
  look: Look,
): DisplayList {
  const { plants, frames, trainedOn, catalogue, pieces, ties, hemisphere, urgencies } = data
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
        at: seenPoint(footOf(place, data, plant), look),
        label: isCrowded ? '' : plant.body.name,
      }))
    const shown = new Set(plants.filter((plant) => plant.body.plantedOn <= on).map((plant) => plant.id))
    return [
      ...drawStanding(place, frames, trainedOn, catalogue, look),
      ...drawWood(
        pieces.filter((piece) => shown.has(piece.plantId)),
        ties.filter((tie) => shown.has(tie.plantId)),
        {
          on,
          hemisphere,
          kindOf: (id) => kinds.get(id) ?? '',
          tieState,
          isQuiet: (pieceId) => inInk !== null && !inInk.has(pieceId),
          look,
        },
      ),
      ...feet,
      ...(standAtM === null
        ? []
        : [{ kind: 'foot' as const, id: 'standing', at: { xM: standAtM, yM: 0 }, label: '' }]),
    ]
  }, [
    place,
    data,
    plants,
    frames,
    trainedOn,
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
    look,
  ])
}

/** The place and what stands there; from anywhere but the front the frames alone. */
function drawStanding(
  place: Place,
  frames: readonly Frame[],
  trainedOn: WoodBenchData['trainedOn'],
  catalogue: Catalogue,
  look: Look,
): DisplayList {
  if (look.from === 'elevation') return drawPlace(place.body, frames, catalogue)
  if (look.from === 'unrolled') {
    const frame = trainedOn[0]?.frame
    return frame ? drawUnrolled(frame, look.round, stockWidths(catalogue)) : []
  }
  const { from } = look
  return frames.flatMap((frame) => drawLaid(frame, catalogue, from))
}
