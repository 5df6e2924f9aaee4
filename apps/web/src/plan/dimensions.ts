import { GROUND_M } from '@klados/core/drawing'
import type { DisplayList, Mark } from '@klados/core/drawing'
import type { Frame } from '@klados/core/frame'
import type { PlaceBody } from '@klados/contract'
import type { Units } from '../ui/units.tsx'

/** A figure takes so much of a drawing's larger side, along and up: no more stand there than have room. */
const FIGURE_WIDE = 0.12
const FIGURE_HIGH = 0.045
const DIGIT_WIDE = 0.028
/** Room between a drawing and its dimensions, as a share of its larger side. */
const ROOM = 0.05
/** Marks nearer than this are one, metres. */
const SAME_M = 1e-3

/**
 * Dimensions round the front view: running distances from the viewing end to what is set out, below; heights above the
 * soil of what is fixed or strung, at its left. Where there are many, evenly some of them, the last always.
 */
export function dimensionMarks(frame: Frame, place: PlaceBody, units: Units): DisplayList {
  const feet = frame.members.flatMap(({ foot }) => (foot ? [foot.xM] : []))
  const eyes = frame.nodes.filter(({ joint }) => joint === 'eye').map(({ at }) => at)
  const xs = distinct([...feet, ...eyes.map(({ xM }) => xM)])
  const held = frame.nodes.filter(({ joint }) => joint === 'eye' || joint === 'end' || joint === 'staple')
  const ys = distinct(held.map(({ at }) => at.yM).filter((yM) => yM > SAME_M))
  if (xs.length === 0) return []
  const sideM = Math.max(place.widthM, place.firstForkM + place.usableHeightM)
  const roomM = ROOM * sideM
  const fit = (list: readonly number[], share: number) =>
    some(list, 1 + Math.floor(((list.at(-1) ?? 0) - (list[0] ?? 0)) / (share * sideM)))
  const lowM = Math.min(-GROUND_M, ...frame.members.flatMap(({ path }) => path.map(({ yM }) => yM))) - roomM
  const leftM = Math.min(0, xs[0]!) - roomM
  const tick = (from: { xM: number; yM: number }, to: { xM: number; yM: number }): Mark => ({
    kind: 'line',
    role: 'dimension',
    points: [from, to],
  })
  const label = (xM: number, yM: number, text: string): Mark => {
    const at = { xM, yM }
    return { kind: 'dimension', from: at, to: at, text }
  }
  // It ends where the line of heights stands, however long it is.
  const besideLine = (yM: number, text: string) =>
    label(leftM - roomM / 2 - (text.length * DIGIT_WIDE * sideM) / 2, yM - roomM / 2, text)
  const along = (xM: number) => (place.viewingEnd === 'left' ? xM : place.widthM - xM)
  const alongMarks = fit(xs, FIGURE_WIDE).flatMap((xM) => [
    tick({ xM, yM: lowM }, { xM, yM: lowM + roomM / 3 }),
    label(xM, lowM - 2 * roomM, units.length(along(xM), place.widthM > 10 ? 'long' : 'short')),
  ])
  const upMarks = fit(ys, FIGURE_HIGH).flatMap((yM) => [
    tick({ xM: leftM, yM }, { xM: leftM + roomM / 3, yM }),
    besideLine(yM, units.length(yM, 'short')),
  ])
  return [
    tick({ xM: xs[0]!, yM: lowM }, { xM: xs.at(-1)!, yM: lowM }),
    ...alongMarks,
    ...(ys.length > 0 ? [tick({ xM: leftM, yM: 0 }, { xM: leftM, yM: ys.at(-1)! })] : []),
    ...upMarks,
  ]
}

function distinct(values: readonly number[]): number[] {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted.filter((value, i) => i === 0 || value - sorted[i - 1]! > SAME_M)
}

/** Evenly so many of a list, its first and last among them. */
function some(list: readonly number[], most: number): readonly number[] {
  if (list.length <= most) return list
  if (most < 2) return list.slice(-1)
  return Array.from({ length: most }, (_, i) => list[Math.round((i * (list.length - 1)) / (most - 1))]!)
}
