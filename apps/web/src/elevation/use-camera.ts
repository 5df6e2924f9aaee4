import { select } from 'd3-selection'
import { zoom, zoomIdentity } from 'd3-zoom'
import type { ZoomBehavior } from 'd3-zoom'
import { startTransition, useEffect, useLayoutEffect, useRef, useState } from 'react'
import type { RefObject } from 'react'
import { FITTED } from './view.ts'
import type { Camera } from './view.ts'

const MAX_ZOOM = 24
const KEY_ZOOM = 1.4
const KEY_PAN_PX = 60

export interface CameraControl {
  /** What the sheet is drawn for. */
  readonly camera: Camera
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
export function useCamera({ pane, sheet, isDrawing, isLarge }: CameraOptions): CameraControl {
  const [camera, setCamera] = useState<Camera>(FITTED)
  const live = useRef<Camera>(FITTED)
  const behaviour = useRef<ZoomBehavior<HTMLElement, unknown>>(null)
  const options = useRef({ isDrawing, isLarge, drawn: camera })
  useLayoutEffect(() => {
    options.current = { isDrawing, isLarge, drawn: camera }
    moveSheet(sheet.current, camera, live.current)
  }, [isDrawing, isLarge, camera, sheet])
  useEffect(() => {
    const element = pane.current
    if (!element) return
    const made = zoom<HTMLElement, unknown>()
      .scaleExtent([0.5, MAX_ZOOM])
      .filter((event: Event) => {
        if (event.type === 'wheel') return true
        const target = event.target as Element
        return !options.current.isDrawing && !target.closest('[data-claims-drag]')
      })
      .on('zoom', (event: { transform: Camera }) => {
        const { k, x, y } = event.transform
        live.current = { k, x, y }
        if (options.current.isLarge) moveSheet(sheet.current, options.current.drawn, live.current)
        else setCamera(live.current)
      })
      .on('end', () => startTransition(() => setCamera(live.current)))
    behaviour.current = made
    select(element).call(made).on('dblclick.zoom', null)
    return () => void select(element).on('.zoom', null)
  }, [pane, sheet])

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
  return { camera, now: () => live.current, zoomBy, panBy, fit, onKey }
}

/**
 * Shows at `to` a sheet that was drawn for `drawn`; a camera is one scale and one shift, so their difference
 * is too.
 */
function moveSheet(sheet: SVGSVGElement | null, drawn: Camera, to: Camera): void {
  const scale = to.k / drawn.k
  const isThere = drawn.k === to.k && drawn.x === to.x && drawn.y === to.y
  const shift = `${to.x - scale * drawn.x}px, ${to.y - scale * drawn.y}px`
  // A layer of its own is painted once and then only shifted and scaled.
  sheet?.style.setProperty('will-change', isThere ? 'auto' : 'transform')
  sheet?.style.setProperty('transform', isThere ? 'none' : `translate(${shift}) scale(${scale})`)
}
