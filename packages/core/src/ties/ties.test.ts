import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectReference, referenceCases } from '../../test/reference.ts'
import { findKind } from '../kinds/index.ts'
import { urgencyOf, addDays, dayNumber } from '../season/index.ts'
import { pieceOf, tieOf } from '../../test/wood.ts'
import {
  findTieMaterial,
  lookAgain,
  requiredLoopMm,
  tiedAnew,
  tightDay,
  tightDiameterMm,
  usualLoopMm,
} from './index.ts'

describe('girth reference cases', () => {
  it.each(referenceCases('girth').map((c) => [c.name, c] as const))('%s', (_, reference) => {
    const { input } = reference
    const loop = {
      hitch: input.tie,
      supportDiameterMm: input.supportDiameterMm,
      gapMm: input.gapMm,
      loopLengthMm: input.loopLengthMm,
    }
    const day = tightDay(loop, growth(input), 36_500)
    const required = requiredLoopMm(input.tie, input.stemDiameterMm, input.supportDiameterMm, input.gapMm)
    expectReference(reference, {
      requiredLengthAtDay0Mm: required,
      slackAtDay0Mm: input.loopLengthMm - required,
      tightDay: day,
      stemDiameterWhenTightMm: day === null ? null : Math.max(input.stemDiameterMm, tightDiameterMm(loop)),
    })
  })

  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- the input differs by law of growth
  function growth(input: any): (day: number) => number {
    if (input.growth === 'linear') return (t) => input.stemDiameterMm + input.growthRateMmPerDay * t
    const S = (t: number) => 1 / (1 + Math.exp(-input.logisticRatePerDay * (t - input.midpointDay)))
    return (t) =>
      input.stemDiameterMm + ((input.finalDiameterMm - input.stemDiameterMm) * (S(t) - S(0))) / (1 - S(0))
  }
})

describe('loops', () => {
  it('fit again at the diameter at which they become tight', () => {
    const mm = fc.double({ min: 2, max: 80, noNaN: true })
    fc.assert(
      fc.property(
        fc.constantFrom('belt' as const, 'figureEight' as const),
        mm,
        mm,
        (hitch, stem, support) => {
          const loopLengthMm = requiredLoopMm(hitch, stem, support)
          expect(tightDiameterMm({ hitch, supportDiameterMm: support, loopLengthMm })).toBeCloseTo(stem, 5)
          expect(usualLoopMm(hitch, stem, support)).toBeGreaterThan(loopLengthMm + 8)
        },
      ),
    )
  })

  it('need more as a figure of eight than as a belt', () => {
    expect(requiredLoopMm('figureEight', 12, 3)).toBeGreaterThan(requiredLoopMm('belt', 12, 3))
  })
})

const pear = findKind('pear')!
const stem = pieceOf({
  path: [
    { xM: 0, yM: 0.5 },
    { xM: 1, yM: 0.5 },
  ],
  drawnOn: '2026-03-01',
  seasonsThen: 1,
  baseMm: 12,
  measuredOn: '2026-03-01',
})
const tie = tieOf({
  at: { xM: 0.5, yM: 0.5 },
  materialId: 'rubber-coated-wire',
  hitch: 'figureEight',
  supportDiameterMm: 2,
  loopLengthMm: requiredLoopMm('figureEight', 12, 2) + 10,
})
const wireTie = findTieMaterial('rubber-coated-wire')!

describe('lookAgain', () => {
  it('asks for a look in the first days, then before the loop can be tight', () => {
    expect(lookAgain(tie, stem, pear, wireTie, 'north')).toMatchObject({
      dueOn: '2026-03-03',
      reason: 'spring-off',
    })
    const looked = { ...tie, lookedOn: '2026-03-03' }
    const next = lookAgain(looked, stem, pear, wireTie, 'north')
    expect(next.reason).toBe('tight')
    expect(next.dueOn).toBe(addDays(next.tight!.earliestOn, -7))
    expect(next.tight!.earliestOn > '2026-05-01' && next.tight!.earliestOn < '2026-09-30').toBe(true)
    expect(next.tight!.latestOn! > next.tight!.earliestOn).toBe(true)
  })

  it('of a soft stem to its stake asks every other day for a fortnight; of wood, or on a wire, once', () => {
    const memberId = 'stake' as never
    const support = { on: 'member' as const, frameId: 'f', memberId, alongM: 0.5 }
    const soft = { ...stem, seasonsThen: 0, drawnOn: '2026-06-01', measuredOn: '2026-06-01', baseMm: 5 }
    const fresh = { ...tie, support, madeOn: '2026-06-01', setOn: '2026-06-01', loopLengthMm: 200 }
    const days: string[] = []
    for (let looked: string | null = null; days.length < 20; ) {
      const next = lookAgain({ ...fresh, lookedOn: looked }, soft, pear, wireTie, 'north')
      if (next.reason !== 'soft-stem') break
      days.push((looked = next.dueOn))
    }
    expect(days).toEqual(['03', '05', '07', '09', '11', '13', '15'].map((day) => `2026-06-${day}`))
    const onWood = lookAgain(fresh, { ...soft, seasonsThen: 2 }, pear, wireTie, 'north')
    expect(onWood.reason).toBe('spring-off')
    expect(lookAgain({ ...fresh, support: null }, soft, pear, wireTie, 'north').reason).toBe('spring-off')
  })

  it('expects no thickening in winter: a tie of November is tight next summer, in the south half a year off', () => {
    const autumn = { ...tie, madeOn: '2026-11-10', setOn: '2026-11-10', lookedOn: '2026-11-12' }
    const grown = { ...stem, measuredOn: '2026-11-01' }
    const north = lookAgain(autumn, grown, pear, wireTie, 'north').tight!.earliestOn
    const south = lookAgain(autumn, grown, pear, wireTie, 'south').tight!.earliestOn
    expect(north > '2027-05-01').toBe(true)
    expect(south < '2027-02-15').toBe(true)
  })

  it('ends with the material when that comes first', () => {
    const raffia = findTieMaterial('raffia')!
    const loose = { ...tie, loopLengthMm: 400, lookedOn: '2026-03-04' }
    expect(lookAgain(loose, stem, pear, raffia, 'north')).toMatchObject({
      reason: 'material',
      dueOn: addDays('2026-03-01', 180),
    })
  })

  it('moves on after a look and never to an earlier day by a postponement', () => {
    const late = { ...tie, lookedOn: '2026-08-20' }
    expect(lookAgain(late, stem, pear, wireTie, 'north')).toMatchObject({
      dueOn: '2026-09-03',
      reason: 'tight',
    })
    const putOff = { ...late, postponedUntil: '2026-10-01' }
    expect(lookAgain(putOff, stem, pear, wireTie, 'north')).toMatchObject({
      dueOn: '2026-10-01',
      reason: 'postponed',
    })
    const early = { ...late, postponedUntil: '2026-08-25' }
    expect(lookAgain(early, stem, pear, wireTie, 'north').dueOn).toBe('2026-09-03')
  })

  it('gives every tie of every kind a finite day not before it was made', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 60, noNaN: true }),
        fc.double({ min: 5, max: 300, noNaN: true }),
        (d, slack) => {
          const loopLengthMm = requiredLoopMm('belt', d, 3) + slack
          const any = lookAgain(
            { ...tie, hitch: 'belt', stemDiameterMm: d, supportDiameterMm: 3, loopLengthMm },
            stem,
            pear,
            wireTie,
            'north',
          )
          expect(dayNumber(any.dueOn)).toBeGreaterThanOrEqual(dayNumber('2026-02-20'))
        },
      ),
    )
  })
})

describe('urgencyOf', () => {
  it.each([
    ['2026-05-01', 'overdue'],
    ['2026-05-10', 'due'],
    ['2026-05-13', 'due'],
    ['2026-05-14', 'soon'],
    ['2026-06-30', 'later'],
  ])('of a tie due on %s seen on 2026-05-13 is %s', (dueOn, urgency) => {
    expect(urgencyOf(dueOn, '2026-05-13')).toBe(urgency)
  })
})

describe('a tie made anew', () => {
  const anew = (on: string, failure: 'bitten' | 'rotted' | null, loopMm: number) =>
    tiedAnew({ ...tie, loopLengthMm: loopMm }, stem, pear, wireTie, on, 'north', failure)

  it('has room on its day and for a while after, however long nobody came and whatever became of the old one', () => {
    fc.assert(
      fc.property(
        fc.nat(3000).map((days) => addDays('2026-03-05', days)),
        fc.constantFrom('bitten' as const, 'rotted' as const, null),
        fc.double({ min: 40, max: 300, noNaN: true }),
        (on, failure, loopMm) => {
          const made = anew(on, failure, loopMm)
          const next = { ...tie, ...made, madeOn: on, setOn: on, lookedOn: null }
          const { tight } = lookAgain(next, stem, pear, wireTie, 'north')
          expect(tight === null || tight.earliestOn > on).toBe(true)
          const need = requiredLoopMm(tie.hitch, made.stemDiameterMm, tie.supportDiameterMm)
          expect(made.loopLengthMm).toBeGreaterThan(need + 10)
        },
      ),
    )
  })

  it('takes of one that bit in that the wood fills it, whatever its kind would have it', () => {
    const filled = tightDiameterMm({ ...tie, loopLengthMm: 200 * (1 + wireTie.stretch) })
    expect(anew('2026-03-06', 'rotted', 200).stemDiameterMm).toBeLessThan(14)
    expect(anew('2026-03-06', 'bitten', 200).stemDiameterMm).toBeCloseTo(filled, 1)
    // Wood that has outgrown its loop by all accounts is no thinner for having been bitten.
    expect(anew('2032-03-06', 'bitten', 60)).toEqual(anew('2032-03-06', 'rotted', 60))
  })
})
