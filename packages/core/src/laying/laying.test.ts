import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectReference, referenceCases } from '../../test/reference.ts'
import type { CoreError } from '../errors/index.ts'
import { clashOf, solveLaying, valueOf } from './index.ts'
import type { Choice, LayingInstance, OptionRef } from './index.ts'
import { runs, within } from '../../test/runs.ts'

const references = referenceCases('laying').map((c) => [c.name, c] as const)
/** Fewer candidates than this are settled before anybody could call it off. */
const MANY = 30

describe('laying', () => {
  it.each(references)('%s', (_, reference) => {
    const instance = reference.input as LayingInstance
    const { chosen, laid, isProven } = solveLaying(instance)
    expect(isProven).toBe(true)
    if (reference.expected.objective === null) return expect(chosen).toBeNull()
    expectReference(reference, { ...laid!, chosen }, { skipped: ['unique'] })
    expect(valueOf(instance, chosen!).objective).toBeCloseTo(laid!.objective, 9)
  })

  it.each(references.filter(([, { input }]) => (input as LayingInstance).candidates.length >= MANY))(
    '%s: called off, it has a choice that can be made and a bound that is one',
    (_, reference) => {
      let looks = 0
      const { laid, bound, isProven } = solveLaying(reference.input as LayingInstance, {
        isCancelled: () => ++looks > 1,
      })
      const best = reference.expected.objective as number
      expect(isProven).toBe(false)
      expect(laid!.objective).toBeGreaterThanOrEqual(best - 1e-9)
      expect(laid!.objective).toBeLessThan(Infinity)
      expect(bound).toBeLessThanOrEqual(best + 1e-9)
    },
  )

  it(
    'is the best of all that there are, by trying every one',
    () => {
      fc.assert(
        fc.property(instanceArb, (instance) => {
          const { laid, isProven, bound } = solveLaying(instance)
          const best = Math.min(...everyChoice(instance).map((choice) => valueOf(instance, choice).objective))
          expect(isProven).toBe(true)
          if (best === Infinity) {
            expect(laid).toBeNull()
            expect(bound).toBe(Infinity)
          } else expect(laid!.objective).toBeCloseTo(best, 6)
        }),
        { numRuns: runs(400) },
      )
    },
    within(60_000),
  )

  it(
    'tells what clashes where nothing meets all that is asked: what is told cannot be met, and none of it is idle',
    () => {
      fc.assert(
        fc.property(instanceArb, (instance) => {
          const clash = clashOf(instance)
          const isMet = solveLaying(instance).chosen !== null
          expect(clash === null).toBe(isMet)
          if (!clash) return
          const only = (requirements: readonly number[], conflicts: readonly number[]) =>
            solveLaying({
              ...instance,
              requirements: requirements.map((i) => instance.requirements[i]!),
              conflicts: conflicts.map((i) => instance.conflicts[i]!),
            }).chosen
          expect(only(clash.requirements, clash.conflicts)).toBeNull()
          for (const left of clash.requirements)
            expect(
              only(
                clash.requirements.filter((one) => one !== left),
                clash.conflicts,
              ),
            ).not.toBeNull()
        }),
        { numRuns: runs(100) },
      )
    },
    within(60_000),
  )

  it('refuses what names nothing, and candidates that have no option', () => {
    const lay = { id: 'lay', cost: 0, buds: 1, covers: [{ track: 'w', fromM: 0, toM: 1 }] }
    const plain = { ...lay, covers: [] }
    const codeOf = (rest: Partial<LayingInstance>) => {
      try {
        solveLaying({ ...EMPTY, ...rest })
        return null
      } catch (error) {
        const { code, details, message } = error as CoreError
        return [code, details, message]
      }
    }
    expect(codeOf({ candidates: [{ id: 'a', options: [lay] }] })).toEqual([
      'laying/unknown',
      { id: 'w' },
      expect.stringMatching(/not there/),
    ])
    expect(codeOf({ candidates: [{ id: 'a', options: [] }] })).toEqual([
      'laying/no-option',
      { candidate: 'a' },
      expect.stringMatching(/no option/),
    ])
    const candidates = [
      { id: 'a', options: [plain] },
      { id: 'b', options: [plain] },
    ]
    for (const [candidate, option] of [
      ['c', 'lay'],
      ['b', 'cut'],
    ] as const)
      expect(codeOf({ candidates, conflicts: [{ a: ['a', 'lay'], b: [candidate, option] }] })).toEqual([
        'laying/unknown',
        { candidate, option },
        expect.stringMatching(/There is no/),
      ])
    expect(codeOf({ weights: { gapPerM: Number.NaN, overlapPerM: 1 } })).toContainEqual(
      expect.stringMatching(/gapPerM/),
    )
    expect(codeOf({ weights: { gapPerM: 1, overlapPerM: Number.NaN } })).toContainEqual(
      expect.stringMatching(/overlapPerM/),
    )
  })

  /** Parts that share nothing, each hard enough to take a while: a knapsack of odd weights. */
  const hard: LayingInstance = {
    ...EMPTY,
    tracks: Array.from({ length: 3 }, (_, n) => ({ id: `w${n}`, lengthM: 9, wanted: [[0, 9]] })),
    candidates: Array.from({ length: 24 }, (_, n) => ({
      id: `c${n}`,
      options: [
        { id: 'off', cost: 0, buds: 0, covers: [] },
        {
          id: 'lay',
          cost: 0.3 + ((n * 7) % 11) / 20,
          buds: 3,
          covers: [
            { track: `w${n % 3}`, fromM: ((n * 5) % 8) + 0.1, toM: ((n * 5) % 8) + 1.3 + (n % 4) / 3 },
          ],
        },
      ],
    })),
    weights: { gapPerM: 1, overlapPerM: 1.1 },
  }

  it('ends at its deadline with the best so far, and says so; without a clock there is none', () => {
    const whole = solveLaying(hard)
    expect(whole.isProven).toBe(true)
    expect(whole.bound).toBeCloseTo(whole.laid!.objective, 6)
    let asked = 0
    const ticking = () => asked++ * 10
    const cut = solveLaying(hard, { deadlineMs: 25, now: ticking })
    expect(cut.isProven).toBe(false)
    expect(cut.laid).not.toBeNull()
    expect(cut.bound).toBeLessThanOrEqual(whole.laid!.objective + 1e-6)
    expect(cut.laid!.objective).toBeGreaterThanOrEqual(whole.laid!.objective - 1e-6)
    expect(asked).toBeGreaterThan(0)
    // A deadline without a clock is none, nor is a clock without a deadline.
    expect(solveLaying(hard, { deadlineMs: 0 })).toEqual(whole)
    expect(solveLaying(hard, { now: ticking })).toEqual(whole)
    expect(solveLaying(hard, { isCancelled: () => true }).isProven).toBe(false)
  })
})

const EMPTY: LayingInstance = {
  tracks: [],
  candidates: [],
  crossings: [],
  conflicts: [],
  requirements: [],
  buds: { min: 0, max: 0, costPerBud: 0 },
  weights: { gapPerM: 1, overlapPerM: 1 },
}

function everyChoice({ candidates }: LayingInstance): Choice[] {
  return candidates.reduce<Choice[]>(
    (choices, { id, options }) =>
      choices.flatMap((choice) => options.map((option) => ({ ...choice, [id]: option.id }))),
    [{}],
  )
}

/** Plants of a few canes on a few wires, with lengths in tenths, so that ends touch. */
const tenths = (max: number) => fc.integer({ min: 0, max: max * 10 }).map((n) => n / 10)
const span = fc.tuple(tenths(3), tenths(3)).map(([a, b]) => [Math.min(a, b), Math.max(a, b)] as const)
const instanceArb: fc.Arbitrary<LayingInstance> = fc
  .record({
    tracks: fc.integer({ min: 0, max: 3 }),
    candidates: fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 1, maxLength: 5 }),
  })
  .chain(({ tracks, candidates }) => {
    const trackIds = Array.from({ length: tracks }, (_, i) => `w${i}`)
    const refs = candidates.flatMap((count, c) =>
      Array.from({ length: count }, (_, o): OptionRef => [`c${c}`, `o${o}`]),
    )
    const ref = fc.constantFrom(...refs)
    const pair = fc.tuple(ref, ref).filter(([a, b]) => a[0] !== b[0])
    const pairs = candidates.length < 2 ? fc.constant([]) : fc.array(pair, { maxLength: 4 })
    const option = fc.record({
      cost: fc.integer({ min: -20, max: 30 }).map((n) => n / 10),
      buds: fc.integer({ min: 0, max: 9 }),
      covers:
        tracks === 0
          ? fc.constant([])
          : fc.array(
              fc
                .tuple(fc.constantFrom(...trackIds), span)
                .map(([track, [fromM, toM]]) => ({ track, fromM, toM })),
              { maxLength: 2 },
            ),
    })
    return fc.record({
      tracks: fc.tuple(
        ...trackIds.map((id) =>
          fc.record({ id: fc.constant(id), lengthM: tenths(3), wanted: fc.array(span, { maxLength: 2 }) }),
        ),
      ),
      candidates: fc.tuple(
        ...candidates.map((count, c) =>
          fc.array(option, { minLength: count, maxLength: count }).map((options) => ({
            id: `c${c}`,
            options: options.map((one, o) => ({ ...one, id: `o${o}` })),
          })),
        ),
      ),
      crossings: pairs.chain((list) =>
        fc.tuple(
          ...list.map(([a, b]) => fc.integer({ min: 0, max: 20 }).map((n) => ({ a, b, cost: n / 10 }))),
        ),
      ),
      conflicts: pairs.map((list) => list.map(([a, b]) => ({ a, b }))),
      requirements: fc.array(
        fc.record({
          options: fc.uniqueArray(ref, { minLength: 1, maxLength: 4, selector: (one) => one.join(' ') }),
          min: fc.integer({ min: 0, max: 2 }),
          max: fc.integer({ min: 0, max: 3 }),
        }),
        { maxLength: 2 },
      ),
      buds: fc.record({
        min: fc.integer({ min: 0, max: 10 }),
        max: fc.integer({ min: 10, max: 20 }),
        costPerBud: fc.constantFrom(0, 0.1, 0.5),
      }),
      weights: fc.record({ gapPerM: fc.constantFrom(0, 3, 8), overlapPerM: fc.constantFrom(0, 4) }),
    })
  })
