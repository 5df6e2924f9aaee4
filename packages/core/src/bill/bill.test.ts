import { describe, expect, it } from 'vitest'
import { designOf, rowLevel, siteOf } from '../../test/frames.ts'
import { standardCatalogue } from '../catalogue/index.ts'
import type { GoodId } from '../catalogue/index.ts'
import { startDesign } from '../design/index.ts'
import type { FrameDesign, PlannedSite } from '../design/index.ts'
import { frameKinds, potSoilLitres } from '../frame/index.ts'
import { yearlyCare } from '../loads/index.ts'
import { planFrame } from '../plan/index.ts'
import { shoppingList } from '../shopping/index.ts'

const boughtOf = (site: PlannedSite, design: FrameDesign) => {
  const items = planFrame(site, design).takeOff!.items
  return (id: GoodId) =>
    items.reduce((sum, item) => sum + (item.what === 'good' && item.goodId === id ? item.quantity : 0), 0)
}
const field = siteOf(48, 2, { surface: 'open' })
const row = startDesign(
  { kind: 'row', widthM: 48, usableHeightM: 2, firstForkM: 0 },
  'row',
  standardCatalogue,
)
const pattern = row.pattern as Extract<FrameDesign['pattern'], { kind: 'row' }>

describe('the bill of a row', () => {
  it('has its water: pipe as long as the row, and a head that filters, regulates and shuts', () => {
    const wet = boughtOf(field, { ...row, pattern: { ...pattern, waterHeightM: 0.5 } })
    expect(wet('water-pipe')).toBeGreaterThanOrEqual(48)
    expect(wet('water-pipe')).toBeLessThan(52)
    for (const good of ['riser', 'water-filter', 'pressure-regulator', 'valve'] as const)
      expect(wet(good)).toBe(1)
    const dry = boughtOf(field, { ...row, pattern: { ...pattern, waterHeightM: null } })
    expect(dry('water-pipe') + dry('valve')).toBe(0)
  })

  it('clips wires to posts of steel and staples them to wood', () => {
    const steel = boughtOf(field, { ...row, pattern: { ...pattern, postStockId: 'post-steel-48' } })
    const wood = boughtOf(field, row)
    expect([steel('staple'), wood('post-clip')]).toEqual([0, 0])
    expect(steel('post-clip')).toBe(wood('staple'))
  })

  it('has one adapter for the auger where there are many screws, for all rows together', () => {
    const adapters = (repeat: number) => boughtOf(field, { ...row, repeat })('drive-adapter')
    expect(adapters(1)).toBe(0)
    expect(adapters(40)).toBe(1)
  })
})

describe('the bill of a pot', () => {
  it('fills it once: drainage, charcoal, soil and what the frame takes up come to its volume', () => {
    const tub = siteOf(0.65, 2.4, { surface: 'open' })
    const begun = frameKinds.column.start({ kind: 'tub', widthM: 0.65, usableHeightM: 2.4, firstForkM: 0 })
    const of = { ...begun.tub, drainageM: 0.05, hasCharcoal: true }
    const { frame } = planFrame(tub, designOf({ ...begun, tub: of }))
    const litres = frame!.fills.reduce((sum, { litres: each }) => sum + each, 0)
    const columnLitres = (Math.PI / 4) * 0.0483 ** 2 * (of.heightM - 0.025) * 1000
    expect(litres + columnLitres).toBeCloseTo(potSoilLitres(of), 6)
    const twelve = boughtOf(tub, designOf({ ...begun, tub: of }, { repeat: 12 }))
    expect(twelve('soil')).toBeGreaterThan(12 * 60)
    expect(twelve('tub')).toBe(12)
    expect(twelve('padding')).toBeGreaterThan(0)
  })
})

describe('a year with a row', () => {
  const levels = (form: 'single' | 'pair', liftM: number) => [
    rowLevel(0, 0.9),
    rowLevel(1, 1.2, { role: 'foliage', form, liftM }),
    rowLevel(2, 1.5, { role: 'foliage', form, liftM: 0 }),
  ]
  const careOf = (form: 'single' | 'pair', liftM: number) => {
    const design = { ...row, pattern: { ...pattern, levels: levels(form, liftM) } }
    return yearlyCare(planFrame(field, design).frame!, design, undefined)
  }
  it('asks for ties at single wires, tucking at pairs, lifting at pairs that move', () => {
    const [single, pair, lifted] = [careOf('single', 0), careOf('pair', 0), careOf('pair', 0.3)]
    expect(single.ties).toBeGreaterThan(pair.ties)
    expect([single.tuckMinutes, single.liftMinutes, pair.liftMinutes]).toEqual([0, 0, 0])
    expect(pair.tuckMinutes).toBeGreaterThan(lifted.tuckMinutes)
    expect(lifted.liftMinutes).toBeGreaterThan(0)
  })

  it('under a net asks for no ties', () => {
    const net = frameKinds.net.start({ kind: 'bed', widthM: 28, usableHeightM: 2.6, firstForkM: 0 })
    const design = designOf(net, { wireId: 'high-tensile-2.5' })
    const { frame } = planFrame(siteOf(28, 2.6, { surface: 'open' }), design)
    expect(yearlyCare(frame!, design, undefined).ties).toBe(0)
  })
})

it('tools that frames share are bought once for all of them', () => {
  const plan = planFrame(field, { ...row, repeat: 40 })
  const list = shoppingList(
    ['north', 'south'].map((name) => ({ name, plan })),
    [],
    standardCatalogue,
  )
  const bought = (id: GoodId) =>
    list.lines.find(({ item }) => item.what === 'good' && item.goodId === id)!.item.quantity
  expect(bought('drive-adapter')).toBe(1)
  expect(bought('staple')).toBe(2 * boughtOf(field, { ...row, repeat: 40 })('staple'))
})
