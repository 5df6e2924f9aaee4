import type { DisplayList, Mark, Role } from './display-list.ts'
import { groundUnder, wireFor } from '../frame/index.ts'
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
  const on = (p: Point3) =>
    project(view === 'side' ? at3(p.xM, p.yM - groundUnder(frame, p.xM), p.zM) : p, view)
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
  const anchors = frame.anchors
    .filter(({ head }) => head === 'eye' || view !== 'plan')
    .map((anchor) => ({ ...anchor, at: on(anchor.at), towards: on(anchor.towards) }))
  const names = namesBySpot(anchors)
  for (const { id, at, towards } of anchors)
    marks.push({ kind: 'anchor', id, at, towards, depthM: ANCHOR_DEPTH_M, label: names.get(id) ?? '' })
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

/** Nearer than this one stands behind the other. */
const SAME_SPOT_M = 0.02
/** So many names stand beside one another; of more the first and the last are told. */
const FEW_NAMES = 3

/** By the anchor that says them: names of all that are seen at its spot, which would lie over one another. */
function namesBySpot(
  anchors: readonly {
    readonly id: string
    readonly at: Point
    readonly label: string
    readonly isBehind?: boolean
  }[],
): Map<string, string> {
  const spots: { readonly id: string; readonly at: Point; readonly labels: string[] }[] = []
  for (const { id, at, label, isBehind } of anchors) {
    if (isBehind || label === '') continue
    const spot = spots.find((one) => Math.hypot(one.at.xM - at.xM, one.at.yM - at.yM) < SAME_SPOT_M)
    if (spot) spot.labels.push(label)
    else spots.push({ id, at, labels: [label] })
  }
  return new Map(
    spots.map(({ id, labels }) => [
      id,
      labels.length > FEW_NAMES ? `${labels[0]!} … ${labels.at(-1)!}` : labels.join(', '),
    ]),
  )
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
