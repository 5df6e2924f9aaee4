import { describe, expect, it } from 'vitest'
import { designOf, siteOf, tierLevels } from '../../test/frames.ts'
import { tieOf } from '../../test/wood.ts'
import { standardCatalogue } from '../catalogue/index.ts'
import { tryFrame, withLastingIds } from '../design/index.ts'
import type { FrameDesign } from '../design/index.ts'
import { levelId } from '../frame/index.ts'
import type { Frame, PatternOfKind } from '../frame/index.ts'
import { tieStanding, tiesMovedBy } from './index.ts'
import type { Tie } from './index.ts'

const wall = siteOf(6, 2.4)
const old = tierLevels(0.5, 0.9, 1.3, 1.7)
const tiers = (levels: PatternOfKind<'tiers'>['levels']) =>
  designOf({ kind: 'tiers', levels, maxSupportSpacingM: 2 })
const before = tryFrame(wall, tiers(old), standardCatalogue)!
const revised = (design: FrameDesign): Frame =>
  tryFrame(
    wall,
    withLastingIds(wall, design, { frame: before, version: 1 }, standardCatalogue),
    standardCatalogue,
  )!
/** A tie on each of the four wires, as the first releases wrote them: a place and nothing else. */
const ties: Tie[] = old.map(({ heightM }, i) => tieOf({ id: `tie ${i}`, at: { xM: 1.5, yM: heightM } }))

describe('ties under a frame that is revised', () => {
  it('stay on their wires when a tier is put above the old ones, or below them', () => {
    expect(
      tiesMovedBy('f', before, revised(tiers([...old, { id: levelId('top'), heightM: 2.1 }])), ties),
    ).toEqual([])
    expect(
      tiesMovedBy('f', before, revised(tiers([{ id: levelId('low'), heightM: 0.2 }, ...old])), ties),
    ).toEqual([])
  })

  it('sit elsewhere when their wire is lowered, and it is said by how much', () => {
    const lowered = old.map((level, i) => (i === 2 ? { ...level, heightM: 1.18 } : level))
    const [moved, ...others] = tiesMovedBy('f', before, revised(tiers(lowered)), ties)
    expect(others).toEqual([])
    expect(moved).toMatchObject({
      tie: { id: 'tie 2' },
      support: { on: 'line', frameId: 'f', lineId: 't2', alongM: 1.5 },
      standing: { is: 'elsewhere', now: { xM: 1.5 } },
    })
    const { standing } = moved!
    if (standing.is === 'elsewhere') expect(standing.higherM).toBeCloseTo(-0.12, 9)
  })

  it('hang free when their wire is taken away', () => {
    const moved = tiesMovedBy('f', before, revised(tiers(old.filter((_, i) => i !== 1))), ties)
    expect(moved.map(({ tie, standing }) => [tie.id, standing.is])).toEqual([['tie 1', 'free']])
  })

  it('that end, or hold on to another frame, are not told', () => {
    const gone = revised(tiers(old.slice(0, 1)))
    const far = tieOf({ at: { xM: 1, yM: 5 } })
    const ended = { ...ties[3]!, endedOn: '2026-05-01', endedWhy: 'removed' } as const
    const elsewhere = {
      ...ties[2]!,
      support: { on: 'line', frameId: 'other', lineId: before.lines[2]!.id, alongM: 1.5 },
    } as const
    expect(tiesMovedBy('f', before, gone, [far, ended, elsewhere])).toEqual([])
  })

  it('are in sight until they are settled: until then they stand where they do, afterwards on their wire', () => {
    const lowered = revised(tiers(old.map((level, i) => (i === 2 ? { ...level, heightM: 1.18 } : level))))
    const { tie, support } = tiesMovedBy('f', before, lowered, ties)[0]!
    const frames = new Map([['f', lowered]])
    expect(tieStanding(tie, frames).is).toBe('unknown')
    const addressed = { ...tie, support }
    expect(tieStanding(addressed, frames).is).toBe('elsewhere')
    expect(tieStanding({ ...addressed, at: { xM: 1.5, yM: 1.18 } }, frames).is).toBe('sound')
    expect(tieStanding(addressed, new Map()).is).toBe('free')
  })
})
