import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectReference, referenceCases } from '../../test/reference.ts'
import type { Wall } from '../frame/index.ts'
import { cutFromRolls, planFrame, wires } from './index.ts'
import type { FrameDesign } from './index.ts'

describe('cutting stock reference cases', () => {
  it.each(referenceCases('cutting-stock').map((c) => [c.name, c] as const))('%s', (_, reference) => {
    const { pieces, stock } = reference.input
    if (reference.expected.feasible === false) {
      expect(() => cutFromRolls(pieces, stock)).toThrow(expect.objectContaining({ code: 'materials/piece-longer-than-roll' })) // prettier-ignore
      return
    }
    const plan = cutFromRolls(pieces, stock)
    expect(plan.isProvenLeast).toBe(true)
    expectReference(reference, {
      feasible: true,
      minRolls: plan.rolls.length,
      minCost: plan.cost,
      wasteM: plan.wasteM,
    })
  })
})

describe('cutFromRolls', () => {
  const pieceArb = fc.record({
    lengthM: fc.integer({ min: 1, max: 2500 }).map((cm) => cm / 100),
    quantity: fc.integer({ min: 0, max: 4 }),
  })

  it('cuts every piece once and never more from a roll than it holds', () => {
    fc.assert(
      fc.property(fc.array(pieceArb, { maxLength: 25 }), (demands) => {
        const sizes = [{ lengthM: 25, price: 11 }, { lengthM: 50, price: 19 }] // prettier-ignore
        const plan = cutFromRolls(demands, sizes)
        const cut = demands.map(() => 0)
        for (const roll of plan.rolls) {
          const used = roll.cuts.reduce((sum, d) => sum + demands[d]!.lengthM, 0)
          expect(used).toBeLessThanOrEqual(roll.lengthM + 1e-6)
          expect(roll.offcutM).toBeCloseTo(roll.lengthM - used, 6)
          for (const d of roll.cuts) cut[d]!++
        }
        expect(cut).toEqual(demands.map((d) => d.quantity))
        expect(plan.leastCost).toBeLessThanOrEqual(plan.cost)
        expect(plan.isProvenLeast).toBe(plan.leastCost === plan.cost)
      }),
      { numRuns: 60 },
    )
  })

  it('finds the fewest rolls of a search through all partitions, for small orders', () => {
    const small = fc.array(fc.integer({ min: 2, max: 10 }), { minLength: 1, maxLength: 7 })
    fc.assert(
      fc.property(small, (lengths) => {
        const plan = cutFromRolls(lengths.map((lengthM) => ({ lengthM, quantity: 1 })), [{ lengthM: 10 }]) // prettier-ignore
        expect(plan).toMatchObject({ cost: fewestByPartition(lengths, 10), isProvenLeast: true })
      }),
    )
  })

  function fewestByPartition(lengths: readonly number[], roll: number): number {
    let best = lengths.length
    const rooms: number[] = []
    const place = (i: number): void => {
      if (rooms.length >= best) return
      if (i === lengths.length) {
        best = rooms.length
        return
      }
      for (let r = 0; r < rooms.length; r++) {
        if (rooms[r]! >= lengths[i]!) {
          rooms[r]! -= lengths[i]!
          place(i + 1)
          rooms[r]! += lengths[i]!
        }
      }
      rooms.push(roll - lengths[i]!)
      place(i + 1)
      rooms.pop()
    }
    place(0)
    return best
  }

  it('says so when there is nothing to cut from, and needs no rolls for no pieces', () => {
    expect(() => cutFromRolls([{ lengthM: 1, quantity: 1 }], [])).toThrow(expect.objectContaining({ code: 'materials/no-rolls' })) // prettier-ignore
    expect(cutFromRolls([], [{ lengthM: 25 }])).toMatchObject({ rolls: [], cost: 0, isProvenLeast: true })
  })
})

describe('planFrame', () => {
  const wall: Wall = { widthM: 9.2, usableHeightM: 1.65, firstForkM: 0.3, viewingEnd: 'left', avoid: [] }
  const design: FrameDesign = {
    pattern: {
      kind: 'diamonds',
      cell: { by: 'width', widthM: 0.8 },
      cellHeightM: null,
      rows: 1,
      closeCutEnd: false,
    },
    moveToleranceM: 0.05,
    dragged: {},
    wireId: 'stainless-2',
    tensionN: 150,
    endWrapM: 0.15,
    handlingLengthM: 10,
    rolls: [{ lengthM: 25, price: 14 }],
    fixingId: 'eye-100',
  }

  it('bills what the drawing shows: an eye and a plug a node, a strainer a piece, the rolls of the cutting', () => {
    const plan = planFrame(wall, 'brick', design)
    const quantity = (what: string) => plan.takeOff!.items.find((item) => item.what === what)?.quantity
    expect(quantity('fixing')).toBe(36)
    expect(quantity('plug')).toBe(36)
    expect(quantity('strainer')).toBe(plan.stringing!.pieces.length)
    expect(quantity('roll')).toBe(plan.cutting!.rolls.length)
    expect(plan.stringing!.netLengthM).toBeCloseTo(46 * Math.hypot(0.4, 0.825), 6)
    const cut = plan.cutting!.rolls.reduce((sum, roll) => sum + roll.lengthM - roll.offcutM, 0)
    expect(cut).toBeCloseTo(plan.stringing!.cutLengthM, 6)
    expect(plan.spans.reduce((n, span) => n + span.count, 0)).toBe(46)
    expect(plan.problems).toEqual([])
  })

  it('keeps the drawing when only the stringing is impossible', () => {
    const plan = planFrame(wall, 'boards', { ...design, handlingLengthM: 1 })
    expect(plan.frame!.nodes).toHaveLength(36)
    expect(plan.stringing).toBeNull()
    expect(plan.problems.map((p) => p.code)).toEqual(['stringing/piece-too-short'])
    expect(plan.takeOff!.drill).toEqual({ plugMm: null, bitMm: 4 })
  })

  it('warns of the ladder only where something is fixed above reach', () => {
    const low = planFrame({ ...wall, usableHeightM: 1.2 }, 'brick', design)
    expect(low.takeOff!.cautions).not.toContain('ladder')
    expect(planFrame(wall, 'brick', design).takeOff!.cautions).toContain('ladder')
  })
})

describe('the wire catalogue', () => {
  it('sets every wire to less than its working load', () => {
    for (const wire of wires) expect(wire.usualTensionN).toBeLessThan(wire.breakingLoadN * wire.workingShare)
  })
})
