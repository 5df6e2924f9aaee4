import type { Point, Rect } from '@klados/core/geometry'
import { useEffect, useId, useMemo, useRef, useState, useSyncExternalStore } from 'react'
import type { KeyboardEvent, PointerEvent } from 'react'
import { useTranslation } from '../i18n/use-translation.tsx'
import { boundsOf, Face, fittingHeightPx, Tapes, useSteady } from './Face.tsx'
import type { FaceProps } from './Face.tsx'
import { marksIn, worthDrawing } from './near.ts'
import { useCamera } from './use-camera.ts'
import { useSize } from './use-size.ts'
import { makeView, MARGIN_PX } from './view.ts'
import type { View } from './view.ts'

/** What was under the pointer: the id of a node, a piece of wood, a tie or a plant's foot. */
export interface Hit {
  readonly kind: 'node' | 'wood' | 'tie' | 'foot'
  readonly id: string
}

interface ElevationProps extends FaceProps {
  readonly label: string
  /** What it shows and which keys it takes, for those who do not see it. */
  readonly described?: string
  /** What is shown at first, of a place too long to show whole. */
  readonly window?: Rect | null
  /** Of which part that is: for another one the sheet goes back to showing all of it. */
  readonly windowKey?: string
  /** Where a tool draws, a drag is the tool's and does not move the sheet. */
  readonly isDrawing?: boolean
  readonly onPress?: (at: Point, hit: Hit | null, pxPerM: number) => void
  /** Pressed and let go at the same place: a hand that moves the sheet chooses nothing. */
  readonly onTap?: (at: Point, hit: Hit | null, pxPerM: number) => void
  /** Let go, wherever the press began. */
  readonly onRelease?: (at: Point, pxPerM: number) => void
  readonly onDrag?: (at: Point, hit: Hit) => void
  readonly onHover?: (at: Point, pxPerM: number) => void
  /** Keys that the tool wants before the sheet does; true when it took one. */
  readonly onKey?: (event: KeyboardEvent) => boolean
}

const KEY_ZOOM = 1.4
/** A finger that only presses moves no farther. */
const SAME_PLACE_PX = 6
/** Room for the drawing of a long place and for the buttons over it. */
const MIN_HEIGHT_PX = 150
/** Marks beyond which a redraw takes longer than a frame. */
const LARGE_LIST = 500

/**
 * The one drawing to work on: a wall to scale with what stands on it. Wheel, pinch and drag move the sheet;
 * so do + − 0 and arrows.
 */
export function Elevation(props: ElevationProps) {
  const {
    label,
    described,
    window: shown = null,
    windowKey = '',
    isDrawing = false,
    onPress,
    onTap,
    onRelease,
    onDrag,
    onHover,
    onKey,
    ...face
  } = props
  const { wall, list, from } = face
  const { t } = useTranslation()
  const describedId = useId()
  const pane = useRef<HTMLDivElement>(null)
  const size = useSize(pane)
  const sheet = useRef<SVGSVGElement>(null)
  const picture = useRef<HTMLCanvasElement>(null)
  const control = useCamera({ pane, sheet, picture, isDrawing, isLarge: list.length > LARGE_LIST })
  const drag = useRef<Hit | null>(null)
  const down = useRef<{ readonly x: number; readonly y: number; readonly hit: Hit | null } | null>(null)
  const bounds = useSteady(
    useMemo(
      () => (shown ? widened(shown, size) : boundsOf(wall, list, from)),
      [shown, size, wall, list, from],
    ),
  )
  const { camera } = control
  const view = useMemo(() => makeView(bounds, size.width, size.height, camera), [bounds, size, camera])
  const part = usePart(view)
  const near = useMemo(() => marksIn(list, part), [list, part])
  // Another part of the place is looked at as a whole, however near one was to the last.
  const { fit } = control
  const lastKey = useRef(windowKey)
  useEffect(() => {
    if (lastKey.current === windowKey) return
    lastKey.current = windowKey
    fit()
  })

  const pointAt = (event: PointerEvent): Point => {
    const box = pane.current!.getBoundingClientRect()
    const seen = makeView(bounds, size.width, size.height, control.now())
    return seen.toPoint(event.clientX - box.left, event.clientY - box.top)
  }
  const press = (event: PointerEvent<HTMLElement>) => {
    if (event.button !== 0) return
    const hit = hitOf(event.target)
    down.current = { x: event.clientX, y: event.clientY, hit }
    onPress?.(pointAt(event), hit, view.pxPerM)
    if (hit?.kind === 'node' && onDrag) drag.current = hit
    // A line that is being drawn goes on where the hand leaves the pane.
    if (drag.current || onRelease) pane.current!.setPointerCapture(event.pointerId)
  }
  const move = (event: PointerEvent<HTMLElement>) => {
    if (drag.current) onDrag?.(pointAt(event), drag.current)
    // A hand that moves the sheet points at nothing.
    else if (!control.isLifted) onHover?.(pointAt(event), view.pxPerM)
  }
  const release = (event: PointerEvent<HTMLElement>) => {
    drag.current = null
    const from = down.current
    down.current = null
    if (event.type !== 'pointerup' || !from) return
    onRelease?.(pointAt(event), view.pxPerM)
    if (Math.hypot(event.clientX - from.x, event.clientY - from.y) <= SAME_PLACE_PX)
      onTap?.(pointAt(event), from.hit, view.pxPerM)
  }
  const key = (event: KeyboardEvent<HTMLElement>) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return
    if (onKey?.(event) || control.onKey(event.key)) event.preventDefault()
  }
  const most = 'var(--drawing-most, 48vh)'
  const height = shown ? most : `clamp(${MIN_HEIGHT_PX}px, ${fittingHeightPx(bounds, size.width)}px, ${most})`
  return (
    <div className="relative">
      {described !== undefined && (
        <p id={describedId} className="sr-only">
          {described}
        </p>
      )}
      <div
        ref={pane}
        role="img"
        aria-label={label}
        {...(described === undefined ? {} : { 'aria-describedby': describedId })}
        tabIndex={0}
        className={`pane relative touch-none select-none overflow-hidden ${isDrawing ? 'cursor-crosshair' : ''}`}
        style={{ height }}
        onPointerDown={press}
        onPointerMove={move}
        onPointerUp={release}
        onPointerCancel={release}
        onKeyDown={key}
      >
        <svg
          ref={sheet}
          className={`elevation h-full w-full origin-top-left overflow-visible ${control.isLifted ? 'hidden' : 'block'}`}
        >
          {size.isSettled && <Face {...face} list={near} view={view} bounds={bounds} />}
        </svg>
        <canvas
          ref={picture}
          aria-hidden="true"
          className={`pointer-events-none absolute ${control.isLifted ? '' : 'hidden'}`}
        />
        {control.isLifted && <MovingTapes face={face} control={control} bounds={bounds} size={size} />}
      </div>
      <div className="no-print absolute right-0 top-0 flex">
        <button
          type="button"
          className="btn btn-plain no-underline"
          onClick={() => control.zoomBy(KEY_ZOOM)}
          aria-label={t('elevation.nearer')}
        >
          +
        </button>
        <button
          type="button"
          className="btn btn-plain no-underline"
          onClick={() => control.zoomBy(1 / KEY_ZOOM)}
          aria-label={t('elevation.farther')}
        >
          −
        </button>
        <button type="button" className="btn btn-plain" onClick={control.fit}>
          {t('elevation.fit')}
        </button>
      </div>
    </div>
  )
}

interface MovingTapesProps {
  readonly face: FaceProps
  readonly control: ReturnType<typeof useCamera>
  readonly bounds: Rect
  readonly size: { readonly width: number; readonly height: number }
}

/** The tapes of a sheet whose picture is being moved: they stay sharp, and count on, under the hand. */
function MovingTapes({ face, control, bounds, size }: MovingTapesProps) {
  const camera = useSyncExternalStore(control.onMove, control.now)
  const view = makeView(bounds, size.width, size.height, camera)
  const { wall, surface, from = 'elevation', tapeAlong = false } = face
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden="true">
      <Tapes {...{ wall, surface, from, tapeAlong, view, bounds }} />
    </svg>
  )
}

/** The part of the sheet that is drawn. */
function usePart(view: View): Rect {
  const [a, b] = [view.toPoint(0, view.heightPx), view.toPoint(view.widthPx, 0)]
  const seen = { leftM: a.xM, rightM: b.xM, bottomM: a.yM, topM: b.yM }
  const [known, keep] = useState(() => worthDrawing(seen, null))
  const part = worthDrawing(seen, known)
  if (part !== known) keep(part)
  return part
}

/** As wide as the pane has room for at the height of the window, so that the tape stands at the edge. */
function widened(shown: Rect, size: { readonly width: number; readonly height: number }): Rect {
  const room = {
    x: Math.max(40, size.width - MARGIN_PX.left - MARGIN_PX.right),
    y: Math.max(40, size.height - MARGIN_PX.top - MARGIN_PX.bottom),
  }
  const wideM = Math.max(shown.rightM - shown.leftM, ((shown.topM - shown.bottomM) * room.x) / room.y)
  const middleM = (shown.leftM + shown.rightM) / 2
  return { ...shown, leftM: middleM - wideM / 2, rightM: middleM + wideM / 2 }
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
