import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectReference, referenceCases } from '../../test/reference.ts'
import {
  cableState,
  inclinedCable,
  levelCable,
  loosening,
  slantState,
  strainFromReading,
  strainerTravel,
} from './index.ts'
import type { CableMaterial } from './index.ts'

const steel: CableMaterial = { weightNPerM: 0.3778857, axialStiffnessN: 981_747.7, expansionPerC: 1.2e-5 }
const degrees = (rad: number) => (rad * 180) / Math.PI

describe('cableState', () => {
  it.each(referenceCases('cable-state').map((c) => [c.name, c] as const))(
    '%s, to a millionth',
    (_, reference) => {
      const { input } = reference
      const state = cableState(
        {
          weightNPerM: input.weightNPerM,
          axialStiffnessN: input.axialStiffnessN,
          expansionPerC: input.thermalExpansionPerC,
        },
        {
          spansM: input.spansM ?? [input.spanM],
          horizontalTensionN: input.installHorizontalTensionN,
          temperatureC: input.installTemperatureC,
        },
        {
          temperatureC: input.temperatureC,
          verticalNPerM: input.extraVerticalLoadNPerM,
          windNPerM: input.windLoadNPerM,
        },
      )
      const sag = state.sagsInPlaneM[0]!
      const total = state.unstretchedLengthsM.reduce((sum, length) => sum + length, 0)
      expectReference(
        reference,
        {
          ...state,
          sagInPlaneM: sag,
          sagVerticalM: sag * Math.cos(state.swingRad),
          sagHorizontalM: sag * Math.sin(state.swingRad),
          swingAngleDeg: degrees(state.swingRad),
          unstretchedLengthAtT2M: total,
          totalUnstretchedLengthAtT2M: total,
          unstretchedLengthsPerSpanM: state.unstretchedLengthsM,
        },
        { maxRel: 1e-6 },
      )
    },
  )

  const loadArb = fc.record({
    temperatureC: fc.double({ min: -30, max: 50, noNaN: true }),
    verticalNPerM: fc.double({ min: 0, max: 150, noNaN: true }),
    windNPerM: fc.double({ min: 0, max: 60, noNaN: true }),
  })
  const spansArb = fc.array(fc.double({ min: 0.3, max: 30, noNaN: true }), { minLength: 1, maxLength: 12 })
  const pullArb = fc.double({ min: 5, max: 4000, noNaN: true })

  it('keeps the wire there is: lengths in the spans add up to what was strained, grown by heat', () => {
    fc.assert(
      fc.property(spansArb, pullArb, loadArb, (spansM, horizontalTensionN, load) => {
        const state = cableState(steel, { spansM, horizontalTensionN, temperatureC: 15 }, load)
        const before = spansM.reduce(
          (sum, s) =>
            sum +
            levelCable(s, horizontalTensionN, steel.weightNPerM, steel.axialStiffnessN).unstretchedLengthM,
          0,
        )
        const now = state.unstretchedLengthsM.reduce((sum, length) => sum + length, 0)
        expect(now / (before * (1 + 1.2e-5 * (load.temperatureC - 15)))).toBeCloseTo(1, 9)
        expect(state.horizontalTensionN).toBeGreaterThan(0)
      }),
    )
  })

  it('pulls harder in cold and under load, and less where the ends give', () => {
    fc.assert(
      fc.property(spansArb, fc.double({ min: 200, max: 2000, noNaN: true }), (spansM, horizontalTensionN) => {
        const at = (temperatureC: number, verticalNPerM: number, ends: object = {}) =>
          cableState(
            steel,
            { spansM, horizontalTensionN, temperatureC: 15, ...ends },
            { temperatureC, verticalNPerM, windNPerM: 0 },
          ).horizontalTensionN
        expect(at(15, 0)).toBeCloseTo(horizontalTensionN, 4)
        expect(at(-10, 0)).toBeGreaterThan(at(15, 0))
        expect(at(15, 40)).toBeGreaterThan(at(15, 0))
        expect(at(-10, 40, { endStiffnessNPerM: 50_000 })).toBeLessThan(at(-10, 40))
        expect(at(-10, 40, { endStiffnessNPerM: 1e15 }) / at(-10, 40)).toBeCloseTo(1, 6)
      }),
    )
  })

  it('balances the posts that give: they come nearer by the change of pull over their stiffness', () => {
    const installed = {
      spansM: [6, 6, 6],
      horizontalTensionN: 800,
      temperatureC: 15,
      endStiffnessNPerM: 40_000,
    }
    const state = cableState(steel, installed, { temperatureC: -15, verticalNPerM: 0, windNPerM: 0 })
    const nearer = (state.horizontalTensionN - 800) / 40_000
    const spanNow = levelCable(
      6 - nearer / 3,
      state.horizontalTensionN,
      steel.weightNPerM,
      steel.axialStiffnessN,
    )
    expect(spanNow.unstretchedLengthM / state.unstretchedLengthsM[0]!).toBeCloseTo(1, 9)
  })

  it('reads back from a pull the permanent strain that made it', () => {
    fc.assert(
      fc.property(
        spansArb,
        fc.double({ min: 1e-5, max: 3e-3, noNaN: true }),
        fc.double({ min: -20, max: 40, noNaN: true }),
        (spansM, strain, temperatureC) => {
          const installed = { spansM, horizontalTensionN: 900, temperatureC: 12 }
          const { horizontalTensionN } = cableState(steel, installed, {
            temperatureC,
            verticalNPerM: 0,
            windNPerM: 0,
            permanentStrain: strain,
          })
          expect(strainFromReading(steel, installed, { horizontalTensionN, temperatureC })).toBeCloseTo(
            strain,
            7,
          )
        },
      ),
    )
  })

  it('refuses what no wire can be', () => {
    const load = { temperatureC: 0, verticalNPerM: 0, windNPerM: 0 }
    expect(() => cableState(steel, { spansM: [], horizontalTensionN: 1, temperatureC: 0 }, load)).toThrow(
      /spans/,
    )
    expect(() =>
      cableState(steel, { spansM: [6, -1], horizontalTensionN: 1, temperatureC: 0 }, load),
    ).toThrow(/spanM/)
    expect(() =>
      cableState(
        steel,
        { spansM: [6], horizontalTensionN: 1, temperatureC: 0 },
        { ...load, verticalNPerM: NaN },
      ),
    ).toThrow(/finite/)
  })
})

describe('inclinedCable', () => {
  it.each(referenceCases('cable-uneven').map((c) => [c.name, c] as const))(
    '%s, to a millionth',
    (_, reference) => {
      const cable = inclinedCable(reference.input)
      expectReference(reference, { ...cable }, { maxRel: 1e-6 })
    },
  )

  it('closes its forces: reactions carry the weight, and mirrors when turned round', () => {
    const distance = fc.double({ min: 0.5, max: 40, noNaN: true })
    const height = fc.double({ min: -15, max: 15, noNaN: true })
    const slack = fc.double({ min: 0.997, max: 1.6, noNaN: true })
    fc.assert(
      fc.property(distance, height, slack, (h, v, share) => {
        const input = {
          horizontalDistanceM: h,
          heightDifferenceM: v,
          unstretchedLengthM: Math.hypot(h, v) * share,
          weightNPerM: 0.6,
          axialStiffnessN: 4e5,
        }
        const cable = inclinedCable(input)
        const weight = input.weightNPerM * input.unstretchedLengthM
        expect((cable.verticalReactionAN + cable.verticalReactionBN) / weight).toBeCloseTo(1, 6)
        const turned = inclinedCable({ ...input, heightDifferenceM: -v })
        expect(turned.tensionAN / cable.tensionBN).toBeCloseTo(1, 5)
        expect(cable.maxSagBelowChordM).toBeGreaterThan(0)
      }),
    )
  })
})

describe('a wire through the years', () => {
  const installed = { spansM: [6, 6], horizontalTensionN: 900, temperatureC: 10 }

  it('needs travel for slack, stretch, heat and permanent stretch together', () => {
    const travel = strainerTravel(steel, {
      lengthM: 100,
      tensionN: 900,
      slackM: 0.02,
      warmerByC: 25,
      permanentStrain: 2e-4,
    })
    expect(travel.stretchM).toBeCloseTo((900 * 100) / 981_747.7, 12)
    expect(travel.seasonM).toBeCloseTo(0.03, 12)
    expect(travel.totalM).toBeCloseTo(0.02 + travel.stretchM + 0.03 + 0.02, 12)
  })

  it('loosens quickly at first, never backwards, and reaches its first year’s figure after a year', () => {
    const { strainAfter } = loosening(steel, installed, 3e-4, [])
    expect(strainAfter(365.25)).toBeCloseTo(3e-4, 12)
    expect(strainAfter(30)).toBeGreaterThan((30 / 365.25) * 3e-4)
    let last = 0
    for (let day = 0; day < 2000; day += 50) {
      expect(strainAfter(day)).toBeGreaterThanOrEqual(last)
      last = strainAfter(day)
    }
  })

  it('takes readings over the trade’s figure, the more of them the more', () => {
    const real = 8e-4
    const read = (afterDays: number) => {
      const { strainAfter } = loosening(steel, installed, real, [])
      const state = cableState(steel, installed, {
        temperatureC: 20,
        verticalNPerM: 0,
        windNPerM: 0,
        permanentStrain: strainAfter(afterDays),
      })
      return { afterDays, tensionN: state.horizontalTensionN, temperatureC: 20 }
    }
    const one = loosening(steel, installed, 2e-4, [read(365)]).firstYearStrain
    const many = loosening(steel, installed, 2e-4, [
      read(90),
      read(365),
      read(500),
      read(700),
    ]).firstYearStrain
    expect(one).toBeGreaterThan(2e-4)
    expect(many).toBeGreaterThan(one)
    expect(many).toBeLessThan(real)
  })
})

describe('slantState', () => {
  it('agrees with the level span where there is no slope, and keeps its pull where nothing changed', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 20, noNaN: true }),
        fc.double({ min: 50, max: 2000, noNaN: true }),
        fc.double({ min: -20, max: 40, noNaN: true }),
        (span, tensionN, temperatureC) => {
          const load = { temperatureC, verticalNPerM: 12, windNPerM: 0 }
          const slant = slantState(
            steel,
            { horizontalDistanceM: span, heightDifferenceM: 0, tensionN, temperatureC: 10 },
            load,
          )
          const level = cableState(
            steel,
            { spansM: [span], horizontalTensionN: tensionN, temperatureC: 10 },
            load,
          )
          expect(slant.horizontalTensionN / level.horizontalTensionN).toBeCloseTo(1, 6)
          expect(slant.maxSagBelowChordM / level.sagsInPlaneM[0]!).toBeCloseTo(1, 6)
          const still = slantState(
            steel,
            { horizontalDistanceM: span, heightDifferenceM: span / 2, tensionN, temperatureC: 10 },
            { temperatureC: 10, verticalNPerM: 0, windNPerM: 0 },
          )
          expect((still.horizontalTensionN * Math.hypot(1, 0.5)) / tensionN).toBeCloseTo(1, 7)
        },
      ),
    )
  })
})
