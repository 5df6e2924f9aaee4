import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { pointAlong, polylineLengthM } from '../geometry/index.ts'
import { standingStem } from './index.ts'

const under = {
  path: [
    { xM: 1, yM: 0.8 },
    { xM: 0.4, yM: 0.9 },
  ],
  foot: { xM: 1, yM: 0 },
  nextM: 0.1,
  earlier: 0,
}

describe('a stem that was called out', () => {
  it('stands where it was said, as long as it was said, and leans to its side', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 6, noNaN: true }),
        fc.double({ min: 0, max: 2, noNaN: true }),
        fc.constantFrom('left' as const, 'right' as const, null),
        (lengthM, alongM, side) => {
          const stem = standingStem({ lengthM, alongM, side }, under)
          expect(polylineLengthM(stem.path)).toBeCloseTo(lengthM, 6)
          expect(stem.alongM).toBeLessThanOrEqual(polylineLengthM(under.path))
          const base = pointAlong(under.path, stem.alongM)
          expect(stem.path[0]!.xM).toBeCloseTo(base.xM, 9)
          const lean = stem.path.at(-1)!.xM - base.xM
          if (side === 'right') expect(lean).toBeGreaterThan(0)
          else expect(lean).toBeLessThan(0)
        },
      ),
    )
  })

  it('fans out from the foot, to both sides in turn', () => {
    const tips = [0, 1, 2, 3, 4].map(
      (earlier) =>
        standingStem({ lengthM: 1, alongM: null, side: null }, { ...under, path: null, earlier }).path.at(-1)!
          .xM - 1,
    )
    expect(new Set(tips.map((x) => x.toFixed(3))).size).toBe(5)
    expect(tips[0]).toBeCloseTo(0, 9)
  })
})
