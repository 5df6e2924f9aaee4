import {
  forceAsTyped,
  lengthAsTyped,
  massAsTyped,
  temperatureAsTyped,
  formatArea,
  formatCut,
  formatFloorLoad,
  formatForce,
  formatLength,
  formatMass,
  formatMoment,
  formatSpeed,
  formatTemperature,
  formatVolume,
  formatWater,
} from '@klados/core/units'
import type { CutBy, LengthStyle, LengthUnit, Rounding, UnitSystem } from '@klados/core/units'
import { createContext, useContext } from 'react'
import type { ReactNode } from 'react'
import { useSessionQuery } from '../data/api.ts'
import { withMark } from '../i18n/language.ts'

export interface Units {
  readonly system: UnitSystem
  readonly length: (metres: number, style?: LengthStyle) => string
  /** As a form shows it: what it is, in the marks in which it was typed. */
  readonly lengthTyped: (metres: number, style: LengthStyle) => string
  readonly forceTyped: (newtons: number) => string
  readonly massTyped: (kilograms: number) => string
  readonly temperatureTyped: (celsius: number) => string
  /** Where to cut: rounded up to what saw or shears can do. */
  readonly cut: (metres: number, by: CutBy) => string
  readonly force: (newtons: number) => string
  readonly mass: (kilograms: number) => string
  readonly floorLoad: (kilogramsPerSquareMetre: number) => string
  readonly moment: (newtonMetres: number) => string
  readonly speed: (metresPerSecond: number) => string
  readonly temperature: (celsius: number) => string
  readonly area: (squareMetres: number, rounding?: Rounding) => string
  /** Soil, gravel, medium: what is filled in. */
  readonly volume: (litres: number, rounding?: Rounding) => string
  readonly water: (litres: number) => string
  /** A thickness that was reckoned, on the marks of the gauge that it would be read off; millimetres. */
  readonly onGauge: (millimetres: number) => number
  /** What a bare number means in a field of that style. */
  readonly bare: (style: LengthStyle) => LengthUnit
}

const BARE: Readonly<Record<UnitSystem, Readonly<Record<LengthStyle, LengthUnit>>>> = {
  metric: { long: 'm', short: 'cm', fine: 'mm' },
  imperial: { long: 'ft', short: 'in', fine: 'in' },
}

/** Marks of a calliper: tenths of a millimetre, or thirty-seconds of an inch. */
const GAUGE_MM: Readonly<Record<UnitSystem, number>> = { metric: 0.1, imperial: 25.4 / 32 }

function unitsOf(system: UnitSystem): Units {
  return {
    system,
    length: (metres, style) => withMark(formatLength(metres, system, style)),
    lengthTyped: (metres, style) => withMark(lengthAsTyped(metres, system, style)),
    forceTyped: (newtons) => withMark(forceAsTyped(newtons, system)),
    massTyped: (kilograms) => withMark(massAsTyped(kilograms, system)),
    temperatureTyped: (celsius) => withMark(temperatureAsTyped(celsius, system)),
    cut: (metres, by) => withMark(formatCut(metres, system, by)),
    force: (newtons) => withMark(formatForce(newtons, system)),
    mass: (kilograms) => withMark(formatMass(kilograms, system)),
    floorLoad: (kgPerM2) => withMark(formatFloorLoad(kgPerM2, system)),
    moment: (newtonMetres) => withMark(formatMoment(newtonMetres, system)),
    speed: (metresPerSecond) => withMark(formatSpeed(metresPerSecond, system)),
    temperature: (celsius) => withMark(formatTemperature(celsius, system)),
    area: (squareMetres, rounding) => withMark(formatArea(squareMetres, system, rounding)),
    volume: (litres, rounding) => withMark(formatVolume(litres, system, rounding)),
    water: (litres) => withMark(formatWater(litres, system)),
    onGauge: (mm) => Math.round(mm / GAUGE_MM[system]) * GAUGE_MM[system],
    bare: (style) => BARE[system][style],
  }
}

export const UNITS: Readonly<Record<UnitSystem, Units>> = {
  metric: unitsOf('metric'),
  imperial: unitsOf('imperial'),
}

const Context = createContext(UNITS.metric)

/** The unit system of the person signed in, asked for once for the whole interface. */
export function UnitsProvider({ children }: { children: ReactNode }) {
  const { data } = useSessionQuery(undefined)
  return <Context value={UNITS[data?.account?.units ?? 'metric']}>{children}</Context>
}

/** The same object until they change it. */
export function useUnits(): Units {
  return useContext(Context)
}
