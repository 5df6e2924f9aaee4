import type { Conditions, PlannedSite } from './design.ts'

/**
 * What of the weather reaches a place: behind glass and indoors there is no wind, snow, ice or frost in the
 * ground; the temperatures are what the grower says of the place itself.
 */
export function weatherAt({ setting, conditions }: Pick<PlannedSite, 'setting' | 'conditions'>): Conditions {
  if (setting === 'open' || setting === 'terrace') return conditions
  return { ...conditions, windMPerS: 0, snowPa: 0, iceMm: 0, frostDepthM: 0 }
}
