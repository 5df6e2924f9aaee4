import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plantArb, Wood, viewOf, wiresAt } from '../../test/training.ts'
import { polylineLengthM } from '../geometry/index.ts'
import { bendRadiusM, isRefused, openQuestions, propose, trainingSystems } from './index.ts'
import { kindFor } from '../../test/plants-of-systems.ts'
import { runs } from '../../test/runs.ts'
import { answer } from '../../test/asking.ts'

describe('every system', () => {
  it('answers for a plant of any wood, keeps to its rules and never keeps what is barred', () => {
    fc.assert(
      fc.property(fc.constantFrom(...trainingSystems), plantArb, (system, { wood, frames }) => {
        const view = viewOf(wood, kindFor(system), frames)
        expect(system.tasks(view)).toBeDefined()
        for (const { pieceId } of system.positions(view))
          if (pieceId) expect(view.stem(pieceId)).toBeDefined()
        for (const question of openQuestions(system, view)) {
          const found = answer(question)
          expect(found.chosen.size).toBe(question.candidates.length)
          if (found.bySide) expect(found.bySide.left + found.bySide.right).toBe(found.buds)
          for (const rule of question.rules) {
            const n = rule.options.filter(([id, option]) => found.chosen.get(id)?.id === option).length
            expect(n).toBeGreaterThanOrEqual(rule.min)
            expect(n).toBeLessThanOrEqual(rule.max)
          }
          for (const { a, b } of question.never)
            expect(found.chosen.get(a[0])?.id === a[1] && found.chosen.get(b[0])?.id === b[1]).toBe(false)
          for (const { pieceId, judgements } of question.candidates) {
            const one = found.chosen.get(pieceId)!
            const stemOf = view.stem(pieceId)!
            if (stemOf.isBelowGraft || ['dead', 'sick'].includes(stemOf.piece.health ?? ''))
              expect(one.deed).toBe('off')
            if (judgements.some(({ tone }) => tone === 'bars')) expect(one.path).toBeNull()
            if (one.path) {
              // Wood does not grow by being laid.
              expect(polylineLengthM(one.path)).toBeLessThanOrEqual(stemOf.lengthM * 1.02 + 0.02)
              expect(bendRadiusM(stemOf)).toBeGreaterThan(0)
            }
            if (one.cutM !== null) expect(one.cutM).toBeLessThanOrEqual(stemOf.lengthM + 1e-9)
          }
          for (const { pieceId, cutM } of found.followUps)
            if (cutM !== null) expect(cutM).toBeLessThanOrEqual(view.stem(pieceId)!.lengthM + 1e-9)
        }
      }),
      { numRuns: runs(400) },
    )
  })

  it('expects wood that it then has a question for at some stage of the year', () => {
    const days = ['2026-02-01', '2026-03-25', '2026-05-25', '2026-08-25']
    for (const system of trainingSystems) {
      const wood = new Wood(1.5, '2026-02-01')
      const frames = wiresAt(3, 0.9, 1.3, 1.7)
      const empty = viewOf(wood, kindFor(system), frames)
      for (const years of [1, 3, 6]) {
        const full = new Wood(1.5, '2026-02-01')
        for (const one of system.skeleton(empty, years)) {
          expect(one.on === null || full.pieces.has(one.on)).toBe(true)
          full.add(
            one.name,
            one.path.map(({ xM, yM }) => [xM, yM] as const),
            {
              seasonsThen: one.seasonsOld,
              baseMm: one.baseMm,
              calledRole: one.role,
              ...(one.on ? { parent: { on: 'piece', pieceId: one.on, alongM: one.alongM } } : {}),
            },
          )
        }
        const [question] = days.flatMap((on) =>
          openQuestions(system, viewOf(full, kindFor(system), frames, { on })),
        )
        expect(question, `${system.id} ${years}`).toBeDefined()
        expect(isRefused(propose(question!)), `${system.id} ${years}`).toBe(false)
      }
    }
  })
})
