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

  it('on upright wood branches at half a right angle to the side that was said; of no side, at its tip, it leads on', () => {
    const trunk = [
      { xM: 1, yM: 0 },
      { xM: 1, yM: 1.05 },
    ]
    const tip = (side: 'left' | 'right' | null, alongM: number) => {
      const { path } = standingStem({ lengthM: 0.6, alongM, side }, { ...under, path: trunk })
      return { x: path.at(-1)!.xM - path[0]!.xM, y: path.at(-1)!.yM - path[0]!.yM }
    }
    expect(tip('left', 1)).toMatchObject({ x: expect.closeTo(-0.424, 3), y: expect.closeTo(0.424, 3) })
    expect(tip('right', 0.4).x).toBeCloseTo(0.424, 3)
    expect(tip(null, 1.05).x).toBeCloseTo(0, 9)
    expect(tip(null, 0.5).x).not.toBeCloseTo(0, 2)
  })

  it('lies along the wire at its height where it is old and goes to a side: an arm; a cane of last summer stands', () => {
    const wires = [
      [
        { xM: 0, yM: 0.9 },
        { xM: 3, yM: 0.9 },
      ],
      [
        { xM: 0, yM: 1.3 },
        { xM: 3, yM: 1.3 },
      ],
    ]
    const trunk = [
      { xM: 1.5, yM: 0 },
      { xM: 1.5, yM: 0.85 },
    ]
    const called = (seasonsOld: number | null, side: 'left' | 'right' | null) =>
      standingStem(
        { lengthM: 1.1, alongM: 0.85, side, seasonsOld },
        { ...under, path: trunk, foot: { xM: 1.5, yM: 0 }, wires },
      ).path
    for (const side of ['left', 'right'] as const) {
      const arm = called(8, side)
      expect(polylineLengthM(arm)).toBeCloseTo(1.1, 9)
      expect(arm.at(-1)!.yM).toBeCloseTo(0.9, 9)
      expect(Math.abs(arm.at(-1)!.xM - 1.5)).toBeGreaterThan(1)
      expect(called(1, side).at(-1)!.yM).toBeGreaterThan(1.5)
    }
    expect(called(8, null).at(-1)!.yM).toBeGreaterThan(1.5)
  })

  it('leans away from where the wood under it comes from; at the foot the first to the right, the next to the left', () => {
    const lean = (path: { xM: number; yM: number }[] | null, earlier = 0) => {
      const stem = standingStem({ lengthM: 1, alongM: null, side: null }, { ...under, path, earlier })
      return Math.sign(stem.path.at(-1)!.xM - stem.path[0]!.xM)
    }
    const to = (xM: number) => [
      { xM: 1, yM: 0.8 },
      { xM, yM: 0.9 },
    ]
    expect([lean(to(0.2)), lean(to(1.8))]).toEqual([-1, 1])
    expect([lean(null, 1), lean(null, 2)]).toEqual([-1, 1])
  })

  it('lies along a wire only within reach of its base, from a hand’s length on, and when it is two seasons old', () => {
    const wire = [
      { xM: 0, yM: 0.9 },
      { xM: 3, yM: 0.9 },
    ]
    const lies = (rest: object, baseYM = 0.8) => {
      const path = [
        { xM: 1, yM: 0 },
        { xM: 1, yM: baseYM },
      ]
      const stem = { lengthM: 1, alongM: baseYM, side: 'right' as const, seasonsOld: 2, ...rest }
      return Math.abs(standingStem(stem, { ...under, path, wires: [wire] }).path.at(-1)!.yM - 0.9) < 1e-9
    }
    expect(lies({})).toBe(true)
    expect(lies({ seasonsOld: 1 })).toBe(false)
    expect(lies({ lengthM: 0.29 })).toBe(false)
    expect(lies({ lengthM: 0.3 })).toBe(true)
    expect(lies({ side: null })).toBe(false)
    expect(lies({}, 0.69)).toBe(false)
    expect(lies({}, 0.71)).toBe(true)
  })
})
