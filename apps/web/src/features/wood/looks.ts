import { FRONT, seenLines, seenPoint } from '@klados/core/geometry'
import type { DeepPoint, Look, Point } from '@klados/core/geometry'
import type { View } from '../../elevation/view.ts'
import type { WoodBenchData } from './use-bench.ts'

export const lookNames = ['elevation', 'side', 'plan', 'unrolled'] as const
export type LookName = (typeof lookNames)[number]

/** From where the frames here can be looked at: what is flat has its front alone. */
export function looksOf({
  trainedOn,
  round,
}: Pick<WoodBenchData, 'trainedOn' | 'round'>): readonly LookName[] {
  const hasDepth = round !== null || trainedOn.some(({ frame }) => frame.hasDepth)
  return lookNames.filter((name) => name === 'elevation' || (name === 'unrolled' ? round !== null : hasDepth))
}

export function lookOf(name: LookName, { round }: Pick<WoodBenchData, 'round'>): Look {
  if (name !== 'unrolled') return { from: name }
  return round ? { from: 'unrolled', round: round.round } : FRONT
}

/** A way on the sheet, as the parts of an SVG path. */
export const pathData = (path: readonly DeepPoint[], view: View, look: Look): string =>
  seenLines(path, look)
    .map(({ points }) => `M${points.map((p) => `${view.x(p.xM)},${view.y(p.yM)}`).join('L')}`)
    .join('')

/** Where on the sheet a point in space is. */
export function onSheet(p: DeepPoint, view: View, look: Look): readonly [x: number, y: number] {
  const at: Point = seenPoint(p, look)
  return [view.x(at.xM), view.y(at.yM)]
}
