import { at3 } from '../geometry/index.ts'
import type { Point3 } from '../geometry/index.ts'

/**
 * Corner k of a regular polygon of `count` corners, the first to the right; clockwise as seen from above
 * where asked. Depth grows away from the viewer, so anticlockwise from above is towards growing angle.
 */
export function corner(
  midM: number,
  radiusM: number,
  k: number,
  count: number,
  yM: number,
  way: 'clockwise' | 'anticlockwise' = 'anticlockwise',
): Point3 {
  const angle = (2 * Math.PI * k) / count
  const depthM = radiusM * Math.sin(angle)
  return at3(midM + radiusM * Math.cos(angle), yM, way === 'clockwise' ? -depthM : depthM)
}
