/**
 * A drawing as a picture: every shape of an SVG painted onto a canvas as it stands, in the ink that the style sheet
 * gives it. Moving a picture costs the browser next to nothing, moving thousands of shapes a frame or more.
 */

/** What is drawn fresh while a sheet moves, and so is left out of its picture. */
export const FRESH = 'data-fresh'

interface Ink {
  readonly fill: string
  readonly stroke: string
  readonly width: number
  readonly dash: number[]
  readonly opacity: number
  readonly font: string
  readonly cap: CanvasLineCap
  readonly join: CanvasLineJoin
}

const SHAPES = 'line,polyline,polygon,circle,ellipse,rect,path,text'

/**
 * Paints the shapes of `svg`, shifted by the margins; false for a drawing with something in it that a canvas cannot
 * take from there, such as a photo.
 */
export function paintSheet(svg: SVGSVGElement, context: CanvasRenderingContext2D): boolean {
  if (svg.querySelector('image')) return false
  const inks = new Map<string, Ink>()
  const fresh = new Set<Element>(svg.querySelectorAll(`[${FRESH}] *, defs *`))
  for (const shape of svg.querySelectorAll<SVGElement>(SHAPES)) {
    // What only catches the pointer is not seen.
    if (shape.getAttribute('fill') === TRANSPARENT || shape.getAttribute('stroke') === TRANSPARENT) continue
    if (fresh.has(shape)) continue
    const ink = inkOf(shape, inks)
    if (ink.opacity === 0 || (ink.fill === '' && ink.stroke === '')) continue
    context.globalAlpha = ink.opacity
    if (shape.tagName === 'text') {
      paintText(shape, ink, context)
      continue
    }
    const path = pathOf(shape)
    if (!path) continue
    const transform = shape.getAttribute('transform')
    if (transform) {
      context.save()
      applyTransform(context, transform)
    }
    if (ink.fill !== '') {
      context.fillStyle = ink.fill
      context.fill(path)
    }
    const width = Number(shape.getAttribute('stroke-width') ?? ink.width)
    if (ink.stroke !== '' && width > 0) {
      context.strokeStyle = ink.stroke
      context.lineWidth = width
      context.lineCap = ink.cap
      context.lineJoin = ink.join
      context.setLineDash(ink.dash)
      context.stroke(path)
    }
    if (transform) context.restore()
  }
  return true
}

const TRANSPARENT = 'transparent'
const ATTRIBUTES = ['fill', 'stroke', 'stroke-dasharray', 'opacity'] as const

/** Shapes of one class under groups of one class look alike: the style sheet is asked once for each. */
function inkOf(shape: SVGElement, inks: Map<string, Ink>): Ink {
  const named = shape.getAttribute('class')
  // With a class of its own the style sheet says it all; wood is inked by attributes.
  const own = named ?? ATTRIBUTES.map((name) => shape.getAttribute(name) ?? '').join('|')
  const key = `${shape.tagName} ${own} ${shape.parentElement?.getAttribute('class') ?? ''}`
  const known = inks.get(key)
  if (known) return known
  const style = getComputedStyle(shape)
  const paint = (value: string) =>
    value === 'none' || value === 'transparent' || value === 'rgba(0, 0, 0, 0)' ? '' : value
  const isPlain = !style.fill.startsWith('url')
  const ink: Ink = {
    fill: isPlain ? paint(style.fill) : '',
    stroke: paint(style.stroke),
    width: Number.parseFloat(style.strokeWidth) || 0,
    dash: style.strokeDasharray === 'none' ? [] : style.strokeDasharray.split(/[ ,]+/).map(Number.parseFloat),
    opacity: Number.parseFloat(style.opacity) * groupOpacity(shape),
    font: style.font,
    cap: style.strokeLinecap as CanvasLineCap,
    join: style.strokeLinejoin as CanvasLineJoin,
  }
  inks.set(key, ink)
  return ink
}

function groupOpacity(shape: SVGElement): number {
  let opacity = 1
  for (let at = shape.parentElement; at && at.tagName !== 'svg'; at = at.parentElement)
    opacity *= Number.parseFloat(getComputedStyle(at).opacity)
  return opacity
}

const NO_DASH: number[] = []

/** Letters with their halo under them. */
function paintText(shape: SVGElement, ink: Ink, context: CanvasRenderingContext2D): void {
  const [x, y, words] = [number(shape, 'x'), number(shape, 'y'), shape.textContent ?? '']
  context.font = ink.font
  context.textAlign = shape.getAttribute('text-anchor') === 'middle' ? 'center' : 'left'
  context.setLineDash(NO_DASH)
  if (ink.stroke !== '' && ink.width > 0) {
    context.strokeStyle = ink.stroke
    context.lineWidth = ink.width
    context.strokeText(words, x, y)
  }
  context.fillStyle = ink.fill
  context.fillText(words, x, y)
}

const number = (shape: SVGElement, name: string) => Number.parseFloat(shape.getAttribute(name) ?? '0') || 0

function pathOf(shape: SVGElement): Path2D | null {
  const path = new Path2D()
  switch (shape.tagName) {
    case 'line':
      path.moveTo(number(shape, 'x1'), number(shape, 'y1'))
      path.lineTo(number(shape, 'x2'), number(shape, 'y2'))
      return path
    case 'circle':
      path.arc(number(shape, 'cx'), number(shape, 'cy'), number(shape, 'r'), 0, 2 * Math.PI)
      return path
    case 'ellipse':
      path.ellipse(
        number(shape, 'cx'),
        number(shape, 'cy'),
        number(shape, 'rx'),
        number(shape, 'ry'),
        0,
        0,
        2 * Math.PI,
      )
      return path
    case 'rect':
      path.rect(number(shape, 'x'), number(shape, 'y'), number(shape, 'width'), number(shape, 'height'))
      return path
    case 'path':
      return new Path2D(shape.getAttribute('d') ?? '')
    case 'polyline':
    case 'polygon': {
      const points = (shape.getAttribute('points') ?? '').trim().split(/[ ,]+/).map(Number.parseFloat)
      for (let i = 0; i + 1 < points.length; i += 2)
        if (i === 0) path.moveTo(points[i]!, points[i + 1]!)
        else path.lineTo(points[i]!, points[i + 1]!)
      if (shape.tagName === 'polygon') path.closePath()
      return path
    }
    default:
      return null
  }
}

/** The only transforms that drawings use: a shift and then a turn. */
function applyTransform(context: CanvasRenderingContext2D, transform: string): void {
  const shift = /translate\(([-\d.e]+)[ ,]+([-\d.e]+)\)/.exec(transform)
  const turn = /rotate\(([-\d.e]+)\)/.exec(transform)
  if (shift) context.translate(Number(shift[1]), Number(shift[2]))
  if (turn) context.rotate((Number(turn[1]) * Math.PI) / 180)
}
