import type { Place, Plant } from '@klados/contract'
import { findKind } from '@klados/core/kinds'
import type { PlantKind } from '@klados/core/kinds'
import { findTieMaterial, lookAgain } from '@klados/core/ties'
import type { LookAgain, TieMaterial } from '@klados/core/ties'
import { urgencyOf } from '@klados/core/season'
import type { Hemisphere, Urgency } from '@klados/core/season'
import type { Piece, Tie } from '@klados/core/wood'
import { useMemo } from 'react'
import { useGardenQuery } from './api.ts'
import { usePlaces, usePlants } from './documents.ts'
import { todayHere } from './dates.ts'
import { selectWoodNow } from './readings.ts'
import { useAppSelector } from './store.ts'

/** One tie and when to look at it, with all that a round says about it. */
export interface AgendaItem {
  readonly tie: Tie
  readonly piece: Piece
  readonly plant: Plant
  readonly place: Place
  readonly kind: PlantKind
  readonly material: TieMaterial
  readonly look: LookAgain
  readonly urgency: Urgency
}

export function useHemisphere(gardenId: string): Hemisphere {
  const { data } = useGardenQuery(gardenId)
  return (data?.latitudeDeg ?? 1) < 0 ? 'south' : 'north'
}

/** Every tie that is on, soonest first. */
export function useAgenda(gardenId: string): readonly AgendaItem[] {
  const wood = useAppSelector(selectWoodNow)
  const plants = usePlants(gardenId)
  const places = usePlaces(gardenId)
  const hemisphere = useHemisphere(gardenId)
  const today = todayHere()
  return useMemo(() => {
    const plantById = new Map(plants?.map((plant) => [plant.id, plant]))
    const placeById = new Map(places?.filter((place) => !place.isRemoved).map((place) => [place.id, place]))
    const items: AgendaItem[] = []
    for (const tie of wood.ties.values()) {
      if (tie.endedOn !== null) continue
      const piece = wood.pieces.get(tie.pieceId)!
      const plant = plantById.get(tie.plantId)
      const place = plant && placeById.get(plant.body.placeId)
      if (!plant || plant.isRemoved || !place) continue
      const kind = findKind(plant.body.kindId)
      const material = findTieMaterial(tie.materialId)
      if (!kind || !material) continue
      const look = lookAgain(tie, piece, kind, material, hemisphere)
      items.push({ tie, piece, plant, place, kind, material, look, urgency: urgencyOf(look.dueOn, today) })
    }
    return items.sort((a, b) => (a.look.dueOn < b.look.dueOn ? -1 : a.look.dueOn > b.look.dueOn ? 1 : 0))
  }, [wood, plants, places, hemisphere, today])
}

export function tieStates(agenda: readonly AgendaItem[]): ReadonlyMap<string, Urgency> {
  return new Map(agenda.map((item) => [item.tie.id, item.urgency]))
}
