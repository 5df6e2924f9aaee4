import type { Stock } from '@klados/core/catalogue'
import type { Pattern, PatternKind } from '@klados/core/frame'
import type { LengthStyle } from '@klados/core/units'

type Keys<K extends PatternKind> = keyof Extract<Pattern, { kind: K }> & string

/**
 * How one measure of a pattern is asked for. Labels are `field.<key>` in the translations, options
 * `option.<key>.<value>`.
 */
export type FieldSpec<Key extends string = string> =
  | {
      readonly key: Key
      readonly ask: 'length'
      readonly style?: LengthStyle
      readonly minM?: number
      readonly maxM?: number
      readonly orNone?: number
    }
  | { readonly key: Key; readonly ask: 'whole'; readonly min: number; readonly max: number }
  | {
      readonly key: Key
      readonly ask: 'number'
      readonly min: number
      readonly max: number
      readonly step: number
    }
  | { readonly key: Key; readonly ask: 'choice'; readonly options: readonly (string | number)[] }
  | { readonly key: Key; readonly ask: 'stock'; readonly uses: readonly Stock['use'][] }
  | { readonly key: Key; readonly ask: 'screw'; readonly head: 'eye' | 'flange' }

const length = <K extends string>(
  key: K,
  style: LengthStyle = 'long',
  minM = 0.01,
  maxM = 500,
): FieldSpec<K> => ({ key, ask: 'length', style, minM, maxM })
const whole = <K extends string>(key: K, min: number, max: number): FieldSpec<K> => ({
  key,
  ask: 'whole',
  min,
  max,
})
const stock = <K extends string>(key: K, ...uses: Stock['use'][]): FieldSpec<K> => ({
  key,
  ask: 'stock',
  uses,
})
const choice = <K extends string>(key: K, ...options: (string | number)[]): FieldSpec<K> => ({
  key,
  ask: 'choice',
  options,
})

/**
 * Measures in the order in which one takes them. Tiers, diamonds, rows, free nodes and pots have editors of
 * their own for the rest.
 */
export const patternFields: { readonly [K in PatternKind]: readonly FieldSpec<Keys<K>>[] } = {
  tiers: [length('maxSupportSpacingM', 'long', 0.1)],
  diamonds: [],
  zigzag: [length('strokeWidthM', 'long', 0.05)],
  triangles: [length('baseM', 'long', 0.05), whole('rows', 1, 20)],
  grid: [whole('verticals', 2, 200), whole('horizontals', 2, 60)],
  free: [],
  fan: [
    whole('ribs', 1, 31),
    { key: 'spreadDeg', ask: 'number', min: 0, max: 180, step: 5 },
    { key: 'wireStepM', ask: 'length', style: 'short', minM: 0.05, maxM: 5, orNone: 0.3 },
    length('maxSupportSpacingM', 'long', 0.1),
    { key: 'ribReachM', ask: 'length', style: 'long', minM: 0.3, maxM: 20, orNone: 2.4 },
    stock('ribStockId', 'stake'),
  ],
  row: [
    length('maxPostSpacingM', 'long', 0.5),
    length('postHeightM', 'long', 0.3, 10),
    length('postBuriedM', 'short', 0, 3),
    stock('postStockId', 'post'),
    stock('endStockId', 'post'),
    length('endBuriedM', 'short', 0, 4),
    { key: 'endLeanDeg', ask: 'number', min: 0, max: 45, step: 1 },
    { key: 'waterHeightM', ask: 'length', style: 'short', minM: 0, maxM: 5, orNone: 0.4 },
    length('plantSpacingM', 'long', 0.05),
  ],
  overhead: [
    length('depthM', 'long', 0.3, 50),
    length('headroomM', 'long', 1, 8),
    length('maxBayM', 'long', 0.5, 12),
    stock('postStockId', 'post'),
    length('postBuriedM', 'short', 0, 3),
    stock('beamStockId', 'beam'),
    length('overhangM', 'short', 0, 2),
    length('maxRafterSpacingM', 'long', 0.2, 10),
    length('wireSpacingM', 'short', 0.05, 5),
    whole('backWires', 0, 20),
  ],
  arch: [
    length('spanM', 'long', 0.1, 20),
    length('heightM', 'long', 0.1, 12),
    whole('hoops', 1, 60),
    length('depthM', 'long', 0.1, 50),
    length('rungStepM', 'short', 0.05, 3),
    length('buriedM', 'short', 0, 2),
    stock('hoopStockId', 'bar', 'stake'),
    stock('rungStockId', 'bar', 'stake'),
  ],
  net: [
    length('depthM', 'long', 1, 300),
    length('heightM', 'long', 1, 10),
    length('maxSpacingAlongM', 'long', 1, 30),
    length('maxSpacingAcrossM', 'long', 1, 30),
    stock('postStockId', 'post'),
    choice('interior', 'screw', 'hole'),
    length('postBuriedM', 'short', 0, 3),
    { key: 'flangeScrewId', ask: 'screw', head: 'flange' },
    { key: 'anchorScrewId', ask: 'screw', head: 'eye' },
    length('anchorOutM', 'long', 0.2, 10),
    length('panelWidthM', 'long', 0.5, 50),
    length('dropM', 'long', 0, 10),
  ],
  spiral: [
    whole('stakes', 2, 12),
    length('circleRadiusM', 'short', 0.03, 2),
    length('heightM', 'long', 0.2, 6),
    length('buriedM', 'short', 0, 2),
    stock('stakeStockId', 'stake'),
    length('startHeightM', 'short', 0, 3),
    { key: 'turns', ask: 'number', min: 0.5, max: 60, step: 0.5 },
    choice('winding', 'clockwise', 'anticlockwise'),
    choice('wrapsPerContact', 0, 1),
    whole('knotEvery', 0, 60),
    length('knotAllowanceM', 'short', 0, 0.5),
    choice('top', 'ring', 'polygon'),
    stock('topStockId', 'bar'),
  ],
  obelisk: [
    choice('form', 'obelisk', 'cone', 'ladder'),
    whole('legs', 3, 12),
    length('baseM', 'short', 0.1, 5),
    length('topM', 'short', 0, 5),
    length('heightM', 'long', 0.3, 8),
    length('buriedM', 'short', 0, 2),
    whole('rungs', 0, 30),
    stock('legStockId', 'stake', 'bar'),
    stock('rungStockId', 'stake', 'bar'),
  ],
  pole: [
    choice('form', 'mesh', 'wrapped', 'modules'),
    length('heightM', 'long', 0.1, 6),
    length('buriedM', 'short', 0, 1.5),
    length('diameterM', 'fine', 0.02, 0.6),
    length('lapM', 'fine', 0, 0.3),
    length('moduleM', 'short', 0.1, 2),
    stock('coreStockId', 'core', 'stake'),
  ],
  stakes: [
    whole('count', 1, 500),
    length('spacingM', 'short', 0.02, 20),
    length('heightM', 'long', 0.1, 6),
    length('buriedM', 'short', 0, 2),
    stock('stakeStockId', 'stake', 'bar'),
  ],
  column: [
    stock('columnStockId', 'post', 'bar'),
    stock('barStockId', 'bar'),
    length('lowerM', 'long', 0.2, 6),
    length('upperM', 'long', 0.2, 6),
    length('reachM', 'short', 0.1, 3),
    length('gravelM', 'short', 0, 1),
    whole('plants', 1, 8),
  ],
  brush: [
    whole('rows', 1, 12),
    length('rowSpacingM', 'short', 0.02, 3),
    length('twigStepM', 'short', 0.03, 3),
    length('heightM', 'long', 0.1, 3),
    length('buriedM', 'short', 0, 1),
    stock('twigStockId', 'stake'),
  ],
}

const BETWEEN_HOOPS: ReadonlySet<string> = new Set([
  'depthM',
  'rungStepM',
  'rungStockId',
] satisfies Keys<'arch'>[])

/** What is asked of this pattern: a hoop by itself has nothing between it and the next. */
export function fieldsFor(pattern: Pattern): readonly FieldSpec[] {
  const fields: readonly FieldSpec[] = patternFields[pattern.kind]
  return pattern.kind === 'arch' && pattern.hoops === 1
    ? fields.filter(({ key }) => !BETWEEN_HOOPS.has(key))
    : fields
}
