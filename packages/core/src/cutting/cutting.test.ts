import { bendingMomentNm, sectionModulusM3, standardStock, standardWires } from '../catalogue/index.ts'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectReference, referenceCases } from '../../test/reference.ts'
import { cutFromRolls, cutFromStores } from './index.ts'
import { runs } from '../../test/runs.ts'

describe('cutting stock reference cases', () => {
  it.each(referenceCases('cutting-stock').map((c) => [c.name, c] as const))('%s', (_, reference) => {
    const { pieces, stock } = reference.input
    if (reference.expected.feasible === false) {
      expect(() => cutFromRolls(pieces, stock)).toThrow(
        expect.objectContaining({ code: 'materials/piece-longer-than-roll' }),
      )
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
        const sizes = [
          { lengthM: 25, price: 11 },
          { lengthM: 50, price: 19 },
        ]
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
      { numRuns: runs(60) },
    )
  })

  it('finds the fewest rolls of a search through all partitions, for small orders', () => {
    const small = fc.array(fc.integer({ min: 2, max: 10 }), { minLength: 1, maxLength: 7 })
    fc.assert(
      fc.property(small, (lengths) => {
        const plan = cutFromRolls(
          lengths.map((lengthM) => ({ lengthM, quantity: 1 })),
          [{ lengthM: 10 }],
        )
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

  it('cuts large orders of few lengths in a moment: every piece, no cheaper than the bound it states, near to it', () => {
    const orderArb = fc.array(
      fc.record({
        lengthM: fc.integer({ min: 30, max: 240 }).map((cm) => cm / 100),
        quantity: fc.integer({ min: 150, max: 2000 }),
      }),
      { minLength: 3, maxLength: 4 },
    )
    fc.assert(
      fc.property(orderArb, (demands) => {
        const sizes = [
          { lengthM: 2.4, price: 4 },
          { lengthM: 3, price: 5 },
          { lengthM: 4.2, price: 6.6 },
        ]
        const plan = cutFromRolls(demands, sizes)
        const cut = demands.map(() => 0)
        for (const roll of plan.rolls) for (const d of roll.cuts) cut[d]!++
        expect(cut).toEqual(demands.map((d) => d.quantity))
        for (const roll of plan.rolls)
          expect(roll.cuts.reduce((sum, d) => sum + demands[d]!.lengthM, 0)).toBeLessThanOrEqual(
            roll.lengthM + 1e-6,
          )
        expect(plan.leastCost).toBeLessThanOrEqual(plan.cost + 1e-9)
        expect(plan.cost / plan.leastCost).toBeLessThan(2)
      }),
      { numRuns: runs(15) },
    )
  })

  it('says so when there is nothing to cut from, and needs no rolls for no pieces', () => {
    expect(() => cutFromRolls([{ lengthM: 1, quantity: 1 }], [])).toThrow(
      expect.objectContaining({ code: 'materials/no-rolls' }),
    )
    expect(cutFromRolls([], [{ lengthM: 25 }])).toMatchObject({ rolls: [], cost: 0, isProvenLeast: true })
  })
})

describe('the wire catalogue', () => {
  it('sets every wire to less than its working load', () => {
    for (const wire of standardWires)
      expect(wire.usualTensionN).toBeLessThan(wire.breakingLoadN * wire.workingShare)
  })
})

describe('stock', () => {
  it('bends as its section says: a tube less than the rod of its size, a beam on edge more than on the flat', () => {
    expect(sectionModulusM3({ shape: 'round', diameterMm: 100 })).toBeCloseTo(9.817e-5, 8)
    expect(sectionModulusM3({ shape: 'tube', diameterMm: 48.3, wallMm: 3.2 })).toBeLessThan(
      sectionModulusM3({ shape: 'round', diameterMm: 48.3 }),
    )
    const edge = sectionModulusM3({ shape: 'rectangle', widthMm: 50, depthMm: 150 })
    expect(edge).toBeCloseTo(3 * sectionModulusM3({ shape: 'rectangle', widthMm: 150, depthMm: 50 }), 12)
    for (const stock of standardStock) expect(bendingMomentNm(stock)).toBeGreaterThan(0)
  })
})

describe('cutting from what is on hand', () => {
  const demandArb = fc.array(
    fc.record({
      lengthM: fc.integer({ min: 3, max: 60 }).map((dm) => dm / 10),
      quantity: fc.integer({ min: 0, max: 3 }),
    }),
    { maxLength: 6 },
  )
  const onHandArb = fc.array(
    fc.record({
      lengthM: fc.integer({ min: 1, max: 120 }).map((dm) => dm / 10),
      quantity: fc.integer({ min: 0, max: 2 }),
    }),
    { maxLength: 4 },
  )

  it('cuts no more than there is, and leaves for new rolls exactly what it did not cut', () => {
    fc.assert(
      fc.property(demandArb, onHandArb, (demands, onHand) => {
        const { cut, rest } = cutFromStores(demands, onHand)
        const cutCounts = demands.map((_, i) =>
          cut.reduce((n, one) => n + one.cuts.filter((d) => d === i).length, 0),
        )
        demands.forEach((demand, i) => expect(rest[i]!.quantity + cutCounts[i]!).toBe(demand.quantity))
        onHand.forEach((length, i) =>
          expect(cut.filter((one) => one.length === i).length).toBeLessThanOrEqual(length.quantity),
        )
        for (const one of cut) {
          const used = one.cuts.reduce((sum, d) => sum + demands[d]!.lengthM, 0)
          expect(used + one.offcutM).toBeCloseTo(onHand[one.length]!.lengthM, 6)
        }
      }),
    )
  })

  it('fills an offcut as full as a search through all subsets can', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 3, max: 40 }), { minLength: 1, maxLength: 8 }),
        fc.integer({ min: 5, max: 90 }),
        (lengths, room) => {
          const { cut } = cutFromStores(
            lengths.map((dm) => ({ lengthM: dm / 10, quantity: 1 })),
            [{ lengthM: room / 10, quantity: 1 }],
          )
          let best = 0
          for (let mask = 0; mask < 1 << lengths.length; mask++) {
            const sum = lengths.reduce((total, dm, i) => total + ((mask >> i) & 1) * dm, 0)
            if (sum <= room) best = Math.max(best, sum)
          }
          const used = cut.flatMap((one) => one.cuts).reduce((sum, d) => sum + lengths[d]!, 0)
          expect(used).toBe(best)
        },
      ),
    )
  })
})
