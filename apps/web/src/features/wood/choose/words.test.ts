import type { ChoiceRecord } from '@klados/core/choices'
import {
  cautionCodes,
  deeds,
  isRefused,
  openQuestions,
  propose,
  trainingSystems,
  viewPlant,
} from '@klados/core/training'
import type { Candidate, PlantView, Proposal, Question } from '@klados/core/training'
import type { Piece } from '@klados/core/wood'
import i18next from 'i18next'
import { beforeAll, describe, expect, it } from 'vitest'
import { startTestTexts } from '../../../i18n/test-texts.ts'
import { UNITS } from '../../../ui/units.tsx'
import { cuttingSheet } from './cutting-sheet.ts'
import { kindFor, plantOf } from '../../../../../../packages/core/test/plants-of-systems.ts'
import { questionWords } from '../../../i18n/craft-words.ts'
import { deedWords, reasonWords, remarkWords, speech, whyWords, writtenWhy } from './words.ts'

beforeAll(startTestTexts)
const { metric, imperial } = UNITS
const t = i18next.t.bind(i18next)
const vine = speech(t, metric, 'cane-two', null)

/** A text that i18next had no words for, or no figure, or that says a figure nobody can have measured. */
const isOdd = (text: string) => /choose\.|crafts\.|\{\{|undefined|NaN|null/.test(text)

describe('every code of choosing has its words', () => {
  it('cautions', () => {
    for (const code of cautionCodes) expect(i18next.exists(`choose.caution.${code}`), code).toBe(true)
  })

  it.each(deeds)('%s, in both systems of units', (deed) => {
    const path = [
      { xM: 0, yM: 0.9 },
      { xM: 1.1, yM: 0.9 },
    ]
    for (const units of [metric, imperial])
      for (const manyWires of [true, false]) {
        const words = deedWords(
          speech(t, units, 'cane-two', null),
          'canes',
          { deed, cutM: 0.42, aboveBuds: 2, path, wire: 2, towards: 'left' },
          manyWires,
        )
        expect(words.length).toBeGreaterThan(0)
        expect(isOdd(words), words).toBe(false)
      }
  })

  it.each(trainingSystems)('what $id says of plants of many years, at all stages', (system) => {
    const say = speech(t, metric, system.id, null)
    const worded = (part: Parameters<typeof say.craft>[0], code: string) => {
      const words = say.craft(part, code, {
        count: 2,
        figure: '3 mm',
        fine: '3 mm',
        n: 3,
        forms: ['left', 'none_left', ''],
      })
      expect(words === code && /-/.test(code), `${part} ${code}`).toBe(false)
      expect(isOdd(words.replaceAll(/\{\{(piece|date|clusters)\}\}/g, '')), `${part} ${code}`).toBe(false)
    }
    for (const years of [1, 2, 3, 6])
      for (const month of ['02', '03', '05', '08', '11']) {
        const view = plantOf({ system, kindId: kindFor(system), years, on: `2026-${month}-20`, seed: years })
        for (const { code } of system.tasks(view)) worded('task', code)
        for (const { what } of system.positions(view)) worded('position', what)
        for (const { code } of system.year(view))
          expect(questionWords(t, system.id, code), code).not.toBe(code)
        for (const { age, parent } of view.stems) {
          const at = { stage: view.stage, on: view.input.on, hemisphere: view.input.hemisphere }
          const role = system.role({ age, isOnWood: parent !== null }, at)
          if (role !== null) worded('role', role)
        }
        for (const question of openQuestions(system, view)) {
          for (const { judgements } of question.candidates)
            for (const { code } of judgements) worded('judgement', code)
          for (const { code } of [...question.rules, ...question.never]) worded('rule', code)
          const proposal = propose(question)
          if (isRefused(proposal)) continue
          for (const { why } of proposal.followUps) worded('follow', why)
          for (const remark of proposal.remarks) {
            const words = remarkWords(
              say,
              remark,
              () => 'B',
              () => '10–14',
            )
            expect(words === remark.code || isOdd(words), `${remark.code}: ${words}`).toBe(false)
          }
        }
      }
  })
})

describe('the reason of a candidate', () => {
  const judgement = (code: string, tone: 'for' | 'against' | 'bars' | 'tells', points: number) => ({
    code,
    tone,
    points,
    figure: 9,
    unit: 'mm' as const,
  })
  it('is what bars it alone, else what weighs most first', () => {
    const some = [
      judgement('near-head', 'for', 0.6),
      judgement('thick', 'against', -3),
      judgement('short', 'tells', 0),
    ]
    expect(whyWords(vine, { pieceId: 'a', judgements: some })).toMatch(/^thick, 9 mm; near the head$/)
    expect(whyWords(vine, { pieceId: 'a', judgements: [...some, judgement('below-graft', 'bars', 0)] })).toBe(
      'from below the graft',
    )
  })
})

describe('what nobody has measured', () => {
  const view = {
    stem: (id: string) => ({ piece: { isTypical: id === 'typical' } }),
  } as unknown as PlantView
  const say = speech(t, metric, 'cane-two', view)
  const judgements = [
    { code: 'thick', tone: 'against', points: -1, figure: 9, unit: 'mm' },
    { code: 'shaded', tone: 'against', points: -2, figure: null, unit: null },
  ] as const

  it('is said to be about so much wherever its figures stand', () => {
    expect(whyWords(say, { pieceId: 'typical', judgements })).toBe('shaded last summer; thick, ≈ 9 mm')
    expect(whyWords(say, { pieceId: 'measured', judgements })).toBe('shaded last summer; thick, 9 mm')
    expect(writtenWhy(say, decided('typical', { reason: '' }))).toBe('≈ 9 mm, about a pencil')
  })
})

describe('what is taken off though nothing speaks against it', () => {
  const spare = (budsNow: number, rules: readonly object[] = []) => {
    const option = (id: string, deed: string, buds: number) => ({ id, deed, buds })
    const candidate = {
      pieceId: 'b',
      judgements: [],
      options: [option('off', 'off', 0), option('left', 'lay', 10), option('right', 'lay', 12)],
    } as unknown as Candidate
    const question = { rules, buds: { aim: 40, min: 36, max: 44, costPerBud: 1 } } as unknown as Question
    const chosen = new Map([
      ['a', option('left', 'lay', 12)],
      ['b', option('off', 'off', 0)],
    ])
    return reasonWords(vine, candidate, {
      question,
      proposal: { chosen, buds: budsNow } as unknown as Proposal,
    })
  }
  it('has the rule that is full for its reason, else the buds, else the room', () => {
    const full = {
      code: 'two-at-head',
      max: 1,
      options: [
        ['a', 'left'],
        ['b', 'left'],
      ],
    }
    expect(spare(30, [full])).toBe('at most two canes at the head')
    expect(spare(36)).toBe('the buds are enough without it')
    expect(spare(34)).toBe('no room for it')
  })
})

const decided = (
  letter: string,
  rest: Partial<ChoiceRecord['decided'][number]> = {},
): ChoiceRecord['decided'][number] => ({
  pieceId: letter,
  letter,
  deed: 'spur',
  cutM: 0.2,
  aboveBuds: 2,
  path: null,
  wire: null,
  towards: null,
  isOwn: false,
  reason: '',
  proposed: null,
  judgements: [{ code: 'pencil-thick', figure: 9, unit: 'mm' }],
  ...rest,
})
const choice = (name: string): ChoiceRecord => ({
  choiceId: name,
  plantId: name,
  placeId: 'place',
  system: 'cane-two',
  question: 'canes',
  decided: [decided('A'), decided('B', { deed: 'off', isOwn: true, reason: 'it looked weak' })],
  followUps: [{ pieceId: 'old', deed: 'cut', cutM: 0.1, aboveBuds: null, path: null, why: 'old-cane' }],
  buds: 24,
  budsMin: 20,
  budsMax: 28,
  bareM: 0,
  isProven: true,
  ties: 6,
  minutes: 7,
  madeOn: '2026-02-01',
  state: 'planned',
  doneOn: null,
  tookMinutes: null,
})

describe('a cutting sheet', () => {
  const piece = (id: string, parent: Piece['parent'], path: Piece['path'], seasonsThen: number): Piece => ({
    id,
    plantId: 'vine',
    parent,
    path,
    led: [],
    nodeCounts: [],
    seasonsThen,
    drawnOn: '2026-02-01',
    measuredOn: '2026-02-01',
    baseMm: 9,
    tipMm: null,
    buds: 8,
    side: null,
    isTypical: false,
    calledRole: null,
    health: null,
    bends: null,
    light: null,
    fault: null,
    meantFor: null,
    cuts: [],
    marks: [],
    removedOn: null,
    removedWhy: null,
  })
  const at = (xM: number, yM: number) => ({ xM, yM })
  const pieces = [
    piece('old', { on: 'crown', leadId: null }, [at(1, 0), at(1, 0.8)], 5),
    piece('A', { on: 'piece', pieceId: 'old', alongM: 0.7 }, [at(1, 0.7), at(0.8, 1.5)], 1),
    piece('B', { on: 'below-graft' }, [at(1, 0.05), at(1.2, 0.9)], 1),
  ]
  const view = viewPlant({
    plant: {
      id: 'vine',
      kindId: 'wine-grape',
      xM: 1,
      footYM: 0,
      plantedOn: '2020-03-01',
      graftHeightM: null,
    },
    pieces: new Map(pieces.map((one) => [one.id, one])),
    frames: [],
    othersXM: [],
    widthM: 2,
    on: '2026-02-01',
    hemisphere: 'north',
    latitudeDeg: 50,
    goal: null,
    pruningsKg: null,
  })!
  const plants = ['Vine 1', 'Vine 2'].map((name) => ({
    name,
    choice: choice(name),
    view,
    stemName: () => (name === 'Vine 1' ? 'trunk' : 'stool'),
  }))
  const made = (of = plants) => cuttingSheet(t, metric, 'Trial block', '2026-02-01', of, ['Eyes!'])

  it('has each plant once with all that is to be done to it, and adds up ties and minutes', () => {
    const sheet = made()
    expect(sheet.sections.map(({ title }) => title)).toEqual(['Vine 1', 'Vine 2', 'Ties and time'])
    for (const section of sheet.sections.slice(0, 2)) {
      if (section.kind !== 'list') throw new Error('not a list')
      const lines = section.groups.flatMap(({ items }) => items.map(({ lead, text }) => `${lead}: ${text}`))
      expect(lines).toHaveLength(3)
      expect(lines[0]).toBe(
        `A: cut above 2 buds; ${section.title === 'Vine 1' ? 'trunk' : 'stool'}, 70 cm along (9 mm, about a pencil)`,
      )
      expect(lines[1]).toBe('B: cut out; below the graft (it looked weak)')
      expect(lines.some(isOdd)).toBe(false)
    }
    const totals = sheet.sections.at(-1)!
    expect(totals.kind === 'table' && totals.rows.at(-1)).toEqual(['All', '12', '14'])
    expect(sheet.first).toHaveLength(1)
  })

  it('has one block for plants at which the same is done, ticked off by plant', () => {
    const [one, other] = plants as [(typeof plants)[0], (typeof plants)[0]]
    const third = { ...one, name: 'Vine 3' }
    const [alike, apart] = made([one, other, third]).sections
    expect([alike!.title, apart!.title]).toEqual(['Vine 1, Vine 3', 'Vine 2'])
    expect(alike!.intro).toContain('drawn as Vine 1')
    if (alike!.kind !== 'list') throw new Error('not a list')
    const { items, isRead } = alike!.groups.at(-1)!
    expect(items.map(({ text }) => text)).toEqual(['Vine 1', 'Vine 3'])
    expect(isRead).toBeUndefined()
    expect(alike!.groups.slice(0, -1).every((group) => group.isRead)).toBe(true)
    const totals = made([one, other, third]).sections.at(-1)!
    expect(totals.kind === 'table' && totals.rows).toHaveLength(4)
  })

  it('shows each plant with its letters, a stroke for each cut, what goes broken and what stays not', () => {
    const [section] = made().sections
    const svg = section!.drawing!({ widthMm: 180, heightMm: 65 })
    const all = (pattern: RegExp) => [...svg.matchAll(pattern)].map(([, found]) => found!)
    expect(all(/<text [^>]*>([^<]*)</g).sort()).toEqual(['A', 'B'])
    expect(all(/<line (stroke="#b03a2e")/g)).toHaveLength(3)
    expect(all(/<polyline [^>]*(stroke-dasharray)/g)).toHaveLength(1)
    const [width, height] = all(/viewBox="0 0 ([^"]*)"/g)[0]!
      .split(' ')
      .map(Number)
    expect(width).toBeLessThanOrEqual(180)
    expect(height).toBeLessThanOrEqual(65.01)
    for (const points of all(/points="([^"]*)"/g))
      points
        .split(/[ ,]/)
        .map(Number)
        .forEach((n, i) => expect(n >= 0 && n <= (i % 2 === 0 ? width! : height!)).toBe(true))
  })

  it("gives a grower's own reason before what was judged", () => {
    expect(writtenWhy(vine, decided('A', { reason: 'for the gap' }))).toBe('for the gap')
    expect(writtenWhy(vine, decided('A', { judgements: null }))).toBe('')
  })
})
