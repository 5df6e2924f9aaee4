import { describe, expect, it } from 'vitest'
import { Wood, viewOf, wiresAt } from '../../../../test/training.ts'
import { polylineLengthM } from '../../../geometry/index.ts'
import { cautionsOf } from '../../index.ts'
import { ask, answer, codesOf } from '../../../../test/asking.ts'

describe('a climbing rose on level wires', () => {
  const wood = new Wood(0.1, '2026-02-10')
  const main = (id: string, lengthM: number, rest: object = {}) =>
    wood.stem(id, null, 0, [0.1, 0], lengthM, 8, { baseMm: 11, bends: 'pliable', ...rest })
  for (const lengthM of [4.1, 3.6, 2.9, 2.2]) main(`m${lengthM}`, lengthM)
  main('stiff', 3, { bends: 'stiff', side: 'front' })
  main('sick', 2.5, { health: 'sick' })
  main('short', 0.4)
  for (const n of [1, 2, 3]) main(`g${n}`, 1.5, { parent: { on: 'below-graft' } })
  wood.stem('lateral', 'm4.1', 1.5, [0.3, 1.5], 0.4, 70, { buds: 8, baseMm: 5 })
  const view = viewOf(wood, 'climbing-rose', wiresAt(6, 0.6, 1, 1.4, 1.8, 2.2))
  const question = ask('rose-level', view)
  const proposal = answer(question)
  const deed = (id: string) => proposal.chosen.get(id)!.deed

  it('lays the four mains on the four lower wires as far as they go', () => {
    const laid = ['m4.1', 'm3.6', 'm2.9', 'm2.2'].map((id) => proposal.chosen.get(id)!)
    expect(laid.map((one) => one.deed)).toEqual(['lay', 'lay', 'lay', 'lay'])
    expect(laid.map(({ wire }) => wire).sort()).toEqual([1, 2, 3, 4])
    // None is shortened for its own sake.
    for (const one of laid) expect(one.cutM).toBeNull()
  })

  it('names the fifth wire bare with what will fill it', () => {
    expect(proposal.remarks).toContainEqual(expect.objectContaining({ code: 'wire-bare', n: 5 }))
    expect(proposal.remarks).toContainEqual(
      expect.objectContaining({ code: 'fills-it', n: 5, pieceId: 'short' }),
    )
  })

  it('lets the short one wait with a day to look again, and takes the rest off, each with its reason', () => {
    expect(deed('short')).toBe('wait')
    expect(proposal.remarks.find(({ code }) => code === 'look-again')).toMatchObject({
      pieceId: 'short',
      on: '2026-09-15',
    })
    expect(['stiff', 'sick', 'g1', 'g2', 'g3'].map(deed)).toEqual(['off', 'off', 'off', 'off', 'off'])
    expect(codesOf(question, 'stiff')).toContain('stiff-forward')
    expect(codesOf(question, 'sick')).toContain('diseased')
    expect(codesOf(question, 'g1')).toContain('below-graft')
  })

  it('cuts laterals of what is laid back to a few buds, and warns of thorns and of springing canes', () => {
    expect(proposal.followUps).toContainEqual(
      expect.objectContaining({ pieceId: 'lateral', deed: 'spur', aboveBuds: 3 }),
    )
    expect(cautionsOf(view, proposal)).toEqual(expect.arrayContaining(['thorns', 'springing']))
  })

  it('fills a panel of 1.4 m to and fro where the bend allows, else says how far', () => {
    const narrow = (baseMm: number) => {
      const one = new Wood(0.1, '2026-02-10')
      one.stem('m', null, 0, [0.1, 0], 3.6, 8, { baseMm, bends: 'pliable' })
      return answer(ask('rose-level', viewOf(one, 'climbing-rose', wiresAt(1.4, 0.5, 0.9, 1.3, 1.7))))
    }
    const thin = narrow(11)
    expect(thin.chosen.get('m')!.deed).toBe('to-and-fro')
    expect(polylineLengthM(thin.chosen.get('m')!.path!)).toBeGreaterThan(3)
    const thick = narrow(24)
    expect(thick.chosen.get('m')!.deed).toBe('lay')
    expect(thick.remarks).toContainEqual(expect.objectContaining({ code: 'not-so-far' }))
  })

  it('spreads mains over the angles of a fan, each at its own', () => {
    const fan = answer(ask('rose-fan', view))
    const ids = [...fan.chosen.values()].filter((one) => one.deed === 'lay').map(({ id }) => id)
    expect(ids.length).toBeGreaterThanOrEqual(4)
    expect(new Set(ids).size).toBe(ids.length)
  })

  it('is led to and fro up a narrow panel, each turn counted, and what is longer than the panel is cut', () => {
    const narrow = (lengthM: number) => {
      const panel = new Wood(0.6, '2026-02-10')
      panel.stem('main', null, 0, [0.6, 0], lengthM, 0, { seasonsThen: 1, baseMm: 9, bends: 'pliable' })
      const view = viewOf(panel, 'climbing-rose', wiresAt(1.2, 0.5, 0.9, 1.3))
      const [candidate] = ask('rose-level', view).candidates
      return candidate!.options.filter(({ deed }) => deed === 'to-and-fro')
    }
    const long = narrow(9)
    expect(long.length).toBeGreaterThan(0)
    for (const one of long) {
      const alongM = polylineLengthM(one.path!)
      expect(one.cutM).toBeCloseTo(alongM, 9)
      expect(one.aboveBuds).toBe(one.buds)
    }
    const short = narrow(2)
    expect(short.length).toBeGreaterThan(0)
    for (const one of short) expect([one.cutM, one.aboveBuds]).toEqual([null, null])
    // The same way up costs more the more is lost at its end.
    const costOf = (options: typeof long, id: string) => options.find((one) => one.id === id)?.cost
    const id = short.find((one) => long.some((other) => other.id === one.id))!.id
    expect(costOf(long, id)!).toBeGreaterThan(costOf(short, id)!)
    expect(new Set(long.map((one) => one.id)).size).toBe(long.length)
  })
})
