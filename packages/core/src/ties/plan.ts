import { alongPath, nearestOnPath, pathLengthM } from '../geometry/index.ts'
import type { DeepPoint } from '../geometry/index.ts'
import type { PlantKind } from '../kinds/index.ts'
import { supportsOf, tiePoints } from '../wood/index.ts'
import type { Hitch, Support, TieSupport } from '../wood/index.ts'
import { requiredLoopMm, usualLoopMm } from './loop.ts'
import { findTieMaterial } from './materials.ts'
import type { TieMaterialId } from './materials.ts'

/** A stem that is to be tied along its line. */
export interface StemToTie {
  readonly path: readonly DeepPoint[]
  readonly ageSeasons: number
  readonly baseMm: number
  readonly tipMm: number | null
  /** Wood that is replaced every year or two is tied with what rots in a year. */
  readonly isPermanent: boolean
}

export interface PlannedTie {
  readonly alongM: number
  readonly at: DeepPoint
  readonly support: Support
  readonly supportDiameterMm: number
  readonly stemMm: number
  readonly loopMm: number
  /** To cut from the coil: loop, tails and knot. */
  readonly lengthMm: number
}

export interface TiePlan {
  readonly materialId: TieMaterialId
  readonly hitch: Hitch
  readonly ties: readonly PlannedTie[]
  readonly totalM: number
}

/** A stem that lies along a wire is within this of it. */
const ALONG_M = 0.06
/** Along a wire one ties so often: laid wood that can spring closer than what only leans. */
const EVERY_M = 0.35
/** The end of a cane is tied this far before its last bud. */
const BEFORE_END_M = 0.04
/** Of a soft shoot the last of its growth is left free. */
const SOFT_SHARE = 0.15
const SAME_M = 0.12
const TIP_SHARE = 0.6
const THICK_MM = 25

/** What ties wood of an age: soft on soft stems, for a year what lies for a year, giving what swells for years. */
export function usualTie(stem: Pick<StemToTie, 'ageSeasons' | 'baseMm' | 'isPermanent'>): {
  readonly materialId: TieMaterialId
  readonly hitch: Hitch
} {
  if (stem.ageSeasons === 0) return { materialId: 'raffia', hitch: 'figureEight' }
  if (stem.baseMm > THICK_MM) return { materialId: 'padded-hose', hitch: 'belt' }
  return { materialId: stem.isPermanent ? 'stretch-tape' : 'soft-jute', hitch: 'figureEight' }
}

/**
 * Where a stem is tied along its line, with what and how long each: at the wires that it crosses, every so often along
 * one that it lies on, along stakes and poles; always the end of a cane, never the soft tip of a shoot.
 */
export function planTies(stem: StemToTie, all: readonly TieSupport[]): TiePlan {
  const supports = supportsOf(stem.path, all)
  const { materialId, hitch } = usualTie(stem)
  const total = pathLengthM(stem.path)
  const lastM = stem.ageSeasons === 0 ? total * (1 - SOFT_SHARE) : Math.max(0, total - BEFORE_END_M)
  const found = tiePoints(stem.path, supports)
    .filter(({ alongM }) => alongM <= lastM)
    .map(({ alongM, at, support, supportDiameterMm }) => ({ alongM, at, support, supportDiameterMm }))
  const add = (alongM: number) => {
    const at = alongPath(stem.path, alongM)
    const near = supports
      .filter(({ isUpright }) => !isUpright)
      .map((support) => ({ support, near: nearestOnPath(support.path, at) }))
      .sort((a, b) => a.near.distanceM - b.near.distanceM)[0]
    if (!near || near.near.distanceM > ALONG_M) return false
    if (found.some((one) => Math.abs(one.alongM - alongM) < SAME_M)) return true
    const { part, frameId, diameterMm } = near.support
    found.push({
      alongM,
      at,
      support: { ...part, frameId, alongM: near.near.alongM },
      supportDiameterMm: diameterMm,
    })
    return true
  }
  if (total > SAME_M) add(lastM)
  for (let alongM = EVERY_M; alongM < lastM - SAME_M; alongM += EVERY_M) add(alongM)
  const material = findTieMaterial(materialId)!
  const tipMm = stem.tipMm ?? stem.baseMm * TIP_SHARE
  const ties = found
    .sort((a, b) => a.alongM - b.alongM)
    .map((one): PlannedTie => {
      const share = total > 0 ? one.alongM / total : 0
      const stemMm = Math.max(1, Math.round((stem.baseMm + (tipMm - stem.baseMm) * share) * 10) / 10)
      const loopMm = usualLoopMm(hitch, stemMm, one.supportDiameterMm)
      return { ...one, stemMm, loopMm, lengthMm: loopMm + material.tailMm }
    })
  return { materialId, hitch, ties, totalM: ties.reduce((sum, { lengthMm }) => sum + lengthMm / 1000, 0) }
}

export const tieWarningCodes = [
  'too-short',
  'too-tight',
  'hard-on-swelling',
  'soft-tip',
  'end-loose',
  'against-twining',
  'woven',
] as const
export type TieWarning = (typeof tieWarningCodes)[number]

/** What gives less than this does not follow wood that swells, mm of thickening a year. */
const SWELLS_MM = 5
/** A finger's room. */
const ROOM_MM = 8

/** What a grower should know before making a tie so. */
export function tieWarnings(tie: {
  readonly materialId: TieMaterialId
  readonly hitch: Hitch
  readonly loopMm: number
  readonly stemMm: number
  readonly supportMm: number
  readonly alongM: number
  readonly stemLengthM: number
  readonly ageSeasons: number
  readonly isEndTied: boolean
  readonly isWoven: boolean
  /** Whether it is wound round its support the other way than the kind twines. */
  readonly isAgainstTwining: boolean
  readonly kind: PlantKind
}): TieWarning[] {
  const found: TieWarning[] = []
  const needMm = requiredLoopMm(tie.hitch, tie.stemMm, tie.supportMm)
  const material = findTieMaterial(tie.materialId)!
  if (tie.loopMm < needMm) found.push('too-short')
  else if (tie.loopMm < needMm + ROOM_MM) found.push('too-tight')
  const swellsMm = tie.ageSeasons < 2 ? tie.kind.youngThickeningMm[1] : tie.kind.olderThickeningMm[1]
  const lastsLong = material.lifeDays[0] > 400
  if (tie.ageSeasons > 0 && material.stretch < 0.05 && lastsLong && swellsMm >= SWELLS_MM)
    found.push('hard-on-swelling')
  if (tie.ageSeasons === 0 && tie.alongM > tie.stemLengthM * (1 - SOFT_SHARE)) found.push('soft-tip')
  if (tie.ageSeasons === 1 && !tie.isEndTied) found.push('end-loose')
  if (tie.isAgainstTwining) found.push('against-twining')
  if (tie.isWoven) found.push('woven')
  return found
}
