import type { Pattern } from '../frame/index.ts'
import type { LeverStep, Tries, Trying } from './levers.ts'
import { lengthTries, marksAbove, marksBelow, stepsUp } from './tries-by-field.ts'

const MOST_CELLS_MORE = 12
/** Cells beyond this are another lattice. */
const limitOf = (isSmaller: boolean, nowM: number) => (isSmaller ? nowM * 0.3 : nowM * 3)

/** A lattice with cells of another size: by their width where that was asked for, else by their number. */
export function cellTries(lever: 'smaller-cells' | 'larger-cells'): Tries {
  const isSmaller = lever === 'smaller-cells'
  return (trying) => {
    const { design } = trying
    const { pattern } = design
    const limit = (nowM: number) => limitOf(isSmaller, nowM)
    const byLength = (key: string) =>
      lengthTries(lever, [key], isSmaller ? 'down' : 'up', 'spacingM', limit)(trying)
    const byCount = (now: number, make: (n: number) => Pattern): LeverStep[] =>
      (isSmaller ? stepsUp(now + 1, now + MOST_CELLS_MORE) : stepsUp(1, now - 1).reverse()).map((n) => ({
        lever,
        from: { is: 'count', n: now },
        to: { is: 'count', n },
        design: { ...design, pattern: make(n) },
      }))
    switch (pattern.kind) {
      case 'zigzag':
        return byLength('strokeWidthM')
      case 'triangles':
        return byLength('baseM')
      case 'grid':
        return byCount(pattern.verticals, (verticals) => ({ ...pattern, verticals }))
      case 'diamonds':
        return cellsOfDiamonds(pattern, trying, isSmaller, byCount)
      default:
        return []
    }
  }
}

function cellsOfDiamonds(
  pattern: Extract<Pattern, { kind: 'diamonds' }>,
  { design, grain }: Trying,
  isSmaller: boolean,
  byCount: (now: number, make: (n: number) => Pattern) => LeverStep[],
): LeverStep[] {
  const { cell } = pattern
  if (cell.by === 'count') return byCount(cell.count, (count) => ({ ...pattern, cell: { ...cell, count } }))
  const limitM = limitOf(isSmaller, cell.widthM)
  const marks = (isSmaller ? marksBelow : marksAbove)(cell.widthM, limitM, grain.spacingM)
  return marks.map((widthM) => ({
    lever: isSmaller ? 'smaller-cells' : 'larger-cells',
    from: { is: 'length', m: cell.widthM },
    to: { is: 'length', m: widthM },
    design: { ...design, pattern: { ...pattern, cell: { ...cell, widthM } } },
  }))
}
