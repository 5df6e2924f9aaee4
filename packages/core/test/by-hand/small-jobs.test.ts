import { describe, expect, it } from 'vitest'
import { findKind } from '../../src/kinds/index.ts'
import { levelId, nodeId } from '../../src/frame/index.ts'
import { usualConditions } from '../../src/design/index.ts'
import { yearlyCare } from '../../src/loads/index.ts'
import { FT, IN, checkOf, figure, membersOf, near, planned, quantity } from './figures.ts'

describe('a low trellis of 26 ft with posts 7 ft 3 apart on clay with frost to 24 in', () => {
  const conditions = { ...usualConditions, soil: 'clay', frostDepthM: 24 * IN, windMPerS: 26 } as const
  const { plan, design } = planned(
    'bed',
    'row',
    { widthM: 26 * FT, usableHeightM: 5 * FT, conditions },
    {
      maxPostSpacingM: 87 * IN,
      postHeightM: 5 * FT,
      postBuriedM: 27 * IN,
      endBuriedM: 30 * IN,
      endLeanDeg: 0,
      levels: [
        { id: levelId('a'), heightM: 30 * IN, role: 'carrying', form: 'single', spreadM: 0, liftM: 0 },
        { id: levelId('b'), heightM: 58 * IN, role: 'carrying', form: 'single', spreadM: 0, liftM: 0 },
      ],
      waterHeightM: null,
      end: { kind: 'free' },
    },
    { plantKindId: 'raspberry' },
  )

  it('stands on five posts, each cut to 7 ft 3', () => {
    // 312 / 87 = 3.6, so four bays of 78 in; 60 + 27 in.
    expect(membersOf(plan, 'line-post')).toHaveLength(3)
    near(figure(plan, 'span'), 78 * IN)
    near(membersOf(plan, 'line-post')[0]!.cutLengthM, 87 * IN)
  })

  it('meets the storm with the leaf between its lowest wire and its top', () => {
    // 30 in of leaf whose middle is 45 in up; the gust there by ln(h/3 cm) / ln(10 m/3 cm), heights under a metre as one
    // metre; half solid, drag 0.8, on a bay.
    const v = (26 * Math.log((45 * IN) / 0.03)) / Math.log(10 / 0.03)
    const windN = 0.5 * 1.225 * v ** 2 * 0.5 * 0.8 * 30 * IN * 78 * IN
    near(checkOf(plan, 'post-sideways').need!, windN)
    // d²/(d + 1.09 h) · (100 psf/ft · 2 · d / 3) · b / 2.34, four times that before it goes over; 80 psf/ft at the worse.
    const d = 27 * IN
    const h = 45 * IN
    const S1 = (80 * (47.880259 / FT) * 2 * d) / 3
    near(checkOf(plan, 'post-sideways').holding![0], (4 * (d ** 2 / (d + 1.09 * h)) * S1 * 0.1) / 2.34)
  })

  it('has ends that hold by themselves only what their depth gives', () => {
    // Both wires at 30 and 58 in pull alike: they act at their weighted height.
    const pulls = plan.lines.flatMap(({ ids, worst }) => ids.map(() => worst.tensionN))
    near(
      checkOf(plan, 'end-sideways').need!,
      pulls.reduce((sum, N) => sum + N, 0),
    )
  })

  it('takes two wires of 26 ft, stapled on its three inner posts', () => {
    const pieces = plan.wires.flatMap(({ stringing }) => stringing!.pieces)
    expect(pieces).toHaveLength(2)
    near(
      pieces.reduce((sum, { cutLengthM }) => sum + cutLengthM, 0),
      2 * (26 * FT + 2 * design.endWrapM),
    )
    expect(quantity(plan, 'staple')).toBe(2 * 3)
    expect(membersOf(plan, 'end-post')).toHaveLength(2)
    near(membersOf(plan, 'end-post')[0]!.cutLengthM, 90 * IN)
  })

  it('is told that frost lifts nothing here: every post stands below 24 in', () => {
    expect(plan.warnings.map(({ code }) => code)).not.toContain('frost-lifts')
  })
})

describe('three single foliage wires against pairs on a row of 160 ft', () => {
  const level = (id: string, inches: number, form: 'single' | 'pair', role: 'carrying' | 'foliage') => ({
    id: levelId(id),
    heightM: inches * IN,
    role,
    form,
    spreadM: 0,
    liftM: 0,
  })
  const of = (form: 'single' | 'pair') =>
    planned(
      'row',
      'row',
      { widthM: 160 * FT, usableHeightM: 6 * FT },
      {
        levels: [
          level('a', 36, 'single', 'carrying'),
          level('b', 48, form, 'foliage'),
          level('c', 60, form, 'foliage'),
        ],
        ...{ waterHeightM: null, endLeanDeg: 0 },
      },
      { plantKindId: 'wine-grape' },
    )
  const kind = findKind('wine-grape')!

  it('takes three wires or five, each with its strainer, and as much more wire', () => {
    for (const [one, wires] of [
      [of('single'), 3],
      [of('pair'), 5],
    ] as const) {
      const { plan } = one
      const along = plan.frame!.lines.filter(({ role }) => role === 'carrying' || role === 'foliage')
      expect(along).toHaveLength(wires)
      const runs = plan.frame!.runs.filter(({ line }) => along.includes(line))
      near(
        runs.reduce((sum, { lengthM }) => sum + lengthM, 0),
        wires * 160 * FT,
      )
      expect(membersOf(plan, 'line-post')).toHaveLength(membersOf(of('single').plan, 'line-post').length)
    }
  })

  it('is held by a staple for each wire at each inner post, and strained by a strainer a wire and a tie', () => {
    // 160 ft by posts no more than the usual distance apart.
    for (const [one, wires] of [
      [of('single'), 3],
      [of('pair'), 5],
    ] as const) {
      const { plan } = one
      const inner = membersOf(plan, 'line-post').length
      expect(quantity(plan, 'staple')).toBe(wires * inner)
      expect(quantity(plan, 'strainer')).toBe(wires + 2)
      near(figure(plan, 'span'), (160 * FT) / (inner + 1))
      const marks = plan.frame!.nodes.map(({ ideal }) => Math.round(ideal.yM / IN))
      for (const inches of [36, 48, 60]) expect(marks).toContain(inches)
    }
  })

  it('pulls at its ends with all its wires together', () => {
    for (const one of [of('single'), of('pair')]) {
      const { lines, end } = one.plan
      near(
        end!.totalN,
        lines.reduce((sum, { ids, worst }) => sum + ids.length * worst.tensionN, 0),
      )
    }
  })

  it('takes a quarter of the ties on each wire of a pair', () => {
    const [single, pair] = [of('single'), of('pair')]
    // Wine grapes: 1.5 ties a metre by tendrils, whole on single wires: three of them; on two pairs four quarters and one whole.
    const ties = (one: typeof single) => yearlyCare(one.plan.frame!, one.design, kind).ties
    const perM = ties(single) / (3 * 160 * FT)
    // Ties are counted whole.
    expect(Math.abs(ties(pair) - perM * (1 + 4 * 0.25) * 160 * FT)).toBeLessThanOrEqual(1)
  })
})

describe('nine eyes over a photo on a wall of 21 by 7 ft 6 with a downpipe', () => {
  const pipe = {
    id: 'pipe',
    kind: 'band',
    axis: 'vertical',
    fromM: 10 * FT,
    toM: 10.5 * FT,
    what: 'Downpipe',
  } as const
  const places = [2, 5, 8, 10.2, 13, 16, 19].map((ft, i) => ({
    id: nodeId(`n${i}`),
    xM: ft * FT,
    yM: (i % 2 === 0 ? 2 : 6) * FT,
    isStart: i === 0,
  }))
  const { plan } = planned(
    'wall',
    'free',
    { widthM: 21 * FT, usableHeightM: 7 * FT, firstForkM: 6 * IN, surface: 'brick', avoid: [pipe] },
    { nodes: places, runs: places.slice(1).map((to, i) => [places[i]!.id, to.id] as const) },
    { moveToleranceM: 6 * IN },
  )

  it('moves the one on the pipe to its nearer edge, and half a hole of 14 mm further', () => {
    const moved = plan.frame!.nodes.filter(({ state }) => state === 'moved')
    expect(moved).toHaveLength(1)
    // At 10.2 ft the left edge is 0.2 ft away, the right one 0.3 ft.
    near(moved[0]!.at.xM, 10 * FT - 0.007)
    near(moved[0]!.movedM, 0.2 * FT + 0.007)
  })

  it('leaves the others where they were pointed at', () => {
    for (const [i, { xM, yM }] of places.entries()) {
      const node = plan.frame!.nodes[i]!
      near(node.at.yM, yM)
      if (i !== 3) near(node.at.xM, xM)
    }
    expect(plan.frame!.runs).toHaveLength(6)
  })

  it('is strung with the straight distances between them', () => {
    const xs = places.map(({ xM }) => (xM === 10.2 * FT ? 10 * FT - 0.007 : xM))
    const sum = xs.slice(1).reduce((total, xM, i) => total + Math.hypot(xM - xs[i]!, 4 * FT), 0)
    near(
      plan.frame!.runs.reduce((total, { lengthM }) => total + lengthM, 0),
      sum,
    )
    expect(quantity(plan, 'eye-140')).toBe(7)
  })
})

describe('in metres: level wires on a wall of 6.40 m', () => {
  const { plan, design } = planned(
    'wall',
    'tiers',
    { widthM: 6.4, usableHeightM: 2, firstForkM: 0.4, surface: 'brick' },
    {
      levels: [0.4, 0.8, 1.2, 1.6].map((heightM, i) => ({ id: levelId(`t${i}`), heightM })),
      maxSupportSpacingM: 1.6,
    },
    { plantKindId: 'pear', endWrapM: 0.15, handlingLengthM: 12, tensionN: 120 },
  )

  it('takes twenty eyes and plugs, and four pieces of 6.70 m from one roll', () => {
    expect(quantity(plan, 'eye-130')).toBe(20)
    expect(quantity(plan, 'plug')).toBe(20)
    const [{ stringing }] = plan.wires as [(typeof plan.wires)[number]]
    expect(stringing!.pieces).toHaveLength(4)
    for (const { cutLengthM } of stringing!.pieces) near(cutLengthM, 6.7)
  })

  it('pulls hardest in the coldest night by the stretch that the cold takes back', () => {
    // E A α ΔT: 190 GPa · π mm² · 1.6e-5 · 27 °C on rigid ends, on top of 120 N.
    const coldN = 120 + 190e9 * Math.PI * 1e-6 * 1.6e-5 * (design.setC + 15)
    const cold = plan.lines[0]!.states.find(({ scenario }) => scenario === 'cold')!
    expect(Math.abs(cold.tensionN / coldN - 1)).toBeLessThan(0.01)
  })

  it('bends its end eyes by what stays on them, 5 cm off the wall', () => {
    const stays = Math.max(
      ...plan.lines[0]!.states.flatMap(({ scenario, tensionN }) => (scenario === 'cold' ? [] : [tensionN])),
    )
    near(checkOf(plan, 'eye-bending').need!, stays * 0.05)
    // d³/6 of a 10 mm shank at 320 MPa, two thirds of it.
    near(checkOf(plan, 'eye-bending').holding![0], ((0.01 ** 3 / 6) * 320e6) / 1.5)
  })

  it('adds pull and shear at its plugs, the eye 8 cm in the brick', () => {
    const worst = Math.max(...plan.lines.map((line) => line.worst.tensionN))
    near(checkOf(plan, 'fixing-pull').need!, worst * (1 + (1.5 * 0.05) / 0.08))
  })

  it('may bear three fifths of two fifths of its strength, and half as much again in its worst hour', () => {
    const breaking = 700e6 * Math.PI * 1e-6
    expect(plan.lines[0]!.safe.lastingN).toBeCloseTo(breaking * 0.4 * 0.6, 6)
    expect(plan.lines[0]!.safe.peakN).toBeCloseTo(breaking * 0.4 * 0.6 * 1.5, 6)
  })
})

describe('ten home-made poles of 35 in against a bought price of 19 each', () => {
  const { plan } = planned(
    'bench',
    'pole',
    { widthM: 10 * IN, usableHeightM: 5 * FT, setting: 'indoors' },
    {
      form: 'mesh',
      heightM: 35 * IN,
      buriedM: 7 * IN,
      diameterM: 3 * IN,
      lapM: 0.75 * IN,
      pot: null,
      rootsM: null,
    },
    { repeat: 10, boughtPrice: 19 },
  )

  it('is cut to 42 in each, a mesh of three and a quarter hands round', () => {
    near(figure(plan, 'core-length'), 42 * IN)
    near(figure(plan, 'mesh-height'), 42 * IN)
    near(figure(plan, 'mesh-width'), (3 * Math.PI + 0.75) * IN)
    near(figure(plan, 'medium'), (Math.PI / 4) * (3 * IN) ** 2 * 42 * IN * 1000)
    near(figure(plan, 'tie-length'), Math.PI * (3 * IN + 0.015) + 0.2)
    expect(plan.repeat).toBe(10)
  })

  it('costs what its parts do', () => {
    // Mesh (3π + 0.75) by 42 in each with 5 % over at 6 a square metre; core 42 in; medium at 0.6 a litre, whole litres of ten.
    const meshM2 = Math.ceil(10 * (3 * Math.PI + 0.75) * IN * 42 * IN * 1.05 * 10) / 10
    near(quantity(plan, 'mesh'), meshM2)
    const litres = Math.ceil(10 * (Math.PI / 4) * (3 * IN) ** 2 * 42 * IN * 1000)
    expect(quantity(plan, 'fibre-medium')).toBe(litres)
    const pipe = plan
      .takeOff!.items.filter(({ what }) => what === 'stock')
      .reduce((sum, { price }) => sum + price, 0)
    near(plan.takeOff!.cost, meshM2 * 6 + litres * 0.6 + pipe)
  })
})
