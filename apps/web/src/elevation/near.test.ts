import type { DisplayList, Mark } from '@klados/core/drawing'
import type { Rect } from '@klados/core/geometry'
import { describe, expect, it } from 'vitest'
import { marksIn, worthDrawing } from './near.ts'

const rect = (leftM: number, rightM: number): Rect => ({ leftM, rightM, bottomM: 0, topM: 2 })
const joint = (xM: number): Mark => ({ kind: 'joint', at: { xM, yM: 1 }, form: 'eye' }) as unknown as Mark
const wire = (fromM: number, toM: number): Mark =>
  ({
    kind: 'line',
    role: 'wire',
    points: [
      { xM: fromM, yM: 1 },
      { xM: toM, yM: 1 },
    ],
  }) as Mark

describe('what of a sheet is drawn', () => {
  const list: DisplayList = [wire(0, 60), ...Array.from({ length: 600 }, (_, i) => joint(i / 10))]

  it('is what reaches into the part, a wire with both ends outside too', () => {
    const drawn = marksIn(list, rect(10, 12))
    expect(drawn[0]).toBe(list[0])
    expect(drawn).toHaveLength(1 + 21)
    expect(marksIn(list, { ...rect(10, 12), bottomM: 1.5 })).toHaveLength(0)
  })

  it('is all of a short list', () => {
    const short = list.slice(0, 100)
    expect(marksIn(short, rect(50, 51))).toBe(short)
  })

  it('has a pane more at each edge, and stays while what is seen lies in it', () => {
    const part = worthDrawing(rect(10, 12), null)
    expect(part).toMatchObject({ leftM: 8, rightM: 14 })
    expect(worthDrawing(rect(8.5, 10.5), part)).toBe(part)
    expect(worthDrawing(rect(7.9, 9.9), part)).toMatchObject({ leftM: 5.9, rightM: 11.9 })
    // Very near, most of it would be drawn in vain.
    expect(worthDrawing(rect(11, 11.1), part)).not.toBe(part)
  })
})
