import { describe, expect, it } from 'vitest'
import { designOf, rowLevel, siteOf } from '../../test/frames.ts'
import { standardCatalogue } from '../catalogue/index.ts'
import type { FrameDesign, PlannedSite } from '../design/index.ts'
import { startPattern } from '../design/index.ts'
import { frameKinds } from '../frame/index.ts'
import type { PatternOfKind } from '../frame/index.ts'
import { planFrame } from '../plan/index.ts'
import { craftWarnings, warningCodes } from './index.ts'

const warned = (site: PlannedSite, design: FrameDesign) => {
  const { frame, wires } = planFrame(site, design)
  return craftWarnings({ frame: frame!, wires, site, design, catalogue: standardCatalogue }).map(
    ({ code }) => code,
  )
}
const open = siteOf(30, 2, { surface: 'open' })
const begun = <K extends 'row' | 'spiral' | 'diamonds'>(kind: K) =>
  startPattern(
    {
      kind: kind === 'row' ? 'row' : kind === 'spiral' ? 'tub' : 'wall',
      widthM: 6,
      usableHeightM: 2,
      firstForkM: 0,
    },
    kind,
    'metric',
    standardCatalogue,
  ) as PatternOfKind<K>

describe('the craft warns', () => {
  it('of a water pipe so near to the fruiting wire that it is cut with the canes, above it or below', () => {
    const row = (waterHeightM: number | null) =>
      warned(open, designOf({ ...begun('row'), levels: [rowLevel(0, 0.9)], waterHeightM }))
    expect(row(0.88)).toContain('water-near-fruit')
    expect(row(1.0)).toContain('water-near-fruit')
    expect(row(0.5)).not.toContain('water-near-fruit')
    expect(row(null)).not.toContain('water-near-fruit')
  })

  it('of string from the soil, of smooth string, and of string wound against its plant', () => {
    const tub = siteOf(0.62, 2, { surface: 'open' })
    const spiral = (rest: Partial<PatternOfKind<'spiral'>>, design: Partial<FrameDesign> = {}) =>
      warned(
        tub,
        designOf({ ...begun('spiral'), ...rest }, { wireId: 'coir-6', plantKindId: 'hop', ...design }),
      )
    expect(spiral({ winding: 'clockwise' })).toEqual([])
    expect(spiral({ winding: 'clockwise', startHeightM: 0.02 })).toEqual(['string-from-soil'])
    expect(spiral({ winding: 'clockwise' }, { wireId: 'stainless-2' })).toEqual(['string-smooth'])
  })

  it('of what a plant cannot hold on to: a pole for aerial roots, posts for tendrils, a face too near', () => {
    const bench = siteOf(0.6, 2, { surface: 'open' })
    const pole = (plantKindId: string) =>
      warned(
        bench,
        designOf(frameKinds.pole.start({ kind: 'bench', widthM: 0.6, usableHeightM: 2, firstForkM: 0 }), {
          plantKindId,
        }),
      )
    expect(pole('clematis')).toContain('pole-for-roots')
    expect(pole('satin-pothos')).not.toContain('pole-for-roots')
    const obelisk = (plantKindId: string, rest: Partial<PatternOfKind<'obelisk'>> = {}) =>
      warned(
        siteOf(2, 2.2, { surface: 'open' }),
        designOf(
          {
            ...frameKinds.obelisk.start({ kind: 'bed', widthM: 2, usableHeightM: 2.2, firstForkM: 0 }),
            ...rest,
          },
          { plantKindId },
        ),
      )
    // Canes of 24 mm are too thick for leaf stalks; the rungs of 12 mm between them are not.
    expect(obelisk('clematis', { rungs: 0 })).toContain('too-thick-to-hold')
    expect(obelisk('clematis')).not.toContain('too-thick-to-hold')
    expect(obelisk('hop', { rungs: 0 })).not.toContain('too-thick-to-hold')
    const wall = (fixingId: string, standOffM: number | null = null) =>
      warned(
        siteOf(4, 2, { surface: 'brick' }),
        designOf(
          { kind: 'grid', verticals: 3, horizontals: 3 },
          { plantKindId: 'wisteria', fixingId, standOffM },
        ),
      )
    expect(wall('eye-130')).toContain('air-gap-small')
    expect(wall('eye-200')).not.toContain('air-gap-small')
    expect(wall('eye-200', 0.06)).toContain('air-gap-small')
  })

  it('of legs that hardly stand in the soil, and of what a terrace has to bear after rain', () => {
    const deck = siteOf(3, 2.4, { surface: 'open', setting: 'terrace' })
    const begun = frameKinds.obelisk.start({ kind: 'bed', widthM: 2, usableHeightM: 2.2, firstForkM: 0 })
    const pot = {
      shape: 'round',
      widthM: 0.5,
      heightM: 0.45,
      ballastKg: 20,
      drainageM: 0,
      hasCharcoal: false,
      isThere: false,
    } as const
    const of = (site: PlannedSite, rest: Partial<PatternOfKind<'obelisk'>>) => {
      const design = designOf({ ...begun, baseM: 0.4, ...rest }, { plantKindId: 'clematis' })
      const { frame, wires } = planFrame(site, design)
      return craftWarnings({ frame: frame!, wires, site, design, catalogue: standardCatalogue })
    }
    const bed = siteOf(3, 2.4, { surface: 'open' })
    expect(of(bed, { buriedM: 0.03 })[0]).toMatchObject({ code: 'leg-shallow', figures: { nowM: 0.03 } })
    const better = of(bed, { buriedM: 0 })[0]!.better!
    expect(warned(bed, better)).toEqual([])
    // A pot of 45 cm gives legs no more than its soil.
    expect(of(bed, { pot: { ...pot, heightM: 0.14 }, buriedM: 0.05 })[0]!.figures.leastM).toBeCloseTo(0.11, 9)
    const load = of(deck, { pot, buriedM: 0.25 }).find(({ code }) => code === 'floor-load')!
    // Soaked soil at 1.5 and the pot at 0.12 kg a litre, twenty kilograms of stones, and a little of canes.
    const litres = (Math.PI / 4) * 0.5 ** 2 * 0.425 * 1000
    expect(load.figures.massKg).toBeGreaterThan(1.62 * litres + 20)
    expect(load.figures.massKg).toBeLessThan(1.62 * litres + 23)
    expect(load.figures.kgPerM2).toBeCloseTo(load.figures.massKg! / ((Math.PI / 4) * 0.5 ** 2), 6)
  })

  it('of too little air behind what does not cling, and of a fence that nobody has looked at', () => {
    const wall = (plantKindId: string, fixingId: string, surface: PlannedSite['surface'] = 'brick') =>
      warned(
        siteOf(4, 2, { surface }),
        designOf({ kind: 'grid', verticals: 3, horizontals: 3 }, { plantKindId, fixingId }),
      )
    expect(wall('climbing-rose', 'eye-60')).toEqual(['air-gap-small'])
    expect(wall('climbing-rose', 'eye-150')).toEqual([])
    expect(wall('ivy', 'eye-60')).toEqual([])
    expect(wall('ivy', 'eye-60', 'boards')).toEqual(['fence-unknown'])
  })

  it('of wire that nobody pulls by hand through its bends; not of the same wire in handy pieces', () => {
    const fence = siteOf(31, 1.35)
    const strung = (handlingLengthM: number) =>
      warned(fence, designOf(begun('diamonds'), { handlingLengthM }))
    expect(strung(100)).toContain('pull-many-bends')
    expect(strung(6)).not.toContain('pull-many-bends')
  })

  it('of a pot that roots and pole do not fit, and proposes one that they do', () => {
    const tub = siteOf(0.6, 2, { surface: 'open' })
    const pole = frameKinds.pole.start({ kind: 'tub', widthM: 0.6, usableHeightM: 2, firstForkM: 0 })
    const pot = {
      shape: 'round',
      widthM: 0.4,
      heightM: 0.3,
      ballastKg: 0,
      drainageM: 0,
      hasCharcoal: false,
      isThere: false,
    } as const
    const of = (widthM: number, rootsM: number | null) => {
      const design = designOf({ ...pole, rootsM, pot: { ...pot, widthM } }, { plantKindId: 'vanilla' })
      const { frame, wires } = planFrame(tub, design)
      return craftWarnings({ frame: frame!, wires, site: tub, design, catalogue: standardCatalogue })
    }
    expect(of(0.4, null)).toEqual([])
    expect(of(0.4, 0.14).map(({ code }) => code)).toEqual(['pot-large'])
    expect(of(0.18, 0.14).map(({ code }) => code)).toEqual(['pot-small'])
    // Roots of 14 cm and a pole of 8: 27 cm across holds both and not much more.
    expect(of(0.4, 0.14)[0]!.better!.pattern).toMatchObject({ pot: { widthM: 0.27 } })
  })

  it('of a tree nearer to the wall than a foot, and of stakes that hardly stand in the ground', () => {
    const wall = siteOf(4, 2)
    const near = (plantOffM: number) =>
      warned(wall, designOf({ kind: 'grid', verticals: 3, horizontals: 3 }, { plantOffM }))
    expect(near(0.1)).toContain('tree-near-wall')
    expect(near(0.3)).not.toContain('tree-near-wall')
    const stakes = frameKinds.stakes.start({ kind: 'bed', widthM: 4, usableHeightM: 2, firstForkM: 0 })
    const stood = (buriedM: number) => warned(open, designOf({ ...stakes, pot: null, buriedM }))
    expect(stood(0.05)).toContain('stake-shallow')
    expect(stood(0.5)).not.toContain('stake-shallow')
  })

  it('of posts that end in frozen ground which heaves, and not of those in sand or below it', () => {
    const frost = (soil: PlannedSite['conditions']['soil'], postBuriedM: number) =>
      warned(
        siteOf(30, 2, { surface: 'open', conditions: { ...open.conditions, soil, frostDepthM: 0.6 } }),
        designOf({ ...begun('row'), postBuriedM }),
      )
    expect(frost('clay', 0.5)).toContain('frost-lifts')
    expect(frost('clay', 0.65)).not.toContain('frost-lifts')
    expect(frost('sand', 0.5)).not.toContain('frost-lifts')
  })

  it('and where it has an answer, that answer takes the warning away', () => {
    const row = { ...begun('row'), levels: [rowLevel(0, 0.9)], waterHeightM: 0.88 }
    const design = designOf(row)
    const { warnings } = planFrame(open, design)
    const water = warnings.find(({ code }) => code === 'water-near-fruit')!
    expect(planFrame(open, water.better!).warnings.map(({ code }) => code)).not.toContain('water-near-fruit')
  })

  it('by names that are each used once', () => {
    expect(new Set(warningCodes).size).toBe(warningCodes.length)
  })
})
