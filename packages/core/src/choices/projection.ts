import { projection } from '../fold/index.ts'
import type { EntryOf } from '../fold/index.ts'
import type { CalendarDate } from '../season/index.ts'
import { choiceEntries } from './entries.ts'

type Entries = EntryOf<typeof choiceEntries>
type Made = Extract<Entries, { kind: 'choice.made' }>['body']

/** A choice as it stands: planned, done or dropped. */
export interface ChoiceRecord extends Omit<Made, 'v' | 'as'> {
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
  version: 1,
  kinds: choiceEntries,
  initial: () => new Map<string, ChoiceRecord>(),
  apply,
})

function apply(choices: Map<string, ChoiceRecord>, entry: Entries): void {
  if (entry.kind === 'choice.made') {
    if (entry.plantId === null || choices.has(entry.body.choiceId)) return
    const { v: _, as, ...body } = entry.body
    choices.set(body.choiceId, {
      ...body,
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
