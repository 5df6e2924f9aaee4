import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { wiresAt } from '../../test/training.ts'
import { findKind } from '../kinds/index.ts'
import { tieSupports } from '../wood/index.ts'
import { planTies, requiredLoopMm, tieMaterials, tieWarnings, usualLoopMm } from './index.ts'

const supports = tieSupports(wiresAt(4, 0.9, 1.3), { wireMm: () => 2, stockM: () => 0.02 })
const laid = (lengthM: number) => [
  { xM: 0.5, yM: 0.82 },
  { xM: 0.6, yM: 0.9 },
  { xM: 0.6 + lengthM, yM: 0.9 },
]
const cane = { path: laid(1.2), ageSeasons: 1, baseMm: 9, tipMm: 6, isPermanent: false }

describe('a tie plan', () => {
  it('ties the end of a laid cane, and every so often between', () => {
    const { ties, materialId } = planTies(cane, supports)
    const total = ties.at(-1)!.alongM
    expect(total).toBeGreaterThan(1.2)
    for (let i = 1; i < ties.length; i++)
      expect(ties[i]!.alongM - ties[i - 1]!.alongM).toBeLessThanOrEqual(0.5)
    expect(materialId).toBe('soft-jute')
    expect(ties.every(({ support }) => support.on === 'line')).toBe(true)
  })

  it('never ties the soft tip of a shoot', () => {
    const shoot = { ...cane, ageSeasons: 0 }
    const { ties, materialId } = planTies(shoot, supports)
    const lengthM = 1.2 + Math.hypot(0.1, 0.08)
    for (const { alongM } of ties) expect(alongM).toBeLessThanOrEqual(lengthM * 0.85 + 1e-9)
    expect(materialId).toBe('raffia')
  })

  it('cuts each long enough for its loop and knot, shorter where the cane is thinner', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.3, max: 3, noNaN: true }),
        fc.double({ min: 5, max: 20, noNaN: true }),
        (m, mm) => {
          const { ties, totalM } = planTies({ ...cane, path: laid(m), baseMm: mm, tipMm: mm / 2 }, supports)
          expect(ties.length).toBeGreaterThan(0)
          for (const [i, tie] of ties.entries()) {
            expect(tie.lengthMm).toBeGreaterThan(tie.loopMm)
            if (i > 0) expect(tie.stemMm).toBeLessThanOrEqual(ties[i - 1]!.stemMm)
          }
          expect(totalM * 1000).toBeCloseTo(
            ties.reduce((sum, { lengthMm }) => sum + lengthMm, 0),
            6,
          )
        },
      ),
    )
  })

  it('ties nothing that is near no wire', () => {
    expect(planTies({ ...cane, path: laid(1.2).map(({ xM }) => ({ xM, yM: 3 })) }, supports).ties).toEqual([])
  })
})

describe('the places of ties', () => {
  /** A level wire on posts so far apart that no node lies on what is laid. */
  const bare = tieSupports(wiresAt(12, 0.9, 1), { wireMm: () => 2, stockM: () => 0.02 }).filter(
    ({ path }) => path.length > 1,
  )
  const along = (fromM: number, toM: number, yM = 0.9) => ({
    ...cane,
    path: [
      { xM: fromM, yM },
      { xM: toM, yM },
    ],
  })

  it('are just before the end, and from there back every forearm’s length, never two at one place', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.3, max: 2, noNaN: true }), (longM) => {
        const { ties } = planTies(along(0.1, 0.1 + longM), bare)
        const places = ties.map(({ alongM }) => alongM)
        expect(places.at(-1)).toBeCloseTo(longM - 0.04, 6)
        for (let i = 1; i < places.length; i++) {
          expect(places[i]! - places[i - 1]!).toBeGreaterThan(0.1)
          expect(places[i]! - places[i - 1]!).toBeLessThanOrEqual(0.35 + 0.12 + 1e-9)
        }
        for (const { support } of ties) expect(support.alongM).toBeGreaterThan(0)
      }),
    )
  })

  it('are on the wire that is nearest, and nowhere between two wires', () => {
    const lines = new Set(
      planTies(along(0.1, 1.4, 0.93), bare).ties.map(({ support }) =>
        'lineId' in support ? support.lineId : '',
      ),
    )
    expect(lines.size).toBe(1)
    const on = bare.find(({ path }) => Math.abs(path[0]!.yM - 0.9) < 1e-6)!
    expect([...lines]).toEqual(['lineId' in on.part ? on.part.lineId : ''])
    expect(planTies(along(0.1, 1.4, 1.1), bare).ties).toEqual([])
  })

  it('leave the tip of a shoot free, and of a short cane only its end is held', () => {
    const shoot = planTies({ ...along(0.1, 1.1), ageSeasons: 0 }, bare).ties.map(({ alongM }) => alongM)
    expect(Math.max(...shoot)).toBeCloseTo(0.85, 6)
    expect(planTies(along(0.1, 0.2), bare).ties.length).toBeLessThanOrEqual(1)
  })

  it('hold thick wood in a padded loop, lasting wood with what gives', () => {
    const of = (rest: object) => planTies({ ...along(0.1, 1.4), ...rest }, bare)
    expect(of({ baseMm: 25 }).materialId).toBe('soft-jute')
    expect(of({ baseMm: 25.5 })).toMatchObject({ materialId: 'padded-hose', hitch: 'belt' })
    expect(of({ isPermanent: true }).materialId).toBe('stretch-tape')
  })
})

describe('warnings of a tie', () => {
  const sound = {
    materialId: 'soft-jute' as const,
    hitch: 'figureEight' as const,
    loopMm: usualLoopMm('figureEight', 9, 2),
    stemMm: 9,
    supportMm: 2,
    alongM: 0.5,
    stemLengthM: 1,
    ageSeasons: 1,
    isEndTied: true,
    isWoven: false,
    isAgainstTwining: false,
    kind: findKind('wisteria')!,
  }
  it('has none for a tie as the plan makes it', () => {
    expect(tieWarnings(sound)).toEqual([])
  })
  it.each([
    ['too-short', { loopMm: 20 }],
    ['too-tight', { loopMm: usualLoopMm('figureEight', 9, 2) - 14 }],
    ['hard-on-swelling', { materialId: 'rubber-coated-wire', ageSeasons: 3 }],
    ['soft-tip', { ageSeasons: 0, alongM: 0.95 }],
    ['end-loose', { isEndTied: false }],
    ['against-twining', { isAgainstTwining: true }],
    ['woven', { isWoven: true }],
  ] as const)('%s', (code, change) => {
    expect(tieWarnings({ ...sound, ...change })).toContain(code)
  })
  // 9 mm of cane and 2 mm of wire need a loop to close round both; a finger more is room enough.
  it('is too short by the last millimetre, and has room from a finger on', () => {
    const needMm = requiredLoopMm('figureEight', 9, 2)
    const at = (loopMm: number) => tieWarnings({ ...sound, loopMm })
    expect(at(needMm - 0.1)).toEqual(['too-short'])
    expect(at(needMm)).toEqual(['too-tight'])
    expect(at(needMm + 8)).toEqual([])
  })
  it('is hard on what swells only where it lasts and does not give', () => {
    const wire = { ...sound, materialId: 'rubber-coated-wire' as const, ageSeasons: 3 }
    const kind = (older: number, young = 0) => ({
      ...sound.kind,
      youngThickeningMm: [0, young] as const,
      olderThickeningMm: [0, older] as const,
    })
    const isHard = (change: Partial<typeof wire>) =>
      tieWarnings({ ...wire, ...change }).includes('hard-on-swelling')
    expect(isHard({ kind: kind(5) })).toBe(true)
    expect(isHard({ kind: kind(4.9, 20) })).toBe(false)
    // One season old it swells as the young do, and a shoot of this year is tied anew before it does.
    expect(isHard({ ageSeasons: 1, kind: kind(0, 20) })).toBe(true)
    expect(isHard({ ageSeasons: 2, kind: kind(0, 20) })).toBe(false)
    expect(isHard({ ageSeasons: 0, kind: kind(0, 20) })).toBe(false)
    for (const material of tieMaterials)
      if (material.lifeDays[0] <= 400 || material.stretch >= 0.05)
        expect(tieWarnings({ ...wire, materialId: material.id })).not.toContain('hard-on-swelling')
  })
  it('knows every material', () => {
    for (const { id } of tieMaterials) expect(tieWarnings({ ...sound, materialId: id })).toBeDefined()
  })
})
