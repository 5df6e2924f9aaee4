import { describe, expect, it } from 'vitest'
import { standardCatalogue } from '../../src/catalogue/index.ts'
import { usualFence } from '../frames.ts'
import { FT, IN, checkOf, figure, membersOf, near, planned, quantity } from './figures.ts'

const barrel = {
  shape: 'round',
  widthM: 24 * IN,
  heightM: 16 * IN,
  ballastKg: 0,
  drainageM: 0,
  hasCharcoal: false,
  isThere: false,
} as const

describe('a half-barrel of 24 in with five stakes of 5 ft and string wound four times', () => {
  const { plan } = planned(
    'tub',
    'spiral',
    { widthM: 24 * IN, usableHeightM: 6 * FT },
    {
      stakes: 5,
      circleRadiusM: 10 * IN,
      heightM: 5 * FT,
      buriedM: 10 * IN,
      startHeightM: 10 * IN,
      turns: 4,
      wrapsPerContact: 1,
      knotEvery: 0,
      knotAllowanceM: 4 * IN,
      top: 'ring',
      stakeStockId: 'cane-24',
      pot: barrel,
    },
    { wireId: 'jute-4' },
  )

  it('takes so much string', () => {
    // 20 chords, each √(c² + (50 in / 20)²), c = 2 · 10 in · sin 36°; 21 times round a stake of 24 mm with string of 4 mm,
    // once and a fifth each; a knot of 4 in at both ends.
    const chord = Math.hypot(20 * Math.sin(Math.PI / 5), 50 / 20) * IN
    const stringM = 20 * chord + 21 * 1.2 * Math.PI * 0.028 + 2 * 4 * IN
    near(figure(plan, 'string-length'), stringM)
    // Off the ball as one goes round: one piece, whose knots are in it.
    const [{ stringing }] = plan.wires as [(typeof plan.wires)[number]]
    expect(stringing!.pieces).toHaveLength(1)
    near(stringing!.pieces[0]!.cutLengthM, stringM)
  })

  it('has stakes of 5 ft 10, a ring of its circle and a lap, and soil to an inch under its rim', () => {
    near(membersOf(plan, 'stake')[0]!.cutLengthM, 70 * IN)
    expect(figure(plan, 'ring-cut')).toBeGreaterThan(2 * Math.PI * 10 * IN)
    // π/4 · 24² in² · (16 in − 2.5 cm).
    near(quantity(plan, 'soil'), Math.ceil((Math.PI / 4) * (24 * IN) ** 2 * (16 * IN - 0.025) * 1000))
  })

  it('is wound from 10 in above the soil to the top of its stakes, two and a half inches higher at each', () => {
    const soilM = 16 * IN - 0.025
    const heights = plan.frame!.runs.map(({ to }) => plan.frame!.nodes[to]!.at.yM)
    const first = plan.frame!.nodes[plan.frame!.runs[0]!.from]!.at.yM
    near(first, soilM + 10 * IN)
    near(heights.at(-1)!, soilM + 60 * IN)
    near(heights[0]! - first, 2.5 * IN)
    expect(heights).toHaveLength(20)
    expect(membersOf(plan, 'stake')).toHaveLength(5)
    expect(quantity(plan, 'lashing')).toBe(5)
  })

  it('tips at the wind at which half its width holds the leaf’s moment, its soil dry', () => {
    // Weight: soil of 0.6 kg and 0.12 kg of barrel a litre, five canes of bamboo and a steel ring of 6 mm.
    const litres = (Math.PI / 4) * (24 * IN) ** 2 * (16 * IN - 0.025) * 1000
    const canesKg = 5 * (Math.PI / 4) * 0.024 ** 2 * 600 * 70 * IN
    const ringKg = (Math.PI / 4) * 0.006 ** 2 * 7850 * figure(plan, 'ring-cut')
    const kg = 0.72 * litres + canesKg + ringKg
    // Leaf over five feet above the rim's soil, half solid, drag 0.8, as wide as the outermost stakes.
    const xs = plan.frame!.members.flatMap(({ path }) => path.map(({ xM }) => xM))
    const width = Math.max(0.35, Math.max(...xs) - Math.min(...xs))
    const top = 16 * IN - 0.025 + 5 * FT
    const area = width * (top - 16 * IN) * 0.5
    const lever = (16 * IN + top) / 2
    const v = Math.sqrt((kg * 9.80665 * 12 * IN) / (0.5 * 1.225 * 0.8 * area * lever))
    near(checkOf(plan, 'tub-tips').holding![0], v)
  })
})

describe('four stakes in a square pot, held at the top by a bar of 6 mm with a loop round each', () => {
  const { plan } = planned(
    'tub',
    'spiral',
    { widthM: 20 * IN, usableHeightM: 6 * FT },
    {
      stakes: 4,
      // The corners of a square of 12 in.
      circleRadiusM: 12 * IN * Math.SQRT1_2,
      heightM: 4 * FT,
      buriedM: 8 * IN,
      startHeightM: 8 * IN,
      turns: 4,
      top: 'loops',
      stakeStockId: 'cane-24',
      pot: { ...barrel, shape: 'square', widthM: 20 * IN },
    },
  )

  it('is cut and bent with what each loop takes, its ends lapped along a side', () => {
    // Once round a cane of 24 mm and on round a quarter, the bar's middle 15 mm off the cane's: 5/4 · 2π · 15 mm.
    const loop = 1.25 * 2 * Math.PI * 0.015
    near(figure(plan, 'corner-loop'), loop)
    near(figure(plan, 'bend-every'), 12 * IN + loop)
    near(figure(plan, 'first-bend'), 6 * IN + 0.04)
    near(figure(plan, 'ring-cut'), 4 * (12 * IN + loop) + 0.08)
    const [ring] = membersOf(plan, 'ring')
    expect(ring!.bendsM).toHaveLength(4)
    // Behind the last loop is what lies before the first: half a side and half the lap.
    near(ring!.cutLengthM - ring!.bendsM.at(-1)! - loop, 6 * IN + 0.04)
  })
})

describe('an arch of 4 ft by 7 ft 6, three hoops over 4 ft', () => {
  const { plan } = planned(
    'bed',
    'arch',
    { widthM: 6 * FT, usableHeightM: 8 * FT },
    {
      spanM: 4 * FT,
      heightM: 7.5 * FT,
      depthM: 4 * FT,
      hoops: 3,
      buriedM: 12 * IN,
      rungStepM: 12 * IN,
      pot: null,
    },
  )

  it('is bent from hoops of two legs and half a circle', () => {
    // Legs 7' 6" − 2' = 5' 6", each with a foot in the ground; π · 2 ft over the top.
    near(figure(plan, 'hoop-length'), (2 * 6.5 + Math.PI * 2) * FT)
    near(figure(plan, 'headroom'), 7.5 * FT)
  })

  it('stands with three hoops 2 ft apart, feet 4 ft apart and a foot in the ground', () => {
    const hoops = membersOf(plan, 'hoop')
    expect(hoops).toHaveLength(3)
    const at = hoops.map(({ path }) => path[0]!.zM).sort((a, b) => a - b)
    near(at[1]! - at[0]!, 2 * FT)
    near(at[2]! - at[1]!, 2 * FT)
    const xs = hoops[0]!.path.map(({ xM }) => xM)
    near(Math.max(...xs) - Math.min(...xs), 4 * FT)
    near(Math.max(...hoops[0]!.path.map(({ yM }) => yM)), 7.5 * FT)
    near(hoops[0]!.buriedM, 1 * FT)
  })

  it('has a rung every foot of its way over', () => {
    // 11 + 2π = 17.28 ft in 18 spaces: 17 rungs of 4 ft, lashed to three hoops each.
    expect(membersOf(plan, 'rung')).toHaveLength(17)
    near(membersOf(plan, 'rung')[0]!.cutLengthM, 4 * FT)
    expect(quantity(plan, 'lashing')).toBe(17 * 3)
  })
})

describe('a mesh pole of 3 in, 3 ft 6 tall, 8 in deep in its pot', () => {
  const { plan } = planned(
    'bench',
    'pole',
    { widthM: 14 * IN, usableHeightM: 5 * FT, setting: 'indoors' },
    {
      form: 'mesh',
      heightM: 42 * IN,
      buriedM: 8 * IN,
      diameterM: 3 * IN,
      lapM: 0.75 * IN,
      rootsM: null,
      pot: { ...barrel, widthM: 12 * IN, heightM: 11 * IN },
    },
  )

  it('is cut and filled by sums that a tape can check', () => {
    near(figure(plan, 'mesh-width'), (Math.PI * 3 + 0.75) * IN)
    near(figure(plan, 'mesh-height'), 50 * IN)
    near(figure(plan, 'core-length'), 50 * IN)
    near(figure(plan, 'medium'), (Math.PI / 4) * (3 * IN) ** 2 * 50 * IN * 1000)
    // 50 in is 1.27 m: thirteen spaces of at most 10 cm.
    expect(figure(plan, 'seam-ties')).toBe(14)
    // Round pole and a stem of 15 mm, and 20 cm for the knot.
    near(figure(plan, 'tie-length'), Math.PI * (3 * IN + 0.015) + 0.2)
  })
})

describe('a wrapped pole of 2 in round a pipe of 32 mm, 3 ft tall', () => {
  const { plan } = planned(
    'bench',
    'pole',
    { widthM: 14 * IN, usableHeightM: 5 * FT, setting: 'indoors' },
    { form: 'wrapped', heightM: 36 * IN, buriedM: 6 * IN, diameterM: 2 * IN, lapM: 0.5 * IN, pot: null },
  )

  it('is wound with string at every 4 cm', () => {
    // 91.44 cm in turns of 4 cm: 22.86 of them, the last one begun; each √((2π in)² + 4²), and 20 cm for a knot at both ends.
    expect(figure(plan, 'wrap-turns')).toBe(23)
    near(figure(plan, 'wrap-string'), (36 * IN * Math.hypot(2 * Math.PI * IN, 0.04)) / 0.04 + 0.4)
    expect(figure(plan, 'seam-ties')).toBe(11)
  })
})

describe('a wrapped pole 9 ft tall, joined of canes of 4 ft', () => {
  const { plan } = planned(
    'bench',
    'pole',
    { widthM: 14 * IN, usableHeightM: 10 * FT, setting: 'indoors' },
    {
      ...{ form: 'wrapped', heightM: 9 * FT, buriedM: 8 * IN, diameterM: 2 * IN, lapM: 0.5 * IN, pot: null },
      coreStockId: 'cane-12',
    },
  )
  const longestM = Math.max(
    ...standardCatalogue.stock.find(({ id }) => id === 'cane-12')!.lengths.map(({ lengthM }) => lengthM),
  )

  it('takes so many of the longest on sale, each a hand and a half past the next, tied twice', () => {
    // 116 in of core; each cane but the last gives its length less 20 cm.
    const pieces = Math.ceil((116 * IN - 0.2) / (longestM - 0.2))
    expect(pieces).toBeGreaterThan(1)
    expect(figure(plan, 'core-pieces')).toBe(pieces)
    expect(figure(plan, 'joint-ties')).toBe(2 * (pieces - 1))
    near(figure(plan, 'core-lap'), 0.2)
    near(membersOf(plan, 'core')[0]!.cutLengthM, (116 * IN + (pieces - 1) * 0.2) / pieces)
    const [stock] = plan.stock
    expect(stock!.lengthsM).toHaveLength(pieces)
  })
})

describe('that pole in its pot of 12 by 11 in', () => {
  const { plan } = planned(
    'bench',
    'pole',
    { widthM: 14 * IN, usableHeightM: 5 * FT, setting: 'indoors' },
    {
      ...{
        form: 'mesh',
        heightM: 42 * IN,
        buriedM: 8 * IN,
        diameterM: 3 * IN,
        lapM: 0.75 * IN,
        rootsM: null,
      },
      pot: { ...barrel, widthM: 12 * IN, heightM: 11 * IN },
    },
  )
  const soilTopM = 11 * IN - 0.025

  it('leaves so much room for soil, and for water above it', () => {
    const potL = (Math.PI / 4) * (12 * IN) ** 2 * soilTopM * 1000
    const poleL = (Math.PI / 4) * (3 * IN) ** 2 * 8 * IN * 1000
    near(figure(plan, 'soil-left'), potL - poleL)
    // An inch under the rim, for water.
    near(figure(plan, 'head-space'), 0.025)
  })

  it('takes one pot, one pipe, mesh with a twentieth over, and whole litres', () => {
    expect(quantity(plan, 'pot')).toBe(1)
    near(quantity(plan, 'mesh'), Math.ceil((3 * Math.PI + 0.75) * IN * 50 * IN * 1.05 * 10) / 10)
    expect(quantity(plan, 'fibre-medium')).toBe(Math.ceil(figure(plan, 'medium')))
    const [core] = membersOf(plan, 'core')
    near(core!.cutLengthM, 50 * IN)
    near(core!.path.at(-1)!.yM, soilTopM + 42 * IN)
    near(core!.path[0]!.yM, soilTopM - 8 * IN)
  })
})

describe('twelve square tubs of 26 in, each with a column and two levels of bars', () => {
  const { plan } = planned(
    'tub',
    'column',
    { widthM: 26 * IN, usableHeightM: 6 * FT },
    {
      tub: { ...barrel, shape: 'square', widthM: 26 * IN, heightM: 20 * IN },
      lowerM: 54 * IN,
      upperM: 56 * IN,
      reachM: 28 * IN,
      gravelM: 3 * IN,
      plants: 4,
    },
    { repeat: 12 },
  )

  it('takes so much for all of them', () => {
    near(quantity(plan, 'mesh') * 1, Math.ceil(12 * (28 * IN) ** 2 * 1.05 * 10) / 10)
    near(quantity(plan, 'padding'), Math.ceil(12 * (28 * IN) ** 2 * 1.05 * 10) / 10)
    expect(quantity(plan, 'tub')).toBe(12)
    expect(membersOf(plan, 'bar')).toHaveLength(2)
    expect(plan.frame!.plants).toHaveLength(4)
  })

  it('is filled above its gravel, and bolted where bars cross the column', () => {
    // A steel pipe of 48 mm stands on the bottom, in gravel and soil.
    const aroundM2 = (26 * IN) ** 2 - (Math.PI / 4) * 0.048 ** 2
    near(figure(plan, 'soil-left'), aroundM2 * (20 * IN - 0.025 - 3 * IN) * 1000)
    expect(quantity(plan, 'soil')).toBe(Math.ceil(12 * aroundM2 * (20 * IN - 0.025 - 3 * IN) * 1000))
    expect(quantity(plan, 'gravel')).toBe(Math.ceil(12 * aroundM2 * 3 * IN * 1000))
    expect(quantity(plan, 'bolt')).toBe(12 * 2)
    expect(membersOf(plan, 'column')).toHaveLength(1)
  })

  it('has its holes so high up the column', () => {
    // Soil to 2.5 cm under the rim of 20 in.
    near(figure(plan, 'hole-lower'), 74 * IN - 0.025)
    near(figure(plan, 'hole-upper'), 76 * IN - 0.025)
  })
})

describe('a fan of seven ribs over 140° on a wall of 14 ft', () => {
  const { plan } = planned(
    'wall',
    'fan',
    { widthM: 14 * FT, usableHeightM: 7 * FT, firstForkM: 18 * IN, surface: 'brick' },
    { ribs: 7, spreadDeg: 140, ribReachM: 6 * FT, wireStepM: 12 * IN },
  )

  it('has ribs of 6 ft at every 23 1/3 degrees from upright', () => {
    const ribs = membersOf(plan, 'rib')
    expect(ribs).toHaveLength(7)
    for (const [i, { path, cutLengthM }] of ribs.entries()) {
      near(cutLengthM, 6 * FT)
      const [foot, tip] = [path[0]!, path.at(-1)!]
      near(Math.atan2(tip.xM - foot.xM, tip.yM - foot.yM) + 10, ((i - 3) * (140 / 6) * Math.PI) / 180 + 10)
    }
  })

  it('is lashed wherever a rib crosses a wire', () => {
    // Wires every foot above the fork, seven of them; a rib at angle a rises 6 ft · cos a.
    const rises = [-3, -2, -1, 0, 1, 2, 3].map((n) => 6 * Math.cos((n * (140 / 6) * Math.PI) / 180))
    const crossings = rises.reduce((sum, ft) => sum + Math.floor(ft + 1e-9), 0)
    expect(plan.frame!.nodes.filter(({ joint }) => joint === 'lashing')).toHaveLength(crossings)
  })

  it('starts 18 in above the soil, and its tips are as high as 6 ft at their slant reach', () => {
    for (const [i, { path }] of membersOf(plan, 'rib').entries()) {
      near(path[0]!.yM, 18 * IN)
      near(path.at(-1)!.yM, 18 * IN + 6 * FT * Math.cos(((i - 3) * (140 / 6) * Math.PI) / 180))
    }
    expect(plan.frame!.lines).toHaveLength(7)
    const heights = [...new Set(plan.frame!.nodes.map(({ at }) => Math.round((at.yM / FT) * 1e4) / 1e4))]
    expect(heights.sort((a, b) => a - b).slice(0, 3)).toEqual([2.5, 3.5, 4.5])
    expect(quantity(plan, 'lashing')).toBe(
      plan.frame!.nodes.filter(({ joint }) => joint === 'lashing').length,
    )
  })

  it('stands in the middle, and its wires reach as far as its ribs', () => {
    near(plan.frame!.plants[0]!.at.xM, 7 * FT)
    const xs = plan.frame!.nodes.flatMap(({ joint, ideal }) => (joint === 'eye' ? [ideal.xM] : []))
    near(Math.max(...xs) - 7 * FT, 6 * FT * Math.sin((70 * Math.PI) / 180))
  })
})

describe('diamonds on a board fence of 96 ft by 54 in', () => {
  const { plan, design } = planned(
    'fence',
    'diamonds',
    { widthM: 96 * FT, usableHeightM: 54 * IN, surface: 'boards', fence: usualFence },
    { cell: { by: 'width', widthM: 3 * FT }, rows: 1, cellHeightM: null, closeCutEnd: false },
    { moveToleranceM: 0, snap: 'none' },
  )

  it('comes out in 32 whole cells of four wires each', () => {
    expect(plan.frame!.cells).toMatchObject({ whole: 32, half: 0 })
    // Each side of a cell: √(1.5² + 2.25²) ft.
    const sideM = Math.hypot(1.5, 2.25) * FT
    near(plan.frame!.runs[0]!.lengthM, sideM)
    const netM = plan.wires.reduce((sum, { stringing }) => sum + stringing!.netLengthM, 0)
    near(netM, 4 * 32 * sideM)
  })

  it('has its eyes at the foot, in the middle and at 54 in, every three feet', () => {
    const at = (inches: number) =>
      plan
        .frame!.nodes.filter(({ ideal }) => Math.abs(ideal.yM - inches * IN) < 1e-6)
        .map(({ ideal }) => ideal.xM)
    const [low, middle, high] = [at(0), at(27), at(54)]
    expect([low.length, middle.length, high.length]).toEqual([32, 33, 32])
    near(low[0]!, 1.5 * FT)
    near(middle[1]!, 3 * FT)
    near(high.at(-1)!, 94.5 * FT)
  })

  it('takes for each piece what is made off at its two ends', () => {
    const pieces = plan.wires.flatMap(({ stringing }) => stringing!.pieces)
    const cutM = pieces.reduce((sum, { cutLengthM }) => sum + cutLengthM, 0)
    near(cutM - 4 * 32 * Math.hypot(1.5, 2.25) * FT, pieces.length * 2 * design.endWrapM)
    expect(Math.max(...pieces.map(({ cutLengthM }) => cutLengthM))).toBeLessThanOrEqual(
      design.handlingLengthM + 2 * design.endWrapM,
    )
  })

  it('is fixed where cells meet: two eyes a cell, and those between them', () => {
    // 32 above, 32 below, 33 beside.
    expect(quantity(plan, 'eye-140')).toBe(97)
  })
})
