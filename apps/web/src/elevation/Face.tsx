import type { Surface } from '@klados/core/catalogue'
import type { DisplayList } from '@klados/core/drawing'
import { groundAt } from '@klados/core/frame'
import type { Site } from '@klados/core/frame'
import type { Look, Point, Rect } from '@klados/core/geometry'
import { memo, useCallback, useState } from 'react'
import type { ReactNode } from 'react'
import { useTranslation } from '../i18n/use-translation.tsx'
import { useUnits } from '../ui/units.tsx'
import { Marks, NUMBER_ROOM_PX } from './marks.tsx'
import { LyingTape, StandingTape } from './Tape.tsx'
import { MARGIN_PX } from './view.ts'
import type { View } from './view.ts'

export interface FaceProps {
  readonly wall: Site
  readonly surface: Surface
  readonly list: DisplayList
  /** From where it is seen; from the front unless said. */
  readonly from?: Look['from']
  readonly chosenId?: string | null
  readonly showNumbers?: boolean
  readonly tapeAlong?: boolean
  /** Drawn between the wall and the marks, such as a photo. */
  readonly underlay?: (view: View) => ReactNode
  readonly overlay?: (view: View) => ReactNode
}

/** What every elevation shows, in the view it is given: wall and soil, the marks, the tapes. */
export function Face(props: FaceProps & { readonly view: View; readonly bounds: Rect }) {
  const { wall, surface, list, chosenId, showNumbers, underlay, overlay, view, bounds } = props
  const from = props.from ?? 'elevation'
  const { t } = useTranslation()
  const units = useUnits()
  const movedText = useCallback(
    (movedM: number) => t('elevation.moved', { distance: units.length(movedM, 'fine') }),
    [t, units],
  )
  const isFront = from === 'elevation'
  return (
    <>
      {isFront && <Ground wall={wall} view={view} surface={surface} />}
      {from === 'side' && (
        <Soil
          view={view}
          line={[
            { xM: bounds.leftM, yM: 0 },
            { xM: bounds.rightM, yM: 0 },
          ]}
        />
      )}
      {underlay?.(view)}
      <Marks
        list={list}
        view={view}
        chosenId={chosenId}
        movedText={movedText}
        showNumbers={showNumbers === true && nodeRoomPx(list, view) > NUMBER_ROOM_PX}
      />
      {overlay?.(view)}
      <g data-fresh="">
        <Tapes {...{ wall, surface, from, view, bounds }} tapeAlong={props.tapeAlong ?? false} />
      </g>
    </>
  )
}

interface TapesProps extends Pick<FaceProps, 'wall' | 'surface'> {
  readonly from: Look['from']
  readonly tapeAlong: boolean
  readonly view: View
  readonly bounds: Rect
}

/** The tapes along and up the place, with what they measure. */
export const Tapes = memo(function Tapes({ wall, surface, from, tapeAlong, view, bounds }: TapesProps) {
  const units = useUnits()
  const isFront = from === 'elevation'
  const upM = isFront && surface !== 'open' ? wall.firstForkM + wall.usableHeightM : bounds.topM
  return (
    <>
      <StandingTape view={view} system={units.system} lengthM={upM} leftM={bounds.leftM} />
      {tapeAlong && (
        <LyingTape
          view={view}
          system={units.system}
          lengthM={isFront || from === 'plan' ? wall.widthM : bounds.rightM}
          footM={from === 'plan' ? bounds.bottomM : 0}
          fromRight={from !== 'side' && wall.viewingEnd === 'right'}
        />
      )}
    </>
  )
})

/** The bounds of what is drawn: while they are as they were, the same object, and with it the view and every mark. */
export function useSteady(bounds: Rect): Rect {
  const [known, keep] = useState(bounds)
  const isSame =
    known === bounds ||
    (known.leftM === bounds.leftM &&
      known.rightM === bounds.rightM &&
      known.bottomM === bounds.bottomM &&
      known.topM === bounds.topM)
  if (isSame) return known
  keep(bounds)
  return bounds
}

/** The place and whatever stands out above, beside or below it. */
export function boundsOf(wall: Site, list: DisplayList, from: Look['from'] = 'elevation'): Rect {
  const box = boxOf(wall, from)
  const reach = (p: Point) => {
    box.leftM = Math.min(box.leftM, p.xM)
    box.rightM = Math.max(box.rightM, p.xM)
    box.bottomM = Math.min(box.bottomM, p.yM)
    box.topM = Math.max(box.topM, p.yM)
  }
  for (const mark of list) {
    if (mark.kind === 'wood' || mark.kind === 'member') mark.points.forEach(reach)
    else if (mark.kind === 'line' && mark.role !== 'first-fork') mark.points.forEach(reach)
    else if (mark.kind === 'area' && mark.role !== 'ground' && mark.role !== 'wall' && mark.role !== 'spot')
      mark.points.forEach(reach)
    else if (mark.kind === 'anchor') {
      reach(mark.at)
      if (from !== 'plan') reach({ xM: mark.at.xM, yM: mark.at.yM - mark.depthM })
    }
  }
  return box
}

/** What is shown of a place however little stands there; what is unrolled has no place but its own. */
function boxOf({ widthM, firstForkM, usableHeightM }: Site, from: Look['from']) {
  if (from === 'elevation') return { leftM: 0, rightM: widthM, bottomM: 0, topM: firstForkM + usableHeightM }
  if (from === 'unrolled') return { leftM: widthM, rightM: 0, bottomM: 0, topM: 0.1 }
  return { leftM: 0, rightM: from === 'plan' ? widthM : 0.1, bottomM: 0, topM: 0.1 }
}

/** Height in pixels at which a drawing of this width is no taller than what it shows. */
export function fittingHeightPx(bounds: Rect, widthPx: number): number {
  const roomX = Math.max(40, widthPx - MARGIN_PX.left - MARGIN_PX.right)
  const scale = roomX / Math.max(0.1, bounds.rightM - bounds.leftM)
  return Math.ceil((bounds.topM - bounds.bottomM) * scale + MARGIN_PX.top + MARGIN_PX.bottom)
}

/** Mean room of a node: drawn area over the number of nodes, as a length in pixels. */
function nodeRoomPx(list: DisplayList, view: View): number {
  const nodes = list.filter((mark) => mark.kind === 'node')
  if (nodes.length < 2) return Infinity
  const xs = nodes.map((mark) => mark.at.xM)
  const ys = nodes.map((mark) => mark.at.yM)
  const widthM = xs.reduce((a, b) => Math.max(a, b)) - xs.reduce((a, b) => Math.min(a, b))
  const heightM = ys.reduce((a, b) => Math.max(a, b)) - ys.reduce((a, b) => Math.min(a, b))
  return Math.sqrt((Math.max(0.2, widthM) * Math.max(0.2, heightM)) / nodes.length) * view.pxPerM
}

const COURSE_M = { brick: 0.075, boards: 0.15 } as const
const MIN_COURSE_PX = 4

/**
 * Face of the wall with its courses or boards, and the soil with its hatching: ground for the eye, not for
 * measuring.
 */
const Ground = memo(function Ground({ wall, view, surface }: { wall: Site; view: View; surface: Surface }) {
  const topM = wall.firstForkM + wall.usableHeightM
  // The lines that were measured are drawn where they are; otherwise ordinary ones.
  const rhythm = surface === 'boards' ? wall.uprights : wall.levels
  const usual = surface === 'brick' ? COURSE_M.brick : surface === 'boards' ? COURSE_M.boards : 0
  const step = rhythm?.stepM ?? usual
  const first = rhythm?.firstM ?? step
  const isDrawn = step * view.pxPerM >= MIN_COURSE_PX
  const lines = isDrawn
    ? Math.min(800, Math.floor(((surface === 'boards' ? wall.widthM : topM) - first) / step) + 1)
    : 0
  const [left, right, top, soil] = [view.x(0), view.x(wall.widthM), view.y(topM), view.y(0)]
  const isOpen = surface === 'open'
  return (
    <g aria-hidden="true">
      {!isOpen && <rect className="draw-wall" x={left} y={top} width={right - left} height={soil - top} />}
      {!isOpen &&
        Array.from({ length: Math.max(0, lines) }, (_, i) => first + i * step).map((at) =>
          surface === 'boards' ? (
            <line key={at} className="draw-course" x1={view.x(at)} x2={view.x(at)} y1={top} y2={soil} />
          ) : (
            <line key={at} className="draw-course" x1={left} x2={right} y1={view.y(at)} y2={view.y(at)} />
          ),
        )}
      <Soil
        view={view}
        line={[
          { xM: 0, yM: 0 },
          { xM: wall.widthM, yM: isOpen ? groundAt(wall, wall.widthM) : 0 },
        ]}
      />
    </g>
  )
})

const SOIL_OUT_PX = 24

/** The line of the ground with its hatching, drawn on a little beyond both ends. */
function Soil({ view, line: [a, b] }: { view: View; line: readonly [Point, Point] }) {
  const [x1, y1, x2, y2] = [view.x(a.xM), view.y(a.yM), view.x(b.xM), view.y(b.yM)]
  const slope = (y2 - y1) / Math.max(1, x2 - x1)
  const at = (x: number) => y1 + (x - x1) * slope
  const hatches = Math.min(400, Math.floor((x2 - x1) / 16))
  return (
    <g aria-hidden="true">
      <line
        className="draw-ground"
        x1={x1 - SOIL_OUT_PX}
        x2={x2 + SOIL_OUT_PX}
        y1={at(x1 - SOIL_OUT_PX)}
        y2={at(x2 + SOIL_OUT_PX)}
      />
      {Array.from({ length: hatches }, (_, i) => x1 + i * 16).map((x) => (
        <line key={x} className="draw-hatch" x1={x + 6} x2={x} y1={at(x) + 3} y2={at(x) + 9} />
      ))}
    </g>
  )
}
