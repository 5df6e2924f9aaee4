import { bearsLeaf } from '../frame/index.ts'
import type { LineId } from '../frame/index.ts'
import type { Point } from '../geometry/index.ts'
import type { FrameTrack } from '../wood/index.ts'

/** A wire that plants are led along, level or nearly, from left to right. */
export interface Wire {
  readonly frameId: string
  readonly lineId: LineId
  readonly path: readonly Point[]
  /** Above the ground at the plant's foot. */
  readonly heightM: number
  /** From below, 1 and up. */
  readonly number: number
}

/** Where a plant stands, as far as its wires are counted from there. */
interface Standing {
  readonly plant: { readonly xM: number; readonly footYM: number }
}

/** Level wires of all frames, one for each pair, from below. */
export function levelAmong({ plant: { xM, footYM } }: Standing, tracks: readonly FrameTrack[]): Wire[] {
  return tracks
    .flatMap(({ frameId, part, form, way }) =>
      part.on === 'line' && form === 'level' && bearsLeaf(part.role) && part.side !== 'back'
        ? [{ frameId, lineId: part.lineId, path: leftToRight(way) }]
        : [],
    )
    .filter(({ path }) => isWide(path))
    .map((wire) => ({ ...wire, heightM: heightOn(wire.path, xM) - footYM }))
    .sort((a, b) => a.heightM - b.heightM)
    .map((wire, index) => ({ ...wire, number: index + 1 }))
}

const known = new WeakMap<readonly FrameTrack[], readonly Wire[]>()

/** The level wires of a plant's frames, one for each pair, from below. */
export function levelWires({
  input,
  tracks,
}: {
  readonly input: Standing
  readonly tracks: readonly FrameTrack[]
}): readonly Wire[] {
  const before = known.get(tracks)
  if (before) return before
  const found = levelAmong(input, tracks)
  known.set(tracks, found)
  return found
}

const leftToRight = (path: readonly Point[]) =>
  path.length > 1 && path[0]!.xM > path.at(-1)!.xM ? [...path].reverse() : path

/** What runs away from one, as wires across a pergola do, is a point on the elevation. */
const isWide = (path: readonly Point[]): boolean => path.at(-1)!.xM - path[0]!.xM > 0.2

/** Height of a line at a place across; that of its nearer end beyond it. */
export function heightOn(path: readonly Point[], xM: number): number {
  for (let i = 1; i < path.length; i++) {
    const [a, b] = [path[i - 1]!, path[i]!]
    if (xM <= b.xM && b.xM > a.xM) return a.yM + ((b.yM - a.yM) * Math.max(0, xM - a.xM)) / (b.xM - a.xM)
  }
  return path.at(-1)!.yM
}
