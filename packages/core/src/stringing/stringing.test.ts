import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { planStringing, trailBound } from './index.ts'
import type { RunGraph } from './index.ts'
import { runs } from '../../test/runs.ts'

const graphArb: fc.Arbitrary<RunGraph> = fc.integer({ min: 2, max: 12 }).chain((size) =>
  fc
    .record({
      points: fc.array(
        fc.tuple(fc.double({ min: 0, max: 5, noNaN: true }), fc.double({ min: 0, max: 2, noNaN: true })),
        {
          minLength: size,
          maxLength: size,
        },
      ),
      pairs: fc.uniqueArray(
        fc.tuple(fc.nat(size - 1), fc.nat(size - 1)).filter(([a, b]) => a < b),
        {
          minLength: 1,
          maxLength: 25,
          selector: ([a, b]) => a * 100 + b,
        },
      ),
    })
    .map(({ points, pairs }) => {
      const nodes = points.map(([xM, yM]) => ({ xM, yM }))
      const runs = pairs.map(([from, to]) => ({
        from,
        to,
        lengthM: Math.hypot(nodes[to]!.xM - nodes[from]!.xM, nodes[to]!.yM - nodes[from]!.yM),
      }))
      return { nodes, runs }
    }),
)

describe('planStringing', () => {
  it('covers every run exactly once in continuous pieces no longer than the handling length', () => {
    fc.assert(
      fc.property(graphArb, fc.double({ min: 6, max: 30, noNaN: true }), (graph, handlingLengthM) => {
        const plan = planStringing(graph, { handlingLengthM, endWrapM: 0.15 })
        const covered = plan.pieces.flatMap((piece) => piece.runs).sort((a, b) => a - b)
        expect(covered).toEqual(graph.runs.map((_, i) => i))
        for (const piece of plan.pieces) {
          expect(piece.cutLengthM).toBeLessThanOrEqual(handlingLengthM + 1e-6)
          piece.runs.forEach((run, i) => {
            const ends = [piece.nodes[i]!, piece.nodes[i + 1]!].sort((a, b) => a - b)
            expect(ends).toEqual([graph.runs[run]!.from, graph.runs[run]!.to].sort((a, b) => a - b))
          })
        }
        expect(plan.pieces.length).toBeGreaterThanOrEqual(plan.leastPieces)
        expect(plan.cutLengthM).toBeCloseTo(plan.netLengthM + plan.pieces.length * 0.3, 9)
      }),
    )
  })

  it('needs no more walks than half the odd nodes when the handling length is no limit', () => {
    fc.assert(
      fc.property(graphArb, (graph) => {
        const plan = planStringing(graph, { handlingLengthM: 1e6, endWrapM: 0.15 })
        expect(plan.pieces.length).toBe(plan.leastPieces)
      }),
    )
  })

  it('takes as few pieces as any way to string a small frame, and no bound exceeds that', () => {
    const smallArb = graphArb.filter(({ runs }) => runs.length <= 7)
    fc.assert(
      fc.property(smallArb, fc.double({ min: 5.4, max: 14, noNaN: true }), (graph, handlingLengthM) => {
        const plan = planStringing(graph, { handlingLengthM, endWrapM: 0 })
        const fewest = fewestByEnumeration(graph, handlingLengthM)
        expect(plan.pieces.length).toBe(fewest)
        expect(plan.leastPieces).toBe(fewest)
      }),
      { numRuns: runs(400) },
    )
  })

  it('needs no more pieces than walks, by odd nodes, and cuts, by length, on frames of any size', () => {
    fc.assert(
      fc.property(graphArb, fc.double({ min: 5.4, max: 20, noNaN: true }), (graph, handlingLengthM) => {
        const plan = planStringing(graph, { handlingLengthM, endWrapM: 0 })
        const longestM = Math.max(...graph.runs.map((run) => run.lengthM))
        // A walk is cut only where the next run does not fit, so each cut leaves more than this behind it.
        const leftBehindM = handlingLengthM - longestM
        const cuts = leftBehindM > 1e-9 ? Math.floor(plan.netLengthM / leftBehindM) : Infinity
        expect(plan.pieces.length).toBeLessThanOrEqual(trailBound(graph).minTrails + cuts)
      }),
    )
  })

  /**
   * Every way to lay the runs in walks: a run begins a piece or goes on at an end of the piece that is open.
   */
  function fewestByEnumeration(graph: RunGraph, roomM: number): number {
    let best = Infinity
    const free = new Set(graph.runs.keys())
    const goOn = (at: number, leftM: number, pieces: number): void => {
      if (pieces >= best) return
      if (free.size === 0) {
        best = pieces
        return
      }
      for (const i of [...free]) {
        const run = graph.runs[i]!
        free.delete(i)
        for (const [from, to] of [
          [run.from, run.to],
          [run.to, run.from],
        ] as const) {
          if (from === at && run.lengthM <= leftM + 1e-9) goOn(to, leftM - run.lengthM, pieces)
          else goOn(to, roomM - run.lengthM, pieces + 1)
        }
        free.add(i)
      }
    }
    goOn(-1, 0, 0)
    return best
  }

  it('ends only where that is wanted, but for odd nodes and stretches without a wanted node', () => {
    const wantedArb = fc.tuple(
      graphArb,
      fc.double({ min: 6, max: 30, noNaN: true }),
      fc.infiniteStream(fc.boolean()),
    )
    fc.assert(
      fc.property(wantedArb, ([graph, handlingLengthM, chances]) => {
        const endsAt = new Set([...graph.nodes.keys()].filter(() => chances.next().value))
        const plan = planStringing(graph, { handlingLengthM, endWrapM: 0.15, endsAt })
        expect(plan.pieces.flatMap((piece) => piece.runs).sort((a, b) => a - b)).toEqual(
          graph.runs.map((_, i) => i),
        )
        const isOdd = (node: number) =>
          graph.runs.filter((run) => run.from === node || run.to === node).length % 2 === 1
        let elsewhere = 0
        for (const { nodes, cutLengthM } of plan.pieces) {
          expect(cutLengthM).toBeLessThanOrEqual(handlingLengthM + 1e-6)
          for (const end of [nodes[0]!, nodes.at(-1)!]) if (!endsAt.has(end)) elsewhere++
          if (endsAt.has(nodes.at(-1)!) || isOdd(nodes.at(-1)!)) continue
          expect(nodes.slice(1, -1).filter((node) => endsAt.has(node))).toEqual([])
        }
        expect(plan.endsElsewhere).toBe(elsewhere)
      }),
    )
  })

  it('refuses a handling length that one run and its wraps exceed, with both lengths', () => {
    const graph = {
      nodes: [
        { xM: 0, yM: 0 },
        { xM: 2, yM: 0 },
      ],
      runs: [{ from: 0, to: 1, lengthM: 2 }],
    }
    expect(() => planStringing(graph, { handlingLengthM: 2.2, endWrapM: 0.15 })).toThrow(
      expect.objectContaining({
        code: 'stringing/piece-too-short',
        details: { runM: 2, handlingM: 2.2, wrapsM: 0.3 },
      }),
    )
  })

  it('goes straight on at a crossing rather than turning', () => {
    const nodes = [
      { xM: 0, yM: 1 },
      { xM: 1, yM: 1 },
      { xM: 2, yM: 1 },
      { xM: 1, yM: 0 },
      { xM: 1, yM: 2 },
    ]
    const runs = [
      [0, 1],
      [1, 3],
      [1, 4],
      [1, 2],
    ].map(([from, to]) => ({ from: from!, to: to!, lengthM: 1 }))
    const [first] = planStringing({ nodes, runs }, { handlingLengthM: 9, endWrapM: 0 }).pieces
    expect(first!.nodes.slice(0, 3)).toEqual([0, 1, 2])
  })
})
