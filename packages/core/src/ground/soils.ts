/** Soil as a grower can tell it with a spade: what it is, not what it was tested for. */
export type SoilId = 'gravel' | 'sand' | 'loam' | 'clay' | 'soft-clay' | 'peat'

/**
 * What a soil gives, each figure from the least to the most that soils called so show. Lateral and vertical
 * bearing by the classes of IBC table 1806.2 (100 psf/ft = 15 709 Pa/m); peat and soft clay lie below its
 * classes and are half of clay or less. Friction angle and cohesion: usual ranges for drained granular and
 * undrained fine soils (Perko 2009).
 */
export interface Soil {
  readonly id: SoilId
  readonly lateralBearingPaPerM: readonly [number, number]
  readonly verticalBearingPa: readonly [number, number]
  readonly unitWeightNPerM3: number
  readonly frictionDeg: readonly [number, number]
  readonly cohesionPa: readonly [number, number]
  /** Ground that freezes lifts posts that stand in its frozen layer. */
  readonly heaves: boolean
}

const PSF_PER_FT = 47.880259 / 0.3048
const PSF = 47.880259

export const soils: readonly Soil[] = [
  {
    id: 'gravel',
    lateralBearingPaPerM: [150 * PSF_PER_FT, 200 * PSF_PER_FT],
    verticalBearingPa: [2000 * PSF, 3000 * PSF],
    unitWeightNPerM3: 19_000,
    frictionDeg: [33, 38],
    cohesionPa: [0, 0],
    heaves: false,
  },
  {
    id: 'sand',
    lateralBearingPaPerM: [100 * PSF_PER_FT, 150 * PSF_PER_FT],
    verticalBearingPa: [1500 * PSF, 2000 * PSF],
    unitWeightNPerM3: 17_500,
    frictionDeg: [28, 34],
    cohesionPa: [0, 0],
    heaves: false,
  },
  {
    id: 'loam',
    lateralBearingPaPerM: [80 * PSF_PER_FT, 120 * PSF_PER_FT],
    verticalBearingPa: [1200 * PSF, 1800 * PSF],
    unitWeightNPerM3: 17_000,
    frictionDeg: [24, 30],
    cohesionPa: [5_000, 15_000],
    heaves: true,
  },
  {
    id: 'clay',
    lateralBearingPaPerM: [80 * PSF_PER_FT, 100 * PSF_PER_FT],
    verticalBearingPa: [1200 * PSF, 1500 * PSF],
    unitWeightNPerM3: 18_000,
    frictionDeg: [0, 0],
    cohesionPa: [40_000, 90_000],
    heaves: true,
  },
  {
    id: 'soft-clay',
    lateralBearingPaPerM: [30 * PSF_PER_FT, 60 * PSF_PER_FT],
    verticalBearingPa: [500 * PSF, 1000 * PSF],
    unitWeightNPerM3: 16_500,
    frictionDeg: [0, 0],
    cohesionPa: [12_000, 25_000],
    heaves: true,
  },
  {
    id: 'peat',
    lateralBearingPaPerM: [10 * PSF_PER_FT, 25 * PSF_PER_FT],
    verticalBearingPa: [100 * PSF, 300 * PSF],
    unitWeightNPerM3: 11_000,
    frictionDeg: [0, 0],
    cohesionPa: [5_000, 10_000],
    heaves: true,
  },
]

export function findSoil(id: SoilId): Soil {
  return soils.find((soil) => soil.id === id)!
}
