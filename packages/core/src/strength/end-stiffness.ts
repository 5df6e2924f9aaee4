import { findStock, secondMomentM4, stockMaterials, weakAxis } from '../catalogue/index.ts'
import type { Catalogue } from '../catalogue/index.ts'
import type { FrameDesign } from '../design/index.ts'
import type { OverheadPattern } from '../frame/index.ts'

/**
 * Give of both ends of a free-standing row together, for one of its wires: cantilevers 3EI/h³, in series,
 * shared.
 */
export function endStiffness(design: FrameDesign, catalogue: Catalogue): number | null {
  if (design.pattern.kind === 'overhead') return rafterStiffness(design.pattern, catalogue)
  if (design.pattern.kind !== 'row' || design.pattern.end.kind !== 'free') return null
  const { levels, endStockId } = design.pattern
  const stock = findStock(catalogue, endStockId)
  if (!stock) return null
  const wires = levels.reduce((sum, level) => sum + (level.form === 'single' ? 1 : 2), 0)
  const heightM = Math.max(0.3, levels.reduce((sum, level) => sum + level.heightM, 0) / levels.length)
  const E = stockMaterials[stock.material].modulusPa
  return (3 * E * secondMomentM4(stock.section)) / heightM ** 3 / 2 / wires
}

/**
 * Give of the two rafters that overhead wires end on, for one wire: bent over their narrow side by wires at even steps,
 * wL⁴/120EI in the mean, both in series.
 */
function rafterStiffness(
  { beamStockId, depthM, wireSpacingM }: OverheadPattern,
  catalogue: Catalogue,
): number | null {
  const stock = findStock(catalogue, beamStockId)
  if (!stock) return null
  const EI = stockMaterials[stock.material].modulusPa * secondMomentM4(weakAxis(stock.section))
  return (120 * EI * Math.min(wireSpacingM, depthM)) / depthM ** 4 / 2
}
