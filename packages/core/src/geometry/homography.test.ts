import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectReference, referenceCases } from '../../test/reference.ts'
import { photoMap } from './index.ts'
import type { MarkedPoint } from './index.ts'

type Four = readonly [MarkedPoint, MarkedPoint, MarkedPoint, MarkedPoint]
const marksOf = (pixels: number[][], wall: number[][]) =>
  pixels.map(([xPx, yPx], i) => ({
    pixel: { xPx, yPx },
    at: { xM: wall[i]![0], yM: wall[i]![1] },
  })) as unknown as Four

describe('photoMap', () => {
  it.each(referenceCases('homography').map((c) => [c.name, c] as const))('%s', (_, reference) => {
    const { pixels, wallM, mapPixels, mapWallM } = reference.input
    if (reference.expected.error) {
      expect(() => photoMap(marksOf(pixels, wallM))).toThrow(/in one line/)
      return
    }
    const map = photoMap(marksOf(pixels, wallM))
    const pair = (a: number, b: number) => [a, b]
    expectReference(reference, {
      homography: map.matrix,
      mappedWallM: mapPixels.map(([xPx, yPx]: [number, number]) => {
        const p = map.toWall({ xPx, yPx })
        return pair(p.xM, p.yM)
      }),
      mappedPixels: mapWallM.map(([xM, yM]: [number, number]) => {
        const p = map.toPixel({ xM, yM })
        return pair(p.xPx, p.yPx)
      }),
    })
  })

  it('comes back from the wall to the same pixel', () => {
    const jitter = fc.tuple(
      ...Array.from({ length: 8 }, () => fc.double({ min: -150, max: 150, noNaN: true })),
    )
    const share = fc.double({ min: 0, max: 1, noNaN: true })
    fc.assert(
      fc.property(jitter, share, share, (j, sx, sy) => {
        const corners = [
          [200, 200],
          [1800, 200],
          [1800, 1200],
          [200, 1200],
        ]
        const pixels = corners.map(([x, y], i) => [x! + j[2 * i]!, y! + j[2 * i + 1]!])
        const map = photoMap(
          marksOf(pixels, [
            [0, 2],
            [4, 2],
            [4, 0],
            [0, 0],
          ]),
        )
        const pixel = { xPx: 200 + sx * 1600, yPx: 200 + sy * 1000 }
        const back = map.toPixel(map.toWall(pixel))
        expect(back.xPx).toBeCloseTo(pixel.xPx, 5)
        expect(back.yPx).toBeCloseTo(pixel.yPx, 5)
      }),
    )
  })

  it('refuses marks in another order on the photo than on the wall', () => {
    const pixels = [
      [0, 0],
      [1000, 0],
      [1000, 700],
      [0, 700],
    ]
    expect(() =>
      photoMap(
        marksOf(pixels, [
          [0, 2],
          [4, 0],
          [4, 2],
          [0, 0],
        ]),
      ),
    ).toThrow(/same order/)
  })

  it('refuses marks that are mirrored between photo and wall', () => {
    const mark = (xPx: number, yPx: number, xM: number, yM: number) => ({
      pixel: { xPx, yPx },
      at: { xM, yM },
    })
    expect(() =>
      photoMap([mark(0, 0, 4, 2), mark(400, 0, 0, 2), mark(400, 200, 0, 0), mark(0, 200, 4, 0)]),
    ).toThrow(expect.objectContaining({ code: 'geometry/points-crossed' }))
  })

  it('shows nothing of the wall beyond its horizon, and says so', () => {
    // A wall that runs away to the right: its upright edges meet some way beyond.
    const mark = (xPx: number, yPx: number, xM: number, yM: number) => ({
      pixel: { xPx, yPx },
      at: { xM, yM },
    })
    const map = photoMap([mark(0, 0, 0, 2), mark(400, 100, 4, 2), mark(400, 200, 4, 0), mark(0, 300, 0, 0)])
    expect(map.shows({ xPx: 200, yPx: 150 })).toBe(true)
    const beyond = { xPx: 900, yPx: 150 }
    expect(map.shows(beyond)).toBe(false)
    expect(() => map.toWall(beyond)).toThrow(expect.objectContaining({ code: 'geometry/beyond-horizon' }))
    const there = map.toPixel({ xM: 2, yM: 1 })
    expect(map.toWall(there)).toEqual({ xM: expect.closeTo(2, 9), yM: expect.closeTo(1, 9) })
  })
})
