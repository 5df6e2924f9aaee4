import { describe, expect, it } from 'vitest'
import { exactLaying } from '../../test/exact-laying.ts'
import { referenceCases } from '../../test/reference.ts'
import { vineOf } from '../../test/training.ts'
import { ask } from '../../test/asking.ts'
import { instanceOf, trainingSystems } from '../training/index.ts'
import { solveLaying } from './index.ts'
import type { LayingInstance } from './index.ts'

const TIMEOUT_MS = 120_000
const SEEDS = Array.from({ length: 40 }, (_, i) => i + 1)

describe('laying against the exact solver', () => {
  it.each(referenceCases('laying').map((c) => [c.name, c] as const))(
    'the other way agrees with the reference: %s',
    (_, { input, expected }) => {
      const exact = exactLaying(input as LayingInstance)
      if (expected.objective === null) expect(exact.objective).toBeNull()
      else if (exact.isProven) expect(exact.objective!).toBeCloseTo(expected.objective as number, 5)
    },
    TIMEOUT_MS,
  )

  it(
    'what vines of six to twelve canes ask is answered as well as can be',
    () => {
      let proven = 0
      for (const seed of SEEDS) {
        const view = vineOf(seed, 6 + (seed % 7))
        const question = ask(trainingSystems[seed % 2]!.id, view)
        const instance = instanceOf(question)
        const exact = exactLaying(instance)
        if (!exact.isProven || exact.objective === null) continue
        proven++
        const { laid, isProven } = solveLaying(instance)
        expect(isProven, `seed ${seed}`).toBe(true)
        expect(laid!.objective, `seed ${seed}`).toBeCloseTo(exact.objective, 5)
      }
      expect(proven).toBeGreaterThan(SEEDS.length / 2)
    },
    TIMEOUT_MS,
  )
})
