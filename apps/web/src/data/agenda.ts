import type { Place, Plant } from '@klados/contract'
import { findKind } from '@klados/core/kinds'
import type { PlantKind } from '@klados/core/kinds'
import { findTieMaterial, lookAgain } from '@klados/core/ties'
import type { LookAgain, TieMaterial } from '@klados/core/ties'
import { urgencyOf } from '@klados/core/season'
import type { Hemisphere, Urgency } from '@klados/core/season'
import type { Piece, Tie, WoodState } from '@klados/core/wood'
import { lruMemoize } from '@reduxjs/toolkit'
import { useGardenQuery } from './api.ts'
import { usePlaces, usePlants } from './documents.ts'
import { todayHere } from './dates.ts'
import { selectWoodByPlant } from './readings.ts'
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
  /** What the piece hangs together with. */
  readonly wood: WoodState
  readonly urgency: Urgency
}

export function useHemisphere(gardenId: string): Hemisphere {
  const { data } = useGardenQuery(gardenId)
  return (data?.latitudeDeg ?? 1) < 0 ? 'south' : 'north'
}

/** Every tie that is on, soonest first. */
export function useAgenda(gardenId: string): readonly AgendaItem[] {
  const woods = useAppSelector(selectWoodByPlant)
  const plants = usePlants(gardenId)
  const places = usePlaces(gardenId)
  const hemisphere = useHemisphere(gardenId)
  const today = todayHere()
  return agendaOf(woods, plants, places, hemisphere, today)
}

/** Asked for by several parts of a screen at once, and reckoned for the first of them. */
const agendaOf = lruMemoize(
  (
    woods: ReadonlyMap<string, WoodState>,
    plants: readonly Plant[] | undefined,
    places: readonly Place[] | undefined,
    hemisphere: Hemisphere,
    today: string,
  ): readonly AgendaItem[] => {
    const plantById = new Map(plants?.map((plant) => [plant.id, plant]))
    const placeById = new Map(places?.filter((place) => !place.isRemoved).map((place) => [place.id, place]))
    const items = [...woods].flatMap(([plantId, wood]) => {
      const known = looks.get(wood)
      const plant = plantById.get(plantId)
      const place = plant && placeById.get(plant.body.placeId)
      if (!plant || plant.isRemoved || !place) return []
      const isSame =
        known?.plant === plant &&
        known.place === place &&
        known.hemisphere === hemisphere &&
        known.today === today
      if (isSame) return known.items
      const items = itemsOf(wood, plant, place, hemisphere, today)
      looks.set(wood, { plant, place, hemisphere, today, items })
      return items
    })
    return items.sort((a, b) => (a.look.dueOn < b.look.dueOn ? -1 : a.look.dueOn > b.look.dueOn ? 1 : 0))
  },
)

interface Looks {
  readonly plant: Plant
  readonly place: Place
  readonly hemisphere: Hemisphere
  readonly today: string
  readonly items: readonly AgendaItem[]
}
/** When to look at the ties of a plant: reckoned once for each state of its wood. */
const looks = new WeakMap<WoodState, Looks>()

/** The ties that are on one plant. */
function itemsOf(
  wood: WoodState,
  plant: Plant,
  place: Place,
  hemisphere: Hemisphere,
  today: string,
): AgendaItem[] {
  const kind = findKind(plant.body.kindId)
  if (!kind) return []
  return [...wood.ties.values()].flatMap((tie): AgendaItem[] => {
    const piece = wood.pieces.get(tie.pieceId)
    const material = findTieMaterial(tie.materialId)
    if (tie.endedOn !== null || !piece || !material) return []
    const look = lookAgain(tie, piece, kind, material, hemisphere)
    return [{ tie, piece, plant, place, kind, material, look, wood, urgency: urgencyOf(look.dueOn, today) }]
  })
}

export function tieStates(agenda: readonly AgendaItem[]): ReadonlyMap<string, Urgency> {
  return new Map(agenda.map((item) => [item.tie.id, item.urgency]))
}
