import { entryKinds, entrySchema, latestVersion } from '@klados/contract'
import type { EntryAnswer } from '@klados/contract'
import type { JournalEntry } from '@klados/core/journal'

/** What an entry is about, as far as another may supersede it. */
export interface EntryHead {
  readonly placeId: string
  readonly plantId: string | null
}

/** What the garden has of all that the entries at hand speak of. */
export interface Known {
  readonly places: ReadonlySet<string>
  readonly plants: ReadonlySet<string>
  readonly photos: ReadonlySet<string>
  readonly entries: ReadonlyMap<string, EntryHead>
}

export type Verdict = Exclude<EntryAnswer, { answer: 'taken' }> | { readonly answer: 'good' }
/** One entry as it was sent: read, or what is to be said of it. */
export type ReadEntry = { readonly entry: JournalEntry } | { readonly verdict: Verdict }

/** Clocks and time zones differ by less; beyond it a day or an id comes from a clock that is wrong. */
const AHEAD_MS = 2 * 86_400_000

const held = (code: string, message: string): Verdict => ({ answer: 'held', code, message })
const refused = (code: string, message: string, fields?: { path: string; message: string }[]): Verdict => ({
  answer: 'refused',
  code,
  message,
  ...(fields ? { fields } : {}),
})

/** Reads one entry as it was sent, or says why it cannot be. `now` is the server's. */
export function readEntry(sent: unknown, now: Date): ReadEntry {
  const { kind, body } = (sent ?? {}) as { kind?: unknown; body?: { v?: unknown } }
  const known = entryKinds.find((one) => one === kind)
  const isLater = known !== undefined && typeof body?.v === 'number' && body.v > latestVersion(known)
  if (typeof kind === 'string' && (known === undefined || isLater))
    return {
      verdict: held(
        'journal/unknown-kind',
        `This release does not know entries of kind ${kind.slice(0, 60)} as they are written here; a later one will`,
      ),
    }
  const parsed = entrySchema.safeParse(sent)
  if (!parsed.success) {
    const fields = parsed.error.issues
      .slice(0, 20)
      .map((issue) => ({ path: issue.path.join('.'), message: issue.message }))
    return { verdict: refused('request/malformed', 'Some fields are missing or not valid', fields) }
  }
  const entry = parsed.data
  if (!isStorable(entry))
    return { verdict: refused('request/malformed', 'The entry holds text that cannot be stored') }
  const latest = new Date(now.getTime() + AHEAD_MS)
  if (entry.at > latest.toISOString().slice(0, 10))
    return { verdict: refused('journal/too-late', `${entry.at} lies more than two days ahead`) }
  if (madeAtMs(entry.id) > latest.getTime())
    return {
      verdict: refused(
        'journal/too-late',
        'The clock that this was written by runs more than two days ahead',
      ),
    }
  if (entry.supersedes === entry.id)
    return { verdict: refused('journal/supersedes-itself', 'An entry cannot take its own place') }
  return { entry }
}

/** Whether an entry may be appended, given what the garden has. An entry speaks only of its own garden. */
export function judge(entry: JournalEntry, known: Known): Verdict {
  if (!known.places.has(entry.placeId))
    return held('journal/unknown-place', `Place ${entry.placeId} is not in this garden`)
  if (entry.plantId !== null && !known.plants.has(entry.plantId))
    return held('journal/unknown-plant', `Plant ${entry.plantId} is not in this garden`)
  if (entry.kind === 'photo.taken' && !known.photos.has(entry.body.fileId))
    return held('journal/unknown-photo', `Photo ${entry.body.fileId} is not in this garden`)
  if (entry.supersedes === null) return { answer: 'good' }
  const before = known.entries.get(entry.supersedes)
  if (!before)
    return held(
      'journal/unknown-entry',
      `Entry ${entry.supersedes}, to be superseded, is not in this journal`,
    )
  if (before.placeId !== entry.placeId || before.plantId !== entry.plantId)
    return refused(
      'journal/other-place',
      'An entry can take the place only of one of the same plant and place',
    )
  return { answer: 'good' }
}

/** The instant in a UUIDv7. */
function madeAtMs(id: string): number {
  return Number.parseInt(id.slice(0, 8) + id.slice(9, 13), 16)
}

/** A database holds no NUL character and no half of a surrogate pair; JSON does. */
const UNSTORABLE = /[\0\p{Cs}]/u

function isStorable(value: unknown): boolean {
  if (typeof value === 'string') return !UNSTORABLE.test(value)
  if (value === null || typeof value !== 'object') return true
  return Object.values(value).every(isStorable)
}
