import type { JournalPage, StoredEntry } from '@klados/contract'
import { readStanding } from '@klados/contract/standing'
import type { EntryKind } from '@klados/core/journal'
import { grouped, subjectOf } from '@klados/core/part-fold'
import { FOLD_RULES } from './copy/fold-rules.ts'
import { standingPath } from './early.ts'
import { begun, brought, failed, foldedUp, notBrought, opened, received } from './journal.ts'
import type { JournalThunk } from './journal.ts'
import { plantKey } from './parts.ts'
import { request } from './request.ts'
import { greatestId } from './sync/clock.ts'

// Apart from the journal's state, which the store has from the first moment: the door reads no journal.

/** Reads the garden's journal from the start, or what is new since the last reading. */
export const openJournal =
  (gardenId: string): JournalThunk<Promise<void>> =>
  async (dispatch, getState, { copy }) => {
    if (getState().journal.gardenId !== gardenId) {
      dispatch(opened(gardenId))
      let kept = await copy.open(gardenId)
      if (kept?.isStale) {
        // After a release: the server tells what stands, and without it that is worked out here first.
        await dispatch(beginStanding(gardenId))
        if (getState().journal.last === 0 && (await copy.foldUp(gardenId))) kept = await copy.open(gardenId)
      }
      const { journal } = getState()
      // What this device has opens at once; the server is asked for what is after it.
      if (kept && kept.last > 0 && journal.gardenId === gardenId && journal.last === 0) {
        dispatch(begun(kept))
        if (!kept.isWhole) void copy.fill(gardenId, null)
      }
    }
    await dispatch(readOn())
  }

/** Reads what the journal has gained. */
export const readOn =
  (): JournalThunk<Promise<void>> =>
  async (dispatch, getState, { clock, copy }) => {
    const { gardenId } = getState().journal
    if (gardenId === null) return
    try {
      for (;;) {
        if (getState().journal.last === 0) await dispatch(beginStanding(gardenId))
        const { last } = getState().journal
        const page = await readAfter(gardenId, last)
        // Another reading may have come first, or another garden been opened: then this page is old.
        if (getState().journal.gardenId !== gardenId || getState().journal.last !== last) return
        if (page.head < last) {
          // The server was set back to an earlier day: what this device has beyond that is of another history.
          await copy.drop(gardenId)
          dispatch(opened(gardenId))
          continue
        }
        const greatest = greatestId(page.entries.map(({ id }) => id))
        if (greatest !== null) clock.see(greatest)
        void copy.keep(gardenId, last, page.entries)
        dispatch(received({ ...page, isWhole: page.last === last }))
        if (page.last === last) return
      }
    } catch {
      dispatch(failed())
    }
  }

const readAfter = (gardenId: string, last: number) =>
  request<JournalPage>('GET', `/gardens/${gardenId}/journal?after=${last}`)

/** A long journal is begun from what it came to; what it came from is read when somebody asks for it, and quietly. */
const beginStanding =
  (gardenId: string): JournalThunk<Promise<void>> =>
  async (dispatch, getState, { clock, copy }) => {
    // Whatever keeps the server from folding, of the release before or short of memory: its journal it reads out all the
    // same, and whether it is there at all shows then.
    const standing = await request<string>('GET', standingPath(gardenId))
      .then(readStanding)
      .catch(() => null)
    if (!standing || standing.upTo === 0 || standing.rules !== FOLD_RULES) return
    if (getState().journal.gardenId !== gardenId || getState().journal.last !== 0) return
    const { upTo, greatestId: greatest, folds } = standing
    if (greatest !== null) clock.see(greatest)
    dispatch(begun({ last: upTo, isWhole: false, foldedTo: upTo, folds, entries: [] }))
    void copy.fill(gardenId, standing)
  }

/** All entries that the server has of something. */
async function readOf(gardenId: string, what: string): Promise<readonly StoredEntry[]> {
  const pages: (readonly StoredEntry[])[] = []
  for (let after = 0; ; ) {
    const page = await request<JournalPage>('GET', `/gardens/${gardenId}/journal?after=${after}&${what}`)
    if (page.entries.length === 0) return pages.flat()
    pages.push(page.entries)
    after = page.last
  }
}

/** Has all entries of a place brought here, and of every plant that stood there: from this device, else from the server. */
export const bringPlace =
  (placeId: string): JournalThunk<Promise<void>> =>
  async (dispatch, getState, { copy }) => {
    const { gardenId, foldedTo } = getState().journal
    if (gardenId === null) return
    const read = async () => {
      const all = await readOf(gardenId, `place=${placeId}`)
      return { entries: all.filter((entry) => entry.placeId === placeId), parts: grouped(all, plantKey) }
    }
    const history = (await copy.place(gardenId, placeId, foldedTo)) ?? (await read().catch(() => null))
    if (getState().journal.gardenId !== gardenId) return
    if (!history) dispatch(notBrought(placeId))
    else dispatch(brought({ parts: history.parts, place: { id: placeId, entries: history.entries } }))
  }

/**
 * Has all entries of some parts brought here: their folds alone do not tell what was written since. Till they are here
 * the parts stay as they were.
 */
export const bringParts =
  (parts: readonly string[]): JournalThunk<Promise<void>> =>
  async (dispatch, getState, { copy }) => {
    const { gardenId, foldedTo } = getState().journal
    if (gardenId === null) return
    const read = async () => {
      const lists = await Promise.all(parts.map((part) => readOf(gardenId, `of=${subjectOf(part)}`)))
      return new Map(parts.map((part, i) => [part, lists[i]!]))
    }
    const entries = (await copy.parts(gardenId, parts, foldedTo)) ?? (await read().catch(() => null))
    if (entries && getState().journal.gardenId === gardenId) dispatch(brought({ parts: entries }))
  }

/** All entries of a kind that the server has; none where it does not answer. */
export const readKind =
  (kind: EntryKind): JournalThunk<Promise<readonly StoredEntry[]>> =>
  async (_, getState) => {
    const { gardenId } = getState().journal
    return gardenId === null ? [] : readOf(gardenId, `kind=${kind}`).catch(() => [])
  }

/** Folds on this device what has been read since the last time; tells whether it could. */
export const foldOn =
  (): JournalThunk<Promise<boolean>> =>
  async (dispatch, getState, { copy }) => {
    const { gardenId } = getState().journal
    const done = gardenId === null ? null : await copy.foldUp(gardenId)
    if (done && getState().journal.gardenId === gardenId) dispatch(foldedUp(done))
    return done !== null
  }
