import { describe, expect, it } from 'vitest'
import { Wood, viewOf, wiresAt } from '../../../../test/training.ts'
import { cropForecast } from '../../../budget/index.ts'
import { findSystem, isRefused, openQuestions, propose, whyNot } from '../../index.ts'
import type { PlantView, Proposal } from '../../index.ts'
import { ask, answer, deedsOf, codesOf } from '../../../../test/asking.ts'

/** Head at 80 cm, one wire at 90, 1.10 m to fill each way, and the stubs of last year's canes. */
function headed(): Wood {
  const wood = new Wood(1.1, '2026-02-01')
  wood.stem('trunk', null, 0, [1.1, 0], 0.8, 0, { seasonsThen: 8, baseMm: 40, calledRole: 'trunk' })
  wood.stem('stub-l', 'trunk', 0.8, [1.1, 0.8], 0.12, -80, { seasonsThen: 2, baseMm: 14 })
  wood.stem('stub-r', 'trunk', 0.8, [1.1, 0.8], 0.12, 80, { seasonsThen: 2, baseMm: 14 })
  return wood
}
const plain24 = { by: 'plain', aim: 24, min: 20, max: 28 } as const

describe('cane pruning', () => {
  const wood = headed()
  wood.stem('l7', 'stub-l', 0.04, [1.06, 0.81], 0.3, -10, { baseMm: 7, buds: 3 })
  wood.stem('l9', 'stub-l', 0.07, [1.03, 0.81], 1.3, -10, { baseMm: 9, buds: 16, light: 'well-lit' })
  wood.stem('r14', 'stub-r', 0.03, [1.13, 0.81], 1.8, 10, { baseMm: 14, buds: 15 })
  wood.stem('r8', 'stub-r', 0.06, [1.16, 0.81], 1.2, 10, { baseMm: 8, buds: 15 })
  wood.stem('t9', 'trunk', 0.4, [1.1, 0.4], 1.2, 20, { baseMm: 9, buds: 15 })
  wood.stem('g10', null, 0, [1.1, 0.02], 1, 15, { baseMm: 10, buds: 12, parent: { on: 'below-graft' } })
  const view = viewOf(wood, 'wine-grape', wiresAt(2.2, 0.9), { goal: plain24 })
  const question = ask('cane-two', view)
  const proposal = answer(question)

  it('lays the good cane of each side, and keeps the one nearer the head as its renewal', () => {
    expect(deedsOf(proposal)).toEqual({
      l7: 'spur',
      l9: 'lay',
      r14: 'spur',
      r8: 'lay',
      t9: 'off',
      g10: 'off',
    })
    expect(proposal.chosen.get('l7')).toMatchObject({ aboveBuds: 2 })
    expect(proposal.chosen.get('r14')).toMatchObject({ aboveBuds: 2 })
    expect(proposal.isProven).toBe(true)
    expect(proposal.bareM).toBeLessThan(0.15)
    for (const id of ['l9', 'r8']) {
      const end = proposal.chosen.get(id)!.path!.at(-1)!
      expect(Math.abs(end.xM - 1.1)).toBeGreaterThan(1.0)
      expect(end.yM).toBeCloseTo(0.9, 6)
    }
    expect(question.buds).toMatchObject({ min: 20, max: 28 })
  })

  it('says of each what speaks for and against it', () => {
    expect(codesOf(question, 'l9')).toContain('pencil-thick')
    expect(codesOf(question, 'l9')).toContain('well-lit')
    expect(codesOf(question, 'r14')).toContain('thick-long-joints')
    expect(codesOf(question, 't9')).toContain('from-trunk')
    expect(codesOf(question, 'g10')).toContain('below-graft')
  })

  it('answers why not the thick one: what goes instead and what it is worse by', () => {
    const lay = question.candidates
      .find(({ pieceId }) => pieceId === 'r14')!
      .options.find(({ deed }) => deed === 'lay')!
    const why = whyNot(question, proposal, new Map(), 'r14', lay.id)
    if (isRefused(why)) throw new Error('refused')
    expect(why.worseBy).toBeGreaterThan(0)
    expect(why.others.map(({ candidate }) => candidate.pieceId)).toContain('r8')
  })

  it("keeps the trunk's cane as a renewal only where that is asked for", () => {
    const asked = answer(question, new Map([['t9', 'spur']]))
    expect(asked.chosen.get('t9')!.deed).toBe('spur')
  })

  it('cuts the stubs beyond what is kept on them', () => {
    expect(proposal.followUps.map(({ pieceId, deed }) => [pieceId, deed]).sort()).toEqual([
      ['stub-l', 'cut'],
      ['stub-r', 'cut'],
    ])
    for (const one of proposal.followUps) expect(one.cutM!).toBeLessThan(0.1)
  })

  it('finds again in winter what was marked in summer, and holds to it where two are alike', () => {
    const marked = headed()
    marked.stem('near', 'stub-l', 0.03, [1.07, 0.81], 1, -10, { baseMm: 8, buds: 12 })
    marked.stem('plain', 'stub-l', 0.07, [1.03, 0.81], 1.3, -10, { baseMm: 9, buds: 16 })
    marked.stem('meant', 'stub-l', 0.07, [1.03, 0.81], 1.3, -12, { baseMm: 9, buds: 16, meantFor: 'cane' })
    const asked = ask('cane-two', viewOf(marked, 'wine-grape', wiresAt(2.2, 0.9), { goal: plain24 }))
    expect(codesOf(asked, 'meant')).toContain('meant-for')
    const { chosen } = answer(asked)
    expect(chosen.get('meant')!.deed).toBe('lay')
    expect(chosen.get('plain')!.towards).not.toBe(chosen.get('meant')!.towards)
  })

  it('says which renewal is missing where nothing stands nearer the head', () => {
    const bare = headed()
    bare.stem('l9', 'stub-l', 0.03, [1.07, 0.81], 1.3, -10, { baseMm: 9, buds: 16 })
    const only = answer(ask('cane-two', viewOf(bare, 'wine-grape', wiresAt(2.2, 0.9), { goal: plain24 })))
    expect(deedsOf(only)).toEqual({ l9: 'lay' })
    expect(only.remarks).toContainEqual(expect.objectContaining({ code: 'renewal-missing', pieceId: 'l9' }))
  })

  it('lays one cane alone over the whole share where the school is one', () => {
    const one = answer(ask('cane-one', view))
    expect(Object.values(deedsOf(one)).filter((deed) => deed === 'lay')).toHaveLength(1)
  })
})

/** Two permanent arms of 1.10 m at the wire. */
function armed(): Wood {
  const wood = new Wood(1.1, '2026-02-01')
  wood.stem('trunk', null, 0, [1.1, 0], 0.9, 0, { seasonsThen: 12, baseMm: 45, calledRole: 'trunk' })
  wood.stem('arm-l', 'trunk', 0.9, [1.1, 0.9], 1.1, -90, { seasonsThen: 10, baseMm: 25, calledRole: 'arm' })
  wood.stem('arm-r', 'trunk', 0.9, [1.1, 0.9], 1.1, 90, { seasonsThen: 10, baseMm: 25, calledRole: 'arm' })
  return wood
}

describe('spur pruning', () => {
  const wood = armed()
  const STEP = 1.1 / 7
  for (const [side, missing] of [
    ['l', [2]],
    ['r', [1, 5]],
  ] as const) {
    for (let place = 0; place < 7; place++) {
      if ((missing as readonly number[]).includes(place)) continue
      const alongM = (place + 0.5) * STEP
      const xM = 1.1 + (side === 'l' ? -1 : 1) * alongM
      const old = wood.stem(`${side}${place}`, `arm-${side}`, alongM, [xM, 0.9], 0.05, 0, {
        seasonsThen: 2,
        baseMm: 10,
      })
      wood.stem(`${side}${place}-low`, old, 0.01, [xM, 0.91], 0.9, -5, { baseMm: 8 })
      wood.stem(`${side}${place}-top`, old, 0.045, [xM, 0.945], 0.9, 5, { baseMm: 9 })
    }
  }
  const view = viewOf(wood, 'wine-grape', wiresAt(2.2, 0.9))
  const question = ask('spur-cordon', view)
  const proposal = answer(question)

  it('names the places that are missing, and what fills them', () => {
    const missing = proposal.remarks
      .filter(({ code }) => code === 'place-missing')
      .map(({ side, n }) => `${side} ${n}`)
    expect(missing).toEqual(['left 3', 'right 2', 'right 6'])
    const fills = proposal.remarks.filter(({ code }) => code === 'place-fills')
    expect(fills).toHaveLength(3)
    expect(fills.every(({ pieceId }) => pieceId !== null)).toBe(true)
    expect(
      findSystem('spur-cordon')!
        .positions(view)
        .filter(({ what, pieceId }) => what === 'spur' && !pieceId),
    ).toHaveLength(3)
  })

  it('cuts the lower shoot of each place to two buds, to three beside a place that is missing; the upper goes', () => {
    // Spurs creep outward; next to a gap it is the spur nearer the head that leads a shoot there.
    const beside = ['l1-low', 'r0-low', 'r4-low']
    for (const [id, { deed, aboveBuds }] of proposal.chosen) {
      expect([id, deed]).toEqual([id, id.endsWith('low') ? 'spur' : 'off'])
      if (deed === 'spur') expect([id, aboveBuds]).toEqual([id, beside.includes(id) ? 3 : 2])
    }
    expect(proposal.followUps.filter(({ why }) => why === 'spent-spur')).toHaveLength(11)
    expect(proposal.buds).toBe(25)
  })
})

describe('a cordon with extra canes', () => {
  const wood = armed()
  const spur = (id: string, on: string, alongM: number, xM: number) =>
    wood.stem(id, on, alongM, [xM, 0.9], 0.2, 0, {
      baseMm: 8,
      buds: 2,
      cuts: [{ on: '2026-01-20', reason: '', alongM: 0.2, aboveBuds: 2 }],
    })
  for (let i = 0; i < 6; i++) {
    const alongM = 0.1 + i * 0.18
    spur(`sl${i}`, 'arm-l', alongM, 1.1 - alongM)
    spur(`sr${i}`, 'arm-r', alongM, 1.1 + alongM)
  }
  const cane = (id: string, on: string, alongM: number, xM: number, buds: number, lean: number) =>
    wood.stem(id, on, alongM, [xM, 0.9], buds * 0.08, lean, { baseMm: 9, buds })
  cane('c12', 'arm-l', 0.11, 0.99, 12, -10)
  cane('c11', 'arm-r', 0.11, 1.21, 11, 10)
  cane('c10', 'arm-l', 0.12, 0.98, 10, -5)
  cane('e12', 'arm-r', 1.05, 2.15, 12, 10)
  const goal = { by: 'balanced', formula: '30+10', min: 20, max: 80, plain: 30 } as const
  const view = viewOf(wood, 'wine-grape', wiresAt(4, 0.9, 1.3), { goal, pruningsKg: 1.6, othersXM: [] })
  const question = ask('cordon-canes', view)
  const proposal = answer(question)

  it('takes two at the head and one at the end, and refuses the third at the head by its rule', () => {
    expect(view.target).toMatchObject({ aim: 55, why: 'weighed' })
    const atHead = ['c12', 'c11', 'c10'].filter((id) => proposal.chosen.get(id)!.deed === 'lay')
    expect(atHead).toHaveLength(2)
    expect(proposal.chosen.get('e12')!.deed).toBe('lay')
    expect(Math.abs(proposal.buds - 55)).toBeLessThanOrEqual(5)
    const left = ['c12', 'c11', 'c10'].find((id) => !atHead.includes(id))!
    const third = question.candidates
      .find(({ pieceId }) => pieceId === left)!
      .options.find(({ deed }) => deed === 'lay')!
    const all = new Map([...proposal.chosen].map(([id, { id: option }]) => [id, option]))
    const refused = propose(question, new Map(all).set(left, third.id))
    expect(isRefused(refused) && refused.rules).toContain('two-at-head')
  })

  it('says what cutting the extra canes at ripening takes away', () => {
    const reserve = proposal.remarks.find(({ code }) => code === 'thinning-reserve')!
    expect(reserve.n).toBe(proposal.buds - 24)
    const same = (x: number) => [x, x] as const
    const { clusters } = cropForecast(reserve.n!, {
      burst: same(0.85),
      clustersPerShoot: same(1.6),
      clusterKg: same(0.15),
    })
    expect(clusters[0]).toBeCloseTo(reserve.n! * 0.85 * 1.6, 9)
  })
})

describe('a young vine after a summer', () => {
  const young = (lengthM: number, baseMm: number, tipMm: number) => {
    const wood = new Wood(1, '2026-02-01')
    wood.stem('s', null, 0, [1, 0], lengthM, 0, { baseMm, tipMm, buds: Math.floor(lengthM / 0.07) })
    const view = viewOf(wood, 'wine-grape', wiresAt(2, 0.9), {
      plant: { id: 'p', kindId: 'wine-grape', xM: 1, footYM: 0, plantedOn: '2025-04-01', graftHeightM: null },
    })
    const question = ask('cane-two', view)
    return { question, proposal: answer(question), option: answer(question).chosen.get('s')! }
  }

  it('is cut through the node a hand above the wire where it is thick there, and the two buds below are led', () => {
    const { option, proposal, question } = young(1.05, 10, 8)
    expect(option.id).toBe('through-node')
    expect(option.cutM!).toBeGreaterThan(0.93)
    expect(option.cutM!).toBeLessThan(1.03)
    expect(codesOf(question, 's')).toContain('thick-at-wire')
    expect(proposal.remarks).toContainEqual(
      expect.objectContaining({ code: 'lead-each-way', figure: option.cutM }),
    )
  })

  it('goes back to where it is a pencil thick where it is thinner at the wire', () => {
    const { option, question } = young(1.05, 9, 4.5)
    expect(option.id).toBe('back-to-thick')
    expect(option.cutM!).toBeGreaterThan(0.3)
    expect(option.cutM!).toBeLessThan(0.6)
    expect(codesOf(question, 's')).toContain('thin-at-wire')
  })

  it('goes back to three buds where it has hardly grown', () => {
    const { option, proposal } = young(0.35, 6, 4)
    expect(option).toMatchObject({ id: 'three-buds', aboveBuds: 3 })
    expect(proposal.remarks).toContainEqual(expect.objectContaining({ code: 'start-again' }))
  })
})

describe('green shoots', () => {
  const spring = (withThirteen: boolean) => {
    const wood = new Wood(1.1, '2026-05-25')
    wood.stem('trunk', null, 0, [1.1, 0], 0.8, 0, { seasonsThen: 8, baseMm: 40, calledRole: 'trunk' })
    wood.stem('up', 'trunk', 0.8, [1.1, 0.8], 0.3, 0, { seasonsThen: 2, baseMm: 14 })
    const shoot = (id: string, alongM: number, side: 'left' | 'right') =>
      wood.stem(id, 'up', alongM, [1.1, 0.8 + alongM], 0.2, side === 'left' ? -30 : 30, {
        seasonsThen: 0,
        baseMm: 4,
        side,
      })
    shoot('s4', 0.04, 'left')
    shoot('s6', 0.06, 'right')
    shoot('s9', 0.09, 'left')
    shoot('s9b', 0.09, 'left')
    if (withThirteen) shoot('s13', 0.13, 'right')
    shoot('s26', 0.26, 'left')
    wood.stem('t1', 'trunk', 0.3, [1.1, 0.3], 0.15, 40, { seasonsThen: 0, baseMm: 3 })
    wood.stem('t2', 'trunk', 0.5, [1.1, 0.5], 0.15, -40, { seasonsThen: 0, baseMm: 3 })
    const question = ask('cane-two', viewOf(wood, 'wine-grape', wiresAt(2.2, 0.9)))
    return { question, proposal: answer(question) }
  }
  const kept = (proposal: Proposal) =>
    [...proposal.chosen]
      .filter(([, { deed }]) => deed === 'keep')
      .map(([id]) => id)
      .sort()

  it('keep four from the head up to the limit, one of a double, none of the trunk', () => {
    const { question, proposal } = spring(true)
    expect(kept(proposal).map((id) => id.replace('9b', '9'))).toEqual(['s13', 's4', 's6', 's9'])
    expect(codesOf(question, 's26')).toContain('over-limit')
    expect(codesOf(question, 't1')).toContain('on-trunk')
  })

  it("mark next winter's spur and cane", () => {
    const { remarks } = spring(true).proposal
    expect(remarks.find(({ code }) => code === 'next-spur')?.pieceId).toBe('s4')
    expect(remarks.find(({ code }) => code === 'next-cane')?.pieceId).toBe('s6')
  })

  it('take a lower one more where the fourth sits too high, and say so', () => {
    const { proposal } = spring(false)
    expect(kept(proposal)).toEqual(['s4', 's6', 's9', 's9b'])
    expect(proposal.remarks).toContainEqual(expect.objectContaining({ code: 'fourth-too-high', figure: 0.2 }))
  })
})

describe('a cordon with extra canes in August', () => {
  const inAugust = (shootMm: number, buds: number) => {
    const wood = new Wood(1.2, '2026-08-25')
    wood.stem('trunk', null, 0, [1.2, 0], 0.8, 0, { seasonsThen: 8, baseMm: 40, calledRole: 'trunk' })
    wood.stem('arm', 'trunk', 0.8, [1.2, 0.8], 0.9, 88, { seasonsThen: 6, baseMm: 25, calledRole: 'arm' })
    wood.stem('cane', 'arm', 0.7, [1.9, 0.84], 0.8, 80, { buds, baseMm: 9 })
    wood.stem('spur', 'arm', 0.3, [1.5, 0.82], 0.1, 0, {
      buds: 2,
      cuts: [{ on: '2026-02-01', reason: '', alongM: 0.1, aboveBuds: 2 }],
    })
    for (const i of [0, 1, 2])
      wood.stem(`s${i}`, 'cane', 0.1 + i * 0.2, [2, 0.9], 0.9, 0, { seasonsThen: 0, baseMm: shootMm })
    const goal = { by: 'plain' as const, aim: 12, min: 10, max: 14 }
    return viewOf(wood, 'wine-grape', wiresAt(2.4, 0.9, 1.3), { on: '2026-08-25', goal })
  }
  const asked = (view: PlantView) =>
    openQuestions(findSystem('cordon-canes')!, view).find(({ code }) => code === 'thin-canes')!

  it('keeps the cane that the vine can carry and takes off whole what is too much, with the crop that goes', () => {
    expect(deedsOf(answer(asked(inAugust(8, 8))))).toEqual({ cane: 'keep' })
    const heavy = answer(asked(inAugust(8, 20)))
    expect(deedsOf(heavy)).toEqual({ cane: 'off' })
    expect(heavy.remarks).toMatchObject([{ code: 'thins-crop', figure: 20, n: 22 }])
    expect(deedsOf(answer(asked(inAugust(14, 20))))).toEqual({ cane: 'keep' })
  })

  it('is asked in August alone, and of no vine without them', () => {
    const codes = (stage: PlantView['stage'], id = 'cordon-canes') =>
      openQuestions(findSystem(id)!, { ...inAugust(8, 8), stage }).map(({ code }) => code)
    expect(codes('ripening')).toEqual(['thin-canes'])
    expect(codes('growing')).not.toContain('thin-canes')
    expect(codes('ripening', 'spur-cordon')).toEqual([])
  })
})

describe('a vine whose summer nobody entered', () => {
  it.each(['cane-two', 'cane-one', 'spur-cordon', 'cordon-canes'])(
    '%s loses nothing and asks for it',
    (id) => {
      const question = ask(id, viewOf(headed(), 'wine-grape', wiresAt(2.2, 0.9)))
      expect(question.isWoodMissing).toBe(true)
      const found = answer(question)
      expect([...found.chosen.values()].filter(({ deed }) => deed === 'off')).toEqual([])
      expect(found.followUps).toEqual([])
      expect(found.remarks.map(({ code }) => code)).toEqual(['enter-summer'])
    },
  )

  it('is asked as ever once a cane of it stands', () => {
    const wood = headed()
    wood.stem('new', 'stub-l', 0.04, [1.06, 0.81], 1.1, -10, { baseMm: 8, buds: 12 })
    expect(ask('cane-two', viewOf(wood, 'wine-grape', wiresAt(2.2, 0.9))).isWoodMissing).toBeUndefined()
  })
})
