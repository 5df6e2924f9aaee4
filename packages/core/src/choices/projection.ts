import { projection } from '../fold/index.ts'
import type { DeepPoint } from '../geometry/index.ts'
import type { EntryOf } from '../fold/index.ts'
import type { CalendarDate } from '../season/index.ts'
import { lineOf } from '../wood/index.ts'
import type { Stretch } from '../wood/index.ts'
import { choiceEntries } from './entries.ts'

type Entries = EntryOf<typeof choiceEntries>
type Made = Extract<Entries, { kind: 'choice.made' }>['body']
type MadeInSpace = Extract<Made, { v: 2 }>
/** The line that wood is led along, and what of it runs along a frame where that is known. */
interface Led {
  readonly path: readonly DeepPoint[] | null
  readonly way?: readonly Stretch[] | null
}
export type Decided = Omit<MadeInSpace['decided'][number], 'way'> & Led
type Following = Omit<NonNullable<MadeInSpace['followUps']>[number], 'way'> & Led

/** A choice as it stands: planned, done or dropped. */
export interface ChoiceRecord extends Omit<MadeInSpace, 'v' | 'as' | 'decided' | 'followUps'> {
  readonly decided: readonly Decided[]
  /** What follows for other wood: old canes cut, laterals shortened, arms lowered. */
  readonly followUps: readonly Following[] | null
  readonly plantId: string
  readonly placeId: string
  readonly madeOn: CalendarDate
  readonly state: 'planned' | 'done' | 'dropped'
  readonly doneOn: CalendarDate | null
  /** Minutes that it took, where somebody said. */
  readonly tookMinutes: number | null
}

/** Choices by their id, in the order in which they were made. What is done twice is done once. */
export const choiceProjection = projection({
  name: 'choices',
  version: 2,
  kinds: choiceEntries,
  initial: () => new Map<string, ChoiceRecord>(),
  apply,
})

type Written = { readonly path: readonly DeepPoint[] | null } | { readonly way: readonly Stretch[] | null }

/** A part of a choice of any version; what was made before wood had depth says no way. */
const ledIn = (part: Written): Led =>
  'way' in part ? { path: part.way && lineOf(part.way), way: part.way } : { path: part.path }

function apply(choices: Map<string, ChoiceRecord>, entry: Entries): void {
  if (entry.kind === 'choice.made') {
    if (entry.plantId === null || choices.has(entry.body.choiceId)) return
    const { v: _, as, decided, followUps, ...body } = entry.body
    choices.set(body.choiceId, {
      ...body,
      decided: [...decided].map((one): Decided => ({ ...one, ...ledIn(one) })),
      followUps: followUps && [...followUps].map((one): Following => ({ ...one, ...ledIn(one) })),
      plantId: entry.plantId,
      placeId: entry.placeId,
      madeOn: entry.at,
      state: as === 'done' ? 'done' : 'planned',
      doneOn: as === 'done' ? entry.at : null,
      tookMinutes: null,
    })
    return
  }
  const known = choices.get(entry.body.choiceId)
  if (known?.state !== 'planned') return
  choices.set(
    known.choiceId,
    entry.kind === 'choice.dropped'
      ? { ...known, state: 'dropped' }
      : { ...known, state: 'done', doneOn: entry.at, tookMinutes: entry.body.minutes },
  )
}
