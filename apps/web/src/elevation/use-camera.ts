import { select } from 'd3-selection'
import { zoom, zoomIdentity } from 'd3-zoom'
import type { ZoomBehavior } from 'd3-zoom'
import { startTransition, useEffect, useLayoutEffect, useRef, useState } from 'react'
import type { RefObject } from 'react'
import { paintSheet } from './paint.ts'
import { FITTED } from './view.ts'
import type { Camera } from './view.ts'

/** A hand that pauses so shortly goes on: drawing a large sheet in between would hold it up. */
const REST_MS = 100
const MAX_ZOOM = 24
const KEY_ZOOM = 1.4
const KEY_PAN_PX = 60

export interface CameraControl {
  /** What the sheet is drawn for. */
  readonly camera: Camera
  /** Whether a picture of the sheet is being moved in its stead. */
  readonly isLifted: boolean
  /** Told at every move of a lifted sheet. */
  readonly onMove: (listener: () => void) => () => void
  /** Where the sheet is at this moment, which differs while the hand moves a sheet of many marks. */
  readonly now: () => Camera
  readonly zoomBy: (factor: number) => void
  readonly panBy: (dx: number, dy: number) => void
  readonly fit: () => void
  /** Plus, minus, 0 and the arrow keys; true when the key was one of them. */
  readonly onKey: (key: string) => boolean
}

interface CameraOptions {
  /** What the sheet is seen through; it stays where it is. */
  readonly pane: RefObject<HTMLElement | null>
  readonly sheet: RefObject<SVGSVGElement | null>
  /** What takes the picture of a sheet of many marks. */
  readonly picture: RefObject<HTMLCanvasElement | null>
  /** Where a tool draws, a drag is the tool's. */
  readonly isDrawing: boolean
  /**
   * Drawing this sheet again takes longer than a frame: it is moved as it is and drawn when the hand rests.
   */
  readonly isLarge: boolean
}

/**
 * Wheel, pinch and drag through d3-zoom; a drag that a tool has claimed (`data-claims-drag`) does not pan.
 */
export function useCamera({ pane, sheet, picture, isDrawing, isLarge }: CameraOptions): CameraControl {
  const [camera, setCamera] = useState<Camera>(FITTED)
  const live = useRef<Camera>(FITTED)
  const behaviour = useRef<ZoomBehavior<HTMLElement, unknown>>(null)
  const options = useRef({ isDrawing, isLarge, drawn: camera })
  const [isLifted, setIsLifted] = useState(false)
  const hasPicture = useRef(false)
  const [listeners] = useState(() => new Set<() => void>())
  useLayoutEffect(() => {
    options.current = { isDrawing, isLarge, drawn: camera }
    const layer = hasPicture.current ? picture.current : sheet.current
    moveLayer(layer, camera, live.current)
    // Drawn where it was moved to: the picture has done its work.
    const { k, x, y } = live.current
    if (camera.k !== k || camera.x !== x || camera.y !== y) return
    hasPicture.current = false
    setIsLifted(false)
  }, [isDrawing, isLarge, camera, sheet, picture])
  useEffect(() => {
    const element = pane.current
    if (!element) return
    let rest: ReturnType<typeof setTimeout> | undefined
    const made = zoom<HTMLElement, unknown>()
      .scaleExtent([0.5, MAX_ZOOM])
      .filter((event: Event) => {
        if (event.type === 'wheel') return true
        const target = event.target as Element
        return !options.current.isDrawing && !target.closest('[data-claims-drag]')
      })
      .on('zoom', (event: { transform: Camera }) => {
        clearTimeout(rest)
        const { k, x, y } = event.transform
        live.current = { k, x, y }
        if (!options.current.isLarge) return setCamera(live.current)
        if (!hasPicture.current && takePicture(element, sheet.current, picture.current)) {
          hasPicture.current = true
          setIsLifted(true)
        }
        const layer = hasPicture.current ? picture.current : sheet.current
        moveLayer(layer, options.current.drawn, live.current)
        for (const listener of listeners) listener()
      })
      .on('end', () => {
        clearTimeout(rest)
        const draw = () => startTransition(() => setCamera(live.current))
        if (options.current.isLarge) rest = setTimeout(draw, REST_MS)
        else draw()
      })
    behaviour.current = made
    select(element).call(made).on('dblclick.zoom', null)
    return () => {
      clearTimeout(rest)
      select(element).on('.zoom', null)
    }
  }, [pane, sheet, picture, listeners])

  const apply = (change: (made: ZoomBehavior<HTMLElement, unknown>, element: HTMLElement) => void) => {
    if (behaviour.current && pane.current) change(behaviour.current, pane.current)
  }
  const zoomBy = (factor: number) => apply((made, element) => made.scaleBy(select(element), factor))
  const panBy = (dx: number, dy: number) =>
    apply((made, element) => made.translateBy(select(element), dx / live.current.k, dy / live.current.k))
  const fit = () => apply((made, element) => made.transform(select(element), zoomIdentity))
  const onKey = (key: string): boolean => {
    switch (key) {
      case '+':
      case '=':
        zoomBy(KEY_ZOOM)
        return true
      case '-':
        zoomBy(1 / KEY_ZOOM)
        return true
      case '0':
        fit()
        return true
      case 'ArrowLeft':
        panBy(KEY_PAN_PX, 0)
        return true
      case 'ArrowRight':
        panBy(-KEY_PAN_PX, 0)
        return true
      case 'ArrowUp':
        panBy(0, KEY_PAN_PX)
        return true
      case 'ArrowDown':
        panBy(0, -KEY_PAN_PX)
        return true
      default:
        return false
    }
  }
  const onMove = (listener: () => void) => {
    listeners.add(listener)
    return () => void listeners.delete(listener)
  }
  return { camera, isLifted, onMove, now: () => live.current, zoomBy, panBy, fit, onKey }
}

/** Room round the pane that is in the picture too, as a share of the pane, so that a move does not bare an edge. */
const PICTURE_MARGIN = 0.5

/** Paints the sheet, with what lies round its pane, onto the canvas; false where it cannot be. */
function takePicture(
  pane: HTMLElement,
  sheet: SVGSVGElement | null,
  canvas: HTMLCanvasElement | null,
): boolean {
  const context = canvas?.getContext('2d')
  if (!sheet || !canvas || !context) return false
  const { width, height } = pane.getBoundingClientRect()
  const [left, top] = [width * PICTURE_MARGIN, height * PICTURE_MARGIN]
  canvas.width = Math.ceil(width + 2 * left)
  canvas.height = Math.ceil(height + 2 * top)
  canvas.style.left = `${-left}px`
  canvas.style.top = `${-top}px`
  canvas.style.transformOrigin = `${left}px ${top}px`
  context.translate(left, top)
  return paintSheet(sheet, context)
}

/**
 * Shows at `to` a layer that was drawn for `drawn`; a camera is one scale and one shift, so their difference
 * is too.
 */
function moveLayer(layer: SVGSVGElement | HTMLCanvasElement | null, drawn: Camera, to: Camera): void {
  const scale = to.k / drawn.k
  const isThere = drawn.k === to.k && drawn.x === to.x && drawn.y === to.y
  const shift = `${to.x - scale * drawn.x}px, ${to.y - scale * drawn.y}px`
  // A layer of its own is painted once and then only shifted and scaled.
  layer?.style.setProperty('will-change', isThere ? 'auto' : 'transform')
  layer?.style.setProperty('transform', isThere ? 'none' : `translate(${shift}) scale(${scale})`)
}
