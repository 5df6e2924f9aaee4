import type { FrameDesign, Conditions } from '../design/index.ts'
import { GRAVITY } from './wind.ts'
import { leafWindNPerM } from './leaf-wind.ts'
import type { Frame } from '../frame/index.ts'
import { findKind, plantWeight } from '../kinds/index.ts'
import type { Hold, PlantKind } from '../kinds/index.ts'
import type { WireLoads } from './wires.ts'

/**
 * Outline that the plant will fill: across and up for what stands upright, along and across for what lies
 * overhead.
 */
export interface LeafyOutline {
  readonly widthM: number
  readonly heightM: number
  readonly areaM2: number
  /** Height of its middle above the ground: where the wind takes hold. */
  readonly middleM: number
}

export function leafyOutline(frame: Frame): LeafyOutline {
  const points = [...frame.nodes.map((n) => n.at), ...frame.members.flatMap((m) => m.path)]
  if (points.length === 0) return { widthM: 0.05, heightM: 0.05, areaM2: 0.0025, middleM: 0 }
  const span = (pick: (p: (typeof points)[number]) => number): [number, number] => {
    let [low, high] = [Infinity, -Infinity]
    for (const p of points) {
      low = Math.min(low, pick(p))
      high = Math.max(high, pick(p))
    }
    return [low, high]
  }
  const [left, right] = span((p) => p.xM)
  const [front, back] = span((p) => p.zM)
  // What is in the ground bears no leaves.
  const [bottom, top] = frame.kind === 'row' ? rowBand(frame) : span((p) => Math.max(0, p.yM))
  const widthM = Math.max(0.05, right - left)
  const isOver = frame.kind === 'overhead' || frame.kind === 'net'
  const heightM = isOver ? Math.max(0.05, back - front) : Math.max(0.05, top - bottom)
  return { widthM, heightM, areaM2: widthM * heightM, middleM: isOver ? top : (bottom + top) / 2 }
}

/**
 * From the lowest wire that carries up to the top of the posts, above the ground wherever that lies on a
 * slope.
 */
function rowBand(frame: Frame): [number, number] {
  const post = frame.members.find((member) => member.foot !== null)
  if (!post?.foot) return [0, 0.05]
  const groundM = post.foot.yM
  const lowest = frame.nodes.reduce(
    (low, node) =>
      node.label === post.label && node.id.startsWith('w') ? Math.min(low, node.at.yM - groundM) : low,
    Infinity,
  )
  const topM = post.path.reduce((high, p) => Math.max(high, p.yM - groundM), 0)
  return [Number.isFinite(lowest) && !Number.isNaN(lowest) ? Math.min(lowest, topM - 0.05) : 0, topM]
}

/**
 * Plant spread evenly over the wires that carry, wind over all. Nothing for a frame without wires or without
 * a kind.
 */
export function wireLoads(frame: Frame, design: FrameDesign, conditions: Conditions): WireLoads {
  const kind = design.plantKindId === null ? undefined : findKind(design.plantKindId)
  let carryingM = 0
  // Crop hangs on the wires that carry; wind presses the leaf against all of them.
  let strungM = 0
  for (const run of frame.runs)
    if (run.slot === 'main' && !run.line.startsWith('tie-') && !run.line.includes('-down-'))
      carryingM += run.lengthM
  for (const run of frame.runs)
    if (!run.line.startsWith('tie-') && run.line !== 'water') strungM += run.lengthM
  if (!kind || carryingM === 0) return { cropNPerM: 0, leafNPerM: 0, windNPerM: 0 }
  const outline = leafyOutline(frame)
  const { leafKgPerM2, wetKgPerM2, cropKgPerM2 } = plantWeight(kind)
  const perM = (kgPerM2: number) => (kgPerM2 * GRAVITY * outline.areaM2) / carryingM
  // Behind a wall's leaves there is the wall; in the open the wind goes through.
  const isOpen = frame.kind === 'row'
  return {
    leafNPerM: perM(leafKgPerM2),
    cropNPerM: perM(leafKgPerM2 + wetKgPerM2 + cropKgPerM2),
    windNPerM: isOpen
      ? (leafWindNPerM(outline.heightM, outline.middleM, conditions.windMPerS) * outline.widthM) / strungM
      : 0,
  }
}

/**
 * Ties that a year's growth takes on a metre of carrying wire: by how the kind holds on. Pairs and cross-arms
 * hold shoots by themselves.
 */
const TIES_PER_M: Readonly<Record<Hold, number>> = {
  'trained-wood': 5,
  leaning: 4,
  none: 4,
  tendrils: 1.5,
  'leaf-stalks': 1,
  twining: 0.5,
  'aerial-roots': 0.5,
}
const MIDDLING_TIES_PER_M = 3
/** Share of tying that is left on a pair of foliage wires against a single one. */
const PAIR_SHARE = 0.25

/**
 * Ties that a frame takes in a year, for comparing designs: metres of wire by how the kind holds, wires in
 * pairs counted at a quarter, a tie for each hand's breadth of stake, leg or pole. Round figures from
 * growers' counts.
 */
export function tiesPerYear(frame: Frame, kind: PlantKind | undefined): number {
  const perM = kind ? TIES_PER_M[kind.holds] : MIDDLING_TIES_PER_M
  const isPair = (line: string) => /^w\d+[ab]$/.test(line)
  const wireM = frame.runs.reduce(
    (sum, run) =>
      run.line === 'water' || run.line.startsWith('tie-')
        ? sum
        : sum + run.lengthM * (isPair(run.line) ? PAIR_SHARE : 1),
    0,
  )
  const uprightM = frame.members.reduce(
    (sum, m) =>
      ['stake', 'leg', 'core', 'column', 'hoop'].includes(m.part) ? sum + m.cutLengthM - m.buriedM : sum,
    0,
  )
  return Math.round(perM * wireM + (perM / 2) * uprightM)
}
