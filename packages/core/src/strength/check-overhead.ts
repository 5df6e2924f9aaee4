import { leafWindNPerM, GRAVITY, windForceN } from '../loads/index.ts'
import { findSoil, lateralHoldingN, screwHolding } from '../ground/index.ts'
import { bendingMomentNm, findScrew, findStock, stockMassKgPerM } from '../catalogue/index.ts'
import { findKind, plantWeight } from '../kinds/index.ts'
import { check, same, worstOf } from './check.ts'
import type { Check, CheckContext, Assumption } from './check.ts'

/**
 * Anchors of a cover: the cable's pull in the worst hour, and the lift of wind under the cover shared by the
 * anchors.
 */
export function anchorChecks({ frame, site, design, catalogue, drives, lines }: CheckContext): Check[] {
  if (design.pattern.kind !== 'net') return []
  const soil = findSoil(site.conditions.soil)
  const eyes = frame.anchors.filter((anchor) => anchor.head === 'eye')
  const cable = worstOf(lines, (line) => line.worst.tensionN)
  const coverM2 = frame.figures.find((figure) => figure.key === 'cover-area')?.value ?? 0
  const liftN = windForceN({
    speedMPerS: site.conditions.windMPerS,
    areaM2: coverM2,
    solidity: NET_SOLIDITY,
    dragCoefficient: NET_LIFT,
  })
  const weakest = eyes
    .flatMap((anchor) => {
      const screw = findScrew(catalogue, anchor.screwId)
      if (!screw) return []
      const drive = drives.get(anchor.id) ?? {
        depthAlongM: screw.lengthM,
        angleFromVerticalRad: Math.atan2(
          Math.hypot(anchor.towards.xM - anchor.at.xM, anchor.towards.zM - anchor.at.zM),
          anchor.towards.yM,
        ),
        reworks: 0,
        torqueNm: null,
        pullTestN: null,
      }
      return [
        { anchor, holding: screwHolding(screw, soil, drive).allowableN, isLogged: drives.has(anchor.id) },
      ]
    })
    .sort((a, b) => a.holding[0] - b.holding[0])[0]
  if (!weakest) return []
  const basis: Assumption = weakest.isLogged ? 'drive-as-logged' : 'drive-full-depth'
  return [
    ...(cable
      ? check({
          code: 'anchor-pull',
          subject: weakest.anchor.label,
          need: cable.worst.tensionN,
          holding: weakest.holding,
          unit: 'N',
          assumptions: ['soil-by-feel', 'safety-two', basis],
          source: 'perko',
          isStructural: true,
        })
      : []),
    ...check({
      code: 'cover-uplift',
      subject: weakest.anchor.label,
      need: liftN / Math.max(1, eyes.length),
      holding: weakest.holding,
      unit: 'N',
      assumptions: ['gust-as-given', 'posts-share', basis],
      source: 'wind-pressure',
      isStructural: true,
    }),
  ]
}

/** Solid share of a bird net, and lift on a flat open canopy. */
const NET_SOLIDITY = 0.25
const NET_LIFT = 1.0

/** What stands in the ground for years: below the frost, and not sinking. */
export function groundChecks({ frame, site, design }: CheckContext): Check[] {
  const soil = findSoil(site.conditions.soil)
  const posts = frame.members.filter((member) => member.part.endsWith('post') && member.buriedM > 0)
  const shallowest = worstOf(posts, (post) => -post.buriedM)
  if (!shallowest || !soil.heaves || design.pattern.kind === 'row') return []
  return check({
    code: 'post-frost',
    subject: shallowest.label ?? shallowest.id,
    need: site.conditions.frostDepthM,
    holding: same(shallowest.buriedM),
    unit: 'm',
    assumptions: ['soil-by-feel'],
    source: 'ibc-1806',
    advice: { depthM: site.conditions.frostDepthM },
  })
}

/** Weight of plant, crop, rain and snow on an overhead frame, newtons per square metre. */
function overheadLoadPa({ design, site }: CheckContext): number {
  const kind = design.plantKindId === null ? undefined : findKind(design.plantKindId)
  const weight = kind ? plantWeight(kind) : { leafKgPerM2: 0, wetKgPerM2: 0, cropKgPerM2: 0 }
  const plantPa = (weight.leafKgPerM2 + weight.wetKgPerM2 + weight.cropKgPerM2) * GRAVITY
  return plantPa + site.conditions.snowPa
}

/** Beams, rafters and posts of what stands over people. */
export function overheadChecks(context: CheckContext): Check[] {
  const { design, site, catalogue, frame } = context
  if (design.pattern.kind !== 'overhead') return []
  const { pattern } = design
  const soil = findSoil(site.conditions.soil)
  const bayM = frame.figures.find((figure) => figure.key === 'span')?.value ?? 0
  const beam = findStock(catalogue, pattern.beamStockId)!
  const timberPa = (stockMassKgPerM(beam) * GRAVITY) / Math.min(pattern.maxRafterSpacingM, pattern.depthM)
  const loadPa = overheadLoadPa(context) + timberPa
  const depthM = pattern.depthM + 2 * pattern.overhangM
  const posts = frame.members.filter((member) => member.part === 'post')
  const postN = (loadPa * (site.widthM + 2 * pattern.overhangM) * depthM) / Math.max(1, posts.length)
  // Edge posts carry half a bay; the middle ones carry a whole one.
  const worstPostN = posts.length > 4 ? (loadPa * bayM * depthM) / 2 : postN
  const rafterBayM = site.widthM / Math.max(1, frame.members.filter((m) => m.part === 'rafter').length - 1)
  const beamNm = ((loadPa * depthM) / 2) * (bayM ** 2 / 8)
  const rafterNm = loadPa * rafterBayM * (pattern.depthM ** 2 / 8)
  const footM2 = (Math.PI / 4) * FOOT_M ** 2
  const assumptions: Assumption[] = ['even-load', 'wet-wood']
  const leafM = 0.4
  const windN =
    leafWindNPerM(leafM, pattern.headroomM, site.conditions.windMPerS) * Math.max(site.widthM, pattern.depthM)
  const sideways = windN / Math.max(1, posts.length)
  const holding = (side: 0 | 1) =>
    lateralHoldingN({
      depthM: pattern.postBuriedM,
      loadHeightM: pattern.headroomM,
      postWidthM: FOOT_M,
      paPerM: soil.lateralBearingPaPerM[side],
    })
  return [
    ...check({
      code: 'beam-bending',
      subject: 'beam',
      need: beamNm,
      holding: same(bendingMomentNm(beam)),
      unit: 'Nm',
      assumptions,
      source: 'statics',
      isStructural: true,
    }),
    ...check({
      code: 'beam-bending',
      subject: 'rafter',
      need: rafterNm,
      holding: same(bendingMomentNm(beam)),
      unit: 'Nm',
      assumptions,
      source: 'statics',
      isStructural: true,
    }),
    ...check({
      code: 'post-bearing',
      subject: pattern.postStockId,
      need: worstPostN,
      holding: [soil.verticalBearingPa[0] * footM2, soil.verticalBearingPa[1] * footM2],
      unit: 'N',
      assumptions: ['even-load', 'soil-by-feel'],
      source: 'ibc-1806',
      isStructural: true,
    }),
    ...check({
      code: 'post-sideways',
      subject: pattern.postStockId,
      need: sideways,
      holding: [holding(0), holding(1)],
      unit: 'N',
      assumptions: ['leaf-half-solid', 'gust-as-given', 'posts-share', 'soil-by-feel'],
      source: 'ibc-1807',
      isStructural: true,
    }),
  ]
}

/** Width of the concrete foot of a post under an overhead frame. */
const FOOT_M = 0.3
