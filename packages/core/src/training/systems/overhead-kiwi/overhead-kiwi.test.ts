import { describe, expect, it } from 'vitest'
import { options, siteOf } from '../../../../test/frames.ts'
import { Life } from '../../../../test/life.ts'
import { frameKinds, makeFrame } from '../../../frame/index.ts'
import type { Pattern } from '../../../frame/index.ts'
import { at3, inSpace } from '../../../geometry/index.ts'
import { findSystem } from '../../index.ts'

const frame = makeFrame(
  siteOf(6, 2.4, { surface: 'open' }),
  {
    ...frameKinds.overhead.start({ kind: 'row', widthM: 6, usableHeightM: 2.4, firstForkM: 0 } as never),
    depthM: 3,
    wireSpacingM: 0.5,
    maxBayM: 3,
  } as Pattern,
  options,
)
/** A female at the middle front post of a pergola of 6 × 3 m under seven wires. */
const kiwi = () =>
  new Life(
    'overhead-arms',
    {
      id: 'p',
      kindId: 'hardy-kiwi',
      xM: 3,
      footYM: 0,
      footZM: 0,
      plantedOn: '2020-03-01',
      graftHeightM: null,
    },
    [{ frameId: 'f', frame }],
    6,
  )
const system = findSystem('overhead-arms')!
const WINTER = '2027-01-20'
const chosenAs = (life: Life, code: string, on = WINTER) =>
  Object.fromEntries([...life.do(on, code).chosen].map(([id, one]) => [id, one.id]))

describe('a kiwi under seven wires', () => {
  it('is led along the middle wire first, then along the others from the front to the back', () => {
    const depths = system.tracks!(kiwi().viewOn(WINTER)).map(({ way }) => way[0]!.zM)
    expect(depths).toHaveLength(7)
    expect(depths[0]).toBeCloseTo(1.5, 9)
    expect(depths.slice(1)).toEqual([...depths.slice(1)].sort((a, b) => a - b))
  })

  it('sends its best shoot up the post and over to the middle wire', () => {
    const life = kiwi()
    const up = (xM: number, lengthM: number) => [
      { on: 'free' as const, points: [at3(xM, 0), at3(xM, lengthM)] },
    ]
    life.grow('2026-07-01', 'long', null, up(3, 4.5), { baseMm: 12 })
    life.grow('2026-07-01', 'thin', null, up(3.05, 1.2), { baseMm: 5 })
    expect(life.asked(WINTER)).toEqual(['arms'])
    const short = kiwi()
    short.grow('2026-07-01', 'a', null, up(3, 2), { baseMm: 12 })
    short.grow('2026-07-01', 'b', null, up(3.05, 1.2), { baseMm: 5 })
    expect(chosenAs(short, 'leader')).toEqual({ a: 'lead', b: 'off' })
    // It is tied to its post, as far as it goes.
    const trunk = short.viewOn(WINTER).stem('a')!
    expect(trunk.piece.led[0]!.part.on).toBe('member')
    expect(trunk.lengthM).toBeCloseTo(2, 6)
  })

  it('lays two canes from the head along the middle wire, one each way', () => {
    const life = kiwi()
    life.plantAs('2025-12-01', 1)
    const headM = life.viewOn(WINTER).stem('trunk')!.lengthM
    const head = inSpace(life.lineOf(WINTER, 'trunk').at(-1)!)
    const shoot = (id: string, dx: number, lengthM: number) =>
      life.grow(
        '2026-07-01',
        id,
        { pieceId: 'trunk', alongM: headM },
        [{ on: 'free', points: [head, at3(head.xM + dx, head.yM + lengthM, head.zM)] }],
        { baseMm: 10 },
      )
    shoot('l', -0.3, 2)
    shoot('r', 0.3, 2.2)
    shoot('spare', 0.1, 1)
    expect(chosenAs(life, 'arms')).toEqual({ l: 'arm-left', r: 'arm-right', spare: 'off' })
    for (const [id, sign] of [
      ['l', -1],
      ['r', 1],
    ] as const) {
      const tip = inSpace(life.lineOf(WINTER, id).at(-1)!)
      expect(tip.zM).toBeCloseTo(1.5, 6)
      expect((tip.xM - head.xM) * sign).toBeGreaterThan(1.9)
      expect(life.viewOn(WINTER).stem(id)!.piece.led.at(-1)!.part.on).toBe('line')
    }
    expect(life.asked('2028-01-20')).not.toContain('arms')
  })

  it('keeps its arms, and lays young laterals across the wires in place of those that fruited three times', () => {
    const life = kiwi()
    life.plantAs('2022-12-01', 4)
    for (const year of [2023, 2024, 2025, 2026, 2027, 2028, 2029, 2030]) {
      // Each lateral makes one new cane at its base in summer, to its own side.
      const before = life.viewOn(`${year}-07-01`)
      for (const stem of before.stems) {
        const { parent, base, tip } = stem
        if (!parent?.id.startsWith('arm') || stem.age < 1) continue
        const at = inSpace(base)
        const sign = Math.sign((tip.zM ?? 0) - at.zM) || 1
        life.grow(
          `${year}-07-02`,
          `${stem.id}+${year}`,
          { pieceId: parent.id, alongM: stem.alongM + 0.02 },
          [{ on: 'free', points: [at, at3(at.xM, at.yM + 1, at.zM + sign * 1.4)] }],
          { baseMm: 10 },
        )
      }
      const on = `${year + 1}-01-20`
      expect(life.asked(on)).toEqual(['laterals'])
      const found = life.do(on, 'laterals')
      const after = life.viewOn(on)
      expect(after.stem('arm-left')).toBeDefined()
      expect(after.stem('arm-right')).toBeDefined()
      const laterals = after.stems.filter(
        ({ parent, lengthM }) => parent?.id.startsWith('arm') && lengthM > 0.5,
      )
      // Both arms are as full as they were, and nothing old stays where something young could take its place.
      expect(found.bareM).toBeLessThan(2)
      expect(laterals.length).toBeGreaterThan(10)
      expect(Math.max(...laterals.map(({ age }) => age))).toBeLessThanOrEqual(4)
      for (const { id } of laterals.filter(({ age, piece }) => age === 1 && piece.led.length === 0)) {
        const line = life.lineOf(on, id)
        const overM = Math.abs((line.at(-1)!.zM ?? 0) - 1.5)
        if (found.chosen.get(id)?.deed === 'lay') expect(overM).toBeGreaterThan(1)
      }
    }
  })

  it('asks nothing on a wall without wires overhead, and leaves the last lateral of a place where it is', () => {
    const life = kiwi()
    life.plantAs('2018-12-01', 4)
    // Eight winters on nothing young has grown: what is old is better than a bare wire.
    const found = life.do(WINTER, 'laterals')
    expect([...found.chosen.values()].filter(({ deed }) => deed === 'off').length).toBeLessThan(
      found.chosen.size / 2,
    )
    const bare = new Life('overhead-arms', life.plant, [], 6)
    expect(bare.asked(WINTER)).toEqual([])
  })
})
