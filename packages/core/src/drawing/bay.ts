import type { Frame } from '../frame/index.ts'
import type { Point } from '../geometry/index.ts'
import type { WireLine } from '../loads/index.ts'
import type { DisplayList, Mark, Role } from './display-list.ts'

/** Steps in which a hanging wire is drawn. */
const SAG_STEPS = 8
/** What stands a little beyond a post still belongs to it. */
const BESIDE_M = 0.3

/** The end of a long frame and its first bay, near enough to see posts, wires and what holds them. */
export interface Bay {
  readonly list: DisplayList
  readonly widthM: number
  readonly heightM: number
}

/**
 * One bay out of a drawing of the whole: its marks up to the second post that stands in the row, moved to begin at 0,
 * with the wires hanging as they do under their greatest load; `null` for what has no bays or is one.
 */
export function drawBay(frame: Frame, list: DisplayList, lines: readonly WireLine[]): Bay | null {
  const posts = [...new Set(frame.members.flatMap(({ foot }) => (foot ? [Math.round(foot.xM * 1000)] : [])))]
    .sort((a, b) => a - b)
    .map((mm) => mm / 1000)
  // With the first post of the next bay, so that one sees how it goes on.
  const toM = posts.slice(1).find((xM) => xM - posts[0]! > BESIDE_M)
  if (toM === undefined || posts.at(-1)! - toM < BESIDE_M) return null
  const fromM = Math.min(0, ...frame.anchors.filter(({ at }) => at.xM < toM).map(({ at }) => at.xM))
  const endM = toM + BESIDE_M
  const sags = sagOfRuns(frame, lines)
  const shift = (p: Point): Point => ({ xM: p.xM - fromM, yM: p.yM })
  const ground: Mark = {
    kind: 'line',
    role: 'ground',
    points: [
      { xM: 0, yM: 0 },
      { xM: endM - fromM, yM: 0 },
    ],
  }
  const marks = [ground, ...list.flatMap((mark) => cut(mark, endM, shift, sags))]
  const heightM = frame.members.reduce(
    (top, { path }) => path.reduce((high, { yM }) => Math.max(high, yM), top),
    0,
  )
  return { list: marks, widthM: endM - fromM, heightM }
}

/** How far the middle of each run hangs below its ends, metres. */
function sagOfRuns(frame: Frame, lines: readonly WireLine[]): ReadonlyMap<string, number> {
  const lineOf = new Map(lines.flatMap((line) => line.ids.map((id) => [id, line] as const)))
  return new Map(
    frame.runs.flatMap(({ id, line: { id: lineId }, lengthM }) => {
      const line = lineOf.get(lineId)
      if (!line) return []
      const longestM = Math.max(...line.spansM)
      // One pull along the whole wire: sag goes with the square of the span.
      return [[id, line.greatestSag.sagM * (lengthM / longestM) ** 2] as const]
    }),
  )
}

function cut(
  mark: Mark,
  endM: number,
  shift: (p: Point) => Point,
  sags: ReadonlyMap<string, number>,
): Mark[] {
  switch (mark.kind) {
    case 'member':
      return mark.points.every(({ xM }) => xM <= endM) ? [{ ...mark, points: mark.points.map(shift) }] : []
    case 'anchor':
      return mark.at.xM <= endM ? [{ ...mark, at: shift(mark.at), towards: shift(mark.towards) }] : []
    case 'joint':
      return mark.at.xM <= endM ? [{ ...mark, at: shift(mark.at) }] : []
    case 'line':
      return lineUpTo(mark, endM, shift, sags)
    default:
      return []
  }
}

const WIRES: ReadonlySet<Role> = new Set(['wire', 'wire-light', 'cord'])

function lineUpTo(
  mark: Extract<Mark, { kind: 'line' }>,
  endM: number,
  shift: (p: Point) => Point,
  sags: ReadonlyMap<string, number>,
): Mark[] {
  const [a, b] = [mark.points[0]!, mark.points.at(-1)!]
  if (!WIRES.has(mark.role) || Math.min(a.xM, b.xM) >= endM) return []
  const sagM = mark.id === undefined ? 0 : (sags.get(mark.id) ?? 0)
  const points = Array.from({ length: SAG_STEPS + 1 }, (_, i): Point => {
    const t = i / SAG_STEPS
    return { xM: a.xM + (b.xM - a.xM) * t, yM: a.yM + (b.yM - a.yM) * t - 4 * sagM * t * (1 - t) }
  })
  const shown = points.filter(({ xM }) => xM <= endM)
  return shown.length > 1 ? [{ ...mark, points: shown.map(shift) }] : []
}
