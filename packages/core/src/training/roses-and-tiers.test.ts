import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plantArb, Wood, viewOf, wiresAt } from '../../test/training.ts'
import { polylineLengthM } from '../geometry/index.ts'
import { bendRadiusM, cautionsOf, findSystem, isRefused, propose, trainingSystems } from './index.ts'
import type { PlantView, Proposal, Question } from './index.ts'
import { runs } from '../../test/runs.ts'

const ask = (systemId: string, view: PlantView): Question => findSystem(systemId)!.question(view)!
function answer(question: Question): Proposal {
  const found = propose(question)
  if (isRefused(found)) throw new Error(`refused: ${found.rules.join()}`)
  return found
}
const codesOf = (question: Question, id: string) =>
  question.candidates.find(({ pieceId }) => pieceId === id)!.judgements.map(({ code }) => code)

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
})

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

describe('every system', () => {
  const KIND = {
    'level-tiers': 'pear',
    'rose-level': 'climbing-rose',
    'rose-fan': 'climbing-rose',
  } as Record<string, string>

  it('answers for a plant of any wood, keeps to its rules and never keeps what is barred', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...trainingSystems.map(({ id }) => id)),
        plantArb,
        (systemId, { wood, frames }) => {
          const view = viewOf(wood, KIND[systemId] ?? 'wine-grape', frames)
          const system = findSystem(systemId)!
          expect(system.tasks(view)).toBeDefined()
          for (const { pieceId } of system.positions(view))
            if (pieceId) expect(view.stem(pieceId)).toBeDefined()
          const question = system.question(view)
          if (!question) return
          const found = answer(question)
          expect(found.chosen.size).toBe(question.candidates.length)
          if (found.bySide) expect(found.bySide.left + found.bySide.right).toBe(found.buds)
          for (const rule of question.rules) {
            const n = rule.options.filter(([id, option]) => found.chosen.get(id)?.id === option).length
            expect(n).toBeGreaterThanOrEqual(rule.min)
            expect(n).toBeLessThanOrEqual(rule.max)
          }
          for (const { a, b } of question.never)
            expect(found.chosen.get(a[0])?.id === a[1] && found.chosen.get(b[0])?.id === b[1]).toBe(false)
          for (const { pieceId, judgements } of question.candidates) {
            const one = found.chosen.get(pieceId)!
            const stemOf = view.stem(pieceId)!
            if (stemOf.isBelowGraft || ['dead', 'sick'].includes(stemOf.piece.health ?? ''))
              expect(one.deed).toBe('off')
            if (judgements.some(({ tone }) => tone === 'bars')) expect(one.path).toBeNull()
            if (one.path) {
              // Wood does not grow by being laid.
              expect(polylineLengthM(one.path)).toBeLessThanOrEqual(stemOf.lengthM * 1.02 + 0.02)
              expect(bendRadiusM(stemOf)).toBeGreaterThan(0)
            }
            if (one.cutM !== null) expect(one.cutM).toBeLessThanOrEqual(stemOf.lengthM + 1e-9)
          }
          for (const { pieceId, cutM } of found.followUps)
            if (cutM !== null) expect(cutM).toBeLessThanOrEqual(view.stem(pieceId)!.lengthM + 1e-9)
        },
      ),
      { numRuns: runs(400) },
    )
  })

  it('expects wood that it then has a question or a task for', () => {
    for (const system of trainingSystems) {
      const wood = new Wood(1.5, '2026-02-01')
      const frames = wiresAt(3, 0.9, 1.3, 1.7)
      const empty = viewOf(wood, KIND[system.id] ?? 'wine-grape', frames)
      for (const years of [1, 3, 6]) {
        const full = new Wood(1.5, '2026-02-01')
        for (const one of system.skeleton(empty, years)) {
          expect(one.on === null || full.pieces.has(one.on)).toBe(true)
          full.add(
            one.name,
            one.path.map(({ xM, yM }) => [xM, yM] as const),
            {
              seasonsThen: one.seasonsOld,
              baseMm: one.baseMm,
              calledRole: one.role,
              ...(one.on ? { parent: { on: 'piece', pieceId: one.on, alongM: one.alongM } } : {}),
            },
          )
        }
        const question = system.question(viewOf(full, KIND[system.id] ?? 'wine-grape', frames))
        expect(question, `${system.id} ${years}`).not.toBeNull()
        expect(isRefused(propose(question!)), `${system.id} ${years}`).toBe(false)
      }
    }
  })
})
