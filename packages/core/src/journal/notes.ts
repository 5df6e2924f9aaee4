import { projection } from '../fold/index.ts'
import type { CalendarDate } from '../season/index.ts'
import { entryShapes } from './entry.ts'

export interface Note {
  readonly entryId: string
  readonly at: CalendarDate
  readonly placeId: string
  readonly plantId: string | null
  readonly text: string
}

/** What was told in words. */
export const noteProjection = projection({
  name: 'notes',
  version: 1,
  kinds: { 'note.written': entryShapes['note.written'] },
  initial: (): Note[] => [],
  apply: (notes, { id, at, placeId, plantId, body }) => {
    notes.push({ entryId: id, at, placeId, plantId, text: body.text })
  },
})
