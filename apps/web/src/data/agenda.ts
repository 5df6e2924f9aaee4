import type { Place, Plant } from '@klados/contract'
import { findKind } from '@klados/core/kinds'
import type { PlantKind } from '@klados/core/kinds'
import { basisOf } from '@klados/core/part-fold'
import { looksOf } from '@klados/core/ties'
import type { TieLook } from '@klados/core/ties'
import { hemisphereAt, urgencyOf } from '@klados/core/season'
import type { CalendarDate, Hemisphere, Urgency } from '@klados/core/season'
import type { WoodState } from '@klados/core/wood'
import { useGarden, usePlaces, usePlants } from './documents.ts'
import { todayHere } from './dates.ts'
import { changedSince } from './part-folds.ts'
import { selectWoodByPlant } from './readings.ts'
import type { PartWood } from './readings.ts'
import { standsOn } from './standing.ts'
import { useAppSelector } from './store.ts'
import type { Table } from './wide-map.ts'

/** One tie and when to look at it, with all that a round says about it. */
export interface AgendaItem extends TieLook {
  readonly plant: Plant
  readonly place: Place
  readonly kind: PlantKind
  /** What the piece hangs together with. */
  readonly wood: WoodState
  readonly urgency: Urgency
}

export function useHemisphere(gardenId: string): Hemisphere {
  return hemisphereAt(useGarden(gardenId)?.latitudeDeg)
}

/** What ties want to be looked at, and when. */
export interface Agenda {
  /** Soonest first. Of plants of which nothing wants a look these days, and whose fold is closed, there are none. */
  readonly items: readonly AgendaItem[]
  /** How many are on in all. */
  readonly count: number
  /** The soonest day of all; `null` where no tie is on. */
  readonly nextOn: CalendarDate | null
}

export function useAgenda(gardenId: string): Agenda {
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

type Woods = Table<PartWood>
/** What one part adds: its ties, or of a closed one only their days. */
interface Share {
  readonly items: readonly AgendaItem[]
  readonly laterOn: readonly CalendarDate[]
}
const NO_ITEMS: readonly AgendaItem[] = []
const NO_SHARE: Share = { items: NO_ITEMS, laterOn: [] }
const NOTHING: Agenda = { items: NO_ITEMS, count: 0, nextOn: null }
const byDay = (a: AgendaItem, b: AgendaItem) =>
  a.look.dueOn < b.look.dueOn ? -1 : a.look.dueOn > b.look.dueOn ? 1 : 0

/**
 * Asked for by several parts of a screen at once, and after each tap: only the plants whose wood is another are
 * reckoned, and their ties are put among the rest, which stay in their order.
 */
export function createAgenda(): (woods: Woods, ground: Ground) => Agenda {
  let ground: Ground | null = null
  let plantById: ReadonlyMap<string, Plant> = new Map()
  let placeById: ReadonlyMap<string, Place> = new Map()
  let woods: Woods = new Map()
  let shares = new Map<string, Share>()
  let later = new Map<string, readonly CalendarDate[]>()
  let laterCount = 0
  let agenda = NOTHING
  const shareNow = (plantId: string, part: PartWood): Share => {
    const plant = plantById.get(plantId)
    const place = plant && placeById.get(plant.body.placeId)
    return plant && place && standsOn(plant, ground!.today) ? shareOf(part, plant, place, ground!) : NO_SHARE
  }
  return (nextWoods, next) => {
    const isSameGround =
      ground !== null &&
      ground.plants === next.plants &&
      ground.places === next.places &&
      ground.hemisphere === next.hemisphere &&
      ground.today === next.today
    if (isSameGround && nextWoods === woods) return agenda
    if (!isSameGround) {
      ground = next
      plantById = new Map(next.plants?.map((plant) => [plant.id, plant]))
      placeById = new Map(next.places?.filter((place) => !place.isRemoved).map((place) => [place.id, place]))
      woods = new Map()
      shares = new Map()
      later = new Map()
      laterCount = 0
      agenda = NOTHING
    }
    const gone = new Set<AgendaItem>()
    const come: AgendaItem[] = []
    let isSame = true
    const put = (plantId: string, share: Share | null) => {
      const before = shares.get(plantId) ?? NO_SHARE
      for (const item of before.items) gone.add(item)
      if (share) shares.set(plantId, share)
      else shares.delete(plantId)
      if (share && share.laterOn.length > 0) later.set(plantId, share.laterOn)
      else later.delete(plantId)
      laterCount += (share?.laterOn.length ?? 0) - before.laterOn.length
      if (share) come.push(...share.items)
      isSame &&= before.laterOn.length + (share?.laterOn.length ?? 0) === 0
    }
    const look = (plantId: string) => {
      const part = nextWoods.get(plantId)
      if (woods.get(plantId) !== part) put(plantId, part ? shareNow(plantId, part) : null)
    }
    const changed = changedSince(woods, nextWoods)
    if (changed) changed.forEach(look)
    else {
      nextWoods.forEach((_, plantId) => look(plantId))
      woods.forEach((_, plantId) => !nextWoods.has(plantId) && look(plantId))
    }
    woods = nextWoods
    isSame &&= gone.size + come.length === 0
    // A list that has its order already is put in order in one go.
    if (!isSame) {
      const items = [...agenda.items.filter((item) => !gone.has(item)), ...come].sort(byDay)
      agenda = { items, count: items.length + laterCount, nextOn: soonest(items, later) }
    }
    return agenda
  }
}
const agendaOf = createAgenda()

function soonest(
  items: readonly AgendaItem[],
  later: ReadonlyMap<string, readonly CalendarDate[]>,
): CalendarDate | null {
  const [first] = items
  // What wants a look these days comes before all that does not.
  if (first && first.urgency !== 'later') return first.look.dueOn
  let day = first?.look.dueOn ?? null
  later.forEach(([dueOn]) => {
    if (day === null || dueOn! < day) day = dueOn!
  })
  return day
}

/** The ties that are on one plant; of a closed fold with none that wants a look these days only when they will. */
function shareOf(part: PartWood, plant: Plant, place: Place, { hemisphere, today }: Ground): Share {
  const kind = findKind(plant.body.kindId)
  if (!kind) return NO_SHARE
  const brief = part.brief()
  // Reckoned for another kind, or the other half of the year, the days are others.
  if (brief?.basis === basisOf({ kindId: kind.id, hemisphere })) {
    const isCalm = brief.dues.every((dueOn) => urgencyOf(dueOn, today) === 'later')
    if (isCalm) return { items: NO_ITEMS, laterOn: brief.dues }
  }
  const wood = part.now()
  const items = looksOf(wood, kind, hemisphere).map(
    (one): AgendaItem => ({
      ...one,
      plant,
      place,
      kind,
      wood,
      urgency: urgencyOf(one.look.dueOn, today),
    }),
  )
  return { items, laterOn: [] }
}

export function tieStates(agenda: readonly AgendaItem[]): ReadonlyMap<string, Urgency> {
  return new Map(agenda.map((item) => [item.tie.id, item.urgency]))
}
