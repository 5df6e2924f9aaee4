import { CoreError, requireRange } from '../errors/index.ts'

export type GaugeSystem = 'AWG' | 'SWG' | 'steelWireGauge'

const MM_PER_INCH = 25.4

/** British Imperial Standard Wire Gauge (Order in Council, 1884), inches for numbers 6 to 20. */
const SWG_INCHES: Readonly<Record<number, number>> = {
  6: 0.192,
  7: 0.176,
  8: 0.16,
  9: 0.144,
  10: 0.128,
  11: 0.116,
  12: 0.104,
  13: 0.092,
  14: 0.08,
  15: 0.072,
  16: 0.064,
  17: 0.056,
  18: 0.048,
  19: 0.04,
  20: 0.036,
}

/** Steel Wire Gauge (Washburn and Moen), inches for numbers 6 to 20; 12½ as fence wire is drawn. */
const STEEL_INCHES: Readonly<Record<number, number>> = {
  6: 0.192,
  7: 0.177,
  8: 0.162,
  9: 0.1483,
  10: 0.135,
  11: 0.1205,
  12: 0.1055,
  12.5: 0.099,
  13: 0.0915,
  14: 0.08,
  15: 0.072,
  16: 0.0625,
  17: 0.054,
  18: 0.0475,
  19: 0.041,
  20: 0.0348,
}

/**
 * Diameter in millimetres of a gauge number in a named system, for 6 to 20 and 12.5. The system is never
 * guessed: number 12 is 2.05, 2.64 or 2.68 mm. AWG by formula (ASTM B258: d = 0.127 mm · 92^((36−n)/39)), the
 * others by table; SWG has no halves, 12.5 is the mean of its neighbours. Throws `units/unknown-gauge` for
 * anything else.
 */
export function gaugeToDiameterMm(system: GaugeSystem, gauge: number): number {
  const halfOrWhole = gauge === 12.5 || (Number.isInteger(gauge) && gauge >= 6 && gauge <= 20)
  if (!halfOrWhole) {
    throw new CoreError('units/unknown-gauge', `No gauge ${gauge} in ${system}: 6 to 20 and 12.5 are known`, {
      system,
      gauge,
    })
  }
  if (system === 'AWG') return 0.127 * 92 ** ((36 - gauge) / 39)
  const table = system === 'SWG' ? SWG_INCHES : STEEL_INCHES
  const inches = table[gauge] ?? (table[gauge - 0.5]! + table[gauge + 0.5]!) / 2
  return inches * MM_PER_INCH
}

/** The gauge number of `system` whose diameter is nearest to `diameterMm`, and how far off it is in mm. */
export function nearestGauge(
  system: GaugeSystem,
  diameterMm: number,
): { gauge: number; differenceMm: number } {
  const numbers = [...Array.from({ length: 15 }, (_, i) => i + 6), 12.5]
  const ranked = numbers
    .map((gauge) => ({ gauge, differenceMm: diameterMm - gaugeToDiameterMm(system, gauge) }))
    .sort((a, b) => Math.abs(a.differenceMm) - Math.abs(b.differenceMm))
  return ranked[0]!
}

/** Cross-section in mm² of a round wire of `diameterMm`. */
export function roundWireAreaMm2(diameterMm: number): number {
  const d = requireRange('diameterMm', diameterMm, 0, 1e4)
  return (Math.PI * d * d) / 4
}

/** Mass in kg per metre of a round solid wire: section times density. */
export function roundWireMassKgPerM(diameterMm: number, densityKgPerM3: number): number {
  return roundWireAreaMm2(diameterMm) * 1e-6 * densityKgPerM3
}
