export type WireMaterial =
  | 'high-tensile'
  | 'soft-galvanised'
  | 'stainless'
  | 'stainless-rope'
  | 'aluminium'
  | 'coated'
  | 'polyamide'
  | 'jute'
  | 'coir'

export interface RollOnOffer {
  readonly lengthM: number
  readonly price: number
}

/**
 * A kind of wire or string as sold. Figures are ordinary trade values for planning; the label on the coil
 * goes first. Rope has less metal and more give than a rod of its diameter, so section and modulus are its
 * own.
 */
export interface Wire {
  readonly id: string
  /**
   * What the grower calls it; `null` for the kinds that ship with Klados and have their names in the
   * translations.
   */
  readonly name: string | null
  readonly material: WireMaterial
  readonly diameterMm: number
  readonly metalAreaMm2: number
  readonly massKgPerM: number
  readonly modulusGPa: number
  readonly expansionPerC: number
  readonly breakingLoadN: number
  /** Share of the breaking load that a wire should carry for years. */
  readonly workingShare: number
  /** Permanent stretch in its first year under working tension, as a share of its length. */
  readonly firstYearStrain: number
  readonly lifeYears: number
  readonly mayTouchBark: boolean
  readonly usualTensionN: number
  readonly rolls: readonly RollOnOffer[]
}

/** What all wire of a material has in common. Expansion and modulus: usual handbook values of the metals. */
export const wireMaterials: Readonly<
  Record<
    WireMaterial,
    {
      densityKgPerM3: number
      modulusGPa: number
      strengthMPa: number
      expansionPerC: number
      firstYearStrain: number
      workingShare: number
      lifeYears: number
    }
  >
> = {
  'high-tensile': {
    densityKgPerM3: 7850,
    modulusGPa: 200,
    strengthMPa: 1050,
    expansionPerC: 1.2e-5,
    firstYearStrain: 1e-4,
    workingShare: 0.4,
    lifeYears: 25,
  },
  'soft-galvanised': {
    densityKgPerM3: 7850,
    modulusGPa: 200,
    strengthMPa: 400,
    expansionPerC: 1.2e-5,
    firstYearStrain: 4e-4,
    workingShare: 0.35,
    lifeYears: 15,
  },
  stainless: {
    densityKgPerM3: 7950,
    modulusGPa: 190,
    strengthMPa: 700,
    expansionPerC: 1.6e-5,
    firstYearStrain: 1.5e-4,
    workingShare: 0.4,
    lifeYears: 40,
  },
  'stainless-rope': {
    densityKgPerM3: 8700,
    modulusGPa: 100,
    strengthMPa: 1360,
    expansionPerC: 1.6e-5,
    firstYearStrain: 5e-4,
    workingShare: 0.25,
    lifeYears: 40,
  },
  aluminium: {
    densityKgPerM3: 2700,
    modulusGPa: 69,
    strengthMPa: 160,
    expansionPerC: 2.3e-5,
    firstYearStrain: 6e-4,
    workingShare: 0.3,
    lifeYears: 25,
  },
  coated: {
    densityKgPerM3: 9165,
    modulusGPa: 200,
    strengthMPa: 428,
    expansionPerC: 1.2e-5,
    firstYearStrain: 4e-4,
    workingShare: 0.35,
    lifeYears: 12,
  },
  polyamide: {
    densityKgPerM3: 1140,
    modulusGPa: 2.5,
    strengthMPa: 500,
    expansionPerC: 8e-5,
    firstYearStrain: 1e-2,
    workingShare: 0.3,
    lifeYears: 10,
  },
  jute: {
    densityKgPerM3: 700,
    modulusGPa: 1,
    strengthMPa: 30,
    expansionPerC: 0,
    firstYearStrain: 2e-2,
    workingShare: 0.3,
    lifeYears: 1,
  },
  coir: {
    densityKgPerM3: 600,
    modulusGPa: 0.8,
    strengthMPa: 20,
    expansionPerC: 0,
    firstYearStrain: 3e-2,
    workingShare: 0.3,
    lifeYears: 2,
  },
}

/** A wire of round section from its material and diameter; what its label says otherwise goes into `rest`. */
export function roundWire(
  id: string,
  material: WireMaterial,
  diameterMm: number,
  rest: Pick<Wire, 'usualTensionN' | 'rolls'> & Partial<Wire>,
): Wire {
  const of = wireMaterials[material]
  const metalAreaMm2 = rest.metalAreaMm2 ?? (Math.PI * diameterMm ** 2) / 4
  return {
    id,
    name: null,
    material,
    diameterMm,
    massKgPerM: metalAreaMm2 * 1e-6 * of.densityKgPerM3,
    modulusGPa: of.modulusGPa,
    expansionPerC: of.expansionPerC,
    breakingLoadN: metalAreaMm2 * of.strengthMPa,
    workingShare: of.workingShare,
    firstYearStrain: of.firstYearStrain,
    lifeYears: of.lifeYears,
    mayTouchBark: true,
    ...rest,
    metalAreaMm2,
  }
}

export const standardWires: readonly Wire[] = [
  roundWire('stainless-2', 'stainless', 2, {
    usualTensionN: 120,
    rolls: [
      { lengthM: 25, price: 14 },
      { lengthM: 50, price: 25 },
    ],
  }),
  roundWire('stainless-rope-3', 'stainless-rope', 3, {
    metalAreaMm2: 3.9,
    usualTensionN: 180,
    rolls: [
      { lengthM: 25, price: 29 },
      { lengthM: 50, price: 54 },
    ],
  }),
  roundWire('stainless-rope-4', 'stainless-rope', 4, {
    metalAreaMm2: 6.9,
    usualTensionN: 300,
    rolls: [
      { lengthM: 50, price: 88 },
      { lengthM: 100, price: 165 },
    ],
  }),
  roundWire('stainless-rope-6', 'stainless-rope', 6, {
    metalAreaMm2: 15.6,
    usualTensionN: 500,
    rolls: [
      { lengthM: 50, price: 175 },
      { lengthM: 100, price: 330 },
    ],
  }),
  roundWire('soft-galvanised-2', 'soft-galvanised', 2, {
    usualTensionN: 120,
    rolls: [
      { lengthM: 25, price: 6 },
      { lengthM: 50, price: 10.5 },
    ],
  }),
  roundWire('soft-galvanised-1.6', 'soft-galvanised', 1.6, {
    usualTensionN: 80,
    rolls: [
      { lengthM: 50, price: 8 },
      { lengthM: 200, price: 26 },
    ],
  }),
  roundWire('high-tensile-2.5', 'high-tensile', 2.5, {
    usualTensionN: 600,
    rolls: [
      { lengthM: 100, price: 26 },
      { lengthM: 650, price: 118 },
    ],
  }),
  roundWire('high-tensile-2', 'high-tensile', 2, {
    usualTensionN: 400,
    rolls: [
      { lengthM: 100, price: 19 },
      { lengthM: 1000, price: 124 },
    ],
  }),
  roundWire('aluminium-2.5', 'aluminium', 2.5, {
    usualTensionN: 80,
    rolls: [
      { lengthM: 20, price: 8 },
      { lengthM: 50, price: 17 },
    ],
  }),
  roundWire('coated-3.5', 'coated', 3.5, {
    metalAreaMm2: 4.91,
    usualTensionN: 120,
    rolls: [
      { lengthM: 25, price: 11 },
      { lengthM: 50, price: 19 },
    ],
  }),
  roundWire('polyamide-2.2', 'polyamide', 2.2, { usualTensionN: 60, rolls: [{ lengthM: 100, price: 9 }] }),
  roundWire('jute-4', 'jute', 4, {
    usualTensionN: 10,
    rolls: [
      { lengthM: 25, price: 3 },
      { lengthM: 100, price: 9 },
    ],
  }),
  roundWire('coir-6', 'coir', 6, { usualTensionN: 10, rolls: [{ lengthM: 50, price: 7 }] }),
]

/** Axial stiffness EA in newtons. */
export function axialStiffnessN(wire: Wire): number {
  return wire.modulusGPa * 1e3 * wire.metalAreaMm2
}

/** Weight of the wire itself, newtons per metre, from standard gravity. */
export function wireWeightNPerM(wire: Wire): number {
  return wire.massKgPerM * 9.80665
}

/** String is wound by hand and not strained: no strainers, no pull to check. */
export function isString(wire: Wire): boolean {
  return wire.material === 'jute' || wire.material === 'coir'
}
