export { METRES_PER, cutAtM, formatCut, formatLength, parseLength } from './length.ts'
export type { CutBy, LengthStyle, LengthUnit, UnitSystem } from './length.ts'
export type { Parsed } from './parsed.ts'
export {
  NEWTONS_PER_LBF,
  formatArea,
  formatForce,
  formatFloorLoad,
  formatMass,
  formatMoment,
  formatSpeed,
  formatTemperature,
  formatVolume,
  formatWater,
  parseForce,
  parseMass,
  parseNumber,
  parseTemperature,
} from './quantity.ts'
export { forceAsTyped, lengthAsTyped, massAsTyped, temperatureAsTyped } from './as-typed.ts'
export type { Rounding } from './quantity.ts'
export { gaugeToDiameterMm, nearestGauge, roundWireAreaMm2, roundWireMassKgPerM } from './gauge.ts'
export type { GaugeSystem } from './gauge.ts'
