import type { Place, Plant } from '@klados/contract'
import { findKind } from '@klados/core/kinds'
import type { PlantKind } from '@klados/core/kinds'
import { findTieMaterial, lookAgain } from '@klados/core/ties'
import type { LookAgain, TieMaterial } from '@klados/core/ties'
import { urgencyOf } from '@klados/core/season'
import type { Hemisphere, Urgency } from '@klados/core/season'
import type { Piece, Tie, WoodState } from '@klados/core/wood'
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
  return agendaOf(woods, { plants, places, hemisphere, today })
}

/** What every tie's day depends on beside its own wood. */
interface Ground {
  readonly plants: readonly Plant[] | undefined
  readonly places: readonly Place[] | undefined
  readonly hemisphere: Hemisphere
  readonly today: string
}

type Woods = ReadonlyMap<string, WoodState>
const NO_ITEMS: readonly AgendaItem[] = []
const byDay = (a: AgendaItem, b: AgendaItem) =>
  a.look.dueOn < b.look.dueOn ? -1 : a.look.dueOn > b.look.dueOn ? 1 : 0

/**
 * Asked for by several parts of a screen at once, and after each tap: only the plants whose wood is another are
 * reckoned, and their ties are put among the rest, which stay in their order.
 */
export function createAgenda(): (woods: Woods, ground: Ground) => readonly AgendaItem[] {
  let ground: Ground | null = null
  let plantById: ReadonlyMap<string, Plant> = new Map()
  let placeById: ReadonlyMap<string, Place> = new Map()
  let woods: Woods = new Map()
  let items = new Map<string, readonly AgendaItem[]>()
  let list: readonly AgendaItem[] = NO_ITEMS
  const itemsNow = (plantId: string, wood: WoodState): readonly AgendaItem[] => {
    const plant = plantById.get(plantId)
    const place = plant && placeById.get(plant.body.placeId)
    if (!plant || plant.isRemoved || !place) return NO_ITEMS
    return itemsOf(wood, plant, place, ground!.hemisphere, ground!.today)
  }
  return (nextWoods, next) => {
    const isSameGround =
      ground !== null &&
      ground.plants === next.plants &&
      ground.places === next.places &&
      ground.hemisphere === next.hemisphere &&
      ground.today === next.today
    if (isSameGround && nextWoods === woods) return list
    if (!isSameGround) {
      ground = next
      plantById = new Map(next.plants?.map((plant) => [plant.id, plant]))
      placeById = new Map(next.places?.filter((place) => !place.isRemoved).map((place) => [place.id, place]))
      woods = new Map()
      items = new Map()
      list = NO_ITEMS
    }
    const gone = new Set<AgendaItem>()
    const come: AgendaItem[] = []
    for (const [plantId, wood] of nextWoods) {
      if (woods.get(plantId) === wood) continue
      for (const item of items.get(plantId) ?? NO_ITEMS) gone.add(item)
      const now = itemsNow(plantId, wood)
      items.set(plantId, now)
      come.push(...now)
    }
    for (const [plantId, before] of items) {
      if (nextWoods.has(plantId)) continue
      for (const item of before) gone.add(item)
      items.delete(plantId)
    }
    woods = nextWoods
    // A list that has its order already is put in order in one go.
    if (gone.size + come.length > 0) list = [...list.filter((item) => !gone.has(item)), ...come].sort(byDay)
    return list
  }
}
const agendaOf = createAgenda()

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
