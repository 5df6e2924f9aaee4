import { describe, expect, it } from 'vitest'
import { standardCatalogue } from '../catalogue/index.ts'
import { findKind, plantKinds } from '../kinds/index.ts'
import type { PatternKind, PlaceKind } from '../frame/index.ts'
import { startDesign, withPlant } from './index.ts'
import type { FrameDesign } from './index.ts'

const begun = (place: PlaceKind, kind: PatternKind, system: 'metric' | 'imperial' = 'metric') =>
  startDesign({ kind: place, widthM: 8, usableHeightM: 2, firstForkM: 0 }, kind, standardCatalogue, system)
const spacingOf = ({ pattern }: FrameDesign) => (pattern.kind === 'row' ? pattern.plantSpacingM : null)

describe('choosing what a frame will carry', () => {
  it('sets the plants of a row as far apart as the kind wants, and those of the next kind too', () => {
    const raspberry = withPlant(begun('row', 'row'), 'raspberry', 'metric')
    expect(spacingOf(raspberry)).toBe(findKind('raspberry')!.spacingM)
    expect(spacingOf(withPlant(raspberry, 'hardy-kiwi', 'metric'))).toBe(findKind('hardy-kiwi')!.spacingM)
    expect(spacingOf(withPlant(raspberry, null, 'metric'))).toBe(spacingOf(raspberry))
  })

  it('leaves a distance that somebody has set', () => {
    const row = begun('row', 'row')
    const set = { ...row, pattern: { ...row.pattern, plantSpacingM: 0.77 } as FrameDesign['pattern'] }
    expect(spacingOf(withPlant(set, 'raspberry', 'metric'))).toBe(0.77)
  })

  it('keeps to the marks of a tape in inches', () => {
    const raspberry = withPlant(begun('row', 'row', 'imperial'), 'raspberry', 'imperial')
    const inches = spacingOf(raspberry)! / 0.0254
    expect(Math.abs(inches - Math.round(inches))).toBeLessThan(1e-6)
    const kiwi = withPlant(raspberry, 'hardy-kiwi', 'imperial')
    expect(spacingOf(kiwi)).not.toBe(spacingOf(raspberry))
  })

  it('winds string the way the kind twines', () => {
    const twiners = plantKinds.filter(({ winding }) => winding !== null)
    expect(twiners.length).toBeGreaterThan(3)
    for (const { id, winding } of twiners) {
      const { pattern } = withPlant(begun('tub', 'spiral'), id, 'metric')
      expect(pattern.kind === 'spiral' && pattern.winding).toBe(winding)
    }
  })
})
