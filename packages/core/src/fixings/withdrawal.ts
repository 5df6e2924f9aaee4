import { requirePositive, requireRange } from '../errors/index.ts'

/** Specific gravity of oven-dry wood (NDS table 12.3.3A, rounded down within each group). */
export const specificGravity = {
  'western-red-cedar': 0.36,
  spruce: 0.42,
  pine: 0.46,
  larch: 0.5,
  oak: 0.67,
} as const
export type WoodSpecies = keyof typeof specificGravity

const MM_PER_INCH = 25.4
const N_PER_MM_PER_LB_PER_IN = 4.4482216152605 / 25.4
/** NDS table 11.3.3: fastenings in wood that stays wet in use. */
export const WET_SERVICE = 0.7

/**
 * Allowable pull of a lag-threaded eye or screw out of side grain, newtons, by W = 1800 G^1.5 D^0.75 pounds
 * per inch of thread in the wood (NDS 2018 eq. 12.2-1; its safety is in the 1800). `threadMm` is the thread's
 * outer diameter, `penetrationMm` the threaded length in sound wood, tip left out. Wood in the open counts as
 * wet.
 */
export function withdrawalN(input: {
  readonly threadMm: number
  readonly penetrationMm: number
  readonly specificGravity: number
  readonly exposure: 'dry' | 'wet'
}): number {
  const D = requirePositive('threadMm', input.threadMm, 100) / MM_PER_INCH
  const G = requireRange('specificGravity', input.specificGravity, 0.1, 1.2)
  const perMm = 1800 * G ** 1.5 * D ** 0.75 * N_PER_MM_PER_LB_PER_IN
  return (
    perMm *
    requireRange('penetrationMm', input.penetrationMm, 0, 1000) *
    (input.exposure === 'wet' ? WET_SERVICE : 1)
  )
}

/** NDS table 11.3.3: nails driven into wet wood that dries, or the other way round, keep a quarter. */
const DRIED_OUT = 0.25

/**
 * Allowable pull of a smooth nail out of side grain, newtons, from a quarter of it to all of it as the wood has
 * been wet and dry since: W = 1380 G^2.5 D pounds per inch in the wood (NDS 2018 eq. 12.2-3).
 */
export function nailWithdrawalN(input: {
  readonly diameterMm: number
  readonly penetrationMm: number
  readonly specificGravity: number
}): readonly [number, number] {
  const D = requirePositive('diameterMm', input.diameterMm, 20) / MM_PER_INCH
  const G = requireRange('specificGravity', input.specificGravity, 0.1, 1.2)
  const held =
    1380 * G ** 2.5 * D * N_PER_MM_PER_LB_PER_IN * requireRange('penetrationMm', input.penetrationMm, 0, 1000)
  return [held * DRIED_OUT, held]
}
