import { describe, expect, it } from 'vitest'
import { findKind, plantKinds, spacedAlong } from '../kinds/index.ts'
import { snapPoint, stemAge, stemDiameterMm, tiePoints } from './index.ts'
import type { Stem } from './index.ts'

const stem: Stem = {
  id: 's',
  plantId: 'p',
  part: 'cane',
  parentStemId: null,
  points: [
    { xM: 0, yM: 0 },
    { xM: 0, yM: 2 },
  ],
  drawnOn: '2026-07-01',
  ageAtDrawing: 0,
  diameterMm: 5,
  diameterOn: '2026-07-01',
  cuts: [],
  removedOn: null,
  removedWhy: null,
}

describe('age and thickness', () => {
  it('turn a shoot into one-year wood at leaf fall and never make wood younger', () => {
    expect(stemAge(stem, '2026-10-01', 'north')).toBe(0)
    expect(stemAge(stem, '2026-12-01', 'north')).toBe(1)
    expect(stemAge(stem, '2028-12-01', 'north')).toBe(3)
    expect(stemAge(stem, '2020-01-01', 'north')).toBe(0)
  })

  it('grow within the kind’s range over a whole season and not at all in winter', () => {
    const pear = findKind('pear')!
    const autumn = stemDiameterMm({ ...stem, diameterOn: '2026-03-01' }, pear, '2026-11-20', 'north')
    expect(autumn - 5).toBeGreaterThan(pear.youngThickeningMm[0])
    expect(autumn - 5).toBeLessThan(pear.youngThickeningMm[1])
    expect(stemDiameterMm({ ...stem, diameterOn: '2026-11-20' }, pear, '2027-03-01', 'north')).toBe(5)
  })
})

describe('snapPoint', () => {
  const near = {
    nodes: [{ xM: 1, yM: 1 }],
    runs: [
      [
        { xM: 0, yM: 1 },
        { xM: 2, yM: 1 },
      ],
    ] as const,
    wood: [
      [
        { xM: 0, yM: 0 },
        { xM: 0, yM: 2 },
      ],
    ],
  }

  it('prefers nodes to runs to wood, and leaves far points alone', () => {
    expect(snapPoint({ xM: 1.03, yM: 1.02 }, near, 0.05)).toEqual({ point: { xM: 1, yM: 1 }, to: 'node' })
    expect(snapPoint({ xM: 0.5, yM: 1.04 }, near, 0.05)).toEqual({ point: { xM: 0.5, yM: 1 }, to: 'run' })
    expect(snapPoint({ xM: 0.02, yM: 0.4 }, near, 0.05)).toEqual({ point: { xM: 0, yM: 0.4 }, to: 'wood' })
    expect(snapPoint({ xM: 0.6, yM: 0.4 }, near, 0.05).to).toBe('free')
  })
})

describe('tiePoints', () => {
  const runs = [0.5, 1, 1.5, 2].map(
    (yM) =>
      [
        { xM: -1, yM },
        { xM: 1, yM },
      ] as const,
  )

  it('lie where an upright crosses the wires, in order, and never at the soft tip', () => {
    expect(tiePoints(stem.points, { nodes: [], runs }).map((p) => p.at.yM)).toEqual([0.5, 1, 1.5])
  })

  it('lie at the nodes of a wire that the stem follows, once each', () => {
    const laid = [
      { xM: 0, yM: 1 },
      { xM: 2, yM: 1 },
    ]
    const nodes = [0, 0.8, 1.6].map((xM) => ({ xM, yM: 1 }))
    const wire = [
      [nodes[0]!, nodes[1]!],
      [nodes[1]!, nodes[2]!],
    ] as const
    expect(tiePoints(laid, { nodes, runs: wire }).map((p) => p.alongM)).toEqual([0.8, 1.6])
  })
})

describe('plant kinds', () => {
  it('have ids of their own and ranges the right way round', () => {
    expect(new Set(plantKinds.map((kind) => kind.id)).size).toBe(plantKinds.length)
    expect(plantKinds.length).toBeGreaterThanOrEqual(20)
    for (const kind of plantKinds) {
      for (const [low, high] of [kind.youngThickeningMm, kind.olderThickeningMm])
        expect(low).toBeLessThanOrEqual(high)
      expect(kind.spacingM).toBeGreaterThan(0)
    }
  })

  it('stand evenly, half a spacing from the ends', () => {
    expect(spacedAlong(8, 4)).toEqual([2, 6])
    expect(spacedAlong(1, 4)).toEqual([0.5])
  })
})
