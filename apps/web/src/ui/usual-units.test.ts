import { describe, expect, it } from 'vitest'
import { usualUnits } from './usual-units.ts'

describe('the units of a new account', () => {
  it('are those of the first language that names a region, metric where none does', () => {
    expect(usualUnits(['en-US', 'en'])).toBe('imperial')
    expect(usualUnits(['en', 'en-US'])).toBe('imperial')
    expect(usualUnits(['en-GB', 'en-US'])).toBe('metric')
    expect(usualUnits(['en', 'de'])).toBe('metric')
    expect(usualUnits([])).toBe('metric')
    expect(usualUnits(['not a language!', 'es-US'])).toBe('imperial')
  })
})
