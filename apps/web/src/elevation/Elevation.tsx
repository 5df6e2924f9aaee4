import type { DisplayList } from '@klados/core/drawing'
import type { Wall } from '@klados/core/frame'
import type { Point, Rect } from '@klados/core/geometry'
import type { Surface } from '@klados/core/materials'
import { useCallback, useLayoutEffect, useMemo, useRef, useState } from 'react'
import type { KeyboardEvent, PointerEvent, ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { useUnits } from '../ui/units.tsx'
import { Marks, NUMBER_ROOM_PX } from './marks.tsx'
import { LyingTape, StandingTape } from './Tape.tsx'
import { useCamera } from './use-camera.ts'
import { FITTED, makeView } from './view.ts'
import type { View } from './view.ts'

/** What was under the pointer: the id of a node, a piece of wood, a tie or a plant's foot. */
export interface Hit {
  readonly kind: 'node' | 'wood' | 'tie' | 'foot'
  readonly id: string
}

export interface ElevationProps {
  readonly label: string
  readonly wall: Wall
  readonly surface: Surface
  readonly list: DisplayList
  readonly chosenId?: string | null
  /** Where a tool draws, a drag is the tool's and does not move the sheet. */
  readonly isDrawing?: boolean
  readonly isStill?: boolean
  readonly showNumbers?: boolean
  readonly tapeAlong?: boolean
  readonly onPress?: (at: Point, hit: Hit | null) => void
  readonly onDrag?: (at: Point, hit: Hit) => void
  readonly onDrop?: (hit: Hit) => void
  readonly onHover?: (at: Point) => void
  /** Keys that the tool wants before the sheet does; true when it took one. */
  readonly onKey?: (event: KeyboardEvent) => boolean
  readonly overlay?: (view: View) => ReactNode
  readonly className?: string
}

/** The one drawing: a wall to scale with what stands on it. Wheel, pinch and drag move the sheet; so do + − 0 and arrows. */
export function Elevation(props: ElevationProps) {
  const { wall, list, isStill = false, isDrawing = false } = props
  const { t } = useTranslation()
  const units = useUnits()
  const svg = useRef<SVGSVGElement>(null)
  const size = useSize(svg)
  const control = useCamera(svg, isDrawing)
  const drag = useRef<Hit | null>(null)
  const camera = isStill ? FITTED : control.camera
  const bounds = useMemo(() => boundsOf(wall, list), [wall, list])
  const view = useMemo(() => makeView(bounds, size.width, size.height, camera), [bounds, size, camera])
  const movedText = useCallback(
    (movedM: number) => t('elevation.moved', { distance: units.length(movedM, 'fine') }),
    [t, units],
  )

  const pointAt = (event: PointerEvent): Point => {
    const box = svg.current!.getBoundingClientRect()
    return view.toPoint(event.clientX - box.left, event.clientY - box.top)
  }
  const press = (event: PointerEvent<SVGSVGElement>) => {
    if (event.button !== 0) return
    const hit = hitOf(event.target)
    props.onPress?.(pointAt(event), hit)
    if (hit && props.onDrag && (hit.kind === 'node' || hit.kind === 'foot')) {
      drag.current = hit
      svg.current!.setPointerCapture(event.pointerId)
    }
  }
  const move = (event: PointerEvent<SVGSVGElement>) => {
    if (drag.current) props.onDrag?.(pointAt(event), drag.current)
    else props.onHover?.(pointAt(event))
  }
  const release = () => {
    if (drag.current) props.onDrop?.(drag.current)
    drag.current = null
  }
  const key = (event: KeyboardEvent<SVGSVGElement>) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return
    if (props.onKey?.(event) || (!isStill && control.onKey(event.key))) event.preventDefault()
  }
  return (
    <div className={`relative min-h-0 ${props.className ?? ''}`}>
      <svg
        ref={svg}
        role="img"
        aria-label={props.label}
        tabIndex={isStill ? undefined : 0}
        className={`block h-full w-full touch-none select-none ${isDrawing ? 'cursor-crosshair' : ''}`}
        {...(isStill ? {} : { onPointerDown: press, onPointerMove: move, onPointerUp: release, onPointerCancel: release, onKeyDown: key })} // prettier-ignore
      >
        <Ground wall={wall} view={view} surface={props.surface} />
        <Marks
          list={list}
          view={view}
          chosenId={props.chosenId}
          movedText={movedText}
          showNumbers={props.showNumbers === true && nodeRoomPx(list, view) > NUMBER_ROOM_PX}
        />
        {props.overlay?.(view)}
        <StandingTape view={view} system={units.system} lengthM={wall.firstForkM + wall.usableHeightM} />
        {props.tapeAlong && (
          <LyingTape
            view={view}
            system={units.system}
            lengthM={wall.widthM}
            fromRight={wall.viewingEnd === 'right'}
          />
        )}
      </svg>
      {!isStill && (
        <div className="no-print absolute right-1 top-1 flex gap-1">
          <button
            type="button"
            className="btn bg-plaster/80 px-2.5"
            onClick={() => control.zoomBy(1.4)}
            aria-label={t('elevation.nearer')}
          >
            +
          </button>
          <button
            type="button"
            className="btn bg-plaster/80 px-2.5"
            onClick={() => control.zoomBy(1 / 1.4)}
            aria-label={t('elevation.farther')}
          >
            −
          </button>
          <button type="button" className="btn bg-plaster/80" onClick={control.fit}>
            {t('elevation.fit')}
          </button>
        </div>
      )}{' '}
      {/* prettier-ignore */}
    </div>
  )
}

function hitOf(target: EventTarget): Hit | null {
  const data = (target as Element).closest<SVGElement>(
    '[data-node],[data-wood],[data-tie],[data-foot]',
  )?.dataset
  if (!data) return null
  for (const kind of ['tie', 'node', 'foot', 'wood'] as const) {
    const id = data[kind]
    if (id !== undefined) return { kind, id }
  }
  return null
}

/** The wall and whatever stands out above or beside it. */
function boundsOf(wall: Wall, list: DisplayList): Rect {
  let topM = wall.firstForkM + wall.usableHeightM
  for (const mark of list) {
    if (mark.kind === 'wood') for (const p of mark.points) topM = Math.max(topM, p.yM)
  }
  return { leftM: 0, rightM: wall.widthM, bottomM: 0, topM }
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

function useSize(svg: React.RefObject<SVGSVGElement | null>): { width: number; height: number } {
  const [size, setSize] = useState({ width: 800, height: 400 })
  useLayoutEffect(() => {
    const element = svg.current
    if (!element) return
    const measure = () => {
      const { width, height } = element.getBoundingClientRect()
      if (width > 0 && height > 0)
        setSize((old) => (old.width === width && old.height === height ? old : { width, height }))
    }
    measure()
    const observer = new ResizeObserver(measure)
    observer.observe(element)
    return () => observer.disconnect()
  }, [svg])
  return size
}
