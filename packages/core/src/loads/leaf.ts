import type { Conditions, FrameDesign } from '../design/index.ts'
import { bearsLeaf } from '../frame/index.ts'
import type { Frame } from '../frame/index.ts'
import type { Point3 } from '../geometry/index.ts'
import { findKind } from '../kinds/index.ts'
import { leafWindNPerM } from './leaf-wind.ts'
import { GRAVITY } from './wind.ts'
import { coverLoads } from './cover.ts'
import { NO_LOADS } from './wires.ts'
import type { WireLoads } from './wires.ts'

/**
 * Outline that the plant will fill: across and up for what stands upright, along and across for what lies
 * over the ground.
 */
export interface LeafyOutline {
  readonly widthM: number
  readonly heightM: number
  readonly areaM2: number
  /** Height of its middle above the ground: where the wind takes hold. */
  readonly middleM: number
}

/** No outline is thinner than a plant. */
const THIN_M = 0.05

export function leafyOutline(frame: Frame): LeafyOutline {
  const points = [...frame.nodes.map((n) => n.at), ...frame.members.flatMap((m) => m.path)]
  if (points.length === 0) return { widthM: THIN_M, heightM: THIN_M, areaM2: THIN_M ** 2, middleM: 0 }
  const [left, right] = span(points, (p) => p.xM)
  const [front, back] = span(points, (p) => p.zM)
  // What is in the ground bears no leaves.
  const [bottom, top] = frame.measures.leafBandM ?? span(points, (p) => Math.max(0, p.yM))
  const isOver = frame.traits.stands === 'over-ground'
  const widthM = Math.max(THIN_M, right - left)
  const heightM = Math.max(THIN_M, isOver ? back - front : top - bottom)
  return { widthM, heightM, areaM2: widthM * heightM, middleM: isOver ? top : (bottom + top) / 2 }
}

function span(points: readonly Point3[], pick: (p: Point3) => number): [number, number] {
  let [low, high] = [Infinity, -Infinity]
  for (const p of points) {
    low = Math.min(low, pick(p))
    high = Math.max(high, pick(p))
  }
  return [low, high]
}

/** Of a plant that clings to its wall, so much hangs on the wires all the same. */
const CLINGING_SHARE = 0.3

/**
 * Plant spread evenly over the wires that carry, wind over all that hold leaf. Water wires and tie-backs bear
 * neither. Nothing for a frame without wires or without a kind.
 */
export function wireLoads(frame: Frame, design: FrameDesign, conditions: Conditions): WireLoads {
  // What grows under a cover does not hang on it.
  if (design.pattern.kind === 'net') return coverLoads(frame, design.pattern, conditions)
  const kind = design.plantKindId === null ? undefined : findKind(design.plantKindId)
  let [carryingM, leafyM] = [0, 0]
  for (const { line, lengthM } of frame.runs) {
    if (line.role === 'carrying') carryingM += lengthM
    if (bearsLeaf(line.role)) leafyM += lengthM
  }
  if (!kind || carryingM === 0) return NO_LOADS
  const outline = leafyOutline(frame)
  const { leafKgPerM2, wetKgPerM2, cropKgPerM2 } = kind.weight
  // What clings with aerial roots hangs on the face itself; wires lead it and hold what has come off.
  const share = kind.holds === 'aerial-roots' && frame.traits.stands === 'on-face' ? CLINGING_SHARE : 1
  const perM = (kgPerM2: number) => (share * kgPerM2 * GRAVITY * outline.areaM2) / carryingM
  // Behind a wall's leaves there is the wall; in the open the wind goes through.
  const windN =
    frame.traits.stands === 'in-open'
      ? leafWindNPerM(outline.heightM, outline.middleM, conditions.windMPerS) * outline.widthM
      : 0
  return {
    leafNPerM: perM(leafKgPerM2),
    cropNPerM: perM(leafKgPerM2 + wetKgPerM2 + cropKgPerM2),
    windNPerM: windN / leafyM,
    snowNPerM: 0,
  }
}
