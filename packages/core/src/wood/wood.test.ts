import { describe, expect, it } from 'vitest'
import { findKind, plantKinds, spacedAlong } from '../kinds/index.ts'
import { snapPoint, tracedLine, pieceAge, baseDiameterMm, tiePoints, tieSupports } from './index.ts'
import type { TieSupport } from './index.ts'
import { pieceOf } from '../../test/wood.ts'
import { frameKinds, lineId, makeFrame, memberId } from '../frame/index.ts'
import { options, siteOf } from '../../test/frames.ts'

const stem = pieceOf()

describe('age and thickness', () => {
  it('turn a shoot into one-year wood at leaf fall and never make wood younger', () => {
    expect(pieceAge(stem, '2026-10-01', 'north')).toBe(0)
    expect(pieceAge(stem, '2026-12-01', 'north')).toBe(1)
    expect(pieceAge(stem, '2028-12-01', 'north')).toBe(3)
    expect(pieceAge(stem, '2020-01-01', 'north')).toBe(0)
  })

  it('grow within the kind’s range over a whole season and not at all in winter', () => {
    const pear = findKind('pear')!
    const autumn = baseDiameterMm({ ...stem, measuredOn: '2026-03-01' }, pear, '2026-11-20', 'north')
    expect(autumn - 5).toBeGreaterThan(pear.youngThickeningMm[0])
    expect(autumn - 5).toBeLessThan(pear.youngThickeningMm[1])
    expect(baseDiameterMm({ ...stem, measuredOn: '2026-11-20' }, pear, '2027-03-01', 'north')).toBe(5)
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

  it('a shaking hand from a stem out along a wire draws two corners, both where they belong', () => {
    const shaken = Array.from({ length: 40 }, (_, i) => ({ xM: 0.02 + i * 0.02, yM: 1 + Math.sin(i) * 0.02 }))
    const [from, to, ...more] = tracedLine([{ xM: 0.01, yM: 0.98 }, ...shaken], near, 0.05)
    expect(more).toEqual([])
    expect(from!.xM).toBeCloseTo(0.01, 6)
    expect([from!.yM, to!.yM]).toEqual([1, 1])
    expect(to!.xM).toBeCloseTo(0.8, 6)
  })
})

const wire = (id: string, ...path: (readonly [number, number])[]): TieSupport => ({
  frameId: 'f',
  part: { on: 'line', lineId: lineId(id) },
  path: path.map(([xM, yM]) => ({ xM, yM })),
  diameterMm: 2,
  isUpright: false,
})

describe('places to tie wood', () => {
  it('lie where an upright crosses the wires, in order, each on its own wire, and never at the soft tip', () => {
    const wires = [0.5, 1, 1.5, 2].map((yM) => wire(`w${yM}`, [-1, yM], [1, yM]))
    const points = tiePoints(stem.path, wires)
    expect(points.map((p) => p.at.yM)).toEqual([0.5, 1, 1.5])
    expect(points.map((p) => p.support)).toEqual(
      [0.5, 1, 1.5].map((yM) => ({ on: 'line', frameId: 'f', lineId: `w${yM}`, alongM: 1 })),
    )
  })

  it('lie at the nodes of a wire that the wood follows, once each', () => {
    const laid = [
      { xM: 0, yM: 1 },
      { xM: 2, yM: 1 },
    ]
    expect(tiePoints(laid, [wire('w', [0, 1], [0.8, 1], [1.6, 1])]).map((p) => p.alongM)).toEqual([0.8, 1.6])
  })

  it('lie every hand’s breadth or two along a pole that a stem grows against, round both', () => {
    const pot = {
      shape: 'round',
      widthM: 0.3,
      heightM: 0.3,
      ballastKg: 0,
      drainageM: 0,
      hasCharcoal: false,
      isThere: false,
    } as const
    const pattern = {
      ...frameKinds.pole.start({ kind: 'tub', widthM: 0.4, usableHeightM: 2, firstForkM: 0 }),
      pot,
    }
    const frame = makeFrame(siteOf(0.4, 2), pattern, options)
    const supports = tieSupports([{ frameId: 'f', frame }], { wireMm: () => 2, stockM: () => 0.032 })
    expect(supports.map((support) => support.part)).toEqual([{ on: 'member', memberId: memberId('core') }])
    // Four centimetres beside the middle of the pole.
    const stem = [
      { xM: 0.24, yM: 0.28 },
      { xM: 0.24, yM: 1.1 },
    ]
    const points = tiePoints(stem, supports)
    expect(points).toHaveLength(3)
    for (const point of points) {
      expect(point).toMatchObject({ support: { on: 'member', memberId: 'core' }, supportDiameterMm: 32 })
      expect(point.at.xM).toBeCloseTo(0.2, 9)
      expect(point.alongM).toBeLessThan(0.82 * 0.98)
    }
    // A plant of its own half a metre off is not tied to it.
    expect(
      tiePoints(
        stem.map((p) => ({ ...p, xM: p.xM + 0.5 })),
        supports,
      ),
    ).toEqual([])
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
