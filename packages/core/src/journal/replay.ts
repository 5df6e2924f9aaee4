import { cutPolyline, nearestAlong, polylineLengthM } from '../geometry/index.ts'
import type { CalendarDate } from '../season/index.ts'
import type { Stem, Tie } from '../wood/index.ts'
import type { JournalEntry } from './entry.ts'

/** An entry that says something impossible of the state it met: kept and shown, never dropped. */
export interface Misfit {
  readonly entryId: string
  readonly why:
    'no-such-wood' | 'wood-gone' | 'no-such-tie' | 'tie-ended' | 'longer-than-wood' | 'already-there'
}

export interface WoodState {
  readonly stems: ReadonlyMap<string, Stem>
  readonly ties: ReadonlyMap<string, Tie>
  readonly notes: readonly {
    readonly entryId: string
    readonly at: CalendarDate
    readonly placeId: string
    readonly plantId: string | null
    readonly text: string
  }[]
  readonly misfits: readonly Misfit[]
}

/**
 * A child sits on its parent when its base is this near; a cut nearer to the parent's base than it takes it
 * along.
 */
const ATTACHED_M = 0.03

/** Private to one replay: copying maps for each of 20,000 entries would make the fold quadratic. */
interface Draft {
  readonly stems: Map<string, Stem>
  readonly ties: Map<string, Tie>
  readonly childrenOf: Map<string, string[]>
  readonly tiesOf: Map<string, string[]>
  readonly notes: WoodState['notes'][number][]
  readonly misfits: Misfit[]
}

/**
 * The garden's wood and ties at the end of a day (of all time without one): the fold of all entries in force,
 * in the order of day and id, whatever order they arrived in. Entries that stand twice count once. Total:
 * never throws.
 */
export function replay(entries: readonly JournalEntry[], upTo?: CalendarDate): WoodState {
  const draft: Draft = {
    stems: new Map(),
    ties: new Map(),
    childrenOf: new Map(),
    tiesOf: new Map(),
    notes: [],
    misfits: [],
  }
  for (const entry of inForce(entries)) {
    if (upTo === undefined || entry.at <= upTo) apply(draft, entry)
  }
  return { stems: draft.stems, ties: draft.ties, notes: draft.notes, misfits: draft.misfits }
}

/** Entries that nothing in force supersedes, once each, by day and then by id; withdrawals are left out. */
export function inForce(entries: readonly JournalEntry[]): JournalEntry[] {
  const seen = new Set<string>()
  const supersededBy = new Map<string, string[]>()
  // Days first, then ids within a day: a few hundred days sort at once, and most days come in order already.
  const byDay = new Map<CalendarDate, JournalEntry[]>()
  for (const entry of entries) {
    if (seen.has(entry.id)) continue
    seen.add(entry.id)
    if (entry.supersedes !== null) push(supersededBy, entry.supersedes, entry.id)
    if (entry.kind !== 'entry.withdrawn') push(byDay, entry.at, entry)
  }
  const verdicts = new Map<string, boolean>()
  const isInForce = ({ id }: JournalEntry) => !supersededBy.has(id) || stands(id, supersededBy, verdicts)
  return [...byDay]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .flatMap(([, day]) => {
      const standing = supersededBy.size === 0 ? day : day.filter(isInForce)
      return standing.sort((a, b) => (a.id < b.id ? -1 : 1))
    })
}

/** An entry stands when no standing entry supersedes it, so withdrawing a withdrawal restores. */
function stands(
  id: string,
  supersededBy: ReadonlyMap<string, readonly string[]>,
  verdicts: Map<string, boolean>,
): boolean {
  // Walked with a stack of its own: a long chain of undo and redo must not overflow the machine's.
  const stack = [id]
  while (stack.length > 0) {
    const current = stack.at(-1)!
    const over = supersededBy.get(current) ?? []
    // A ring can only come from a forged file; the half-made verdict `true` then ends it.
    const open = over.filter((other) => !verdicts.has(other) && !stack.includes(other))
    if (open.length > 0) stack.push(...open)
    else {
      verdicts.set(current, !over.some((other) => verdicts.get(other) ?? false))
      stack.pop()
    }
  }
  return verdicts.get(id)!
}

function apply(draft: Draft, entry: JournalEntry): void {
  switch (entry.kind) {
    case 'stem.drawn':
      return drawStem(draft, entry)
    case 'stem.redrawn':
      return changeStem(draft, entry, (stem) => ({ ...stem, points: entry.body.points }))
    case 'stem.measured':
      return changeStem(draft, entry, (stem) => ({
        ...stem,
        diameterMm: entry.body.diameterMm,
        diameterOn: entry.at,
      }))
    case 'stem.shortened':
      return shortenStem(draft, entry)
    case 'stem.removed':
      return changeStem(draft, entry, (stem) => {
        removeWithChildren(draft, stem.id, entry.at, entry.body.reason)
        return draft.stems.get(stem.id)!
      })
    case 'tie.made':
      return makeTie(draft, entry)
    case 'tie.checked':
      return changeTie(draft, entry, (tie) => ({ ...tie, lookedOn: entry.at, postponedUntil: null }))
    case 'tie.loosened':
      return changeTie(draft, entry, (tie) => ({
        ...tie,
        loopLengthMm: entry.body.loopLengthMm,
        stemDiameterMm: entry.body.stemDiameterMm,
        setOn: entry.at,
        lookedOn: entry.at,
        postponedUntil: null,
      }))
    case 'tie.replaced':
      return replaceTie(draft, entry)
    case 'tie.removed':
      return changeTie(draft, entry, (tie) => ({ ...tie, endedOn: entry.at, endedWhy: 'removed' }))
    case 'tie.postponed':
      return changeTie(draft, entry, (tie) => ({ ...tie, postponedUntil: entry.body.untilOn }))
    case 'fixing.set':
    case 'post.placed':
    case 'anchor.driven':
    case 'wire.tensioned':
    case 'wire.measured':
      // What was done to frames is told by `replayFrames`.
      return
    case 'note.written':
      draft.notes.push({
        entryId: entry.id,
        at: entry.at,
        placeId: entry.placeId,
        plantId: entry.plantId,
        text: entry.body.text,
      })
      return
    case 'entry.withdrawn':
      return
  }
}

type EntryOf<K extends JournalEntry['kind']> = Extract<JournalEntry, { kind: K }>

function drawStem(draft: Draft, entry: EntryOf<'stem.drawn'>): void {
  const { body } = entry
  const parent = body.parentStemId === null ? undefined : draft.stems.get(body.parentStemId)
  if (draft.stems.has(body.stemId)) return misfit(draft, entry, 'already-there')
  if (body.parentStemId !== null && !parent) return misfit(draft, entry, 'no-such-wood')
  if (parent && parent.removedOn !== null) return misfit(draft, entry, 'wood-gone')
  draft.stems.set(body.stemId, {
    id: body.stemId,
    plantId: entry.plantId ?? '',
    part: body.part,
    parentStemId: body.parentStemId,
    points: body.points,
    drawnOn: entry.at,
    ageAtDrawing: body.ageSeasons,
    diameterMm: body.diameterMm,
    diameterOn: entry.at,
    cuts: [],
    removedOn: null,
    removedWhy: null,
  })
  if (parent) push(draft.childrenOf, parent.id, body.stemId)
}

function changeStem(
  draft: Draft,
  entry: EntryOf<'stem.redrawn' | 'stem.measured' | 'stem.shortened' | 'stem.removed'>,
  change: (stem: Stem) => Stem,
): void {
  const stem = draft.stems.get(entry.body.stemId)
  if (!stem) return misfit(draft, entry, 'no-such-wood')
  if (stem.removedOn !== null) return misfit(draft, entry, 'wood-gone')
  draft.stems.set(stem.id, change(stem))
}

function shortenStem(draft: Draft, entry: EntryOf<'stem.shortened'>): void {
  changeStem(draft, entry, (stem) => {
    const { toLengthM, reason } = entry.body
    if (toLengthM >= polylineLengthM(stem.points)) {
      misfit(draft, entry, 'longer-than-wood')
      return stem
    }
    // What sits beyond the cut goes with it.
    const isBeyond = (along: number) => along > toLengthM + 1e-9
    for (const childId of draft.childrenOf.get(stem.id) ?? []) {
      const base = nearestAlong(stem.points, draft.stems.get(childId)!.points[0]!)
      if (base.distanceM <= ATTACHED_M && isBeyond(base.alongM))
        removeWithChildren(draft, childId, entry.at, reason)
    }
    for (const tieId of draft.tiesOf.get(stem.id) ?? []) {
      const tie = draft.ties.get(tieId)!
      if (isBeyond(nearestAlong(stem.points, tie.at).alongM)) endTie(draft, tie, entry.at, 'wood-gone')
    }
    const cut = { on: entry.at, reason, toLengthM }
    return { ...stem, points: cutPolyline(stem.points, toLengthM), cuts: [...stem.cuts, cut] }
  })
}

function removeWithChildren(draft: Draft, stemId: string, on: CalendarDate, why: string): void {
  const open = [stemId]
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    const stem = draft.stems.get(id)!
    if (stem.removedOn !== null) continue
    draft.stems.set(id, { ...stem, removedOn: on, removedWhy: why })
    for (const tieId of draft.tiesOf.get(id) ?? []) endTie(draft, draft.ties.get(tieId)!, on, 'wood-gone')
    open.push(...(draft.childrenOf.get(id) ?? []))
  }
}

function endTie(draft: Draft, tie: Tie, on: CalendarDate, why: Tie['endedWhy']): void {
  if (tie.endedOn === null) draft.ties.set(tie.id, { ...tie, endedOn: on, endedWhy: why })
}

function makeTie(draft: Draft, entry: EntryOf<'tie.made'>): void {
  const { v: _, ...made } = entry.body
  const stem = draft.stems.get(made.stemId)
  if (draft.ties.has(made.tieId)) return misfit(draft, entry, 'already-there')
  if (!stem) return misfit(draft, entry, 'no-such-wood')
  if (stem.removedOn !== null) return misfit(draft, entry, 'wood-gone')
  addTie(draft, {
    id: made.tieId,
    stemId: made.stemId,
    plantId: stem.plantId,
    at: made.at,
    materialId: made.materialId,
    hitch: made.hitch,
    supportDiameterMm: made.supportDiameterMm,
    stemDiameterMm: made.stemDiameterMm,
    loopLengthMm: made.loopLengthMm,
    madeOn: entry.at,
    setOn: entry.at,
    lookedOn: null,
    postponedUntil: null,
    endedOn: null,
    endedWhy: null,
  })
}

function addTie(draft: Draft, tie: Tie): void {
  draft.ties.set(tie.id, tie)
  push(draft.tiesOf, tie.stemId, tie.id)
}

function changeTie(
  draft: Draft,
  entry: EntryOf<'tie.checked' | 'tie.loosened' | 'tie.replaced' | 'tie.removed' | 'tie.postponed'>,
  change: (tie: Tie) => Tie,
): void {
  const tie = draft.ties.get(entry.body.tieId)
  if (!tie) return misfit(draft, entry, 'no-such-tie')
  if (tie.endedOn !== null) return misfit(draft, entry, 'tie-ended')
  draft.ties.set(tie.id, change(tie))
}

function replaceTie(draft: Draft, entry: EntryOf<'tie.replaced'>): void {
  const { newTieId, materialId, hitch, loopLengthMm, stemDiameterMm } = entry.body
  if (draft.ties.has(newTieId)) return misfit(draft, entry, 'already-there')
  changeTie(draft, entry, (old) => {
    addTie(draft, {
      ...old,
      id: newTieId,
      materialId,
      hitch,
      loopLengthMm,
      stemDiameterMm,
      madeOn: entry.at,
      setOn: entry.at,
      lookedOn: null,
      postponedUntil: null,
    })
    return { ...old, endedOn: entry.at, endedWhy: 'replaced' }
  })
}

function misfit(draft: Draft, entry: JournalEntry, why: Misfit['why']): void {
  draft.misfits.push({ entryId: entry.id, why })
}

function push<V>(map: Map<string, V[]>, key: string, value: V): void {
  const list = map.get(key)
  if (list) list.push(value)
  else map.set(key, [value])
}
