import type { DisplayList, Mark } from '@klados/core/drawing'
import type { Point } from '@klados/core/geometry'
import { memo } from 'react'
import { symbolScale } from './view.ts'
import type { View } from './view.ts'
import { TieShape, WoodShape } from './wood-marks.tsx'

const NODE_PX = 3.3
/** Node numbers appear when nodes stand at least this far apart. */
export const NUMBER_ROOM_PX = 30

interface MarksProps {
  readonly list: DisplayList
  readonly view: View
  readonly chosenId?: string | null | undefined
  readonly movedText: (movedM: number) => string
  readonly showNumbers?: boolean | undefined
}

/** A key a mark: what is drawn in several parts has one id for all of them. */
function keysOf(list: DisplayList): readonly string[] {
  const times = new Map<string, number>()
  return list.map((mark, i) => {
    const key = 'id' in mark && mark.id ? `${mark.kind}-${mark.id}` : `${mark.kind}-${i}`
    const before = times.get(key) ?? 0
    times.set(key, before + 1)
    return before === 0 ? key : `${key}-${before}`
  })
}

/**
 * The display list in SVG. Memoised: a hover or a keystroke elsewhere must not walk thousands of marks again.
 */
export const Marks = memo(function Marks({ list, view, chosenId, movedText, showNumbers }: MarksProps) {
  const keys = keysOf(list)
  return (
    <>
      {list.map((mark, i) => (
        <MarkShape
          key={keys[i]!}
          mark={mark}
          view={view}
          isChosen={'id' in mark && mark.id !== undefined && mark.id === chosenId}
          movedText={movedText}
          showNumber={showNumbers ?? false}
        />
      ))}
    </>
  )
})

interface MarkShapeProps {
  readonly mark: Mark
  readonly view: View
  readonly isChosen: boolean
  readonly movedText: (movedM: number) => string
  readonly showNumber: boolean
}

/** Memoised for itself: to choose one mark draws that one anew and not all. */
const MarkShape = memo(function MarkShape({ mark, view, isChosen, movedText, showNumber }: MarkShapeProps) {
  switch (mark.kind) {
    case 'area':
      // Face and soil are drawn once, with their courses and hatching, beneath all marks.
      if (mark.role === 'wall' || mark.role === 'ground') return null
      return (
        <polygon className={`draw-${mark.role}`} points={pointList(mark.points, view)} data-mark={mark.id} />
      )
    case 'line':
      return (
        <polyline
          className={isChosen ? 'draw-wire-chosen' : `draw-${mark.role}`}
          points={pointList(mark.points, view)}
        />
      )
    case 'disc':
      return (
        <circle
          className={`draw-${mark.role}`}
          cx={view.x(mark.at.xM)}
          cy={view.y(mark.at.yM)}
          r={Math.max(3, mark.radiusM * view.pxPerM)}
          data-mark={mark.id}
        />
      )
    case 'node':
      return (
        <NodeShape
          mark={mark}
          view={view}
          isChosen={isChosen}
          movedText={movedText}
          showNumber={showNumber}
        />
      )
    case 'joint':
      return <JointShape mark={mark} view={view} />
    case 'member':
      return <MemberShape mark={mark} view={view} isChosen={isChosen} />
    case 'anchor':
      return <AnchorShape mark={mark} view={view} isChosen={isChosen} showLabel={showNumber} />
    case 'wood':
      return <WoodShape mark={mark} view={view} isChosen={isChosen} />
    case 'tie':
      return <TieShape mark={mark} view={view} isChosen={isChosen} />
    case 'foot':
      return <FootShape mark={mark} view={view} isChosen={isChosen} />
    case 'dimension':
      return <DimensionShape from={mark.from} to={mark.to} text={mark.text} view={view} />
  }
})

const pointList = (points: readonly Point[], view: View) =>
  points.map((p) => `${view.x(p.xM).toFixed(1)},${view.y(p.yM).toFixed(1)}`).join(' ')

type Of<K extends Mark['kind']> = Extract<Mark, { kind: K }>

function NodeShape({ mark, view, isChosen, movedText, showNumber }: MarkShapeProps & { mark: Of<'node'> }) {
  const x = view.x(mark.at.xM)
  const y = view.y(mark.at.yM)
  const numbered = mark.number > 0
  const isMoved = mark.state === 'moved' || (mark.state === 'dragged' && mark.movedM > 5e-4)
  return (
    <g data-mark={mark.id} data-node={mark.id} data-claims-drag="">
      <circle cx={x} cy={y} r={11} fill="transparent" />
      {isMoved && (
        <>
          <line
            className="draw-node-moved"
            x1={view.x(mark.ideal.xM)}
            y1={view.y(mark.ideal.yM)}
            x2={x}
            y2={y}
          />
          <circle className="draw-node-moved" cx={x} cy={y} r={8.5} />
          {showNumber && (
            <text className="draw-label draw-label-moved draw-halo" x={x} y={y + 21} textAnchor="middle">
              {movedText(mark.movedM)}
            </text>
          )}
        </>
      )}
      {isChosen && <circle className="draw-chosen-halo" cx={x} cy={y} r={7.5} />}
      <circle
        className={`draw-node ${mark.state === 'blocked' ? 'draw-node-blocked' : ''}`}
        cx={x}
        cy={y}
        r={NODE_PX * symbolScale(view)}
      />
      {showNumber && numbered && (
        <text className="draw-label draw-halo" x={x + 6} y={y - 6}>
          {mark.number}
        </text>
      )}
    </g>
  )
}

/**
 * A staple, a lashing, a bolt, an end: small and square, so that it is not taken for a fixing to be drilled.
 */
function JointShape({ mark, view }: { mark: Of<'joint'>; view: View }) {
  if (mark.joint === 'through') return null
  const half = (mark.joint === 'end' ? 2.6 : 1.8) * symbolScale(view)
  return (
    <rect
      className="draw-joint"
      x={view.x(mark.at.xM) - half}
      y={view.y(mark.at.yM) - half}
      width={2 * half}
      height={2 * half}
    />
  )
}

/**
 * Thinner than this a cane or rod would vanish; up to the second it is one line of ink, above it two with
 * wood between.
 */
const MIN_MEMBER_PX = 1
const HOLLOW_FROM_PX = 3.2
const DRAGGABLE: ReadonlySet<Of<'member'>['part']> = new Set(['line-post'])

/** Posts, canes and bars as wide as they are, in two lines of ink with pale wood between. */
function MemberShape({ mark, view, isChosen }: { mark: Of<'member'>; view: View; isChosen: boolean }) {
  const points = pointList(mark.points, view)
  const width = Math.max(MIN_MEMBER_PX, mark.widthM * view.pxPerM)
  const grip = DRAGGABLE.has(mark.part) ? { 'data-node': mark.id, 'data-claims-drag': '' } : {}
  return (
    <g data-mark={mark.id} {...grip}>
      {DRAGGABLE.has(mark.part) && (
        <polyline points={points} fill="none" stroke="transparent" strokeWidth={Math.max(14, width)} />
      )}
      {isChosen && <polyline className="draw-member-chosen" points={points} strokeWidth={width + 7} />}
      <polyline
        className="draw-member-edge"
        points={points}
        strokeWidth={width > HOLLOW_FROM_PX ? width + 1.4 : width}
      />
      {width > HOLLOW_FROM_PX && (
        <polyline className="draw-member" points={points} strokeWidth={width - 1.2} />
      )}
    </g>
  )
}

/** A ground screw: its shaft into the soil along the line of its pull, and two turns of its helix. */
function AnchorShape({
  mark,
  view,
  isChosen,
  showLabel,
}: {
  mark: Of<'anchor'>
  view: View
  isChosen: boolean
  showLabel: boolean
}) {
  const [x, y] = [view.x(mark.at.xM), view.y(mark.at.yM)]
  const [dx, dy] = [x - view.x(mark.towards.xM), y - view.y(mark.towards.yM)]
  const length = Math.hypot(dx, dy) || 1
  // Seen from above, or pulled straight up, the shaft goes straight down.
  const [ux, uy] = dy / length > 0.2 ? [dx / length, dy / length] : [0, 1]
  const deep = Math.max(14, mark.depthM * view.pxPerM)
  const turn = (share: number) => {
    const [cx, cy] = [x + ux * deep * share, y + uy * deep * share]
    return <line key={share} x1={cx - uy * 7} y1={cy + ux * 7 - 2} x2={cx + uy * 7} y2={cy - ux * 7 + 2} />
  }
  return (
    <g className="draw-anchor" data-mark={mark.id}>
      {isChosen && <circle className="draw-chosen-halo" cx={x} cy={y} r={9} />}
      <line x1={x} y1={y} x2={x + ux * deep} y2={y + uy * deep} />
      {[0.6, 0.9].map(turn)}
      <circle cx={x} cy={y} r={3} />
      {showLabel && (
        <text className="draw-label draw-halo-ground" stroke="none" x={x + 8} y={y + 18}>
          {mark.label}
        </text>
      )}
    </g>
  )
}

function FootShape({ mark, view, isChosen }: { mark: Of<'foot'>; view: View; isChosen: boolean }) {
  const x = view.x(mark.at.xM)
  const y = view.y(mark.at.yM)
  return (
    <g data-mark={mark.id} data-foot={mark.id} data-claims-drag="">
      <rect x={x - 14} y={y - 6} width={28} height={26} fill="transparent" />
      <path d={`M${x - 5} ${y + 11} L${x} ${y + 2} L${x + 5} ${y + 11} Z`} fill="var(--verdigris)" />
      {isChosen && <circle className="draw-chosen-halo" cx={x} cy={y + 7} r={10} />}
      <text className="draw-label draw-halo-ground" x={x + 9} y={y + 12}>
        {mark.label}
      </text>
    </g>
  )
}

export function DimensionShape({
  from,
  to,
  text,
  view,
}: {
  from: Point
  to: Point
  text: string
  view: View
}) {
  const [x1, y1, x2, y2] = [view.x(from.xM), view.y(from.yM), view.x(to.xM), view.y(to.yM)]
  const isLevel = Math.abs(x2 - x1) > Math.abs(y2 - y1)
  return (
    <g aria-hidden="true">
      <line className="draw-dimension" x1={x1} y1={y1} x2={x2} y2={y2} />
      {[
        [x1, y1],
        [x2, y2],
      ].map(([x, y], i) => (
        <line key={i} className="draw-dimension" x1={x! - 4} y1={y! + 4} x2={x! + 4} y2={y! - 4} />
      ))}{' '}
      <text
        className="draw-label draw-halo"
        textAnchor={isLevel ? 'middle' : 'start'}
        x={isLevel ? (x1 + x2) / 2 : (x1 + x2) / 2 + 6}
        y={isLevel ? (y1 + y2) / 2 - 5 : (y1 + y2) / 2 + 4}
      >
        {text}
      </text>
    </g>
  )
}
