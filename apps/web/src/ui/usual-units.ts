import type { UnitSystem } from '@klados/core/units'

/** Regions where people build in feet and inches. */
const IN_INCHES: ReadonlySet<string> = new Set(['US', 'LR', 'MM'])

/** The system that is usual where the browser says it is, by the first of its languages that names a region. */
export function usualUnits(languages: readonly string[]): UnitSystem {
  for (const language of languages) {
    const region = regionOf(language)
    if (region !== undefined) return IN_INCHES.has(region) ? 'imperial' : 'metric'
  }
  return 'metric'
}

function regionOf(language: string): string | undefined {
  try {
    return new Intl.Locale(language).region
  } catch {
    return undefined
  }
}
