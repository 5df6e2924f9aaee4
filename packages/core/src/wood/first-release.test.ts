import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { replayNotes, replayWood } from '../journal/index.ts'
import type { JournalEntry } from '../journal/index.ts'

interface Fixture {
  readonly entries: readonly JournalEntry[]
  /**
   * A digest of all wood and ties as the first releases showed them, at the end of each day on which
   * something was written.
   */
  readonly days: Readonly<Record<string, string>>
  readonly last: { readonly stems: readonly object[]; readonly ties: readonly object[] }
}
const fixture = JSON.parse(
  readFileSync(new URL('../../test/fixtures/demo-v1.json', import.meta.url), 'utf8'),
) as Fixture

/** What is known now, said as the first releases said it. */
function asItWas(upTo?: string) {
  const { pieces, ties, misfits } = replayWood(fixture.entries, upTo)
  const byId = (a: { id: string }, b: { id: string }) => (a.id < b.id ? -1 : 1)
  return {
    stems: [...pieces.values()]
      .map((piece) => ({
        id: piece.id,
        plantId: piece.plantId,
        part: piece.calledRole,
        parent: piece.parent.on === 'piece' ? piece.parent.pieceId : null,
        points: piece.path,
        drawnOn: piece.drawnOn,
        age: piece.seasonsThen,
        mm: piece.baseMm,
        mmOn: piece.measuredOn,
        cuts: piece.cuts.map(({ on, reason, alongM }) => ({ on, reason, toLengthM: alongM })),
        removedOn: piece.removedOn,
        removedWhy: piece.removedWhy,
      }))
      .sort(byId),
    ties: [...ties.values()]
      .map(({ alongM: _, support: __, ...tie }) => ({
        id: tie.id,
        stemId: tie.pieceId,
        plantId: tie.plantId,
        at: tie.at,
        materialId: tie.materialId,
        hitch: tie.hitch,
        supportDiameterMm: tie.supportDiameterMm,
        stemDiameterMm: tie.stemDiameterMm,
        loopLengthMm: tie.loopLengthMm,
        madeOn: tie.madeOn,
        setOn: tie.setOn,
        lookedOn: tie.lookedOn,
        postponedUntil: tie.postponedUntil,
        endedOn: tie.endedOn,
        endedWhy: tie.endedWhy,
      }))
      .sort(byId),
    notes: replayNotes(fixture.entries, upTo).length,
    misfits,
  }
}

describe('the demo of the first releases', () => {
  it('shows the same wood and ties at its end', () => {
    expect(fixture.entries.length).toBeGreaterThan(300)
    expect(asItWas()).toEqual(fixture.last)
  })

  it('shows the same wood and ties on every day of its rings', () => {
    const digest = (value: unknown) =>
      createHash('sha256').update(JSON.stringify(value)).digest('hex').slice(0, 24)
    const days = Object.keys(fixture.days)
    expect(days.length).toBeGreaterThan(50)
    for (const day of days) expect([day, digest(asItWas(day))]).toEqual([day, fixture.days[day]])
  })

  it('has every piece and every tie addressed along its wood', () => {
    const { pieces, ties } = replayWood(fixture.entries)
    for (const tie of ties.values()) {
      expect(tie.alongM).toBeGreaterThanOrEqual(0)
      expect(pieces.has(tie.pieceId)).toBe(true)
    }
    const onWood = [...pieces.values()].filter((piece) => piece.parent.on === 'piece')
    expect(onWood.length).toBeGreaterThan(30)
  })
})
