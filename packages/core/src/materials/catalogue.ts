export type WireMaterial = 'high-tensile' | 'soft-galvanised' | 'stainless' | 'stainless-rope' | 'aluminium' | 'coated' | 'polyamide' // prettier-ignore

/**
 * A kind of wire as sold. Figures are ordinary trade values for planning; the label on the coil goes first. Rope has
 * less metal and more give than a rod of its diameter, so section and modulus are its own.
 */
export interface Wire {
  readonly id: string
  readonly material: WireMaterial
  readonly diameterMm: number
  readonly metalAreaMm2: number
  readonly massKgPerM: number
  readonly modulusGPa: number
  readonly breakingLoadN: number
  /** Share of the breaking load that a wire should carry for years. */
  readonly workingShare: number
  readonly lifeYears: number
  readonly mayTouchBark: boolean
  readonly usualTensionN: number
  readonly rolls: readonly { readonly lengthM: number; readonly price: number }[]
}

function solidWire(
  id: string,
  material: WireMaterial,
  diameterMm: number,
  of: { densityKgPerM3: number; modulusGPa: number; strengthMPa: number },
  rest: Pick<Wire, 'workingShare' | 'lifeYears' | 'mayTouchBark' | 'usualTensionN' | 'rolls'>,
): Wire {
  const metalAreaMm2 = (Math.PI * diameterMm ** 2) / 4
  return {
    id,
    material,
    diameterMm,
    metalAreaMm2,
    massKgPerM: metalAreaMm2 * 1e-6 * of.densityKgPerM3,
    modulusGPa: of.modulusGPa,
    breakingLoadN: metalAreaMm2 * of.strengthMPa,
    ...rest,
  }
}

const STEEL = { densityKgPerM3: 7850, modulusGPa: 200 }
const STAINLESS = { densityKgPerM3: 7950, modulusGPa: 190 }

export const wires: readonly Wire[] = [
  solidWire('stainless-2', 'stainless', 2, { ...STAINLESS, strengthMPa: 700 }, {
    workingShare: 0.4, lifeYears: 40, mayTouchBark: true, usualTensionN: 150,
    rolls: [{ lengthM: 25, price: 14 }, { lengthM: 50, price: 25 }],
  }),
  {
    id: 'stainless-rope-3', material: 'stainless-rope', diameterMm: 3, metalAreaMm2: 3.9, massKgPerM: 0.034,
    modulusGPa: 100, breakingLoadN: 5300, workingShare: 0.25, lifeYears: 40, mayTouchBark: true, usualTensionN: 180,
    rolls: [{ lengthM: 25, price: 29 }, { lengthM: 50, price: 54 }],
  },
  solidWire('soft-galvanised-2', 'soft-galvanised', 2, { ...STEEL, strengthMPa: 400 }, {
    workingShare: 0.35, lifeYears: 15, mayTouchBark: true, usualTensionN: 120,
    rolls: [{ lengthM: 25, price: 6 }, { lengthM: 50, price: 10.5 }],
  }),
  solidWire('high-tensile-2.5', 'high-tensile', 2.5, { ...STEEL, strengthMPa: 1050 }, {
    workingShare: 0.4, lifeYears: 25, mayTouchBark: true, usualTensionN: 600,
    rolls: [{ lengthM: 100, price: 26 }, { lengthM: 650, price: 118 }],
  }),
  solidWire('aluminium-2.5', 'aluminium', 2.5, { densityKgPerM3: 2700, modulusGPa: 69, strengthMPa: 160 }, {
    workingShare: 0.3, lifeYears: 25, mayTouchBark: true, usualTensionN: 80,
    rolls: [{ lengthM: 20, price: 8 }, { lengthM: 50, price: 17 }],
  }),
  {
    id: 'coated-3.5', material: 'coated', diameterMm: 3.5, metalAreaMm2: 4.91, massKgPerM: 0.045, modulusGPa: 200,
    breakingLoadN: 2100, workingShare: 0.35, lifeYears: 12, mayTouchBark: true, usualTensionN: 120,
    rolls: [{ lengthM: 25, price: 11 }, { lengthM: 50, price: 19 }],
  },
  solidWire('polyamide-2.2', 'polyamide', 2.2, { densityKgPerM3: 1140, modulusGPa: 2.5, strengthMPa: 500 }, {
    workingShare: 0.3, lifeYears: 10, mayTouchBark: true, usualTensionN: 60,
    rolls: [{ lengthM: 100, price: 9 }],
  }),
] // prettier-ignore

export type Surface = 'brick' | 'render' | 'concrete' | 'boards' | 'posts'

/** A screw-in or plugged eye that holds a node. */
export interface Fixing {
  readonly id: string
  readonly threadMm: number
  readonly lengthMm: number
  /** How far off the surface the wire runs, metres: air behind the leaves. */
  readonly standOffM: number
  /** Pilot in wood: smaller than the core of the thread. */
  readonly woodPilotMm: number
  /** Plug and bit in masonry. */
  readonly plugMm: number
  readonly price: number
}

export const fixings: readonly Fixing[] = [
  { id: 'eye-60', threadMm: 5, lengthMm: 60, standOffM: 0.03, woodPilotMm: 3.5, plugMm: 8, price: 0.9 },
  { id: 'eye-100', threadMm: 6, lengthMm: 100, standOffM: 0.05, woodPilotMm: 4, plugMm: 8, price: 1.4 },
  { id: 'eye-150', threadMm: 8, lengthMm: 150, standOffM: 0.1, woodPilotMm: 5.5, plugMm: 10, price: 2.3 },
]

export const strainer = { travelM: 0.11, price: 3.2 } as const
export const plugPrice = 0.12

export function findWire(id: string): Wire | undefined {
  return wires.find((wire) => wire.id === id)
}

export function findFixing(id: string): Fixing | undefined {
  return fixings.find((fixing) => fixing.id === id)
}

/** Axial stiffness EA in newtons. */
export function axialStiffnessN(wire: Wire): number {
  return wire.modulusGPa * 1e3 * wire.metalAreaMm2
}

/** Weight of the wire itself, newtons per metre, from standard gravity. */
export function wireWeightNPerM(wire: Wire): number {
  return wire.massKgPerM * 9.80665
}
