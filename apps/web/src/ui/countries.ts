import type { UnitSystem } from '@klados/core/units'

/** What is usual in a country, to begin from: what one pays in, and about where its gardens lie. */
export interface Country {
  readonly code: string
  readonly currency: string
  readonly latitudeDeg: number
}

const country = (code: string, currency: string, latitudeDeg: number): Country => ({
  code,
  currency,
  latitudeDeg,
})

/** Latitudes are of where most people live, to whole degrees; a garden's own is typed where its settings are. */
export const countries: readonly Country[] = [
  country('AR', 'ARS', -34),
  country('AT', 'EUR', 48),
  country('AU', 'AUD', -34),
  country('BE', 'EUR', 51),
  country('BG', 'BGN', 43),
  country('BR', 'BRL', -23),
  country('CA', 'CAD', 45),
  country('CH', 'CHF', 47),
  country('CL', 'CLP', -33),
  country('CN', 'CNY', 33),
  country('CO', 'COP', 5),
  country('CZ', 'CZK', 50),
  country('DE', 'EUR', 51),
  country('DK', 'DKK', 56),
  country('EE', 'EUR', 59),
  country('ES', 'EUR', 40),
  country('FI', 'EUR', 61),
  country('FR', 'EUR', 47),
  country('GB', 'GBP', 52),
  country('GR', 'EUR', 39),
  country('HR', 'EUR', 45),
  country('HU', 'HUF', 47),
  country('IE', 'EUR', 53),
  country('IL', 'ILS', 32),
  country('IN', 'INR', 20),
  country('IS', 'ISK', 64),
  country('IT', 'EUR', 43),
  country('JP', 'JPY', 36),
  country('KE', 'KES', -1),
  country('KR', 'KRW', 37),
  country('LT', 'EUR', 55),
  country('LU', 'EUR', 50),
  country('LV', 'EUR', 57),
  country('MT', 'EUR', 36),
  country('MX', 'MXN', 20),
  country('NL', 'EUR', 52),
  country('NO', 'NOK', 60),
  country('NZ', 'NZD', -39),
  country('PE', 'PEN', -12),
  country('PL', 'PLN', 52),
  country('PT', 'EUR', 40),
  country('RO', 'RON', 45),
  country('RS', 'RSD', 45),
  country('SE', 'SEK', 59),
  country('SI', 'EUR', 46),
  country('SK', 'EUR', 49),
  country('TR', 'TRY', 39),
  country('UA', 'UAH', 49),
  country('US', 'USD', 39),
  country('UY', 'UYU', -34),
  country('ZA', 'ZAR', -29),
]

/** Countries in which people build in feet and inches. */
const IN_INCHES: ReadonlySet<string> = new Set(['US', 'LR', 'MM'])

export const unitsIn = (code: string | undefined): UnitSystem =>
  code !== undefined && IN_INCHES.has(code) ? 'imperial' : 'metric'

/** Where the browser says it is, by the first of its languages that names a country; nowhere where none does. */
export function countryOf(languages: readonly string[]): string | undefined {
  for (const language of languages) {
    const region = regionOf(language)
    if (region !== undefined) return region
  }
  return undefined
}

function regionOf(language: string): string | undefined {
  try {
    return new Intl.Locale(language).region
  } catch {
    return undefined
  }
}
