import { describe, expect, it } from 'vitest'
import { findKind, plantKinds } from './index.ts'

describe('the kinds of plants', () => {
  it('are about two dozen, each once, with ranges in order', () => {
    expect(plantKinds.length).toBeGreaterThanOrEqual(20)
    expect(new Set(plantKinds.map((kind) => kind.id)).size).toBe(plantKinds.length)
    expect(new Set(plantKinds.map((kind) => kind.botanical)).size).toBe(plantKinds.length)
    for (const kind of plantKinds) {
      expect(findKind(kind.id)).toBe(kind)
      for (const [slow, quick] of [kind.youngThickeningMm, kind.olderThickeningMm]) {
        expect(slow).toBeGreaterThanOrEqual(0)
        expect(quick).toBeGreaterThanOrEqual(slow)
      }
      expect(kind.internodeM).toBeLessThan(kind.spacingM)
    }
  })

  it('turn one way where they twine, and none where they do not', () => {
    for (const kind of plantKinds)
      expect([kind.id, kind.winding !== null]).toEqual([kind.id, kind.holds === 'twining'])
  })

  it('weigh more wet than dry and more in crop than wet, heavy ones the most', () => {
    const full = (id: string) => {
      const { leafKgPerM2, wetKgPerM2, cropKgPerM2 } = findKind(id)!.weight
      expect(leafKgPerM2).toBeGreaterThan(0)
      expect(wetKgPerM2).toBeGreaterThan(0)
      expect(cropKgPerM2).toBeGreaterThanOrEqual(0)
      return leafKgPerM2 + wetKgPerM2 + cropKgPerM2
    }
    const weights = plantKinds.map((kind) => ({ isHeavy: kind.hazards.includes('heavy'), kg: full(kind.id) }))
    const lightestHeavy = Math.min(...weights.filter((one) => one.isHeavy).map((one) => one.kg))
    const others = weights.filter((one) => !one.isHeavy).map((one) => one.kg)
    expect(lightestHeavy).toBeGreaterThanOrEqual(Math.max(...others))
  })

  it('that are not known are not made up', () => {
    expect(findKind('unheard-of')).toBeUndefined()
  })

  it('of one genus may twine opposite ways: the two wisterias do', () => {
    expect(findKind('wisteria')).toMatchObject({ botanical: 'Wisteria sinensis', winding: 'anticlockwise' })
    expect(findKind('wisteria-floribunda')?.winding).toBe('clockwise')
  })
})
