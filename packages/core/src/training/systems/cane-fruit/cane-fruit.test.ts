import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { answer, ask, codesOf, deedsOf } from '../../../../test/asking.ts'
import { runs } from '../../../../test/runs.ts'
import { Wood, viewOf, wiresAt } from '../../../../test/training.ts'
import { findSystem, openQuestions } from '../../index.ts'
import type { PlantView, TrainingInput } from '../../index.ts'

const system = findSystem('cane-row')!
/** A metre of row with its top wire at 1.5 m; canes of so many seasons, each at its place. */
function metre(
  on: string,
  canes: readonly { id: string; xM: number; age: number; mm?: number; lengthM?: number; rest?: object }[],
  rest: Partial<TrainingInput> = {},
): PlantView {
  const wood = new Wood(0.5, on)
  for (const { id, xM, age, mm = 9, lengthM = 1.7, rest: more = {} } of canes)
    wood.stem(id, null, 0, [xM, 0], lengthM, 0, { seasonsThen: age, baseMm: mm, ...more })
  return viewOf(wood, 'raspberry', wiresAt(1, 0.8, 1.5), { on, ...rest })
}
const evenly = (prefix: string, n: number, age: number) =>
  Array.from({ length: n }, (_, i) => ({ id: `${prefix}${i}`, xM: (i + 0.5) / n, age }))
const kept = (view: PlantView) =>
  Object.entries(deedsOf(answer(ask('cane-row', view))))
    .filter(([, deed]) => deed === 'keep')
    .map(([id]) => id)

describe('a metre of summer raspberries', () => {
  const canes = [...evenly('old', 9, 1), ...evenly('new', 11, 0)]
  it.each([
    ['after the fruit', '2026-08-25', canes],
    [
      'in November, when all wood counts as a year older',
      '2026-11-20',
      canes.map((one) => ({ ...one, age: one.age + 1 })),
    ],
    ['in February', '2026-02-10', canes.map((one) => ({ ...one, age: one.age + 1 }))],
  ])('loses the nine that fruited and keeps six to ten new ones, %s', (_, on, standing) => {
    const view = metre(on, standing)
    const deeds = deedsOf(answer(ask('cane-row', view)))
    for (let i = 0; i < 9; i++) expect(deeds[`old${i}`]).toBe('off')
    expect(kept(view).length).toBeGreaterThanOrEqual(6)
    expect(kept(view).length).toBeLessThanOrEqual(10)
    expect(kept(view).every((id) => id.startsWith('new'))).toBe(true)
    expect(codesOf(ask('cane-row', view), 'old0')).toEqual(['fruited'])
  })

  it('is told by its age: new, in fruit, spent; never trunk or arm', () => {
    const roles = (on: string, ages: readonly number[]) => {
      const view = metre(
        on,
        ages.map((age, i) => ({ id: `c${i}`, xM: 0.1 + i * 0.2, age })),
      )
      return view.stems.map(({ age, parent }) =>
        system.role({ age, isOnWood: parent !== null }, { stage: view.stage, on, hemisphere: 'north' }),
      )
    }
    expect(roles('2026-07-01', [0, 1])).toEqual(['new', 'fruiting'])
    expect(roles('2026-09-01', [0, 1])).toEqual(['new', 'spent'])
    expect(roles('2026-12-01', [1, 2, 3])).toEqual(['new', 'spent', 'spent'])
    expect(roles('2026-04-01', [1, 2])).toEqual(['new', 'spent'])
  })

  it('keeps the thick before the thin, the sound before the sick, and what is spread before what crowds', () => {
    const row = [
      ...evenly('good', 8, 0),
      { id: 'thin', xM: 0.52, age: 0, mm: 4 },
      { id: 'sick', xM: 0.3, age: 0, rest: { health: 'sick' } },
      { id: 'crowding', xM: 0.07, age: 0 },
    ]
    const ids = kept(metre('2026-08-25', row))
    expect(ids).not.toContain('thin')
    expect(ids).not.toContain('sick')
    expect(ids.filter((id) => ['good0', 'crowding'].includes(id))).toHaveLength(1)
  })

  it('keeps all four of a summer of drought, and says that they are few', () => {
    const view = metre('2026-08-25', [...evenly('old', 6, 1), ...evenly('new', 4, 0)])
    expect(kept(view)).toHaveLength(4)
    const { remarks } = answer(ask('cane-row', view))
    expect(remarks).toContainEqual(
      expect.objectContaining({ code: 'few-new', figure: 4, n: 8, isLack: true }),
    )
  })

  it('cuts nothing while the summer has not been entered', () => {
    const view = metre('2026-08-25', evenly('old', 6, 1))
    expect(ask('cane-row', view).isWoodMissing).toBe(true)
    const found = answer(ask('cane-row', view))
    expect(Object.values(deedsOf(found))).toEqual(Array(6).fill('wait'))
    expect(found.remarks.map(({ code }) => code)).toEqual(['enter-new'])
  })

  it('leaves what stands where no new cane is sound, and says why', () => {
    const sick = evenly('new', 4, 0).map((one) => ({ ...one, rest: { health: 'sick' } }))
    const question = ask('cane-row', metre('2026-08-25', [...evenly('old', 3, 1), ...sick]))
    const found = answer(question)
    expect(question.isWoodMissing).toBe(false)
    expect(deedsOf(found)).toMatchObject({ old0: 'wait', old1: 'wait', old2: 'wait', new0: 'off' })
    expect(found.remarks.map(({ code }) => code)).toEqual(['none-sound'])
  })

  it('pulls what comes up beyond its part of the row', () => {
    const row = [...evenly('new', 7, 0), { id: 'sucker', xM: 1.8, age: 0 }]
    const question = ask('cane-row', metre('2026-08-25', row))
    expect(codesOf(question, 'sucker')).toContain('beyond-row')
    expect(deedsOf(answer(question))).toMatchObject({ sucker: 'off' })
  })

  it('is tipped at winter’s end a hand above its top wire, and only where it stands out', () => {
    const row = [
      { id: 'tall', xM: 0.2, age: 1, lengthM: 2.1 },
      { id: 'right', xM: 0.5, age: 1, lengthM: 1.58 },
      { id: 'spent', xM: 0.8, age: 2, lengthM: 2.1 },
    ]
    const question = ask('cane-row', metre('2026-03-25', row))
    expect(question.code).toBe('tips')
    expect(question.candidates.map(({ pieceId }) => pieceId)).toEqual(['tall'])
    const cut = answer(question).chosen.get('tall')!
    expect(cut.deed).toBe('cut')
    expect(cut.cutM).toBeCloseTo(1.6, 1)
  })

  it('is asked half a year later in the south', () => {
    const canesOf = (on: string) =>
      openQuestions(system, metre(on, evenly('c', 3, 0), { hemisphere: 'south', latitudeDeg: -37 })).map(
        ({ code }) => code,
      )
    expect(canesOf('2026-04-10')).toEqual(['canes'])
    expect(canesOf('2026-12-25')).toEqual([])
  })

  it('lives twelve years with what it is told: something bears each summer, and never too much', () => {
    const summers = fc.array(fc.integer({ min: 3, max: 14 }), { minLength: 12, maxLength: 12 })
    fc.assert(
      fc.property(summers, (each) => {
        let standing: { id: string; xM: number; age: number }[] = []
        for (const [year, n] of each.entries()) {
          standing = [...standing.map((one) => ({ ...one, age: one.age + 1 })), ...evenly(`y${year}-`, n, 0)]
          const view = metre('2026-08-25', standing)
          const stay = new Set(kept(view))
          expect([...stay].every((id) => id.startsWith(`y${year}-`))).toBe(true)
          expect(stay.size).toBeGreaterThanOrEqual(Math.min(n, 6))
          expect(stay.size).toBeLessThanOrEqual(10)
          standing = standing.filter(({ id }) => stay.has(id))
        }
      }),
      { numRuns: runs(20) },
    )
  })
})

describe('a row of raspberries that is counted and not drawn', () => {
  const say = (on: string, count: { fresh: number; fruited: number; cutOut: number; overM: number }) =>
    system.ofCount!(metre(on, []), count).map(({ code, n }) => (n === null ? code : `${code} ${n}`))

  it('says what comes out, how many stand a metre, and how many of the new ones go or are missing', () => {
    // Twelve metres: 100 to 120 fruited canes out, 72 to 120 new ones stay.
    expect(say('2026-08-25', { fresh: 150, fruited: 104, cutOut: 0, overM: 12 })).toEqual([
      'counted-spent 104',
      'counted-new 150',
      'counted-many 30',
    ])
    expect(say('2026-09-10', { fresh: 150, fruited: 104, cutOut: 104, overM: 12 })[0]).toBe('counted-new 150')
    // After a drought only four a metre came up: all of them stay.
    expect(say('2026-08-25', { fresh: 48, fruited: 90, cutOut: 90, overM: 12 })).toEqual([
      'counted-new 48',
      'counted-few 24',
    ])
    expect(say('2026-07-01', { fresh: 90, fruited: 80, cutOut: 0, overM: 12 })[0]).toBe('counted-fruiting 80')
  })

  it('cuts nothing over a summer that nobody counted', () => {
    expect(say('2026-08-25', { fresh: 0, fruited: 90, cutOut: 0, overM: 12 })).toEqual(['count-new-first'])
  })
})
