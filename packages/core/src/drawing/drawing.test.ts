import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { makeFrame } from '../frame/index.ts'
import type { Site } from '../frame/index.ts'
import { options, patternArbs, tierLevels } from '../../test/frames.ts'
import { distanceM } from '../geometry/index.ts'
import type { Piece } from '../wood/index.ts'
import { pieceOf, tieOf } from '../../test/wood.ts'
import { budsAlong, drawFrame, drawSite, drawWood } from './index.ts'
import type { WoodView } from './index.ts'

const front = { view: 'elevation' as const, ...options }
const wall: Site = {
  widthM: 4,
  usableHeightM: 1.6,
  firstForkM: 0.4,
  viewingEnd: 'left',
  avoid: [
    { id: 'knot', kind: 'point', xM: 1, yM: 0.4, radiusM: 0.02, what: 'knot' },
    { id: 'pipe', kind: 'band', axis: 'vertical', fromM: 3, toM: 3.1, what: 'pipe' },
  ],
}

describe('a wall', () => {
  it('is drawn with its ground, its first fork and every spot to avoid, inside its own outline', () => {
    const list = drawSite(wall, 'brick')
    expect(list.filter((mark) => 'role' in mark && mark.role === 'spot')).toHaveLength(2)
    expect(list.some((mark) => mark.kind === 'line' && mark.role === 'first-fork')).toBe(true)
    for (const mark of list) {
      if (mark.kind === 'area')
        for (const p of mark.points) expect(p.xM >= 0 && p.xM <= 4 && p.yM <= 2).toBe(true)
    }
    expect(drawSite({ ...wall, firstForkM: 0 }, 'brick').some((mark) => mark.kind === 'line')).toBe(false)
  })
})

describe('a frame', () => {
  it('is drawn as many wires and nodes as it has, each where it is and a moved one with where it should be', () => {
    const frame = makeFrame(
      wall,
      { kind: 'tiers', levels: tierLevels(0.4, 1), maxSupportSpacingM: 1 },
      options,
    )
    const list = drawFrame(frame, front)
    expect(list.filter((mark) => mark.kind === 'line')).toHaveLength(frame.runs.length)
    const nodes = list.flatMap((mark) => (mark.kind === 'node' ? [mark] : []))
    expect(nodes.map((mark) => mark.at)).toEqual(frame.nodes.map(({ at: { xM, yM } }) => ({ xM, yM })))
    const moved = nodes.filter((mark) => mark.state === 'moved')
    expect(moved).toHaveLength(1)
    expect(distanceM(moved[0]!.at, moved[0]!.ideal)).toBeCloseTo(moved[0]!.movedM, 12)
  })

  it('says the names of anchors that are seen at one spot beside one another, and each of them once', () => {
    fc.assert(
      fc.property(patternArbs.row, fc.nat(2), fc.constantFrom('elevation', 'side'), (row, riseM, from) => {
        const frame = makeFrame({ ...wall, widthM: 12, riseM }, row, options)
        const anchors = drawFrame(frame, { ...front, view: from as 'elevation' | 'side' }).filter(
          ({ kind }) => kind === 'anchor',
        )
        const said = anchors.flatMap((mark) => (mark.kind === 'anchor' && mark.label !== '' ? [mark] : []))
        const spots = said.map(({ at }) => `${at.xM.toFixed(1)} ${at.yM.toFixed(1)}`)
        expect(new Set(spots).size).toBe(spots.length)
        const names = frame.anchors.filter(({ isBehind }) => !isBehind).map(({ label }) => label)
        expect(said.flatMap(({ label }) => label.split(/, | … /)).every((one) => names.includes(one))).toBe(
          true,
        )
        // From its end both stand in line, on whatever slope, and on the ground.
        if (from === 'side') for (const { at } of said) expect(at.yM).toBeCloseTo(0, 9)
        if (from === 'side') expect(said.length).toBeLessThanOrEqual(1)
        if (from === 'elevation') expect(said.map(({ label }) => label)).toEqual(names)
        else if (names.length > 0) expect(said[0]!.label).toContain(names[0]!)
      }),
    )
  })
})

const piece = (id: string, rest: Partial<Piece> = {}): Piece =>
  pieceOf({
    id,
    plantId: 'pear',
    path: [
      { xM: 0, yM: 1 },
      { xM: 1, yM: 1 },
    ],
    baseMm: 8,
    ...rest,
  })
const view = (on: string): WoodView => ({
  on,
  hemisphere: 'north',
  kindOf: () => 'pear',
  tieState: () => 'sound',
})

describe('wood', () => {
  it('is told by its age: a shoot in summer, with buds in winter, without them from its second year', () => {
    const ageOn = (on: string) => {
      const [mark] = drawWood([piece('a')], [], view(on))
      return mark?.kind === 'wood' ? [mark.age, mark.buds.length > 0] : []
    }
    expect(ageOn('2026-08-01')).toEqual(['shoot', false])
    expect(ageOn('2026-12-01')).toEqual(['one-year', true])
    expect(ageOn('2027-12-01')).toEqual(['two-year', false])
    expect(ageOn('2029-12-01')).toEqual(['older', false])
  })

  it('lies with the young over the old, and without what was removed', () => {
    const list = drawWood(
      [piece('young'), piece('old', { seasonsThen: 5 }), piece('gone', { removedOn: '2026-07-02' })],
      [],
      view('2026-08-01'),
    )
    expect(list.map((mark) => ('id' in mark ? mark.id : ''))).toEqual(['old', 'young'])
  })

  it('carries the ties that are on, in the state they are in', () => {
    const tie = tieOf({ pieceId: 'a', plantId: 'pear', at: { xM: 0.5, yM: 1 } })
    const list = drawWood([], [tie, { ...tie, id: 'off', endedOn: '2026-07-03' }], {
      ...view('2026-08-01'),
      tieState: () => 'overdue',
    })
    expect(list).toEqual([{ kind: 'tie', id: 't', at: tie.at, state: 'overdue' }])
  })
})

describe('buds', () => {
  it('sit an internode apart from the base on, on alternate sides', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.02, max: 0.3, noNaN: true }),
        fc.double({ min: 0.1, max: 3, noNaN: true }),
        (internodeM, lengthM) => {
          const buds = budsAlong(
            [
              { xM: 0, yM: 0 },
              { xM: lengthM, yM: 0 },
            ],
            internodeM,
          )
          expect(Math.abs(buds.length - lengthM / internodeM)).toBeLessThanOrEqual(1)
          buds.forEach((bud, i) => {
            expect(bud.at.xM).toBeCloseTo((i + 1) * internodeM, 9)
            expect(Math.sign(bud.angle)).toBe(i % 2 === 0 ? 1 : -1)
          })
        },
      ),
    )
  })
})
