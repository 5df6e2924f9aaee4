import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { someJournal } from '../../test/journal.ts'
import { foldPart, goOnPart, packed, unpacked } from './index.ts'
import type { PartFold } from './index.ts'

/** What a fold says, whatever the order in which its maps were filled. */
const said = ({ wood, frames }: PartFold) => ({
  last: [wood.last, frames.last],
  pieces: [...wood.state.pieces.values()].sort((a, b) => (a.id < b.id ? -1 : 1)),
  ties: [...wood.state.ties.values()].sort((a, b) => (a.id < b.id ? -1 : 1)),
  childrenOf: wood.state.childrenOf,
  frames: frames.state,
})
/** No id is given twice: what is gone does not grow or get tied again under its name. */
const sane = someJournal.map((entries) => {
  const made = new Set<string>()
  return entries.filter(({ kind, body }) => {
    if (kind !== 'piece.grew' && kind !== 'tie.made') return true
    const id = 'tieId' in body ? body.tieId : (body as { pieceId: string }).pieceId
    return !made.has(id) && made.add(id)
  })
})

describe('a fold of a part', () => {
  it('crosses the line as JSON and is the same on the other side', () => {
    fc.assert(
      fc.property(someJournal, (entries) => {
        const fold = foldPart('plant', entries)
        expect(unpacked(JSON.parse(JSON.stringify(packed(fold))))).toEqual(fold)
      }),
    )
  })

  it('is gone on from, however often, to what all entries make at once', () => {
    fc.assert(
      fc.property(sane, fc.nat(40), fc.nat(40), (entries, a, b) => {
        const [first, second] = [Math.min(a, b), Math.max(a, b)]
        const begun = foldPart('plant', entries.slice(0, first))
        const further = goOnPart(begun, entries.slice(first, second))!
        expect(said(goOnPart(further, entries.slice(second))!)).toEqual(said(foldPart('plant', entries)))
      }),
    )
  })

  it('does not go on where an entry is dated back', () => {
    fc.assert(
      fc.property(
        sane.filter(({ length }) => length > 1),
        (entries) => {
          expect(goOnPart(foldPart('plant', entries.slice(1)), entries.slice(0, 1))).toBeNull()
        },
      ),
    )
  })
})
