import { wireFor } from '../frame/index.ts'
import type { Frame } from '../frame/index.ts'
import { pathLengthM, seenLines } from '../geometry/index.ts'
import type { Look, Round } from '../geometry/index.ts'
import type { DisplayList, Mark, Role } from './display-list.ts'

/** Shorter than this, as a share of its radius, what runs in and out is no line on the surface. */
const ON_SURFACE = 0.5

/**
 * A frame that stands round something, unrolled: the sheet of its surface, and on it what runs over that surface, each
 * with its own id; what crosses the slit up its back comes as two marks.
 */
export function drawUnrolled(
  frame: Frame,
  round: Round,
  stockWidthM: (stockId: string) => number,
): DisplayList {
  const look: Look = { from: 'unrolled', round }
  const halfM = Math.PI * round.radiusM
  const [left, right] = [round.xM - halfM, round.xM + halfM]
  const heights = frame.members.flatMap(({ path }) => path.map(({ yM }) => yM))
  const [bottomM, topM] = [Math.max(0, Math.min(...heights)), Math.max(...heights)]
  const marks: Mark[] = [
    {
      kind: 'area',
      role: 'sheet',
      points: [
        { xM: left, yM: bottomM },
        { xM: right, yM: bottomM },
        { xM: right, yM: topM },
        { xM: left, yM: topM },
      ],
    },
  ]
  for (const member of frame.members) {
    // What stands in the middle is the sheet itself.
    if (
      member.path.every(({ xM, zM }) => Math.hypot(xM - round.xM, zM - round.zM) < round.radiusM * ON_SURFACE)
    )
      continue
    for (const { points } of seenLines(member.path, look))
      marks.push({
        kind: 'member',
        id: member.id,
        part: member.role,
        points,
        widthM: stockWidthM(member.stockId),
        label: member.label,
      })
  }
  for (const run of frame.runs) {
    const path = [frame.nodes[run.from]!.at, frame.nodes[run.to]!.at]
    if (pathLengthM(path) === 0) continue
    const { role: does } = run.line
    const role: Role = does === 'cord' ? 'cord' : wireFor(does) === 'light' ? 'wire-light' : 'wire'
    for (const { points } of seenLines(path, look)) marks.push({ kind: 'line', role, id: run.id, points })
  }
  return marks
}
