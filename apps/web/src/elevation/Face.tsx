import type { DisplayList } from '@klados/core/drawing'
import type { Wall } from '@klados/core/frame'
import type { Rect } from '@klados/core/geometry'
import type { Surface } from '@klados/core/materials'
import { useCallback } from 'react'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { useUnits } from '../ui/units.tsx'
import { Marks, NUMBER_ROOM_PX } from './marks.tsx'
import { LyingTape, StandingTape } from './Tape.tsx'
import { MARGIN_PX } from './view.ts'
import type { View } from './view.ts'

export interface FaceProps {
  readonly wall: Wall
  readonly surface: Surface
  readonly list: DisplayList
  readonly chosenId?: string | null
  readonly showNumbers?: boolean
  readonly tapeAlong?: boolean
  readonly overlay?: (view: View) => ReactNode
}

/** What every elevation shows, in the view it is given: wall and soil, the marks, the tapes. */
export function Face({
  wall,
  surface,
  list,
  chosenId,
  showNumbers,
  tapeAlong,
  overlay,
  view,
}: FaceProps & { readonly view: View }) {
  const { t } = useTranslation()
  const units = useUnits()
  const movedText = useCallback(
    (movedM: number) => t('elevation.moved', { distance: units.length(movedM, 'fine') }),
    [t, units],
  )
  return (
    <>
      <Ground wall={wall} view={view} surface={surface} />
      <Marks
        list={list}
        view={view}
        chosenId={chosenId}
        movedText={movedText}
        showNumbers={showNumbers === true && nodeRoomPx(list, view) > NUMBER_ROOM_PX}
      />
      {overlay?.(view)}
      <StandingTape view={view} system={units.system} lengthM={wall.firstForkM + wall.usableHeightM} />
      {tapeAlong && (
        <LyingTape
          view={view}
          system={units.system}
          lengthM={wall.widthM}
          fromRight={wall.viewingEnd === 'right'}
        />
      )}
    </>
  )
}

/** The wall and whatever stands out above or beside it. */
export function boundsOf(wall: Wall, list: DisplayList): Rect {
  let topM = wall.firstForkM + wall.usableHeightM
  for (const mark of list) {
    if (mark.kind === 'wood') for (const p of mark.points) topM = Math.max(topM, p.yM)
  }
  return { leftM: 0, rightM: wall.widthM, bottomM: 0, topM }
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

/** Face of the wall with its courses or boards, and the soil with its hatching: ground for the eye, not for measuring. */
function Ground({ wall, view, surface }: { wall: Wall; view: View; surface: Surface }) {
  const topM = wall.firstForkM + wall.usableHeightM
  const step = surface === 'brick' ? COURSE_M.brick : surface === 'boards' ? COURSE_M.boards : 0
  const isDrawn = step * view.pxPerM >= MIN_COURSE_PX
  const lines = isDrawn ? Math.floor((surface === 'boards' ? wall.widthM : topM) / step) : 0
  const [left, right, top, soil] = [view.x(0), view.x(wall.widthM), view.y(topM), view.y(0)]
  const hatches = Math.min(400, Math.floor((right - left) / 16))
  return (
    <g aria-hidden="true">
      <rect className="draw-wall" x={left} y={top} width={right - left} height={soil - top} />
      {Array.from({ length: lines }, (_, i) => (i + 1) * step).map((at) =>
        surface === 'boards' ? (
          <line key={at} className="draw-course" x1={view.x(at)} x2={view.x(at)} y1={top} y2={soil} />
        ) : (
          <line key={at} className="draw-course" x1={left} x2={right} y1={view.y(at)} y2={view.y(at)} />
        ),
      )}
      <line className="draw-ground" x1={left - 24} x2={right + 24} y1={soil} y2={soil} />
      {Array.from({ length: hatches }, (_, i) => left + i * 16).map((x) => (
        <line key={x} className="draw-hatch" x1={x + 6} x2={x} y1={soil + 3} y2={soil + 9} />
      ))}
    </g>
  )
}
