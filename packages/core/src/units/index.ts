export { METRES_PER, formatFeetInches, formatLength, parseLength, trimZeros } from './length.ts'
export type { LengthStyle, LengthUnit, Parsed, ParseFailure, UnitSystem } from './length.ts'
export {
  KG_PER_LB,
  STANDARD_GRAVITY,
  formatArea,
  formatForce,
  formatMass,
  formatMoment,
  formatSpeed,
  formatTemperature,
  parseForce,
  parseTemperature,
} from './quantity.ts'
export { gaugeToDiameterMm, nearestGauge, roundWireAreaMm2, roundWireMassKgPerM } from './gauge.ts'
export type { GaugeSystem } from './gauge.ts'
