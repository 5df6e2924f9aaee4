import { bendingMomentNm, stockWidthM } from '../catalogue/index.ts'
import { potOf } from '../design/index.ts'
import { kindOf } from '../frame/index.ts'
import type { Pot } from '../frame/index.ts'
import type { Lever, Tries } from './levers.ts'
import {
  fieldsOf,
  lengthTries,
  marksAbove,
  patternOf,
  stepsUp,
  stockTries,
  withField,
} from './tries-by-field.ts'
import { cellTries } from './tries-of-cells.ts'
import {
  braceStockTries,
  inLineTries,
  otherEndTries,
  screwTries,
  strandTries,
  tieFlatterTries,
  tieHigherTries,
} from './tries-of-ends.ts'
import { endingTries, fixingTries, strainerTries, tensionTries, wireTries } from './tries-of-wires.ts'

/** Deepest hole and deepest leg that a grower digs or drives by hand, metres. */
const DEEPEST_M = 1.8
const WIDEST_POT_M = 1.2
/** What two people carry and bed level under a post. */
const WIDEST_SLAB_M = 0.6
const MOST_LEGS = 8

const moreLegsTries: Tries = ({ design }) =>
  ['legs', 'stakes', 'count', 'hoops'].flatMap((key) => {
    const field = fieldsOf(design)[key]
    const now = patternOf(design)[key]
    if (field?.ask !== 'whole' || typeof now !== 'number') return []
    if (kindOf(design.pattern).traits.stands !== 'on-legs') return []
    const most = Math.min(field.max, Math.max(MOST_LEGS, now + 2))
    return stepsUp(now + 1, most).map((n) => ({
      lever: 'more-legs' as const,
      from: { is: 'count', n: now } as const,
      to: { is: 'count', n } as const,
      design: withField(design, key, n),
    }))
  })

const widerPotTries: Tries = ({ design, grain }) =>
  ['pot', 'tub'].flatMap((key) => {
    const pot = patternOf(design)[key] as Pot | null | undefined
    if (!pot) return []
    return marksAbove(pot.widthM, WIDEST_POT_M, grain.depthM).map((widthM) => ({
      lever: 'wider-pot' as const,
      from: { is: 'length', m: pot.widthM } as const,
      to: { is: 'length', m: widthM } as const,
      design: withField(design, key, { ...pot, widthM }),
    }))
  })

const MOST_BALLAST_KG = 120
/** On the feet of what stands on a floor without a pot, people lay more. */
const MOST_ON_FEET_KG = 300
const feetBallastTries: Tries = ({ design, grain }) =>
  kindOf(design.pattern).traits.stands !== 'on-legs' || potOf(design.pattern)
    ? []
    : marksAbove(design.feetBallastKg, MOST_ON_FEET_KG, grain.massKg).map((kg) => ({
        lever: 'feet-ballast' as const,
        from: { is: 'mass', kg: design.feetBallastKg } as const,
        to: { is: 'mass', kg } as const,
        design: { ...design, feetBallastKg: kg },
      }))

const ballastTries: Tries = ({ design, grain }) =>
  ['pot', 'tub'].flatMap((key) => {
    const pot = patternOf(design)[key] as Pot | null | undefined
    if (!pot) return []
    return marksAbove(pot.ballastKg, MOST_BALLAST_KG, grain.massKg).map((ballastKg) => ({
      lever: 'ballast' as const,
      from: { is: 'mass', kg: pot.ballastKg } as const,
      to: { is: 'mass', kg: ballastKg } as const,
      design: withField(design, key, { ...pot, ballastKg }),
    }))
  })

/** Fixings put onto the rails of a fence, however far each has to move for that. */
const ontoRailsTries: Tries = ({ design, site }) => {
  const reachM = site.levels ? site.levels.stepM / 2 + 0.01 : 0
  const isOnLevels = design.snap === 'levels' || design.snap === 'both'
  if (!site.levels || (isOnLevels && design.moveToleranceM >= reachM)) return []
  const snap = design.snap === 'uprights' || design.snap === 'both' ? 'both' : 'levels'
  const moveToleranceM = Math.max(design.moveToleranceM, reachM)
  return [{ lever: 'onto-rails', from: null, to: null, design: { ...design, snap, moveToleranceM } }]
}

/** A cover that comes off before snow bears none. */
const offInWinterTries: Tries = ({ design, site }) =>
  design.pattern.kind !== 'net' || design.pattern.offInWinter || site.conditions.snowPa === 0
    ? []
    : [{ lever: 'off-in-winter', from: null, to: null, design: withField(design, 'offInWinter', true) }]

const otherWindingTries: Tries = ({ design }) =>
  design.pattern.kind !== 'spiral'
    ? []
    : [
        {
          lever: 'other-winding',
          from: null,
          to: null,
          design: withField(
            design,
            'winding',
            design.pattern.winding === 'clockwise' ? 'anticlockwise' : 'clockwise',
          ),
        },
      ]

const LEG_STOCKS = ['legStockId', 'stakeStockId', 'hoopStockId', 'coreStockId', 'columnStockId'] as const
const closer = (nowM: number) => nowM * 0.3
const deep = () => DEEPEST_M

export const triesOf: Readonly<Record<Lever, Tries>> = {
  tension: tensionTries('tension', 'main'),
  'light-tension': tensionTries('light-tension', 'light'),
  wire: wireTries('wire', 'main'),
  'light-wire': wireTries('light-wire', 'light'),
  fixing: fixingTries,
  'supports-closer': lengthTries('supports-closer', ['maxSupportSpacingM'], 'down', 'spacingM', closer),
  'posts-closer': lengthTries('posts-closer', ['maxPostSpacingM'], 'down', 'spacingM', closer),
  'bays-shorter': lengthTries('bays-shorter', ['maxBayM'], 'down', 'spacingM', closer),
  'rafters-closer': lengthTries('rafters-closer', ['maxRafterSpacingM'], 'down', 'depthM', closer),
  'anchors-closer-along': lengthTries(
    'anchors-closer-along',
    ['maxSpacingAlongM'],
    'down',
    'spacingM',
    closer,
  ),
  'anchors-closer-across': lengthTries(
    'anchors-closer-across',
    ['maxSpacingAcrossM'],
    'down',
    'spacingM',
    closer,
  ),
  'posts-deeper': lengthTries('posts-deeper', ['postBuriedM'], 'up', 'depthM', deep),
  'ends-deeper': lengthTries('ends-deeper', ['endBuriedM'], 'up', 'depthM', deep),
  deeper: lengthTries('deeper', ['buriedM'], 'up', 'depthM', deep),
  'post-stock': stockTries('post-stock', ['postStockId'], stockWidthM),
  'end-stock': stockTries('end-stock', ['endStockId'], bendingMomentNm),
  'beam-stock': stockTries('beam-stock', ['beamStockId'], bendingMomentNm),
  'leg-stock': stockTries('leg-stock', LEG_STOCKS, bendingMomentNm),
  'arm-stock': stockTries('arm-stock', ['armStockId'], bendingMomentNm),
  'brace-stock': braceStockTries,
  screw: screwTries('screw', 'anchorScrewId'),
  'flange-screw': screwTries('flange-screw', 'flangeScrewId'),
  'tie-higher': tieHigherTries,
  'tie-flatter': tieFlatterTries,
  'tie-back': otherEndTries('tie-back'),
  brace: otherEndTries('brace'),
  'more-legs': moreLegsTries,
  lower: lengthTries('lower', ['heightM'], 'down', 'spacingM', (nowM) => nowM * 0.5),
  'wider-pot': widerPotTries,
  ballast: ballastTries,
  'feet-ballast': feetBallastTries,
  'onto-rails': ontoRailsTries,
  'other-winding': otherWindingTries,
  'screws-in-line': inLineTries,
  'tie-strands': strandTries,
  'wire-ending': endingTries,
  'off-in-winter': offInWinterTries,
  strainers: strainerTries,
  'end-slab': lengthTries('end-slab', ['endSlabM'], 'up', 'depthM', () => WIDEST_SLAB_M),
  'guys-flatter': lengthTries('guys-flatter', ['anchorOutM'], 'up', 'spacingM', (nowM) => nowM * 3),
  'wires-apart': lengthTries('wires-apart', ['wireSpacingM'], 'up', 'depthM', (nowM) => nowM * 2),
  'smaller-cells': cellTries('smaller-cells'),
  'larger-cells': cellTries('larger-cells'),
}
