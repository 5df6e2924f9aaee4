import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { grewBody, tieBody } from '../../test/bodies.ts'
import { someJournal } from '../../test/journal.ts'
import { findKind } from '../kinds/index.ts'
import { looksOf } from '../ties/index.ts'
import { PART_FOLD_RULES, foldPart, goOnPart, keptFold, lazyFold, packed, unpacked } from './index.ts'
import type { JournalEntry } from '../journal/index.ts'
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
  it('crosses the line as text of one line and is the same on the other side', () => {
    fc.assert(
      fc.property(someJournal, (entries) => {
        const fold = foldPart('plant', entries)
        expect(unpacked(packed(fold))).toEqual(fold)
        expect(packed(fold)).not.toContain('\n')
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

  it('is kept as text, and opens as it was', () => {
    fc.assert(
      fc.property(someJournal, (entries) => {
        const fold = foldPart('plant', entries)
        expect(lazyFold(keptFold(fold, { kindId: 'pear', hemisphere: 'south' })).whole()).toEqual(fold)
      }),
    )
  })

  it('says in brief what its ties hold on to and when each wants a look, as the fold itself would', () => {
    fc.assert(
      fc.property(someJournal, fc.constantFrom('north' as const, 'south' as const), (entries, hemisphere) => {
        const fold = foldPart('plant', entries)
        const { state } = fold.wood
        const brief = lazyFold(keptFold(fold, { kindId: 'pear', hemisphere })).brief()
        const looks = looksOf(state, findKind('pear')!, hemisphere).map(({ look }) => look.dueOn)
        expect(brief.dues).toEqual(looks.sort())
        expect(brief.held).toHaveLength(
          [...state.ties.values()].filter(({ endedOn, support }) => endedOn === null && support).length,
        )
        expect(brief.hasLog).toBe(fold.frames.state.size > 0)
        const others = [...state.pieces.values()].map(({ plantId }) => plantId)
        expect(new Set(['plant', ...brief.plants])).toEqual(new Set(['plant', ...others]))
      }),
    )
  })

  it('means the same days for as long as its rules have the same name', () => {
    const head = {
      placeId: 'wall',
      plantId: 'plant',
      supersedes: null,
      recordedAt: '2025-03-01T09:00:00.000Z',
    }
    const grew = grewBody('cane', {
      path: [
        { xM: 0, yM: 0 },
        { xM: 0, yM: 2 },
      ],
    })
    const tie = (materialId: string, loopLengthMm: number) =>
      tieBody(materialId, 'cane', {
        alongM: 1,
        materialId,
        hitch: 'figureEight',
        supportDiameterMm: 2.5,
        loopLengthMm,
      })
    const entries = [
      { kind: 'piece.grew', at: '2025-03-01', body: grew },
      { kind: 'tie.made', at: '2025-03-02', body: tie('soft-jute', 90) },
      { kind: 'tie.made', at: '2025-03-02', body: tie('stretch-tape', 70) },
      { kind: 'tie.made', at: '2025-03-02', body: tie('raffia', 60) },
      { kind: 'tie.checked', at: '2025-03-05', body: { v: 1, tieId: 'soft-jute' } },
      { kind: 'tie.checked', at: '2025-03-05', body: { v: 1, tieId: 'stretch-tape' } },
    ].map((one, n) => ({ ...head, ...one, id: `00000000-0000-7000-8000-00000000000${n}` }))
    const fold = foldPart('plant', entries as unknown as JournalEntry[])
    const brief = lazyFold(keptFold(fold, { kindId: 'pear', hemisphere: 'north' })).brief()
    // Other days under the same name would stand beside old ones on devices: raise BRIEF_VERSION with these.
    const dues = ['2025-03-04', '2025-11-27', '2026-03-05'] // two days, jute at its earliest, a year
    expect([PART_FOLD_RULES, brief.dues]).toEqual(['wood 6.45, frame-log 1.7, brief 1, pack 2', dues])
  })

  it('tells no day of a plant of no kind', () => {
    const fold = foldPart('plant', [])
    expect(lazyFold(keptFold(fold, { kindId: null, hemisphere: 'north' })).brief()).toEqual({
      plants: [],
      held: [],
      basis: 'none north',
      dues: [],
      hasLog: false,
    })
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
