import type { DisplayList, Mark, Role } from './display-list.ts'
import { wireFor } from '../frame/index.ts'
import type { Frame, Member, Sheet } from '../frame/index.ts'
import { at3, project } from '../geometry/index.ts'
import type { Point, Point3, ViewDirection } from '../geometry/index.ts'

/** How deep an anchor is drawn into the ground where nothing says how long it is. */
const ANCHOR_DEPTH_M = 0.6
const SHEET_ROLE: Readonly<Partial<Record<Sheet['good'], Role>>> = { net: 'cover' }

export interface FrameView {
  readonly view: ViewDirection
  readonly stockWidthM: (stockId: string) => number
  readonly stockDepthM: (stockId: string) => number
}

/**
 * A frame as seen from the front, from its right end or from above: flat things, then what is stiff from back
 * to front, wires, joints and fixings. Every part of the frame is one mark (an outline, a line, a node), so
 * that what is drawn can be counted against what is bought.
 */
export function drawFrame(frame: Frame, { view, ...stock }: FrameView): DisplayList {
  // From its end a row on a slope would be a stack of posts: each is shown on its own ground.
  const on = (p: Point3) => project(view === 'side' ? at3(p.xM, p.yM - frame.slope * p.xM, p.zM) : p, view)
  const nearness = (member: Member) => member.path.reduce((sum, p) => sum + p.zM, 0) / member.path.length
  const members = frame.hasDepth
    ? [...frame.members].sort((a, b) => nearness(b) - nearness(a))
    : frame.members
  const marks: Mark[] = []
  for (const unit of frame.units)
    marks.push({ kind: 'area', role: 'tub', id: unit.id, points: unit.outline.map(on) })
  for (const sheet of frame.sheets)
    marks.push({
      kind: 'area',
      role: SHEET_ROLE[sheet.good] ?? 'mesh',
      id: sheet.id,
      points: sheet.outline.map(on),
    })
  for (const member of members) {
    marks.push({
      kind: 'member',
      id: member.id,
      part: member.role,
      ...outlineOf(member, member.path.map(on), view, stock),
      label: member.label,
    })
  }
  for (const { id, at, towards, head, label, isBehind } of frame.anchors)
    if (head === 'eye' || view !== 'plan')
      marks.push({
        kind: 'anchor',
        id,
        at: on(at),
        towards: on(towards),
        depthM: ANCHOR_DEPTH_M,
        label: isBehind ? '' : label,
      })
  for (const run of frame.runs) {
    const { role: does } = run.line
    const role: Role = does === 'cord' ? 'cord' : wireFor(does) === 'light' ? 'wire-light' : 'wire'
    marks.push({
      kind: 'line',
      role,
      id: run.id,
      points: [on(frame.nodes[run.from]!.at), on(frame.nodes[run.to]!.at)],
    })
  }
  for (const node of frame.nodes) {
    const at = on(node.at)
    if (node.joint === 'eye') {
      const { id, number, state, movedM, isStart } = node
      marks.push({ kind: 'node', id, number, at, state, ideal: on(node.ideal), movedM, isStart })
    } else marks.push({ kind: 'joint', id: node.id, joint: node.joint, at })
  }
  return marks
}

/** Shorter than this a member is seen from its end. */
const END_ON_M = 1e-3

/**
 * Middle line and width of a member as it is seen: what lies level stands on edge; from its end it shows its
 * section.
 */
function outlineOf(
  member: Member,
  points: readonly Point[],
  view: ViewDirection,
  stock: Omit<FrameView, 'view'>,
): { points: readonly Point[]; widthM: number } {
  const [wideM, deepM] = [stock.stockWidthM(member.stockId), stock.stockDepthM(member.stockId)]
  const isLevel = member.path.every((p) => Math.abs(p.yM - member.path[0]!.yM) < END_ON_M)
  const [upM, acrossM] = isLevel && view !== 'plan' ? [deepM, wideM] : [wideM, deepM]
  const first = points[0]!
  if (points.some((p) => Math.hypot(p.xM - first.xM, p.yM - first.yM) > END_ON_M))
    return { points, widthM: upM }
  const at = (sign: number) => ({ xM: first.xM, yM: first.yM + (sign * upM) / 2 })
  return { points: [at(-1), at(1)], widthM: acrossM }
}
