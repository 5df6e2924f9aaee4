import { distance3M, pathLengthM } from '../geometry/index.ts'
import type { DeepPoint } from '../geometry/index.ts'
import type { Piece, Tie } from './wood.ts'

/** A corner of a piece this near to a tie is held by it. */
const HELD_M = 0.03

/**
 * The line of a piece once it is led to where its supports are now: what a moved tie holds goes with what it
 * holds on to, the base stays, and what lies between two ties follows them evenly.
 */
export function ledToSupports(
  piece: Piece,
  moved: readonly { readonly tie: Pick<Tie, 'alongM' | 'at'>; readonly now: DeepPoint }[],
): DeepPoint[] {
  const length = pathLengthM(piece.path)
  // How far what is held at each place along the piece goes; the base goes nowhere.
  const shifts = [
    { alongM: 0, dx: 0, dy: 0, dz: 0 },
    ...moved.map(({ tie: { alongM, at }, now }) => ({
      alongM,
      dx: now.xM - at.xM,
      dy: now.yM - at.yM,
      dz: (now.zM ?? 0) - (at.zM ?? 0),
    })),
  ].sort((a, b) => a.alongM - b.alongM)
  const last = shifts.at(-1)!
  if (last.alongM < length) shifts.push({ ...last, alongM: length })
  const corners = withTies(piece, moved)
  return corners.map(({ at, alongM }) => {
    const next = shifts.findIndex((shift) => shift.alongM >= alongM - 1e-9)
    const [a, b] = [shifts[Math.max(0, next - 1)]!, shifts[next < 0 ? shifts.length - 1 : next]!]
    const span = b.alongM - a.alongM
    const share = span > 0 ? (alongM - a.alongM) / span : 1
    const on = { xM: at.xM + a.dx + (b.dx - a.dx) * share, yM: at.yM + a.dy + (b.dy - a.dy) * share }
    return at.zM === undefined ? on : { ...on, zM: at.zM + a.dz + (b.dz - a.dz) * share }
  })
}

/** The corners of a piece and the places of the ties between them, in order along it. */
function withTies(
  piece: Piece,
  moved: readonly { readonly tie: Pick<Tie, 'alongM' | 'at'> }[],
): { readonly at: DeepPoint; readonly alongM: number }[] {
  let run = 0
  const corners = piece.path.map((at, i) => {
    if (i > 0) run += distance3M(piece.path[i - 1]!, at)
    return { at, alongM: run }
  })
  const between = moved
    .map(({ tie }) => ({ at: tie.at, alongM: tie.alongM }))
    .filter((tie) => corners.every((corner) => Math.abs(corner.alongM - tie.alongM) > HELD_M))
  return [...corners, ...between].sort((a, b) => a.alongM - b.alongM)
}
