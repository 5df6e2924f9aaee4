import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { answer, ask, codesOf, deedsOf } from '../../../../test/asking.ts'
import { plantOf } from '../../../../test/plants-of-systems.ts'
import { runs } from '../../../../test/runs.ts'
import { Wood, viewOf, wiresAt } from '../../../../test/training.ts'
import { findSystem, openQuestions } from '../../index.ts'
import type { PlantView } from '../../index.ts'

const system = findSystem('yearling-fan')!
const wires = wiresAt(4, 0.4, 0.7, 1, 1.3, 1.6, 1.9)
const seen = (wood: Wood) => viewOf(wood, 'peach', wires, { on: wood.on })
const asks = (view: PlantView) => openQuestions(system, view).map(({ code }) => code)

/** A trunk of 40 cm with a rib of 1.2 m to each side, six seasons old. */
function fan(on: string): Wood {
  const wood = new Wood(2, on)
  wood.stem('trunk', null, 0, [2, 0], 0.4, 0, { seasonsThen: 6, baseMm: 40, calledRole: 'trunk' })
  wood.stem('left', 'trunk', 0.4, [2, 0.4], 1.2, -60, { seasonsThen: 5, baseMm: 22 })
  wood.stem('right', 'trunk', 0.4, [2, 0.4], 1.2, 60, { seasonsThen: 5, baseMm: 22 })
  return wood
}
/** A shoot so far along a rib, upward or downward from it. */
function shoot(
  wood: Wood,
  id: string,
  rib: 'left' | 'right',
  alongM: number,
  up: boolean,
  rest: object = {},
): void {
  const sign = rib === 'left' ? -1 : 1
  const angle = (60 * Math.PI) / 180
  const at = [2 + sign * Math.sin(angle) * alongM, 0.4 + Math.cos(angle) * alongM] as const
  wood.stem(id, rib, alongM, at, 0.4, sign * (up ? 20 : 100), { seasonsThen: 1, baseMm: 6, ...rest })
}
const childOf = (wood: Wood, id: string, on: string, alongM: number, rest: object = {}) => {
  const { path } = wood.pieces.get(on)!
  wood.stem(id, on, alongM, [path[0]!.xM, path[0]!.yM + alongM], 0.3, 5, {
    seasonsThen: 0,
    baseMm: 4,
    ...rest,
  })
}

describe('a peach as a fan', () => {
  it('is asked nothing in winter, and each of its questions at its own stage', () => {
    const codes = (on: string) => {
      const wood = fan(on)
      shoot(wood, 'a', 'left', 0.3, true)
      childOf(wood, 'a-new', 'a', 0.03)
      return asks(seen(wood))
    }
    expect(codes('2026-01-15')).toEqual([])
    expect(codes('2026-03-25')).toEqual(['fruiting'])
    expect(codes('2026-05-25')).toEqual(['disbud'])
    expect(codes('2026-08-25')).toEqual(['renewal'])
    expect(codes('2026-11-01')).toEqual([])
  })

  it('keeps a shoot every hand’s breadth on both sides of a rib, none at the wall and none straight out', () => {
    const wood = fan('2026-03-25')
    for (let i = 0; i < 11; i++) shoot(wood, `up${i}`, 'left', 0.15 + 0.1 * i, true)
    shoot(wood, 'down', 'left', 0.5, false)
    shoot(wood, 'wall', 'right', 0.3, true, { side: 'back' })
    shoot(wood, 'out', 'right', 0.5, true, { side: 'front' })
    const question = ask('yearling-fan', seen(wood))
    const deeds = deedsOf(answer(question))
    const kept = Object.keys(deeds).filter((id) => id.startsWith('up') && deeds[id] === 'keep')
    expect(kept.length).toBeGreaterThanOrEqual(6)
    expect(kept.length).toBeLessThanOrEqual(9)
    expect(deeds).toMatchObject({ down: 'keep', wall: 'off', out: 'off' })
    expect(codesOf(question, 'out')).toContain('faces-out')
  })

  it('keeps at each fruiting shoot its replacement, a spare and its tip in spring', () => {
    const wood = fan('2026-05-25')
    shoot(wood, 'a', 'left', 0.3, true)
    for (const [id, alongM] of [
      ['base', 0.02],
      ['spare', 0.08],
      ['mid', 0.15],
      ['mid2', 0.2],
      ['tip', 0.39],
    ] as const)
      childOf(wood, id, 'a', alongM)
    childOf(wood, 'wall', 'a', 0.01, { side: 'back' })
    const question = ask('yearling-fan', seen(wood))
    expect(deedsOf(answer(question))).toEqual({
      base: 'keep',
      spare: 'keep',
      mid: 'off',
      mid2: 'off',
      tip: 'keep',
      wall: 'off',
    })
    expect(codesOf(question, 'base')).toContain('replacement')
  })

  it('cuts what has fruited back to the new shoot at its base; what has none is left and told', () => {
    const wood = fan('2026-08-25')
    shoot(wood, 'good', 'left', 0.3, true)
    childOf(wood, 'next', 'good', 0.03)
    shoot(wood, 'high', 'left', 0.6, true)
    childOf(wood, 'far', 'high', 0.3)
    shoot(wood, 'bare', 'right', 0.4, true)
    const question = ask('yearling-fan', seen(wood))
    const found = answer(question)
    expect(deedsOf(found)).toEqual({ good: 'cut', high: 'cut', bare: 'wait' })
    expect(found.chosen.get('good')!.cutM).toBeCloseTo(0.04, 6)
    expect(found.chosen.get('high')!.cutM).toBeCloseTo(0.31, 6)
    expect(found.remarks.map(({ code, pieceId }) => [code, pieceId]).sort()).toEqual([
      ['no-replacement', 'bare'],
      ['no-replacement', 'high'],
    ])
  })

  it('cuts nothing back while its summer has not been entered', () => {
    const wood = fan('2026-08-25')
    shoot(wood, 'a', 'left', 0.3, true)
    shoot(wood, 'b', 'right', 0.3, true)
    const question = ask('yearling-fan', seen(wood))
    const found = answer(question)
    expect(deedsOf(found)).toEqual({ a: 'wait', b: 'wait' })
    expect(found.remarks.map(({ code }) => code)).toEqual(['enter-new'])
    expect(codesOf(question, 'a')).toEqual(['summer-unknown'])
  })

  it('is given its first two ribs in its first June, one each way at half a right angle', () => {
    const wood = new Wood(2, '2026-06-05')
    wood.stem('trunk', null, 0, [2, 0], 0.45, 0, { seasonsThen: 2, baseMm: 14, calledRole: 'trunk' })
    for (const [id, lean, mm] of [
      ['l', -30, 7],
      ['r', 35, 7],
      ['thin', 40, 3],
      ['out', 10, 7],
    ] as const)
      wood.stem(id, 'trunk', 0.4, [2, 0.4], 0.5, lean, {
        seasonsThen: 0,
        baseMm: mm,
        ...(id === 'out' ? { side: 'front' } : {}),
      })
    const found = answer(ask('yearling-fan', seen(wood)))
    expect(deedsOf(found)).toEqual({ l: 'lay', r: 'lay', thin: 'off', out: 'off' })
    for (const id of ['l', 'r']) {
      const [base, tip] = found.chosen.get(id)!.path!
      expect(Math.abs(tip!.xM - base!.xM)).toBeCloseTo(tip!.yM - base!.yM, 6)
    }
    expect(found.remarks.map(({ code }) => code)).toEqual(['held-at-45'])
  })

  it('says of the barest rib alone how far back it may be cut', () => {
    const wood = fan('2026-03-25')
    shoot(wood, 'l', 'left', 0.7, true)
    shoot(wood, 'r', 'right', 1, true)
    expect(answer(ask('yearling-fan', seen(wood))).remarks).toEqual([
      expect.objectContaining({ code: 'rib-bare', side: 'right', figure: 1 }),
    ])
  })

  it('never loses its last living shoot, whatever stands on it, at any stage', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9 }),
        fc.nat(1000),
        fc.constantFrom('03', '05', '08'),
        (years, seed, month) => {
          const view = plantOf({ system, kindId: 'peach', years, on: `2026-${month}-25`, seed })
          for (const question of openQuestions(system, view)) {
            const { chosen } = answer(question)
            const sound = question.candidates.filter(
              ({ judgements }) => !judgements.some(({ tone }) => tone === 'bars'),
            )
            if (sound.length === 0) continue
            expect(sound.some(({ pieceId }) => chosen.get(pieceId)!.deed !== 'off')).toBe(true)
          }
        },
      ),
      { numRuns: runs(60) },
    )
  })
})
