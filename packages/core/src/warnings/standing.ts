import { potOf } from '../design/index.ts'
import type { FrameDesign } from '../design/index.ts'
import { potsUnder, standingKg, standsOnFloor } from '../loads/index.ts'
import { HEAD_SPACE_M } from '../frame/index.ts'
import type { Pattern, PatternOfKind, Pot } from '../frame/index.ts'
import { findSoil } from '../ground/index.ts'
import { findKind } from '../kinds/index.ts'
import type { CraftWarning, Warned } from './warning.ts'

/** What climbs with aerial roots and grows heavy wants a pole it can take hold of, metres across. */
const STOUT_POLE_M = 0.06
/** Soil that is left round roots and pole in their pot, at each side; more than the most keeps wet. */
const ROUND_ROOTS_M = [0.01, 0.025, 0.05] as const
/** Share of a stake that is in the ground, and the least of it, metres. */
const STAKE_SHARE = 0.2
const LEAST_STAKE_M = 0.15

/** What is asked of stakes, poles, their pots, and of a roof's length. */
export function standingWarnings(of: Warned): CraftWarning[] {
  const { pattern } = of.design
  return [
    ...floorWarnings(of),
    ...loadWarnings(of),
    ...legWarnings(of),
    ...frostWarnings(of),
    ...warningsOf(of, pattern),
  ]
}

/** Into a terrace nothing is pushed: what is said to be in the ground there is not. */
function floorWarnings({ site, frame, design }: Warned): CraftWarning[] {
  const { pattern } = design
  if (!standsOnFloor(site, frame, potOf(pattern)) || !('buriedM' in pattern) || pattern.buriedM === 0)
    return []
  return [
    {
      code: 'feet-in-floor',
      figures: { nowM: pattern.buriedM },
      better: withPattern(design, { ...pattern, buriedM: 0 }),
    },
  ]
}

/** Less than this a floor bears as it bears people, kilograms. */
const HEAVY_KG = 50

/** What a terrace or balcony has to bear after rain, for whoever knows what the building allows. */
function loadWarnings({ site, frame, design, catalogue }: Warned): CraftWarning[] {
  if (site.setting !== 'terrace') return []
  const pot = potOf(design.pattern)
  if (!pot && design.feetBallastKg === 0) return []
  const massKg = pot
    ? standingKg(frame, pot, catalogue, 'wet') * design.repeat
    : design.feetBallastKg * design.repeat
  if (massKg < HEAVY_KG) return []
  const eachM2 = pot ? (pot.shape === 'round' ? Math.PI / 4 : 1) * pot.widthM ** 2 : null
  if (eachM2 === null) return [{ code: 'floor-load-feet', figures: { massKg } }]
  const kgPerM2 = massKg / design.repeat / potsUnder(frame) / eachM2
  return [{ code: 'floor-load', figures: { massKg, kgPerM2 } }]
}

/** Legs that are joined above hold one another: they need less depth than a stake by itself. */
const JOINED_SHARE = 0.1
const LEAST_LEG_M = 0.15

/** Legs that stand on the soil, or hardly in it, walk and are lifted by the wind. */
function legWarnings({ site, frame, design }: Warned): CraftWarning[] {
  const { pattern } = design
  if (pattern.kind !== 'arch' && pattern.kind !== 'obelisk' && pattern.kind !== 'spiral') return []
  if (standsOnFloor(site, frame, pattern.pot)) return []
  const wantedM = Math.ceil(Math.max(LEAST_LEG_M, pattern.heightM * JOINED_SHARE) * 20 - 1e-6) / 20
  const leastM = Math.min(wantedM, soilDepthM(pattern.pot))
  if (pattern.buriedM >= leastM - 1e-9) return []
  return [
    {
      code: 'leg-shallow',
      figures: { nowM: pattern.buriedM, leastM },
      better: withPattern(design, { ...pattern, buriedM: leastM }),
    },
  ]
}

/** How deep anything can go into a pot, on whole centimetres; without a pot as deep as one likes. */
const soilDepthM = (pot: Pot | null): number =>
  pot ? Math.floor((pot.heightM - HEAD_SPACE_M) * 100 + 1e-6) / 100 : Infinity

/** Ground that heaves lifts posts that end in its frozen layer, a little each winter. */
function frostWarnings({ site, design }: Warned): CraftWarning[] {
  const { pattern } = design
  const { soil, frostDepthM } = site.conditions
  if (pattern.kind !== 'row' || !findSoil(soil).heaves) return []
  const shallowM = Math.min(pattern.postBuriedM, pattern.endBuriedM)
  if (shallowM >= frostDepthM) return []
  const deepM = Math.ceil(frostDepthM * 20 - 1e-6) / 20
  const postBuriedM = Math.max(pattern.postBuriedM, deepM)
  const endBuriedM = Math.max(pattern.endBuriedM, deepM)
  return [
    {
      code: 'frost-lifts',
      figures: { nowM: shallowM, frostM: frostDepthM },
      better: withPattern(design, { ...pattern, postBuriedM, endBuriedM }),
    },
  ]
}

function warningsOf(of: Warned, pattern: Pattern): CraftWarning[] {
  switch (pattern.kind) {
    case 'pole':
      return poleWarnings(of.design, pattern)
    case 'stakes':
      return stakeWarnings(of.design, pattern)
    case 'overhead':
      return roofWarnings(of.design, pattern)
    case 'row':
      return roomWarnings(of, pattern)
    default:
      return []
  }
}

const withPattern = (design: FrameDesign, pattern: Pattern): FrameDesign => ({ ...design, pattern })

/** The pot that holds these roots and this pole and not much more, metres, on whole centimetres. */
export function potForPole({
  rootsM,
  diameterM,
}: Pick<PatternOfKind<'pole'>, 'rootsM' | 'diameterM'>): number {
  return Math.ceil(((rootsM ?? 0) + diameterM + 2 * ROUND_ROOTS_M[1]) * 100 - 1e-6) / 100
}

function poleWarnings(design: FrameDesign, pattern: PatternOfKind<'pole'>): CraftWarning[] {
  const { pot, rootsM, diameterM } = pattern
  const kind = design.plantKindId === null ? undefined : findKind(design.plantKindId)
  const thin: CraftWarning[] =
    kind?.holds === 'aerial-roots' && diameterM < STOUT_POLE_M
      ? [
          {
            code: 'pole-thin',
            figures: { nowM: diameterM, leastM: STOUT_POLE_M },
            better: withPattern(design, { ...pattern, diameterM: STOUT_POLE_M }),
          },
        ]
      : []
  if (!pot || rootsM === null) return thin
  const wantedM = potForPole(pattern)
  const [leastM, , mostM] = ROUND_ROOTS_M.map((roundM) => rootsM + diameterM + 2 * roundM) as [
    number,
    number,
    number,
  ]
  const code = pot.widthM < leastM - 1e-9 ? 'pot-small' : pot.widthM > mostM + 1e-9 ? 'pot-large' : null
  if (code === null) return thin
  const better = withPattern(design, { ...pattern, pot: { ...pot, widthM: wantedM } })
  return [...thin, { code, figures: { nowM: pot.widthM, wantedM, rootsM, poleM: diameterM }, better }]
}

function stakeWarnings(design: FrameDesign, pattern: PatternOfKind<'stakes'>): CraftWarning[] {
  const wantedM = Math.ceil(Math.max(LEAST_STAKE_M, pattern.heightM * STAKE_SHARE) * 20 - 1e-6) / 20
  const leastM = Math.min(wantedM, soilDepthM(pattern.pot))
  if (pattern.buriedM >= leastM - 1e-9) return []
  return [
    {
      code: 'stake-shallow',
      figures: { nowM: pattern.buriedM, leastM, lengthM: pattern.heightM + leastM },
      better: withPattern(design, { ...pattern, buriedM: leastM }),
    },
  ]
}

/** Ties and their screws stand beyond the end posts: further than there is ground, they need another end. */
function roomWarnings({ site, frame, design }: Warned, pattern: PatternOfKind<'row'>): CraftWarning[] {
  const { roomBeyondM: roomM, end } = pattern
  if (roomM === null) return []
  const needM = frame.anchors.reduce((most, { at }) => Math.max(most, -at.xM, at.xM - site.widthM), 0)
  if (needM <= roomM + 1e-6 || end.kind !== 'tied-back') return []
  const { attachHeightM } = end
  const braced = { kind: 'braced', attachHeightM, angleDeg: 45, stockId: pattern.postStockId } as const
  const better = withPattern(design, { ...pattern, end: braced })
  return [{ code: 'no-room-beyond', figures: { needM, roomM }, better }]
}

/** A year's canes that are led up a post and over the roof: how far they come, against how far it is. */
function roofWarnings(design: FrameDesign, pattern: PatternOfKind<'overhead'>): CraftWarning[] {
  const kind = design.plantKindId === null ? undefined : findKind(design.plantKindId)
  if (!kind?.caneM) return []
  const wayM = pattern.headroomM + pattern.depthM
  const [lowM, highM] = kind.caneM
  return highM >= wayM ? [] : [{ code: 'canes-short', figures: { lowM, highM, wayM } }]
}
