import { findScrew, findStock, findWire } from '../catalogue/index.ts'
import { isPost } from '../frame/index.ts'
import type { Anchor, Frame, LineId, Member, PatternOfKind } from '../frame/index.ts'
import { findSoil } from '../ground/index.ts'
import type { Soil } from '../ground/index.ts'
import { allowedN, coverBurdenPa, coverLiftPa, hardestState, shareBorne } from '../loads/index.ts'
import type { WireLine } from '../loads/index.ts'
import { anchorHolding } from './anchor-holding.ts'
import { check, same, worstOf } from './check.ts'
import type { Assumption, Check, CheckContext } from './check.ts'
import { bearingCheck, bucklingCheck, footHoldsDownN } from './check-posts.ts'

type Net = PatternOfKind<'net'>

/** What each cable of a cover puts on its way down: guys, anchors, the posts under them. */
export function coverChecks(context: CheckContext): Check[] {
  const { pattern } = context.design
  if (pattern.kind !== 'net') return []
  return [...guyChecks(context, pattern), ...liftChecks(context, pattern), ...weightChecks(context, pattern)]
}

/**
 * What a guy bears for each newton in its cable: the post under the bend is hinged at its foot, so the guy alone holds the
 * cable's level pull, and bears more the steeper it runs.
 */
const guyShare = ({ heightM, anchorOutM }: Net) => Math.hypot(heightM, anchorOutM) / anchorOutM

const assumedOf = ({ cover, offInWinter }: Net, { conditions }: CheckContext['site']): Assumption[] => {
  const water: Assumption[] = cover === 'film' ? ['water-ponds'] : []
  if (conditions.snowPa === 0) return water
  if (offInWinter) return [...water, 'cover-off-in-winter']
  return cover === 'net' ? ['net-holds-snow'] : water
}

function guyChecks(context: CheckContext, pattern: Net): Check[] {
  const { frame, site, lines, catalogue, design, drives } = context
  const hardest = worstOf(lines, (line) => line.worst.tensionN)
  const wire = findWire(catalogue, design.wireId)
  const eyes = frame.anchors.filter((anchor) => anchor.head === 'eye')
  const soil = findSoil(site.conditions.soil)
  const [weakest] = eyes
    .map((anchor) => ({ anchor, holding: eyeHolding(context, anchor, soil) }))
    .sort((a, b) => (a.holding?.[0] ?? -1) - (b.holding?.[0] ?? -1))
  if (!weakest) return []
  const needN = hardest ? hardest.worst.tensionN * guyShare(pattern) : null
  const nearest = worstOf(lines, shareBorne)
  const state = nearest && hardestState(nearest)
  const about = { unit: 'N', isStructural: true } as const
  return [
    check({
      ...about,
      code: 'guy-pull',
      subject: '',
      need: state ? state.tensionN * guyShare(pattern) : null,
      holding: wire && nearest && state ? same(allowedN(nearest, state)) : null,
      missing: 'wire',
      assumptions: [
        'gust-as-given',
        'cables-share',
        'hinged-foot',
        'ends-made-off',
        ...assumedOf(pattern, site),
      ],
      source: 'statics',
    }),
    check({
      ...about,
      code: 'anchor-pull',
      subject: weakest.anchor.label,
      need: needN,
      holding: weakest.holding,
      missing: hardest ? 'screw' : 'wire',
      assumptions: [
        'soil-by-feel',
        'safety-two',
        drives.has(weakest.anchor.id) ? 'drive-as-logged' : 'drive-full-depth',
      ],
      source: 'perko',
    }),
  ]
}

const eyeHolding = ({ catalogue, drives }: CheckContext, anchor: Anchor, soil: Soil) => {
  const screw = findScrew(catalogue, anchor.screwId)
  return screw ? anchorHolding(screw, soil, anchor, drives.get(anchor.id)).allowableN : null
}

/** Wind under the cover lifts the posts, each with the bay that it carries: on its screw, or by its foot in concrete. */
function liftChecks(context: CheckContext, pattern: Net): Check[] {
  const { frame, site } = context
  const { bayM, bayAcrossM } = frame.measures
  if (bayM === null || bayAcrossM === null) return []
  const soil = findSoil(site.conditions.soil)
  const liftPa = coverLiftPa(pattern, site.conditions)
  const flanges = frame.anchors.filter(({ head }) => head === 'flange')
  const edges = frame.members.filter(({ role, buriedM }) => isPost(role) && buriedM > 0)
  const about = {
    code: 'cover-uplift',
    unit: 'N',
    source: 'en-1991-canopy',
    isStructural: true,
  } as const
  const inner = flanges.map((anchor) =>
    check({
      ...about,
      subject: anchor.label,
      need: liftPa * bayM * bayAcrossM,
      holding: eyeHolding(context, anchor, soil),
      missing: 'screw',
      assumptions: ['gust-as-given', 'soil-by-feel', 'safety-two'],
    }),
  )
  // At the edge half a bay lifts, where no other stands within the grid a whole one.
  const share = pattern.interior === 'hole' ? 1 : 0.5
  const outer = edges.slice(0, 1).map((post) =>
    check({
      ...about,
      subject: post.label ?? '',
      need: share * liftPa * bayM * bayAcrossM,
      holding: footHoldsDownN(soil, post.buriedM),
      assumptions: ['gust-as-given', 'foot-in-concrete', 'earth-at-rest', 'soil-by-feel'],
    }),
  )
  return [...weakestOf(inner), ...outer]
}

/** The least held of many that are alike but for how each was driven. */
function weakestOf(checks: readonly Check[]): Check[] {
  const worst = worstOf(checks, ({ need, holding }) =>
    holding && need !== null ? need / holding[0] : Infinity,
  )
  return worst ? [worst] : []
}

/** What presses a post down: snow on its bay, and at the edge the guys that hold its cables, two at a corner. */
function weightChecks(context: CheckContext, pattern: Net): Check[] {
  const { frame, site, lines } = context
  const { bayM, bayAcrossM } = frame.measures
  const corner = frame.members.find(({ role }) => role === 'post')
  if (bayM === null || bayAcrossM === null || !corner) return []
  const soil = findSoil(site.conditions.soil)
  const snowN = coverBurdenPa(pattern, site.conditions, Math.min(bayM, bayAcrossM)) * bayM * bayAcrossM
  const presses = (line: WireLine) => (line.worst.tensionN * pattern.heightM) / pattern.anchorOutM
  const cornerN = twoGuysN(frame, lines, corner, presses) + snowN / 4
  const cable = worstOf(lines, presses)
  const edgeN = (cable ? presses(cable) : Number.NaN) + snowN / 2
  const needN = lines.length === 0 ? Number.NaN : Math.max(cornerN, edgeN, snowN)
  const stock = findStock(context.catalogue, pattern.postStockId)
  const about = { subject: pattern.postStockId, needN, assumptions: assumedOf(pattern, site) }
  return [
    bearingCheck(soil, { ...about, depthM: pattern.postBuriedM }),
    bucklingCheck(stock, { ...about, lengthM: pattern.heightM, ends: 'hinged' }),
  ]
}

/** Of the cables over a corner post each is led down by a guy of its own. */
function twoGuysN(
  { runs, nodes }: Frame,
  lines: readonly WireLine[],
  { path }: Member,
  presses: (line: WireLine) => number,
): number {
  const top = path.at(-1)!
  const byId = new Map<LineId, WireLine>(lines.flatMap((line) => line.ids.map((id) => [id, line] as const)))
  const over = new Set(
    runs.flatMap(({ line, from, to }) =>
      [nodes[from]!, nodes[to]!].some(({ at }) => at.xM === top.xM && at.zM === top.zM && at.yM === top.yM)
        ? [line.id]
        : [],
    ),
  )
  return [...over].reduce((sum, id) => {
    const line = byId.get(id)
    return line ? sum + presses(line) : sum
  }, 0)
}
