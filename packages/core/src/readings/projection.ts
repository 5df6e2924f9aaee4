import { projection } from '../fold/index.ts'
import type { EntryOf } from '../fold/index.ts'
import type { CalendarDate } from '../season/index.ts'
import { plantEntries } from './entries.ts'
import type { ReadingOf, stages } from './entries.ts'

export interface Reading {
  readonly on: CalendarDate
  readonly what: ReadingOf
  readonly value: number
  readonly pieceId: string | null
  readonly alongM: number | null
}
type Entries = EntryOf<typeof plantEntries>
type BodyOf<K extends Entries['kind']> = Extract<Entries, { kind: K }>['body']
/** Something that was given or seen, with its day. */
export type Dated<T> = Omit<T, 'v'> & { readonly on: CalendarDate }

/** What is known of a plant besides its wood, each list from the earliest day on. */
export interface PlantRecord {
  readonly readings: readonly Reading[]
  readonly tallies: readonly Dated<BodyOf<'plant.tallied'>>[]
  /** Canes by age, where they are counted and not drawn. */
  readonly caneCounts: readonly Dated<BodyOf<'plant.canes'>>[]
  readonly stages: readonly { readonly on: CalendarDate; readonly stage: (typeof stages)[number] }[]
  readonly cares: readonly {
    readonly on: CalendarDate
    readonly kind: 'plant.watered' | 'plant.fed' | 'plant.mulched' | 'plant.treated'
  }[]
  readonly photos: readonly Dated<BodyOf<'photo.taken'>>[]
  readonly ended: {
    readonly on: CalendarDate
    readonly why: string
    readonly newPlantId: string | null
  } | null
}
type Draft = {
  -readonly [K in keyof PlantRecord]: PlantRecord[K] extends readonly (infer T)[] ? T[] : PlantRecord[K]
}

const nothing = (): Draft => ({
  readings: [],
  tallies: [],
  caneCounts: [],
  stages: [],
  cares: [],
  photos: [],
  ended: null,
})

/** Records of all plants, by plant id. What is written of no plant is passed over. */
export const plantRecordProjection = projection({
  name: 'plant-record',
  version: 2,
  kinds: plantEntries,
  initial: () => new Map<string, Draft>(),
  apply,
})

function apply(plants: Map<string, Draft>, entry: Entries): void {
  if (entry.plantId === null) return
  const known = plants.get(entry.plantId)
  const plant = known ?? nothing()
  if (!known) plants.set(entry.plantId, plant)
  const on = entry.at
  switch (entry.kind) {
    case 'reading.taken': {
      const { what, value, pieceId, alongM } = entry.body
      plant.readings.push({ on, what, value, pieceId, alongM })
      return
    }
    case 'plant.tallied':
      plant.tallies.push(dated(on, entry.body))
      return
    case 'plant.canes':
      plant.caneCounts.push(dated(on, entry.body))
      return
    case 'stage.seen':
      plant.stages.push({ on, stage: entry.body.stage })
      return
    case 'plant.watered':
    case 'plant.fed':
    case 'plant.mulched':
    case 'plant.treated':
      plant.cares.push({ on, kind: entry.kind })
      return
    case 'photo.taken':
      plant.photos.push(dated(on, entry.body))
      return
    case 'plant.died':
      plant.ended = { on, why: entry.body.why, newPlantId: null }
      return
    case 'plant.replanted':
      plant.ended = { on, why: entry.body.why, newPlantId: entry.body.newPlantId }
      return
  }
}

function dated<B extends { readonly v: number }>(on: CalendarDate, { v: _, ...rest }: B): Dated<B> {
  return { ...rest, on }
}
