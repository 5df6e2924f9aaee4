import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectReference, referenceCases } from '../../test/reference.ts'
import { distanceM } from '../geometry/index.ts'
import { planStringing, trailBound } from '../stringing/index.ts'
import { isInSpot, makeFrame, markOut, nearestFreePoint } from './index.ts'
import type { AvoidSpot, PatternOfKind, Frame, Pattern } from './index.ts'
import { options as free, siteOf as wallOf, tierLevels } from '../../test/frames.ts'
import { runs } from '../../test/runs.ts'

const diamonds = (rest: Partial<PatternOfKind<'diamonds'>> = {}): PatternOfKind<'diamonds'> => ({
  kind: 'diamonds',
  cell: { by: 'width', widthM: 0.8 },
  cellHeightM: null,
  rows: 1,
  closeCutEnd: false,
  ...rest,
})
const graphOf = (frame: Frame) => ({ nodes: frame.nodes.map((n) => n.at), runs: frame.runs })
const totalM = (frame: Frame) => frame.runs.reduce((sum, run) => sum + run.lengthM, 0)

describe('lattice reference cases', () => {
  it.each(referenceCases('lattice').map((c) => [c.name, c] as const))('%s', (_, reference) => {
    const { input } = reference
    const { frame, extra } = laid(input)
    const bound = trailBound(graphOf(frame))
    expectReference(reference, {
      fixingPoints: frame.nodes.length,
      crossings: frame.nodes.length,
      edges: frame.runs.length,
      totalWireM: totalM(frame),
      minTrails: bound.minTrails,
      oddPoints: bound.oddNodes,
      minPieces: minPieces(frame, input.maxPieceLengthM),
      remainderM: frame.cells?.remainderM,
      ...extra,
    })
  })

  function minPieces(frame: Frame, maxPieceM: number | undefined): number | null {
    if (maxPieceM === undefined) return null
    try {
      return planStringing(graphOf(frame), { handlingLengthM: maxPieceM, endWrapM: 0 }).pieces.length
    } catch {
      return null
    }
  }

  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- the input differs by kind
  function laid(input: any): { frame: Frame; extra: Record<string, unknown> } {
    const wall = wallOf(input.wallWidthM, input.wallHeightM ?? 3)
    const make = (pattern: Pattern) => makeFrame(wall, pattern, free)
    switch (input.kind) {
      case 'diamonds': {
        const cell = { by: 'width' as const, widthM: input.cellWidthM }
        const frame = make(
          diamonds({
            cell,
            cellHeightM: input.cellHeightM,
            rows: input.rows,
            closeCutEnd: input.closeCutEnd,
          }),
        )
        const { whole, half } = frame.cells!
        return {
          frame,
          extra: {
            fullDiamonds: whole,
            diamondsPerRow: whole / input.rows,
            halfDiamond: half > 0,
            edgeLengthM: frame.runs[0]!.lengthM,
          },
        }
      }
      case 'zigzag': {
        const frame = make({ kind: 'zigzag', strokeWidthM: input.strokeWidthM })
        const top = frame.nodes.filter((n) => n.at.yM > 0).length
        return {
          frame,
          extra: { strokes: frame.cells!.whole, topPoints: top, bottomPoints: frame.nodes.length - top },
        }
      }
      case 'tiers': {
        const heightsM = Array.from({ length: input.wires }, (_, i) => 0.4 + i * 0.3)
        const frame = make({
          kind: 'tiers',
          levels: tierLevels(...heightsM),
          maxSupportSpacingM: input.maxFixingSpacing ?? input.maxFixingSpacingM,
        })
        const perWire = frame.nodes.length / input.wires
        return {
          frame,
          extra: {
            segmentsPerWire: perWire - 1,
            fixingPerWire: perWire,
            fixingSpacingM: frame.runs[0]!.lengthM,
          },
        }
      }
      case 'fan': {
        const frame = make({
          kind: 'fan',
          ribs: input.ribs,
          spreadDeg: input.spreadDeg,
          wireStepM: null,
          maxSupportSpacingM: 2,
          ribReachM: null,
          ribStockId: 'cane-12',
        })
        return { frame, extra: { ribLengthsM: frame.runs.map((run) => run.lengthM) } }
      }
      default:
        return {
          frame: make({ kind: 'grid', verticals: input.verticals, horizontals: input.horizontals }),
          extra: {},
        }
    }
  }
})

describe('diamonds on a wall of 9.20 m by 1.65 m', () => {
  const wall = wallOf(9.2, 1.65, { firstForkM: 0.3 })

  it('lays 11 whole cells and one half at the far end, shared nodes once', () => {
    const frame = makeFrame(wall, diamonds(), free)
    expect(frame.cells).toEqual({ whole: 11, half: 1, remainderM: expect.closeTo(0, 9) })
    expect(frame.nodes).toHaveLength(36)
    expect(frame.runs).toHaveLength(46)
    expect(totalM(frame)).toBeCloseTo(46 * Math.hypot(0.4, 0.825), 9)
  })

  it('begins with the whole cell at whichever end it is looked at from', () => {
    const left = makeFrame(wall, diamonds(), free)
    const right = makeFrame({ ...wall, viewingEnd: 'right' }, diamonds(), free)
    expect(right.nodes.map((n) => 9.2 - n.at.xM)).toEqual(left.nodes.map((n) => expect.closeTo(n.at.xM, 9)))
    expect(right.nodes.map((n) => n.number)).toEqual(left.nodes.map((n) => n.number))
  })

  it('takes a number of cells instead of a width', () => {
    const frame = makeFrame(wall, diamonds({ cell: { by: 'count', count: 10, halfAtEnd: true } }), free)
    expect(frame.cells).toMatchObject({ whole: 10, half: 1 })
  })

  it('says what to change when a cell is larger than the wall', () => {
    const wide = diamonds({ cell: { by: 'width', widthM: 10 } })
    expect(() => makeFrame(wall, wide, free)).toThrow(
      expect.objectContaining({
        code: 'frame/cell-too-large',
        details: { side: 'width', cellM: 10, spaceM: 9.2 },
      }),
    )
    const high = diamonds({ cellHeightM: 0.9, rows: 2 })
    expect(() => makeFrame(wall, high, free)).toThrow(
      expect.objectContaining({ code: 'frame/cell-too-large' }),
    )
  })
})

describe('tiers', () => {
  it('refuses heights out of order and off the wall, naming the tier', () => {
    const tiers = (heightsM: number[]): Pattern => ({
      kind: 'tiers',
      levels: tierLevels(...heightsM),
      maxSupportSpacingM: 2,
    })
    const wall = wallOf(5, 2, { firstForkM: 0.4 })
    expect(() => makeFrame(wall, tiers([0.5, 0.5]), free)).toThrow(
      expect.objectContaining({
        code: 'frame/heights-out-of-order',
        details: { tier: 2, heightM: 0.5, belowM: 0.5 },
      }),
    )
    expect(() => makeFrame(wall, tiers([0.3]), free)).toThrow(
      expect.objectContaining({ code: 'frame/height-outside-wall' }),
    )
    expect(() => makeFrame(wall, tiers([2.5]), free)).toThrow(
      expect.objectContaining({ code: 'frame/height-outside-wall' }),
    )
  })
})

const spotArb: fc.Arbitrary<AvoidSpot> = fc.oneof(
  fc.record({
    id: fc.constant('p'),
    kind: fc.constant('point' as const),
    xM: fc.double({ min: 0, max: 4, noNaN: true }),
    yM: fc.double({ min: 0, max: 2, noNaN: true }),
    radiusM: fc.double({ min: 0.01, max: 0.15, noNaN: true }),
    what: fc.constant('knot'),
  }),
  fc
    .tuple(
      fc.double({ min: 0, max: 3.8, noNaN: true }),
      fc.double({ min: 0.01, max: 0.12, noNaN: true }),
      fc.boolean(),
    )
    .map(
      ([fromM, width, upright]): AvoidSpot => ({
        id: 'b',
        kind: 'band',
        axis: upright ? 'vertical' : 'horizontal',
        fromM,
        toM: fromM + width,
        what: 'pipe',
      }),
    ),
)

describe('avoided spots', () => {
  it('are left by every node, by no more than the tolerance, or the node is reported', () => {
    fc.assert(
      fc.property(
        fc.array(spotArb, { maxLength: 8 }),
        fc.double({ min: 0, max: 0.2, noNaN: true }),
        (avoid, tol) => {
          const wall = wallOf(4, 2, { avoid })
          const frame = makeFrame(wall, diamonds({ rows: 2 }), { ...free, moveToleranceM: tol, dragged: {} })
          for (const node of frame.nodes) {
            const isInside = avoid.some((spot) => isInSpot(node.at, spot))
            expect(isInside).toBe(node.state === 'blocked')
            expect(node.movedM).toBeLessThanOrEqual(tol + 1e-8)
            if (node.state === 'blocked') {
              expect(frame.findings).toContainEqual(expect.objectContaining({ nodeId: node.id }))
            }
          }
        },
      ),
    )
  })

  it('are left by the least distance: no free point of a fine search lies nearer', () => {
    const area = { leftM: 0, rightM: 4, bottomM: 0, topM: 2 }
    fc.assert(
      fc.property(fc.array(spotArb, { minLength: 1, maxLength: 5 }), (spots) => {
        const ideal = { xM: 2, yM: 1 }
        const found = nearestFreePoint(ideal, spots, area, 0.3)
        const foundM = found ? distanceM(found, ideal) : 0.3
        for (let ring = 0; ring < foundM - 0.004; ring += 0.004) {
          for (let turn = 0; turn < 48; turn++) {
            const angle = (turn * Math.PI) / 24
            const p = { xM: ideal.xM + ring * Math.cos(angle), yM: ideal.yM + ring * Math.sin(angle) }
            expect(spots.some((spot) => isInSpot(p, spot))).toBe(true)
          }
        }
      }),
      { numRuns: runs(60) },
    )
  })

  it('are reported, not silently kept, where a node was dragged onto one', () => {
    const avoid: AvoidSpot[] = [{ id: 'a', kind: 'point', xM: 1, yM: 1, radiusM: 0.1, what: 'cable' }]
    const wall = wallOf(4, 2, { avoid })
    const dragged = { 's0.0': { xM: 1, yM: 1 } }
    const frame = makeFrame(wall, diamonds(), { ...free, moveToleranceM: 0.05, dragged })
    expect(frame.findings).toContainEqual(
      expect.objectContaining({ code: 'frame/dragged-onto-spot', spot: 'cable' }),
    )
    expect(frame.nodes.find((n) => n.id === 's0.0')).toMatchObject({ state: 'dragged', at: { xM: 1, yM: 1 } })
  })
})

describe('mark-out', () => {
  it('runs on from one datum and never goes back, and numbers follow it', () => {
    const pattern = fc.oneof(
      fc
        .record({ rows: fc.integer({ min: 1, max: 3 }), w: fc.double({ min: 0.2, max: 2, noNaN: true }) })
        .map(({ rows, w }): Pattern => diamonds({ rows, cell: { by: 'width', widthM: w } })),
      fc
        .double({ min: 0.3, max: 3, noNaN: true })
        .map((s): Pattern => ({ kind: 'tiers', levels: tierLevels(0.4, 0.9, 1.4), maxSupportSpacingM: s })),
    )
    fc.assert(
      fc.property(
        pattern,
        fc.constantFrom('left' as const, 'right' as const),
        fc.array(spotArb, { maxLength: 4 }),
        (p, viewingEnd, avoid) => {
          const wall = wallOf(4, 2, { viewingEnd, avoid })
          const { rows } = markOut(makeFrame(wall, p, free), wall)
          rows.forEach((row, i) => {
            expect(row.label).toBe(String(i + 1))
            if (i > 0) expect(row.alongM).toBeGreaterThanOrEqual(rows[i - 1]!.alongM - 1e-6)
          })
        },
      ),
    )
  })
})

describe('makeFrame fed with extremes', () => {
  it('gives a frame of finite numbers or a typed error', () => {
    const number = fc.oneof(fc.double(), fc.double({ min: 0, max: 20, noNaN: true }))
    fc.assert(
      fc.property(number, number, number, number, number, (width, height, fork, cell, tol) => {
        try {
          const wall = wallOf(width, height, { firstForkM: fork })
          const frame = makeFrame(wall, diamonds({ cell: { by: 'width', widthM: cell } }), {
            ...free,
            moveToleranceM: tol,
            dragged: {},
          })
          for (const node of frame.nodes) expect(Number.isFinite(node.at.xM + node.at.yM)).toBe(true)
        } catch (error) {
          expect(error).toHaveProperty('name', 'CoreError')
        }
      }),
    )
  })
})
