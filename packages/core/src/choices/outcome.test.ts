import { describe, expect, it } from 'vitest'
import { Wood, viewOf, wiresAt } from '../../test/training.ts'
import { choiceOutcome, contextOf } from './index.ts'
import type { ChoiceRecord } from './index.ts'

const wood = new Wood(1, '2024-01-10')
wood.stem('trunk', null, 0, [1, 0], 0.8, 0, { seasonsThen: 8, baseMm: 40, calledRole: 'trunk' })
wood.stem('kept', 'trunk', 0.8, [1, 0.8], 2, 90, { baseMm: 9, buds: 16 })
wood.stem('gone', 'trunk', 0.7, [1, 0.7], 1, -90, { baseMm: 8, buds: 9 })
const shoot = (id: string, on: string, drawnOn: string) => ({
  ...wood.pieces.get('kept')!,
  id,
  parent: { on: 'piece' as const, pieceId: on, alongM: 0.5 },
  drawnOn,
})
const chosen = (deeds: Readonly<Record<string, string>>, days: object = {}): ChoiceRecord =>
  ({
    madeOn: '2024-02-01',
    doneOn: null,
    decided: Object.entries(deeds).map(([pieceId, deed]) => ({ pieceId, letter: pieceId[0], deed })),
    ...days,
  }) as unknown as ChoiceRecord
const piecesWith = (...more: readonly ReturnType<typeof shoot>[]) =>
  new Map([...wood.pieces.entries(), ...more.map((one) => [one.id, one] as const)])
const outcomeOf = (choice: ChoiceRecord, ...more: readonly ReturnType<typeof shoot>[]) =>
  choiceOutcome(choice, piecesWith(...more), [])

describe('what came of a choice', () => {
  it('is told of what was kept alone, and of what is known', () => {
    const { pieces } = outcomeOf(chosen({ kept: 'lay', gone: 'off', trunk: 'wait', strange: 'lay' }))
    expect(pieces.map(({ pieceId }) => pieceId)).toEqual(['kept'])
    expect(pieces[0]).toMatchObject({ letter: 'k', isAlive: true, shootsPerM: null })
    expect(pieces[0]!.laidM).toBeCloseTo(2, 9)
  })

  it('counts the shoots on it of the year after, a metre, from the day on which it was done', () => {
    const days = ['2024-02-01', '2024-02-02', '2025-01-31', '2025-02-01']
    const shoots = days.map((on, i) => shoot(`s${i}`, 'kept', on))
    // Not on the day itself, a year of 365 days on.
    expect(outcomeOf(chosen({ kept: 'lay' }), ...shoots).pieces[0]!.shootsPerM).toBeCloseTo(2 / 2, 9)
    const done = chosen({ kept: 'lay' }, { doneOn: '2024-01-31' })
    expect(outcomeOf(done, ...shoots).pieces[0]!.shootsPerM).toBeCloseTo(2 / 2, 9)
    expect(outcomeOf(done, shoots[0]!).pieces[0]!.shootsPerM).toBeCloseTo(1 / 2, 9)
    // Of what grew elsewhere nothing.
    const elsewhere = [shoot('e', 'gone', days[1]!), { ...shoot('c', 'kept', days[1]!), parent: crown }]
    expect(outcomeOf(chosen({ kept: 'lay' }), ...elsewhere).pieces[0]!.shootsPerM).toBeNull()
  })

  it('says what died and what was cut, and why', () => {
    const kept = wood.pieces.get('kept')!
    const dead = new Map([['kept', { ...kept, health: 'dead' as const }]])
    expect(choiceOutcome(chosen({ kept: 'lay' }), dead, [])).toMatchObject({
      isTold: true,
      pieces: [{ isAlive: false, endedWhy: null }],
    })
    const cut = new Map([['kept', { ...kept, removedOn: '2024-06-01', removedWhy: 'broke in a gale' }]])
    expect(choiceOutcome(chosen({ kept: 'lay' }), cut, []).pieces[0]).toMatchObject({
      isAlive: false,
      endedWhy: 'broke in a gale',
    })
    expect(outcomeOf(chosen({ kept: 'lay' })).isTold).toBe(false)
  })

  it('adds up what was picked in the year after, and nothing else', () => {
    const picked = (on: string, value: number, what = 'crop') => ({ on, what, value })
    const crop = (...readings: ReturnType<typeof picked>[]) =>
      choiceOutcome(chosen({ kept: 'lay' }), wood.pieces, readings).cropKg
    expect(crop()).toBeNull()
    expect(crop(picked('2024-09-10', 3), picked('2024-09-20', 2.5))).toBeCloseTo(5.5, 9)
    expect(
      crop(picked('2024-02-01', 3), picked('2025-02-01', 2), picked('2024-09-01', 1, 'prunings')),
    ).toBeNull()
    expect(crop(picked('2025-01-31', 2))).toBe(2)
  })
})
const crown = { on: 'crown' as const, leadId: null } as unknown as ReturnType<typeof shoot>['parent']

describe('what carrying out a choice knows of the plant', () => {
  const context = contextOf(viewOf(wood, 'wine-grape', wiresAt(2.2, 0.9)), () => 'too weak')

  it('is the length and softness of its wood, and what sits on what however far down', () => {
    expect(context.lengthM('kept')).toBeCloseTo(2, 9)
    expect([context.lengthM('strange'), context.isSoft('strange')]).toEqual([null, false])
    expect([context.isSoft('trunk'), context.isOn('kept', 'trunk'), context.isOn('trunk', 'kept')]).toEqual([
      false,
      true,
      false,
    ])
    expect([
      context.isOn('kept', 'gone'),
      context.isOn('kept', 'kept'),
      context.isOn('strange', 'trunk'),
    ]).toEqual([false, false, false])
  })
})
