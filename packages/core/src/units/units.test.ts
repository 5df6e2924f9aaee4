import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectReference, referenceCases } from '../../test/reference.ts'
import {
  formatLength,
  gaugeToDiameterMm,
  nearestGauge,
  parseForce,
  parseMass,
  parseLength,
  parseNumber,
  parseTemperature,
  roundWireAreaMm2,
  roundWireMassKgPerM,
} from './index.ts'
import type { LengthUnit } from './index.ts'
import { runs } from '../../test/runs.ts'

describe('parseLength', () => {
  it.each([
    ['9.2 m', 'm', 9.2],
    ['1,65 m', 'm', 1.65],
    ['0,650 m', 'm', 0.65],
    ['11,6m', 'cm', 11.6],
    ['30 ft 2 in', 'm', 9.1948],
    [`30'2"`, 'm', 9.1948],
    [`30'2`, 'm', 9.1948],
    ['54in', 'm', 1.3716],
    [`4'6"`, 'm', 1.3716],
    ['4 ft 6 1/2 in', 'm', 1.3843],
    ['4′ 6½″', 'm', 1.3843],
    ['38 ft', 'm', 11.5824],
    ['6-1/2 in', 'm', 0.1651],
    ['1/2"', 'm', 0.0127],
    ['2 yd 1 ft', 'm', 2.1336],
    ['1 m 65 cm', 'm', 1.65],
    ['1,234.5 mm', 'm', 1.2345],
    ['1.234,5 mm', 'm', 1.2345],
    ['1 800 mm', 'cm', 1.8],
    ['1\u202f800 mm', 'cm', 1.8],
    ['1.405 m', 'cm', 1.405],
    ['1,405', 'm', 1.405],
    ['12.125 in', 'm', 0.307975],
    ['.125"', 'm', 0.003175],
    [`4' 2"`, 'm', 1.27],
    ['5 ft 3', 'm', 1.6002],
    ['1 3/4', 'in', 0.04445],
    ['3/8', 'in', 0.009525],
    ['165', 'cm', 1.65],
    ['.5', 'm', 0.5],
    ['-3 cm', 'm', -0.03],
    [' 80 CM ', 'm', 0.8],
  ] as [string, LengthUnit, number][])('reads %s with bare %s as %d m', (text, bare, metres) => {
    const parsed = parseLength(text, bare)
    expect(parsed.ok && parsed.value).toBeCloseTo(metres, 9)
  })

  it.each([
    ['', 'empty'],
    ['tall', 'not-a-length'],
    ['9 kg', 'not-a-length'],
    ['4 6', 'not-a-length'],
    ['3 in 2 ft', 'not-a-length'],
    ['1/0 in', 'not-a-length'],
    ['9.2.1 m', 'not-a-length'],
    ['1.650.5 m', 'not-a-length'],
    ['1,23,456 mm', 'not-a-length'],
    ['1,650 mm', 'ambiguous'],
    ['1.800 mm', 'ambiguous'],
    ['12,500 cm', 'ambiguous'],
    ["1'650 mm", 'ambiguous'],
  ])('refuses %j as %s', (text, reason) => {
    expect(parseLength(text, 'm')).toMatchObject({ ok: false, reason })
  })

  it('reads back what it writes, in both systems and every style', () => {
    const rounding = { long: 0.0065, short: 0.0009, fine: 0.0006 }
    fc.assert(
      fc.property(
        fc.double({ min: 0.001, max: 200, noNaN: true }),
        fc.constantFrom('metric' as const, 'imperial' as const),
        fc.constantFrom('long' as const, 'short' as const, 'fine' as const),
        (metres, system, style) => {
          const parsed = parseLength(formatLength(metres, system, style), 'm')
          return parsed.ok && Math.abs(parsed.value - metres) <= rounding[style]
        },
      ),
    )
  })

  it('never throws, whatever is typed', () => {
    fc.assert(fc.property(fc.string(), (text) => typeof parseLength(text, 'in').ok === 'boolean'))
  })
})

describe('a number as people write it', () => {
  /** Thousands apart by a mark, decimals behind another. */
  const written = (value: number, digits: number, between: string, point: string) => {
    const [whole, decimals] = value.toFixed(digits).split('.')
    const apart = whole!.replace(/\B(?=(\d{3})+$)/g, between)
    return decimals ? apart + point + decimals : apart
  }

  it('is read back, or asked about with both that it can be, and never read as another', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 99_999_999 }),
        fc.integer({ min: 0, max: 5 }),
        fc.constantFrom(
          ['', '.'],
          ['', ','],
          [',', '.'],
          ['.', ','],
          [' ', ','],
          [' ', '.'],
          ["'", '.'],
          ['\u202f', ','],
        ),
        fc.constantFrom('N' as const, 'kg' as const, 'mm' as const, '' as const),
        (units, digits, [between, point], unit) => {
          const value = units / 10 ** digits
          const text = `${written(value, digits, between!, point!)} ${unit}`
          const read = {
            N: (one: string) => parseForce(one, 'N'),
            kg: (one: string) => parseMass(one, 'kg'),
            mm: (one: string) => parseLength(one, 'm'),
            '': parseNumber,
          }[unit]
          const parsed = read(text)
          const wanted = unit === 'mm' ? value / 1000 : value
          if (parsed.ok) expect(parsed.value).toBeCloseTo(wanted, 8)
          else {
            expect(parsed.reason).toBe('ambiguous')
            // Written as proposed each is understood, and one of them is what was meant.
            const again = parsed.either!.map(read)
            expect(again.map(({ ok }) => ok)).toEqual([true, true])
            expect(again.some((one) => one.ok && Math.abs(one.value - wanted) < 1e-8)).toBe(true)
          }
        },
      ),
      { numRuns: runs(2000) },
    )
  })

  it('is asked about only where it can be two', () => {
    for (const [text, value] of [
      ['1250', 1250],
      ['1,250.50', 1250.5],
      ['1.250,50', 1250.5],
      ['12.50', 12.5],
      ['0,125', 0.125],
      ['1 250', 1250],
      ["1'250", 1250],
      ['1,250', null],
    ] as const)
      expect([text, parseNumber(text)]).toEqual([
        text,
        value === null ? expect.objectContaining({ reason: 'ambiguous' }) : { ok: true, value },
      ])
    expect(parseNumber('1,250')).toMatchObject({ either: ['1.25', '1250'] })
    expect(parseNumber('1,234')).toMatchObject({ either: ['1.2340', '1234'] })
  })
})

describe('formatLength', () => {
  it('rounds inches to sixteenths in lowest terms and carries into feet', () => {
    expect(formatLength(1.3843, 'imperial', 'short')).toBe(`4' 6 1/2"`)
    expect(formatLength(0.3047, 'imperial', 'short')).toBe(`1' 0"`)
    expect(formatLength(0.0127, 'imperial', 'short')).toBe(`1/2"`)
    expect(formatLength(9.2, 'metric')).toBe('9.20 m')
    expect(formatLength(0.0019, 'metric', 'fine')).toBe('1.9 mm')
    const inches = [9.525, 12, 108, 3.2, 2.5, 0.4].map((mm) => formatLength(mm / 1000, 'imperial', 'fine'))
    expect(inches).toEqual(['3/8"', '15/32"', '4 1/4"', '1/8"', '0.098 in', '0.016 in'])
    expect(formatLength(Number.NaN, 'metric')).toBe('–')
  })
})

describe('forces and temperatures', () => {
  it('turns pounds and kilograms of pull into newtons and Fahrenheit into Celsius', () => {
    expect(parseForce('200 lb', 'N')).toEqual({ ok: true, value: expect.closeTo(889.644, 3) })
    expect(parseForce('90 kgf', 'N')).toEqual({ ok: true, value: expect.closeTo(882.5985, 4) })
    expect(parseMass('25 lb', 'kg')).toEqual({ ok: true, value: expect.closeTo(11.3398, 4) })
    expect(parseMass('1,5', 'kg')).toEqual({ ok: true, value: 1.5 })
    expect(parseMass('2 m', 'kg')).toEqual({ ok: false, reason: 'wrong-unit' })
    expect(parseForce('0,9 kN', 'N')).toEqual({ ok: true, value: expect.closeTo(900, 9) })
    expect(parseForce('12 m', 'N')).toEqual({ ok: false, reason: 'wrong-unit' })
    expect(parseForce('-5 N', 'N')).toEqual({ ok: false, reason: 'not-a-quantity' })
    expect(parseTemperature('60 °F', 'C')).toEqual({ ok: true, value: expect.closeTo(15.5556, 4) })
    expect(parseTemperature('-5', 'C')).toEqual({ ok: true, value: -5 })
    expect(parseTemperature('5', 'F')).toEqual({ ok: true, value: -15 })
  })
})

describe('wire gauges', () => {
  it.each(referenceCases('wire-gauges').map((c) => [c.name, c] as const))('%s', (_, reference) => {
    const { system, gauge, densityKgPerM3, lengthM } = reference.input
    const diameterMm = gaugeToDiameterMm(system, gauge)
    const massKgPerM = roundWireMassKgPerM(diameterMm, densityKgPerM3)
    const massKg = massKgPerM * (lengthM ?? 0)
    expectReference(reference, { diameterMm, areaMm2: roundWireAreaMm2(diameterMm), massKgPerM, massKg })
  })

  it('refuses a number that the system does not have and finds the nearest one of a diameter', () => {
    expect(() => gaugeToDiameterMm('SWG', 3)).toThrow(/No gauge 3 in SWG/)
    expect(() => gaugeToDiameterMm('AWG', 11.5)).toThrow(/No gauge/)
    expect(nearestGauge('steelWireGauge', 2.5).gauge).toBe(12.5)
    expect(nearestGauge('AWG', 2.05).gauge).toBe(12)
  })
})
