import { describe, expect, it } from 'vitest'
import { Wood, viewOf, wiresAt } from '../../../../test/training.ts'
import { findSystem } from '../../index.ts'
import { ask, answer, codesOf } from '../../../../test/asking.ts'

describe('a level espalier', () => {
  const grown = (heights: readonly number[]) => {
    const wood = new Wood(2, '2026-02-10')
    wood.stem('trunk', null, 0, [2, 0], 1.06, 0, { seasonsThen: 4, baseMm: 30, calledRole: 'trunk' })
    wood.stem('a3l', 'trunk', 1.04, [2, 1.04], 0.6, -45, { seasonsThen: 1, baseMm: 8, calledRole: 'arm' })
    wood.stem('a3r', 'trunk', 1.05, [2, 1.05], 0.6, 45, { seasonsThen: 1, baseMm: 8, calledRole: 'arm' })
    wood.stem('leader', 'trunk', 1.06, [2, 1.06], 1.4, 2, { baseMm: 10, buds: 35 })
    wood.stem('leaning', 'trunk', 1.06, [2, 1.06], 1.2, 25, { baseMm: 9, buds: 30 })
    return viewOf(wood, 'pear', wiresAt(4, ...heights))
  }
  const view = grown([0.35, 0.7, 1.05, 1.4])
  const question = ask('level-tiers', view)
  const proposal = answer(question)

  it('cuts the straight leader above the bud at the fourth wire, with two below it for the arms', () => {
    expect(proposal.chosen.get('leader')).toMatchObject({ deed: 'cut', aboveBuds: 9, wire: 4 })
    expect(proposal.chosen.get('leader')!.cutM!).toBeCloseTo(0.37, 2)
    expect(proposal.chosen.get('leaning')!.deed).toBe('off')
    expect(codesOf(question, 'leaning')).toContain('leans')
    expect(proposal.remarks).toContainEqual(expect.objectContaining({ code: 'arms-at-45', n: 4 }))
  })

  it('lowers the arms of last summer, which stood at 45°, to their wire', () => {
    const lowered = proposal.followUps.filter(({ deed }) => deed === 'lower')
    expect(lowered.map(({ pieceId }) => pieceId).sort()).toEqual(['a3l', 'a3r'])
    for (const { path } of lowered) expect(path!.at(-1)!.yM).toBeCloseTo(1.05, 6)
  })

  it('keeps a leader that is short of its wire, and asks again when it has grown on past it', () => {
    const waiting = (lengthM: number, seasonsThen: number) => {
      const wood = new Wood(2, '2026-02-10')
      wood.stem('trunk', null, 0, [2, 0], 0.36, 0, { seasonsThen: 4, baseMm: 20, calledRole: 'trunk' })
      wood.stem('leader', 'trunk', 0.36, [2, 0.36], lengthM, 2, { seasonsThen, calledRole: 'trunk' })
      return ask('level-tiers', viewOf(wood, 'pear', wiresAt(4, 0.35, 0.7)))
    }
    const short = waiting(0.22, 1)
    expect(codesOf(short, 'leader')).toContain('did-not-reach')
    expect(answer(short).chosen.get('leader')).toMatchObject({ deed: 'keep' })
    expect(answer(waiting(1, 2)).chosen.get('leader')).toMatchObject({ deed: 'cut', wire: 2 })
  })

  it('asks for one more wire where there is a tier more than wires', () => {
    const { remarks } = answer(ask('level-tiers', grown([0.35, 0.7, 1.05])))
    expect(remarks).toContainEqual(expect.objectContaining({ code: 'tier-without-wire', n: 4 }))
    expect(remarks.find(({ code }) => code === 'tier-without-wire')!.figure).toBeCloseTo(1.4, 6)
  })

  it('holds arms at 45° in summer and lowers them at leaf fall', () => {
    const codes = (on: string) =>
      findSystem('level-tiers')!
        .tasks(viewOf(Object.assign(new Wood(2, on)), 'pear', wiresAt(4, 0.35)))
        .map(({ code }) => code)
    expect(codes('2026-07-10')).toContain('hold-arms-at-45')
    expect(codes('2026-11-01')).toContain('arms-to-level')
  })
})
