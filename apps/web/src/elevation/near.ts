import type { DisplayList, Mark } from '@klados/core/drawing'
import type { Point, Rect } from '@klados/core/geometry'

/** Of shorter lists all is drawn: to choose among them would be more work than it saves. */
const LONG_LIST = 200
/** Drawn beyond each edge of the pane, as a share of it: labels stand out of their marks, and a short move bares none. */
const BEYOND = 1
/** What is kept is made anew when the pane shows less than this share of its width: much of it would be drawn in vain. */
const LEAST_SHARE = 0.1

/** The part of a sheet that is worth drawing, where this much of it is seen; as it was, as long as that will do. */
export function worthDrawing(seen: Rect, before: Rect | null): Rect {
  const [wideM, highM] = [seen.rightM - seen.leftM, seen.topM - seen.bottomM]
  const isWithin =
    before !== null &&
    seen.leftM >= before.leftM &&
    seen.rightM <= before.rightM &&
    seen.bottomM >= before.bottomM &&
    seen.topM <= before.topM
  if (isWithin && wideM >= LEAST_SHARE * (before.rightM - before.leftM)) return before
  return {
    leftM: seen.leftM - BEYOND * wideM,
    rightM: seen.rightM + BEYOND * wideM,
    bottomM: seen.bottomM - BEYOND * highM,
    topM: seen.topM + BEYOND * highM,
  }
}

/** The marks that reach into a part of the sheet, in their order. */
export function marksIn(list: DisplayList, part: Rect): DisplayList {
  if (list.length <= LONG_LIST) return list
  return list.filter((mark) => reachesInto(pointsOf(mark), part))
}

function pointsOf(mark: Mark): readonly Point[] {
  if ('points' in mark) return mark.points
  return 'at' in mark ? [mark.at] : [mark.from, mark.to]
}

/** By the rectangle round the points: a long wire is drawn though both its ends lie outside. */
function reachesInto(points: readonly Point[], part: Rect): boolean {
  let [left, right, bottom, top] = [Infinity, -Infinity, Infinity, -Infinity]
  for (const { xM, yM } of points) {
    left = Math.min(left, xM)
    right = Math.max(right, xM)
    bottom = Math.min(bottom, yM)
    top = Math.max(top, yM)
  }
  return right >= part.leftM && left <= part.rightM && top >= part.bottomM && bottom <= part.topM
}
