import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  cutPolyline,
  distanceM,
  nearestAlong,
  nearestOnSegment,
  pointAlong,
  polylineLengthM,
  simplified,
  withLength,
  segmentCrossing,
} from './index.ts'

const pointArb = fc.record({
  xM: fc.double({ min: -20, max: 20, noNaN: true }),
  yM: fc.double({ min: -20, max: 20, noNaN: true }),
})
const lineArb = fc.array(pointArb, { minLength: 2, maxLength: 8 })
const shareArb = fc.double({ min: 0, max: 1, noNaN: true })

describe('a line', () => {
  it('cut at a length is that long and runs along the old one', () => {
    fc.assert(
      fc.property(lineArb, shareArb, (line, share) => {
        const total = polylineLengthM(line)
        const cut = cutPolyline(line, total * share)
        expect(polylineLengthM(cut)).toBeCloseTo(total * share, 6)
        for (const p of cut) expect(nearestAlong(line, p).distanceM).toBeLessThan(1e-6)
      }),
    )
  })

  it('has its ends at nothing and all of its length, and holds to them beyond', () => {
    fc.assert(
      fc.property(lineArb, (line) => {
        expect(distanceM(pointAlong(line, -1), line[0]!)).toBeLessThan(1e-9)
        expect(distanceM(pointAlong(line, polylineLengthM(line) + 1), line.at(-1)!)).toBeLessThan(1e-9)
      }),
    )
  })

  it('is nowhere nearer to a point than the nearest place found', () => {
    fc.assert(
      fc.property(lineArb, pointArb, shareArb, (line, p, share) => {
        const near = nearestAlong(line, p)
        const anywhere = pointAlong(line, polylineLengthM(line) * share)
        expect(near.distanceM).toBeLessThanOrEqual(distanceM(anywhere, p) + 1e-9)
        expect(distanceM(pointAlong(line, near.alongM), near.point)).toBeLessThan(1e-6)
      }),
    )
  })
})

describe('a line drawn by hand', () => {
  it('loses corners but keeps its ends, its order, and to within the tolerance every place it went through', () => {
    fc.assert(
      fc.property(lineArb, fc.double({ min: 0, max: 2, noNaN: true }), (line, tolerance) => {
        const few = simplified(line, tolerance)
        expect([few[0], few.at(-1)]).toEqual([line[0], line.at(-1)])
        expect(few.every((p) => line.includes(p))).toBe(true)
        for (const p of line) expect(nearestAlong(few, p).distanceM).toBeLessThanOrEqual(tolerance + 1e-9)
      }),
    )
  })

  it('of one straight stretch is two points, however many were set', () => {
    const straight = Array.from({ length: 50 }, (_, i) => ({ xM: i / 10, yM: 1 + (i % 2) * 0.004 }))
    expect(simplified(straight, 0.01)).toHaveLength(2)
  })

  it('is as long as it was measured, cut off or run on the way it ends', () => {
    fc.assert(
      fc.property(lineArb, fc.double({ min: 0.1, max: 3, noNaN: true }), (line, share) => {
        const longM = polylineLengthM(line)
        fc.pre(longM > 0.01 && distanceM(line.at(-2)!, line.at(-1)!) > 1e-6)
        expect(polylineLengthM(withLength(line, longM * share))).toBeCloseTo(longM * share, 6)
      }),
    )
  })
})

describe('two stretches', () => {
  it('cross at one point whichever is asked first, and it lies on both', () => {
    fc.assert(
      fc.property(pointArb, pointArb, pointArb, pointArb, (a, b, c, d) => {
        const one = segmentCrossing(a, b, c, d)
        const other = segmentCrossing(c, d, a, b)
        expect(one === null).toBe(other === null)
        if (!one) return
        expect(distanceM(nearestOnSegment(one.point, a, b).point, one.point)).toBeLessThan(1e-6)
        expect(distanceM(nearestOnSegment(one.point, c, d).point, one.point)).toBeLessThan(1e-4)
      }),
    )
  })

  it('do not cross side by side or end to end with a gap', () => {
    const at = (xM: number, yM: number) => ({ xM, yM })
    expect(segmentCrossing(at(0, 0), at(1, 0), at(0, 1), at(1, 1))).toBeNull()
    expect(segmentCrossing(at(0, 0), at(1, 0), at(2, -1), at(2, 1))).toBeNull()
    expect(segmentCrossing(at(0, 0), at(2, 0), at(1, -1), at(1, 1))).toMatchObject({
      shareAb: 0.5,
      shareCd: 0.5,
    })
  })
})
