import { levelId } from '@klados/core/frame'
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { withTierBelow, withTierMore } from './more-tiers.ts'

it('tiers that are added lie on the wall, in order, none on another, until there is no room', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 0.1, max: 4, noNaN: true }),
      fc.constantFrom('metric' as const, 'imperial' as const),
      fc.array(fc.boolean(), { maxLength: 30 }),
      (firstForkM, usableHeightM, system, ways) => {
        const wall = { firstForkM, usableHeightM }
        let levels = [{ id: levelId('t'), heightM: firstForkM + usableHeightM / 2 }] as Parameters<
          typeof withTierMore
        >[0]
        for (const isBelow of ways) {
          const next = (isBelow ? withTierBelow : withTierMore)(levels, wall, system)
          if (next === null) continue
          expect(next).toHaveLength(levels.length + 1)
          levels = next
          expect(levels[0]!.heightM).toBeGreaterThanOrEqual(firstForkM - 1e-6)
          expect(levels.at(-1)!.heightM).toBeLessThanOrEqual(firstForkM + usableHeightM + 1e-6)
          levels.slice(1).forEach(({ heightM }, i) => expect(heightM).toBeGreaterThan(levels[i]!.heightM))
        }
      },
    ),
  )
})
