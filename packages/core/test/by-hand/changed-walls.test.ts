import { describe, expect, it } from 'vitest'
import { standardCatalogue } from '../../src/catalogue/index.ts'
import { tryFrame, withLastingIds } from '../../src/design/index.ts'
import { levelId } from '../../src/frame/index.ts'
import { planFrame } from '../../src/plan/index.ts'
import { tiesMovedBy } from '../../src/wood/index.ts'
import { siteOf, tierLevels } from '../frames.ts'
import { tieOf } from '../wood.ts'
import { FT, IN, near, planned, quantity } from './figures.ts'

describe('a wall of 21 ft with tiers at 20, 36, 52 and 68 in: a fifth at 7 ft added, the third lowered by 5 in', () => {
  const measured = { widthM: 21 * FT, usableHeightM: 7 * FT, firstForkM: 18 * IN, surface: 'brick' } as const
  const wall = siteOf(measured.widthM, measured.usableHeightM, measured)
  const old = tierLevels(20 * IN, 36 * IN, 52 * IN, 68 * IN)
  const typed = { levels: old, maxSupportSpacingM: 5 * FT }
  const rest = { plantKindId: 'pear', endWrapM: 6 * IN, handlingLengthM: 40 * FT } as const
  const { plan, design } = planned('wall', 'tiers', measured, typed, rest)
  const before = plan.frame!
  const levels = [
    ...old.map((level, i) => (i === 2 ? { ...level, heightM: 47 * IN } : level)),
    { id: levelId('added'), heightM: 84 * IN },
  ]
  const wanted = { ...design, pattern: { kind: 'tiers' as const, ...typed, levels } }
  const revised = withLastingIds(wall, wanted, { frame: before, version: 1 }, standardCatalogue)
  const after = tryFrame(wall, revised, standardCatalogue)!
  const now = planFrame(wall, revised)

  // Two ties on each of the four wires, at 5 and at 15 ft.
  const ties = old.flatMap(({ heightM }, tier) =>
    [5, 15].map((ft) => tieOf({ id: `tier ${tier + 1} at ${ft} ft`, at: { xM: ft * FT, yM: heightM } })),
  )
  const moved = tiesMovedBy('f', before, after, ties)

  it('leaves six ties where they are, and two five inches above their wire', () => {
    expect(moved.map(({ tie }) => tie.id)).toEqual(['tier 3 at 5 ft', 'tier 3 at 15 ft'])
    for (const { standing } of moved) {
      expect(standing.is).toBe('elsewhere')
      if (standing.is === 'elsewhere') near(standing.higherM, -5 * IN)
    }
  })

  it('keeps the names of the wires that were there, and numbers the new one last', () => {
    expect(after.lines.slice(0, 4).map(({ id }) => id)).toEqual(before.lines.map(({ id }) => id))
    expect(after.lines).toHaveLength(5)
  })

  it('takes 24 eyes before and 30 after: 21 ft in five bays of at most 5 ft, and one at its end', () => {
    expect(quantity(plan, 'eye-130')).toBe(4 * 6)
    expect(quantity(now, 'eye-130')).toBe(5 * 6)
    expect(quantity(now, 'plug')).toBe(5 * 6)
    for (const run of after.runs) near(run.lengthM, (21 / 5) * FT)
  })

  it('is strung with five pieces of 22 ft, each with 6 in made off at both ends', () => {
    const pieces = now.wires.flatMap(({ stringing }) => stringing!.pieces)
    expect(pieces).toHaveLength(5)
    for (const { cutLengthM } of pieces) near(cutLengthM, 22 * FT)
    near(
      now.wires.reduce((sum, { stringing }) => sum + stringing!.netLengthM, 0),
      5 * 21 * FT,
    )
  })

  it('has its wires at the heights that were typed', () => {
    const heights = [20, 36, 47, 68, 84].map((inches) => inches * IN)
    const marks = [...new Set(after.nodes.map(({ ideal }) => Math.round(ideal.yM * 1e6)))].sort(
      (a, b) => a - b,
    )
    expect(marks).toEqual(heights.map((m) => Math.round(m * 1e6)))
  })
})
