import { describe, expect, it } from 'vitest'
import { designOf, options, siteOf } from '../../test/frames.ts'
import { frameKinds } from '../frame/index.ts'
import { planFrame } from '../plan/index.ts'
import { drawBay, drawFrame } from './index.ts'

const front = { view: 'elevation' as const, ...options }
const bayOf = (widthM: number) => {
  const start = frameKinds.row.start({ kind: 'row', widthM, usableHeightM: 2, firstForkM: 0 })
  const plan = planFrame(
    siteOf(widthM, 2, { surface: 'open' }),
    designOf(start, { wireId: 'high-tensile-2.5', plantKindId: 'wine-grape' }),
  )
  return { plan, bay: drawBay(plan.frame!, drawFrame(plan.frame!, front), plan.lines) }
}

describe('one bay of a long row', () => {
  it('is its end with what ties it back, two posts and every wire, and no more', () => {
    const { plan, bay } = bayOf(48)
    const count = (kind: string) => bay!.list.filter((mark) => mark.kind === kind).length
    expect(count('member')).toBe(2)
    expect(count('anchor')).toBe(plan.frame!.anchors.length / 2)
    expect(bay!.widthM).toBeLessThan(9)
    expect(bay!.heightM).toBeCloseTo(1.9, 1)
    const wires = new Set(plan.frame!.runs.map(({ line }) => line.id)).size
    expect(count('line')).toBeGreaterThan(wires / 2)
    for (const mark of bay!.list)
      if (mark.kind === 'line') for (const { xM } of mark.points) expect(xM).toBeLessThanOrEqual(bay!.widthM)
  })

  it('has its wires hang as far as they sag at most', () => {
    const { plan, bay } = bayOf(48)
    const deepest = Math.max(
      ...bay!.list.flatMap((mark) => {
        if (mark.kind !== 'line' || mark.points.length < 9) return []
        const [first, last] = [mark.points[0]!, mark.points.at(-1)!]
        return [(first.yM + last.yM) / 2 - mark.points[4]!.yM]
      }),
    )
    const most = Math.max(...plan.lines.map((line) => line.greatestSag.sagM))
    expect(deepest).toBeGreaterThan(0)
    expect(deepest).toBeLessThanOrEqual(most + 1e-9)
  })

  it('is not drawn of what is one bay itself, nor of a wall', () => {
    expect(bayOf(4).bay).toBeNull()
    const wall = planFrame(siteOf(9, 2), designOf({ kind: 'grid', verticals: 3, horizontals: 3 }))
    expect(drawBay(wall.frame!, drawFrame(wall.frame!, front), wall.lines)).toBeNull()
  })
})
