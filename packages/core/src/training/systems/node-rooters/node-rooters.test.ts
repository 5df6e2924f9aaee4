import { describe, expect, it } from 'vitest'
import { options, siteOf } from '../../../../test/frames.ts'
import { Life } from '../../../../test/life.ts'
import { frameKinds, makeFrame } from '../../../frame/index.ts'
import type { Pattern } from '../../../frame/index.ts'
import { pathLengthM } from '../../../geometry/index.ts'
import { findSystem } from '../../index.ts'
import { propose, isRefused } from '../../index.ts'

const frame = makeFrame(
  siteOf(0.6, 1.6, { surface: 'open' }),
  {
    ...frameKinds.pole.start({ kind: 'bench', widthM: 0.6, usableHeightM: 1.6, firstForkM: 0 } as never),
    heightM: 1.1,
  } as Pattern,
  options,
)
const soilM = frame.plants[0]!.at.yM
const system = findSystem('growing-pole')!
/** An aroid in its pot, on a pole of 1.10 m above the soil. */
const aroid = () =>
  new Life(
    'growing-pole',
    {
      id: 'p',
      kindId: 'satin-pothos',
      xM: frame.plants[0]!.at.xM,
      footYM: soilM,
      plantedOn: '2025-03-01',
      graftHeightM: null,
    },
    [{ frameId: 'f', frame }],
    0.6,
  )
const ON = '2026-04-01'
/** So long a stem, led as the system leads it. */
function stemOf(lengthM: number, on = '2026-01-10'): Life {
  const life = aroid()
  const way = system.leads!(life.viewOn(on), { lengthM, side: null, under: null, alongM: 0 })!
  life.grow(on, 'stem', null, way, { seasonsOld: 1, baseMm: 6 })
  return life
}
const count = (life: Life, on: string, nodes: number, rooted: number) =>
  life.write('piece.nodes', on, { v: 1, pieceId: 'stem', nodes, rooted })
const remarksOf = (life: Life, code: string, asked?: string) => {
  const question = life.ask(ON, code)
  const found = propose(question, asked ? new Map([['stem', asked]]) : new Map())
  if (isRefused(found)) throw new Error('refused')
  return found.remarks
}

describe('an aroid on its pole', () => {
  it('goes from its pot to the pole and straight up it, as long as it is', () => {
    const stem = stemOf(0.6).viewOn(ON).stem('stem')!
    expect(stem.lengthM).toBeCloseTo(0.6, 6)
    expect(stem.piece.led).toHaveLength(1)
    expect(stem.piece.led[0]!.part.on).toBe('member')
    expect(pathLengthM(stem.piece.path)).toBeCloseTo(0.6, 6)
  })

  it('asks for more pole before its tip is there, by the pace that was counted', () => {
    // Wanted: 5 cm below the top with a leaf every 12 days and a node every 5.5 cm: it must be longer now.
    const near = stemOf(1.05)
    count(near, '2026-01-10', 17, 12)
    count(near, ON, 19 + 4, 14)
    expect(near.asked(ON)).toEqual(['top', 'divide'])
    expect(remarksOf(near, 'top').map(({ code }) => code)).toEqual(['extend-now', 'rate-counted'])
    const later = stemOf(0.8)
    count(later, '2026-01-10', 10, 6)
    count(later, ON, 16, 9)
    const [by, rate] = remarksOf(later, 'top')
    // Counted: six nodes in 81 days; 30 cm at 5 cm a node are six nodes, of which two stay ahead: four nodes of 13.5 days.
    expect(rate).toMatchObject({ code: 'rate-counted', n: 14 })
    expect(by!.code).toBe('extend-by')
    expect(by!.on! >= '2026-05-20' && by!.on! <= '2026-05-30').toBe(true)
    // Nothing is asked of a stem that has the pole before it.
    expect(stemOf(0.4).asked(ON)).toEqual(['divide'])
  })

  it('is cut at the top only where roots stay below, and stays whole unless one wants it otherwise', () => {
    const few = stemOf(1.05)
    count(few, ON, 8, 3)
    expect(few.ask(ON, 'top').candidates[0]!.options.map(({ id }) => id)).toEqual(['extend'])
    const well = stemOf(1.05)
    count(well, ON, 8, 6)
    const cut = well.ask(ON, 'top').candidates[0]!.options.find(({ id }) => id === 'top-cut')!
    // Four nodes with roots stay: the cut is half way between the fourth and the fifth.
    expect(cut.cutM).toBeCloseTo((1.05 / 8) * 4.5, 6)
    const plain = propose(well.ask(ON, 'divide'))
    expect(isRefused(plain) ? null : plain.chosen.get('stem')!.id).toBe('whole')
  })

  it('of eight nodes, six of them with roots, is divided into three, each with two that have roots', () => {
    const life = stemOf(0.8)
    count(life, ON, 8, 6)
    const options = life.ask(ON, 'divide').candidates[0]!.options.map(({ id }) => id)
    expect(options).toEqual(['whole', 'parts-2', 'parts-3'])
    const told = remarksOf(life, 'divide', 'parts-3')
    expect(told.filter(({ code }) => code === 'cut-place').map(({ figure }) => figure)).toEqual([
      expect.closeTo(0.25, 6),
      expect.closeTo(0.45, 6),
    ])
    expect(told.at(-1)).toMatchObject({ code: 'makes-parts', n: 3 })
    // What stays on the pole is the lowest part; a count of before the cut says nothing of it any more.
    life.do(ON, 'divide', new Map([['stem', 'parts-3']]))
    expect(life.viewOn(ON).stem('stem')!.lengthM).toBeCloseTo(0.25, 6)
    const uncounted = stemOf(0.8)
    expect(remarksOf(uncounted, 'divide').map(({ code }) => code)).toEqual(['count-first'])
  })

  it('goes on growing from its tip and is asked again the year after', () => {
    const life = stemOf(0.9)
    count(life, ON, 15, 10)
    life.do(ON, 'top', new Map([['stem', 'top-cut']]))
    const left = life.viewOn(ON).stem('stem')!
    expect(left.lengthM).toBeLessThan(0.6)
    expect(life.asked(ON)).toEqual(['divide'])
    const top = left.piece.path.at(-1)!
    life.write('piece.extended', '2027-03-01', {
      v: 1,
      pieceId: 'stem',
      path: [
        { xM: top.xM, yM: top.yM },
        { xM: top.xM, yM: top.yM + 0.4 },
      ],
    })
    expect(life.asked('2027-04-01')).toContain('top')
  })
})
