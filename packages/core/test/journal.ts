import fc from 'fast-check'
import type { JournalEntry } from '../src/journal/index.ts'
import { grewBody, tieBody } from './bodies.ts'

const PIECES = ['trunk', 'arm', 'cane', 'shoot'] as const
const TIES = ['t1', 't2', 't3'] as const
const path = [
  { xM: 0, yM: 0 },
  { xM: 1, yM: 0.5 },
]

/** Deeds as they come, sensible or not: most of what they speak of may not be there, or not any more. */
const deed = fc.oneof(
  fc
    .tuple(
      fc.constantFrom(...PIECES),
      fc.constantFrom(
        { on: 'crown', leadId: null },
        { on: 'piece', pieceId: 'trunk', alongM: 0.4 },
        { on: 'piece', pieceId: 'arm', alongM: 0.2 },
      ),
    )
    .map(([pieceId, parent]) => ({ kind: 'piece.grew', body: grewBody(pieceId, { parent, path }) })),
  fc.record({
    kind: fc.constantFrom('piece.removed', 'piece.pulled'),
    body: fc.record({ v: fc.constant(1), pieceId: fc.constantFrom(...PIECES), reason: fc.constant('') }),
  }),
  fc.record({
    kind: fc.constant('piece.cut'),
    body: fc.record({
      v: fc.constant(1),
      pieceId: fc.constantFrom(...PIECES),
      alongM: fc.constantFrom(0.3, 0.8),
      aboveBuds: fc.constant(null),
      reason: fc.constant(''),
    }),
  }),
  fc
    .tuple(fc.constantFrom(...TIES), fc.constantFrom(...PIECES), fc.constantFrom(0.1, 0.6))
    .map(([tieId, pieceId, alongM]) => ({ kind: 'tie.made', body: tieBody(tieId, pieceId, { alongM }) })),
  fc.record({
    kind: fc.constantFrom('tie.checked', 'tie.removed'),
    body: fc.record({ v: fc.constant(1), tieId: fc.constantFrom(...TIES), reason: fc.constant('') }),
  }),
  fc.record({
    kind: fc.constant('cover.changed'),
    body: fc.record({
      v: fc.constant(1),
      frameId: fc.constantFrom('f1', 'f2'),
      is: fc.constantFrom('on', 'off'),
    }),
  }),
)

export const idOf = (n: number) => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`
/** A journal in the order of its days. */
export const someJournal = fc.array(fc.tuple(deed, fc.nat(1)), { maxLength: 40 }).map((deeds) => {
  let day = 1
  return deeds.map(([one, later], n) => {
    day += later
    const at = `2026-03-${String(Math.min(day, 31)).padStart(2, '0')}`
    return {
      ...one,
      id: idOf(n),
      placeId: 'place',
      plantId: 'plant',
      at,
      supersedes: null,
    } as unknown as JournalEntry
  })
})
