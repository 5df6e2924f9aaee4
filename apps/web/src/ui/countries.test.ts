import { describe, expect, it } from 'vitest'
import { countries, countryOf, unitsIn } from './countries.ts'

describe('what is usual where the browser says it is', () => {
  it('are the units of the first language that names a country, metric where none does', () => {
    const units = (...languages: string[]) => unitsIn(countryOf(languages))
    expect(units('en-US', 'en')).toBe('imperial')
    expect(units('en', 'en-US')).toBe('imperial')
    expect(units('en-GB', 'en-US')).toBe('metric')
    expect(units('en', 'de')).toBe('metric')
    expect(units()).toBe('metric')
    expect(units('not a language!', 'es-US')).toBe('imperial')
  })

  it('has for each country once a currency that can be written and a name', () => {
    expect(new Set(countries.map(({ code }) => code)).size).toBe(countries.length)
    const names = new Intl.DisplayNames(['en'], { type: 'region' })
    for (const { code, currency, latitudeDeg } of countries) {
      expect(names.of(code)).not.toBe(code)
      expect(Intl.supportedValuesOf('currency')).toContain(currency)
      expect(Math.abs(latitudeDeg)).toBeLessThan(67)
    }
  })
})
