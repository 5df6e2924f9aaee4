import { alongPath, distance3M, inSpace, pathLengthM } from '../geometry/index.ts'
import type { Point3 } from '../geometry/index.ts'
import type { TrackFinder } from './lies-now.ts'
import { alongTrack } from './way-from.ts'
import type { FrameTrack } from './way-from.ts'
import type { Led, Stretch } from './way.ts'
import type { Piece } from './wood.ts'

/** What ends so near to the tip is led up to its tip, metres. */
const TIP_M = 0.01
/** A direction is taken from so much of a tip, metres. */
const TIP_STEP_M = 0.02

/**
 * What a piece has grown by, from its tip on to a length: further along what its tip is led by, as far as that goes, then
 * on the way that it points. Empty where it is as long already.
 */
export function grownTo(piece: Pick<Piece, 'path' | 'led'>, lengthM: number, find: TrackFinder): Stretch[] {
  const nowM = pathLengthM(piece.path)
  const byM = lengthM - nowM
  if (byM <= 0) return []
  const last = piece.led.at(-1)
  const track = last && last.endM > nowM - TIP_M ? find(last.frameId, last.part) : undefined
  const led = track && last ? further({ ...track, frameId: last.frameId }, last, piece, byM) : []
  const restM = byM - led.reduce((sum, { points }) => sum + pathLengthM(points), 0)
  const from = inSpace(led.at(-1)?.points.at(-1) ?? piece.path.at(-1)!)
  return restM > 1e-3 ? [...led, { on: 'free', points: [from, ahead(piece, from, restM)] }] : led
}

/** On along the same track at the same winding, not beyond its end. */
function further(track: FrameTrack, last: Led, { path }: Pick<Piece, 'path'>, byM: number): Stretch[] {
  const ranM = Math.max(1e-6, last.endM - last.startM)
  const share = byM / ranM
  const goesM = (last.toM - last.fromM) * share
  const roomM = goesM >= 0 ? track.lengthM - last.toM : last.toM
  if (roomM < TIP_M) return []
  const kept = Math.min(1, roomM / Math.max(1e-6, Math.abs(goesM)))
  const tip = inSpace(path.at(-1)!)
  const middle = inSpace(alongPath(track.way, last.toM))
  const aside = { xM: tip.xM - middle.xM, yM: tip.yM - middle.yM, zM: tip.zM - middle.zM }
  const turns = last.turns * share * kept
  return [alongTrack(track, { fromM: last.toM, toM: last.toM + goesM * kept, turns, aside })]
}

/** As far ahead as a tip points; what has no direction points up. */
function ahead({ path }: Pick<Piece, 'path'>, from: Point3, byM: number): Point3 {
  const length = pathLengthM(path)
  const [a, b] = [inSpace(alongPath(path, Math.max(0, length - TIP_STEP_M))), inSpace(path.at(-1)!)]
  const step = distance3M(a, b)
  if (step === 0) return { ...from, yM: from.yM + byM }
  const on = (p: number, q: number, at: number) => at + ((q - p) / step) * byM
  return { xM: on(a.xM, b.xM, from.xM), yM: on(a.yM, b.yM, from.yM), zM: on(a.zM, b.zM, from.zM) }
}
