import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { grewBody } from '../../test/bodies.ts'
import { plantArb, Wood, viewOf, wiresAt } from '../../test/training.ts'
import { replayChoices, replayWood } from '../journal/index.ts'
import type { EntryBodies, EntryKind, JournalEntry } from '../journal/index.ts'
import { polylineLengthM } from '../geometry/index.ts'
import type { Piece } from '../wood/index.ts'
import { ask } from '../../test/asking.ts'
import { kindFor } from '../../test/plants-of-systems.ts'
import { isRefused, openQuestions, propose, trainingSystems } from '../training/index.ts'
import { choiceOutcome, woodDone } from './index.ts'
import { runs } from '../../test/runs.ts'

let count = 0
function entry<K extends EntryKind>(kind: K, body: EntryBodies[K], at = '2026-02-01'): JournalEntry {
  const id = `00000000-0000-7000-8000-${String(++count).padStart(12, '0')}`
  const head = { id, placeId: 'place', plantId: 'p', at, recordedAt: `${at}T09:00:00.000Z`, supersedes: null }
  return { ...head, kind, body } as JournalEntry
}

const asGrown = ({ id, parent, path, seasonsThen, baseMm, buds, calledRole }: Piece) =>
  grewBody(id, { parent, path, seasonsOld: seasonsThen, baseMm, buds, role: calledRole })

const wood = new Wood(1.1, '2026-01-10')
wood.stem('trunk', null, 0, [1.1, 0], 0.8, 0, { seasonsThen: 8, baseMm: 40, calledRole: 'trunk' })
wood.stem('stub', 'trunk', 0.8, [1.1, 0.8], 0.9, -80, { seasonsThen: 2, baseMm: 14 })
wood.stem('near', 'stub', 0.04, [1.06, 0.81], 0.5, -10, { baseMm: 8, buds: 6 })
wood.stem('good', 'stub', 0.09, [1.01, 0.81], 1.3, -10, { baseMm: 9, buds: 16 })
wood.stem('far', 'stub', 0.7, [0.4, 0.85], 1, 0, { baseMm: 9, buds: 12 })
const planted = [...wood.pieces.values()].map((piece) => entry('piece.grew', asGrown(piece), '2026-01-10'))
const view = viewOf(wood, 'wine-grape', wiresAt(2.2, 0.9))
const question = ask('cane-two', view)
const found = propose(question)
if (isRefused(found)) throw new Error('refused')
const decided = question.candidates.map(({ pieceId, letter, judgements }) => {
  const { deed, cutM, aboveBuds, path, wire, towards } = found.chosen.get(pieceId)!
  return {
    pieceId,
    letter,
    deed,
    cutM,
    aboveBuds,
    path,
    wire,
    towards,
    isOwn: false,
    reason: '',
    proposed: null,
    judgements: judgements.map(({ code, figure, unit }) => ({ code, figure, unit })),
  }
})
const made = (as: 'plan' | 'done', choiceId = 'c1') =>
  entry('choice.made', {
    v: 1,
    choiceId,
    system: 'cane-two',
    question: question.code,
    as,
    decided,
    followUps: [...found.followUps],
    buds: found.buds,
    budsMin: 26,
    budsMax: 34,
    bareM: found.bareM,
    isProven: found.isProven,
    ties: 0,
    minutes: 6,
  })
const context = (pieces: ReturnType<typeof replayWood>['pieces']) => ({
  lengthM: (id: string) => {
    const piece = pieces.get(id)
    return piece && piece.removedOn === null ? polylineLengthM(piece.path) : null
  },
  isSoft: () => false,
  reasonOf: (id: string) => `why ${id}`,
  isOn: (id: string, under: string) => {
    for (let at = pieces.get(id); at?.parent.on === 'piece'; at = pieces.get(at.parent.pieceId))
      if (at.parent.pieceId === under) return true
    return false
  },
})

describe('a choice', () => {
  it('is planned, then done once; what was dropped is not done', () => {
    const plan = made('plan')
    const state = (...more: JournalEntry[]) => replayChoices([plan, ...more]).get('c1')!
    expect(state()).toMatchObject({ state: 'planned', doneOn: null })
    const done = entry('choice.done', { v: 1, choiceId: 'c1', minutes: 7 }, '2026-02-03')
    expect(state(done)).toMatchObject({ state: 'done', doneOn: '2026-02-03', tookMinutes: 7 })
    const dropped = entry('choice.dropped', { v: 1, choiceId: 'c1', reason: 'snow' }, '2026-02-02')
    expect(state(dropped, done)).toMatchObject({ state: 'dropped', doneOn: null })
    const undone = { ...entry('entry.withdrawn', { v: 1 }, '2026-02-04'), supersedes: done.id }
    expect(state(done, undone)).toMatchObject({ state: 'planned' })
  })

  it('is one of a plant, and once: told again or of nothing it changes nothing', () => {
    const first = made('plan')
    const again = { ...made('done'), id: `${first.id.slice(0, -1)}f` }
    expect(replayChoices([first, again]).get('c1')).toMatchObject({ state: 'planned' })
    expect(replayChoices([{ ...first, plantId: null }]).size).toBe(0)
  })

  it('carried out leaves the wood as it was decided, without an entry that fits nothing', () => {
    const before = replayWood(planted)
    const deeds = woodDone({ decided, followUps: [...found.followUps] }, context(before.pieces))
    const after = replayWood([...planted, ...deeds.map(({ kind, body }) => entry(kind, body as never))])
    expect(after.misfits).toEqual([])
    for (const { pieceId, deed, cutM, path } of decided) {
      const piece = after.pieces.get(pieceId)!
      expect(piece.removedOn === null).toBe(deed !== 'off')
      if (deed === 'spur') expect(polylineLengthM(piece.path)).toBeCloseTo(cutM!, 6)
      if (path) expect(piece.path.at(-1)!.yM).toBeCloseTo(path.at(-1)!.yM, 6)
    }
    // What stood on the cut part of the old cane went with it.
    expect(after.pieces.get('far')!.removedOn).not.toBeNull()
  })

  it('of any plant in any system is carried out without an entry that fits nothing', () => {
    fc.assert(
      fc.property(fc.constantFrom(...trainingSystems), plantArb, (system, { wood: any, frames }) => {
        const on = any.on
        const grown = [...any.pieces.values()].map((piece) =>
          entry('piece.grew', { ...asGrown(piece), buds: null, role: null }, on),
        )
        const [asked] = openQuestions(system, viewOf(any, kindFor(system), frames))
        const answer = asked && propose(asked)
        if (!answer || isRefused(answer)) return
        const choice = {
          decided: [...answer.chosen].map(([pieceId, one]) => ({ ...decided[0]!, ...one, pieceId })),
          followUps: [...answer.followUps],
        }
        const deeds = woodDone(choice, context(replayWood(grown).pieces))
        const after = replayWood([...grown, ...deeds.map(({ kind, body }) => entry(kind, body as never, on))])
        expect(after.misfits).toEqual([])
      }),
      { numRuns: runs(300) },
    )
  })

  it('stands a year later beside what came of it', () => {
    const laid = decided.find(({ deed }) => deed === 'lay')!.pieceId
    const before = replayWood(planted)
    const deeds = woodDone({ decided, followUps: null }, context(before.pieces))
    const shoots = [0.2, 0.4, 0.6].map((alongM, i) =>
      entry(
        'piece.grew',
        {
          v: 1,
          pieceId: `shoot${i}`,
          parent: { on: 'piece', pieceId: laid, alongM },
          path: [
            { xM: 0.5, yM: 0.9 },
            { xM: 0.5, yM: 1.5 },
          ],
          seasonsOld: 0,
          baseMm: 5,
          tipMm: null,
          buds: null,
          side: null,
          role: null,
        },
        '2026-07-01',
      ),
    )
    const entries = [...planted, ...deeds.map(({ kind, body }) => entry(kind, body as never)), ...shoots]
    const { pieces } = replayWood(entries)
    const record = replayChoices([made('done')]).get('c1')!
    const outcome = choiceOutcome(record, pieces, [
      { on: '2026-10-01', what: 'crop', value: 3.2 },
      { on: '2025-10-01', what: 'crop', value: 9 },
    ])
    expect(outcome).toMatchObject({ cropKg: 3.2, isTold: true })
    const one = outcome.pieces.find(({ pieceId }) => pieceId === laid)!
    expect(one.isAlive).toBe(true)
    expect(one.shootsPerM).toBeCloseTo(3 / one.laidM, 9)
    expect(choiceOutcome(record, replayWood(planted).pieces, []).isTold).toBe(false)
  })
})
