import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { options, patternArbs, siteOf } from '../../test/frames.ts'
import { fitLayouts, makeFrame } from './index.ts'
import type { PatternOfKind, Pattern, RowPattern } from './index.ts'
import { runs } from '../../test/runs.ts'

const diamonds = (widthM: number): PatternOfKind<'diamonds'> => ({
  kind: 'diamonds',
  cell: { by: 'width', widthM },
  cellHeightM: null,
  rows: 1,
  closeCutEnd: false,
})
const centimetres = (min: number, max: number) =>
  fc.integer({ min: min * 100, max: max * 100 }).map((cm) => cm / 100)

describe('fitLayouts', () => {
  it('proposes only what can be laid out, within the limit, and measures it as it will be', () => {
    fc.assert(
      fc.property(
        centimetres(3, 25),
        centimetres(0.4, 1.6),
        fc.double({ min: 0.05, max: 0.3, noNaN: true }),
        (widthM, wishM, share) => {
          const site = siteOf(widthM, 2)
          const proposals = fitLayouts(site, diamonds(wishM), options, share)
          expect(proposals.length).toBeGreaterThan(0)
          expect(proposals.length).toBeLessThanOrEqual(5)
          for (const proposal of proposals) {
            expect(Math.abs(proposal.sizeM / wishM - 1)).toBeLessThanOrEqual(share + 1e-9)
            expect(proposal.offShare).toBeCloseTo(Math.abs(proposal.sizeM / wishM - 1), 9)
            const { cells, nodes } = makeFrame(site, proposal.pattern, options)
            expect(cells).toMatchObject({ whole: proposal.count, half: proposal.isHalfAtEnd ? 1 : 0 })
            expect(cells!.remainderM).toBeCloseTo(proposal.remainderM, 9)
            expect(proposal.fixings).toBe(nodes.length)
            // Only the very size that was asked for may leave something over.
            if (proposal.offShare > 1e-9) expect(proposal.remainderM).toBeLessThan(1e-6)
          }
        },
      ),
    )
  })

  it('puts a size that divides the length first', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 20 }), centimetres(0.5, 1.2), (cells, widthM) => {
        const [first] = fitLayouts(siteOf(cells * widthM, 2), diamonds(widthM), options)
        expect(first).toMatchObject({ count: cells, isHalfAtEnd: false })
        expect(first!.offShare).toBeCloseTo(0, 9)
        expect(first!.remainderM).toBeCloseTo(0, 9)
      }),
    )
  })

  it('rather changes the size than leave a fixing without a place', () => {
    const site = siteOf(8, 2)
    const nodeM = makeFrame(site, diamonds(1), options).nodes[4]!.at
    const spot = { id: 's', kind: 'point' as const, xM: nodeM.xM, yM: nodeM.yM, radiusM: 0.05, what: 'pipe' }
    const blocked = { ...site, avoid: [spot] }
    const rigid = { ...options, moveToleranceM: 0 }
    expect(makeFrame(blocked, diamonds(1), rigid).findings).toHaveLength(1)
    expect(fitLayouts(blocked, diamonds(1), rigid)[0]!.blocked).toBe(0)
  })

  it('divides a row into equal bays, a post more than bays', () => {
    fc.assert(
      fc.property(patternArbs.row as fc.Arbitrary<RowPattern>, centimetres(12, 90), (row, widthM) => {
        const site = { ...siteOf(widthM, 2), riseM: 0 }
        for (const proposal of fitLayouts(site, row, options)) {
          const frame = makeFrame(site, proposal.pattern, options)
          const posts = frame.members.filter(
            (member) => member.role === 'line-post' || member.role === 'end-post',
          )
          expect(posts).toHaveLength(proposal.count + 1)
          expect(proposal.sizeM * proposal.count).toBeCloseTo(widthM, 6)
        }
      }),
      { numRuns: runs(40) },
    )
  })

  it('has nothing to offer where no size can give', () => {
    const pole = { kind: 'pole' } as Pattern
    expect(fitLayouts(siteOf(3, 2), pole, options)).toEqual([])
  })
})
