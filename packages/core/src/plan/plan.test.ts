import { standardCatalogue } from '../catalogue/index.ts'
import { isWoundWrongly } from '../strength/index.ts'
import { shoppingList } from '../shopping/index.ts'
import { tensionToday, wireYear } from '../loads/index.ts'
import { usualConditions } from '../design/index.ts'
import type { MaterialItem } from '../bill/index.ts'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  designOf,
  options,
  patternArbs,
  siteOf,
  tierLevels,
  rowLevel,
  usualFence,
} from '../../test/frames.ts'
import { drawFrame } from '../drawing/index.ts'
import { anchorId } from '../frame/index.ts'
import type { Pattern, PatternKind, RowPattern } from '../frame/index.ts'
import { planFrame } from './index.ts'
import type { FramePlan } from './index.ts'
import { runs } from '../../test/runs.ts'

const kinds = Object.keys(patternArbs) as PatternKind[]
const quantity = (plan: FramePlan, is: (item: MaterialItem) => boolean) =>
  plan.takeOff!.items.filter(is).reduce((sum, item) => sum + item.quantity, 0)
const good = (plan: FramePlan, goodId: string) =>
  quantity(plan, (item) => item.what === 'good' && item.goodId === goodId)

describe('a frame’s bill', () => {
  it.each(kinds)('equals the count of what its drawing shows: %s', (kind) => {
    let compared = 0
    fc.assert(
      fc.property(
        patternArbs[kind] as fc.Arbitrary<Pattern>,
        fc.integer({ min: 1, max: 3 }),
        (pattern, repeat) => {
          const plan = planFrame(siteOf(6, 2.4), designOf(pattern, { repeat }))
          if (plan.problems.length > 0) return
          compared++
          const list = drawFrame(plan.frame!, { view: 'elevation', ...options })
          const drawn = (is: (mark: (typeof list)[number]) => boolean) => list.filter(is).length * repeat
          expect(quantity(plan, (item) => item.what === 'fixing')).toBe(drawn((m) => m.kind === 'node'))
          for (const [joint, goods] of [
            ['staple', ['staple', 'post-clip']],
            ['lashing', ['lashing']],
            ['bolt', ['bolt']],
          ] as const)
            expect(goods.reduce((sum, goodId) => sum + good(plan, goodId), 0)).toBe(
              drawn((m) => m.kind === 'joint' && m.joint === joint),
            )
          expect(quantity(plan, (item) => item.what === 'screw')).toBe(drawn((m) => m.kind === 'anchor'))
          // A pot that somebody has is drawn and not bought.
          const there = plan.frame!.units.filter(({ isThere }) => isThere).length * repeat
          expect(good(plan, 'tub') + good(plan, 'pot') + good(plan, 'pole-module') + there).toBe(
            drawn((m) => m.kind === 'area' && m.role === 'tub'),
          )
          // Every member is a piece cut from what is bought, and every wire drawn is in the pieces strung.
          const cuts = plan.stock.reduce(
            (sum, one) => sum + one.cutting.rolls.reduce((n, roll) => n + roll.cuts.length, 0),
            0,
          )
          // What is joined of several pieces is drawn as the one thing that it is then.
          const joins = plan.frame!.members.reduce((sum, { pieces }) => sum + pieces - 1, 0)
          expect(cuts - joins * repeat).toBe(drawn((m) => m.kind === 'member'))
          const strung = plan.wires.reduce(
            (sum, one) => sum + one.stringing!.pieces.reduce((n, piece) => n + piece.runs.length, 0),
            0,
          )
          expect(strung * repeat).toBe(drawn((m) => m.kind === 'line'))
          for (const one of plan.wires) {
            const bought = one.cutting!.rolls.reduce((sum, roll) => sum + roll.lengthM, 0)
            expect(bought + 1e-6).toBeGreaterThanOrEqual(one.stringing!.cutLengthM * repeat)
          }
        },
      ),
      { numRuns: runs(25) },
    )
    expect(compared).toBeGreaterThan(4)
  })
})

describe('every kind of frame', () => {
  it.each(kinds)(
    '%s carries a plant, and every check has a need, a holding and a verdict that fits them',
    (kind) => {
      fc.assert(
        fc.property(patternArbs[kind] as fc.Arbitrary<Pattern>, (pattern) => {
          const plan = planFrame(
            siteOf(6, 2.4, { surface: 'boards', fence: usualFence }),
            designOf(pattern, { plantKindId: 'hardy-kiwi' }),
          )
          for (const check of plan.checks) {
            const [need, [low, high]] = [check.need!, check.holding!]
            expect(Number.isFinite(need) && need >= 0).toBe(true)
            expect(low).toBeLessThanOrEqual(high + 1e-9)
            const expected = need <= low * (1 + 1e-9) ? 'holds' : need <= high ? 'doubtful' : 'fails'
            expect(check.verdict).toBe(expected)
            if (check.unit !== 'none') expect(check.assumptions.length).toBeGreaterThan(0)
          }
        }),
        { numRuns: runs(15) },
      )
    },
  )
})

it('ribs of a fan that all but stand in one place still hang on wires that can be strained', () => {
  const plan = planFrame(
    siteOf(6, 2.4, { surface: 'boards', fence: usualFence }),
    designOf(
      {
        kind: 'fan',
        ribs: 2,
        spreadDeg: 0.001,
        wireStepM: 0.3,
        maxSupportSpacingM: 1.8,
        ribReachM: 1.2,
        ribStockId: 'cane-24',
      },
      { plantKindId: 'hardy-kiwi' },
    ),
  )
  expect(plan.problems).toEqual([])
  expect(plan.checks.map((one) => one.verdict)).not.toContain('untold')
})

const diamonds: Pattern = {
  kind: 'diamonds',
  cell: { by: 'width', widthM: 0.8 },
  cellHeightM: null,
  rows: 1,
  closeCutEnd: false,
}
const wall = siteOf(9.2, 1.65, { firstForkM: 0.3 })

describe('planFrame', () => {
  const design = designOf(diamonds, { handlingLengthM: 10, rolls: [{ lengthM: 25, price: 14 }] })

  it('keeps the drawing when only the stringing is impossible', () => {
    const plan = planFrame({ ...wall, surface: 'boards' }, { ...design, handlingLengthM: 1 })
    expect(plan.frame!.nodes).toHaveLength(36)
    expect(plan.wires[0]!.stringing).toBeNull()
    expect(plan.problems.map((p) => p.code)).toEqual(['stringing/piece-too-short'])
    expect(plan.takeOff!.drill).toEqual({ plugMm: null, bitMm: 4 })
  })

  it('warns of the ladder only where something is fixed above reach', () => {
    expect(planFrame({ ...wall, usableHeightM: 1.2 }, design).takeOff!.cautions).not.toContain('ladder')
    expect(planFrame(wall, design).takeOff!.cautions).toContain('ladder')
  })

  it('says so when something is not in the catalogue, and throws nothing', () => {
    const fan: Pattern = {
      kind: 'fan',
      ribs: 5,
      spreadDeg: 120,
      wireStepM: 0.3,
      maxSupportSpacingM: 2,
      ribReachM: null,
      ribStockId: 'unobtainium',
    }
    expect(planFrame(wall, designOf(fan)).problems.map((p) => p.code)).toEqual(['frame/unknown-stock'])
    expect(planFrame(wall, { ...design, wireId: 'thread' }).problems.map((p) => p.code)).toEqual([
      'frame/unknown-stock',
    ])
  })

  it('buys for all repeats together: never more rolls than one after the other, and as many parts', () => {
    const one = planFrame(wall, design)
    const six = planFrame(wall, { ...design, repeat: 6 })
    const rolls = (plan: FramePlan) => quantity(plan, (item) => item.what === 'roll')
    expect(rolls(six)).toBeLessThanOrEqual(6 * rolls(one))
    expect(quantity(six, (item) => item.what === 'fixing')).toBe(6 * 36)
    expect(six.takeOff!.minutes).toBeCloseTo(6 * one.takeOff!.minutes, 6)
  })

  it('uses the grower’s own prices and rates', () => {
    const catalogue = {
      ...standardCatalogue,
      fixings: standardCatalogue.fixings.map((f) => ({ ...f, price: 10 })),
    }
    const plan = planFrame(wall, design, { catalogue })
    expect(plan.takeOff!.cost - planFrame(wall, design).takeOff!.cost).toBeCloseTo(36 * (10 - 1.4), 6)
  })
})

const row: RowPattern = {
  kind: 'row',
  maxPostSpacingM: 6,
  postHeightM: 1.9,
  postBuriedM: 0.6,
  postStockId: 'post-round-80',
  endStockId: 'post-round-100',
  endBuriedM: 0.8,
  endLeanDeg: 10,
  endSlabM: 0,
  end: {
    kind: 'tied-back',
    attachHeightM: 1.5,
    angleDeg: 45,
    screwId: 'screw-eye-1200',
    inLine: 1,
    strands: 2,
  },
  armStockId: 'batten-20x30',
  levels: [rowLevel(0, 0.7), rowLevel(1, 1.2, { role: 'foliage', form: 'pair' })],
  waterHeightM: null,
  plantSpacingM: 1.5,
  roomBeyondM: null,
}
const field = siteOf(36, 2, { surface: 'open' })
const rowDesign = designOf(row, { wireId: 'high-tensile-2.5', tensionN: 700, plantKindId: 'wine-grape' })

describe('what a row carries', () => {
  const plan = planFrame(field, rowDesign)
  const check = (code: string, from: FramePlan = plan) => from.checks.find((c) => c.code === code)!

  it('is told for each wire through the year: colder pulls more, warmer sags more, crop more again', () => {
    const fruiting = plan.lines.find((line) => line.id === 'w0')!
    const at = (scenario: string) => fruiting.states.find((state) => state.scenario === scenario)!
    expect(at('set').tensionN).toBeCloseTo(700, 0)
    expect(at('cold').tensionN).toBeGreaterThan(700)
    expect(at('hot').sagM).toBeGreaterThan(at('set').sagM)
    expect(at('loaded').sagM).toBeGreaterThan(at('hot').sagM)
    const year = wireYear(fruiting, plan.loads, field.conditions, 'north')
    expect(year).toHaveLength(12)
    for (const month of year) expect(month.coldTensionN).toBeGreaterThan(month.warmTensionN)
    expect(Math.max(...year.map((m) => m.sagM))).toBe(year[8]!.sagM)
    const south = wireYear(fruiting, plan.loads, field.conditions, 'south')
    expect(south[2]!.sagM).toBeCloseTo(year[8]!.sagM, 9)
  })

  it('is set to more on a cold day and less on a warm one, to end up the same', () => {
    const line = plan.lines[0]!
    expect(tensionToday(line, rowDesign.setC)).toBeCloseTo(line.setTensionN, 0)
    expect(tensionToday(line, 0)).toBeGreaterThan(tensionToday(line, 25))
  })

  it('asks more of its anchor with every wire, and less where it is tied higher', () => {
    const lower = planFrame(field, {
      ...rowDesign,
      pattern: {
        ...row,
        end: {
          kind: 'tied-back',
          attachHeightM: 1,
          angleDeg: 45,
          screwId: 'screw-eye-1200',
          inLine: 1,
          strands: 2,
        },
      },
    })
    expect(check('anchor-pull', lower).need).toBeGreaterThan(check('anchor-pull').need!)
    const fewer = planFrame(field, { ...rowDesign, pattern: { ...row, levels: row.levels.slice(0, 1) } })
    expect(check('anchor-pull', fewer).need).toBeLessThan(check('anchor-pull').need!)
  })

  it('believes the drive log over the guess', () => {
    const drive = { depthAlongM: 1.1, angleFromVerticalRad: 0.7, reworks: 0, torqueNm: null, pullTestN: null }
    const drives = (rest: object) => new Map([[anchorId('anchor-left'), { ...drive, ...rest }]])
    const left = (rest: object) =>
      planFrame(field, rowDesign, { drives: drives(rest) }).checks.find(
        (c) => c.code === 'anchor-pull' && c.subject === 'A1',
      )!
    expect(left({ reworks: 3 }).holding![0]).toBeLessThan(left({}).holding![0])
    expect(left({ pullTestN: 3000 })).toMatchObject({ holding: [2000, 2000] })
    expect(left({}).assumptions).toContain('drive-as-logged')
  })

  it('tells how deep its line posts would have to go, and at that depth they hold', () => {
    for (const soil of ['sand', 'loam', 'clay'] as const) {
      const site = { ...field, conditions: { ...field.conditions, soil, windMPerS: 28 } }
      const { depthM } = check('post-sideways', planFrame(site, rowDesign)).advice
      const deep = { ...rowDesign, pattern: { ...row, postBuriedM: depthM! } }
      expect(check('post-sideways', planFrame(site, deep)).verdict).toBe('holds')
    }
  })

  it('tells how deep a free end post would have to go, and that it gives', () => {
    const light: RowPattern = { ...row, end: { kind: 'free' }, levels: row.levels.slice(0, 1) }
    const bare = { ...rowDesign, plantKindId: null, tensionN: 300 }
    const free = planFrame(field, { ...bare, pattern: light })
    const sideways = check('end-sideways', free)
    expect(sideways.advice.depthM).toBeGreaterThan(0.8)
    const deep = planFrame(field, { ...bare, pattern: { ...light, endBuriedM: sideways.advice.depthM! } })
    expect(check('end-sideways', deep).verdict).toBe('holds')
    expect(free.lines[0]!.endStiffnessNPerM).toBeGreaterThan(0)
    const rigid = planFrame(field, { ...bare, pattern: { ...light, end: row.end } })
    expect(free.lines[0]!.worst.tensionN).toBeLessThan(
      rigid.lines.find((line) => line.id === 'w0')!.worst.tensionN,
    )
  })
})

describe('a pot', () => {
  const spiral: Pattern = {
    kind: 'spiral',
    stakes: 3,
    circleRadiusM: 0.15,
    heightM: 1.4,
    buriedM: 0.25,
    startHeightM: 0.2,
    turns: 6,
    wrapsPerContact: 1,
    knotEvery: 3,
    knotAllowanceM: 0.05,
    winding: 'anticlockwise',
    top: 'ring',
    stakeStockId: 'cane-18',
    topStockId: 'rod-steel-6',
    pot: {
      shape: 'round',
      widthM: 0.4,
      heightM: 0.4,
      ballastKg: 0,
      drainageM: 0,
      hasCharcoal: false,
      isThere: false,
    },
  }
  const storm = { ...usualConditions, windMPerS: 40 }
  const tips = (widthM: number) =>
    planFrame(
      siteOf(1, 2, { surface: 'open', conditions: storm }),
      designOf({
        ...spiral,
        pot: {
          shape: 'round',
          widthM,
          heightM: 0.4,
          ballastKg: 0,
          drainageM: 0,
          hasCharcoal: false,
          isThere: false,
        },
      }),
    ).checks.find((c) => c.code === 'tub-tips')!

  it('stands harder winds the wider it is, and says what ballast would do', () => {
    expect(tips(0.6).holding![0]).toBeGreaterThan(tips(0.4).holding![0])
    expect(tips(0.4).advice.ballastKg).toBeGreaterThan(0)
  })

  it('is wound the way its kind twines, or it is said', () => {
    const wound = (plantKindId: string | null, pattern: Pattern = spiral) =>
      isWoundWrongly(designOf(pattern, { plantKindId }))
    expect(wound('hop')).toBe(true)
    expect(wound('hop', { ...spiral, winding: 'clockwise' })).toBe(false)
    expect(wound('pear')).toBeNull()
    expect(wound('hop', diamonds)).toBeNull()
  })
})

describe('an eye', () => {
  it('at the end of a wire holds its pull; in the middle of a straight one next to nothing', () => {
    const tiers: Pattern = { kind: 'tiers', levels: tierLevels(0.5), maxSupportSpacingM: 2 }
    const plan = planFrame(wall, designOf(tiers))
    const eye = plan.checks.find((c) => c.code === 'fixing-pull')!
    expect(['1', '6']).toContain(eye.subject)
    expect(eye.need).toBeGreaterThanOrEqual(plan.lines[0]!.worst.tensionN)
  })
})

describe('a shopping list', () => {
  const one = planFrame(
    wall,
    designOf(diamonds, { handlingLengthM: 10, rolls: [{ lengthM: 25, price: 14 }] }),
  )
  const two = planFrame(wall, designOf(diamonds, { handlingLengthM: 10, repeat: 2 }))
  const frames = [
    { name: 'A', plan: one },
    { name: 'B', plan: two },
  ]
  const eyes = (stores: Parameters<typeof shoppingList>[1]) =>
    shoppingList(frames, stores, standardCatalogue).lines.find((line) => line.item.what === 'fixing')!

  it('adds up all frames and takes off what is on hand, never below nothing', () => {
    expect(eyes([])).toMatchObject({ need: 108, onHand: 0, item: { quantity: 108 } })
    expect(eyes([{ what: 'fixing', refId: 'eye-100', lengthM: null, quantity: 30 }])).toMatchObject({
      item: { quantity: 78 },
    })
    expect(eyes([{ what: 'fixing', refId: 'eye-100', lengthM: null, quantity: 500 }])).toMatchObject({
      item: { quantity: 0, price: 0 },
    })
  })

  it('cuts every piece of every frame, from stores first', () => {
    const stores = [{ what: 'roll' as const, refId: 'stainless-2', lengthM: 21, quantity: 1 }]
    const [wire] = shoppingList(frames, stores, standardCatalogue).cut
    const fromStores = wire!.fromStores.flatMap((cut) => cut.cuts).length
    const fromRolls = wire!.cutting!.rolls.flatMap((roll) => roll.cuts).length
    expect(fromStores).toBeGreaterThan(0)
    expect(fromStores + fromRolls).toBe(3 * one.wires[0]!.stringing!.pieces.length)
    const without = shoppingList(frames, [], standardCatalogue)
    expect(shoppingList(frames, stores, standardCatalogue).cost).toBeLessThanOrEqual(without.cost)
  })
})
