import { select } from 'd3-selection'
import { zoom, zoomIdentity } from 'd3-zoom'
import type { ZoomBehavior } from 'd3-zoom'
import { useEffect, useRef, useState } from 'react'
import type { RefObject } from 'react'
import { FITTED } from './view.ts'
import type { Camera } from './view.ts'

const MAX_ZOOM = 24
const KEY_ZOOM = 1.4
const KEY_PAN_PX = 60

export interface CameraControl {
  readonly camera: Camera
  readonly zoomBy: (factor: number) => void
  readonly panBy: (dx: number, dy: number) => void
  readonly fit: () => void
  /** Plus, minus, 0 and the arrow keys; true when the key was one of them. */
  readonly onKey: (key: string) => boolean
}

/** Wheel, pinch and drag through d3-zoom; a drag that a tool has claimed (`data-claims-drag`) does not pan. */
export function useCamera(svg: RefObject<SVGSVGElement | null>, isDrawing: boolean): CameraControl {
  const [camera, setCamera] = useState<Camera>(FITTED)
  const behaviour = useRef<ZoomBehavior<SVGSVGElement, unknown>>(null)
  const drawing = useRef(isDrawing)
  useEffect(() => {
    drawing.current = isDrawing
  }, [isDrawing])
  useEffect(() => {
    const element = svg.current
    if (!element) return
    const made = zoom<SVGSVGElement, unknown>()
      .scaleExtent([0.5, MAX_ZOOM])
      .filter((event: Event) => {
        if (event.type === 'wheel') return true
        const target = event.target as Element
        return !drawing.current && !target.closest('[data-claims-drag]')
      })
      .on('zoom', (event: { transform: Camera }) => {
        const { k, x, y } = event.transform
        setCamera({ k, x, y })
      })
    behaviour.current = made
    select(element).call(made).on('dblclick.zoom', null)
    return () => void select(element).on('.zoom', null)
  }, [svg])

  const apply = (change: (made: ZoomBehavior<SVGSVGElement, unknown>, element: SVGSVGElement) => void) => {
    if (behaviour.current && svg.current) change(behaviour.current, svg.current)
  }
  const zoomBy = (factor: number) => apply((made, element) => made.scaleBy(select(element), factor))
  const panBy = (dx: number, dy: number) =>
    apply((made, element) => made.translateBy(select(element), dx / camera.k, dy / camera.k))
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
  return { camera, zoomBy, panBy, fit, onKey }
}
