import type { DisplayList, Mark } from '../drawing/index.ts'
import type { Point } from '../geometry/index.ts'

const MARGIN_MM = 150
/** Room for a label beyond the outermost node, in units of ink. */
const LABEL_ROOM = 120
const MM = 1000

/** Ink for a drawing that leaves the house: plain black on white, told apart by width and dash. */
interface Ink {
  readonly width: number
  readonly dash?: readonly [number, number]
}
const PLAIN: Ink = { width: 3 }
const INKS: Readonly<Record<string, Ink>> = {
  wall: { width: 4 },
  ground: { width: 4 },
  'first-fork': { width: 2, dash: [40, 30] },
  spot: { width: 3, dash: [12, 12] },
  wire: PLAIN,
  'wire-light': { width: 1.6 },
  string: { width: 3, dash: [10, 6] },
  mesh: { width: 2, dash: [6, 6] },
  cover: { width: 2, dash: [4, 12] },
  tub: { width: 4 },
  dimension: { width: 1.6 },
}

/** What the drawing will be fitted into, millimetres. */
interface Paper {
  readonly widthMm: number
  readonly heightMm: number
}
/** A line of 3 is so wide on paper. */
const PAPER_LINE_MM = 0.22

/**
 * The drawing as SVG in true scale: one user unit is one millimetre and the page is as large as the wall, so
 * a length measured in any viewer is the length on the wall. Coordinates are rounded to a hundredth of a
 * millimetre. With `paper`, lines, signs and letters are as large as they must be to be read when the drawing
 * is fitted into it; lengths stay true.
 */
export function elevationSvg(list: DisplayList, title: string, paper?: Paper): string {
  const points = list.flatMap(pointsOf)
  const xs = points.map((p) => p.xM * MM)
  const ys = points.map((p) => -p.yM * MM)
  const min = (values: number[]) => values.reduce((a, b) => Math.min(a, b), 0)
  const max = (values: number[]) => values.reduce((a, b) => Math.max(a, b), 0)
  const [spanX, spanY] = [max(xs) - min(xs), max(ys) - min(ys)]
  const ink = paper
    ? (Math.max(spanX / paper.widthMm, spanY / paper.heightMm) * PAPER_LINE_MM) / PLAIN.width
    : 1
  const marginMm = paper ? LABEL_ROOM * ink : MARGIN_MM
  const ends = list.flatMap((mark) => (mark.kind === 'dimension' ? figureEnds(mark, ink) : []))
  const [left, top] = [Math.min(min(xs) - marginMm, min(ends)), min(ys) - marginMm]
  const [width, height] = [Math.max(max(xs) + marginMm, max(ends)) - left, spanY + 2 * marginMm]
  const body = list
    .map((mark) => markSvg(mark, ink))
    .filter(Boolean)
    .join('\n')
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="${num(width)}mm" height="${num(height)}mm" viewBox="${num(left)} ${num(top)} ${num(width)} ${num(height)}">
<title>${escapeXml(title)}</title>
${body}
</svg>
`
}

const FIGURE_SIZE = 60
/** Mean width of a digit against its height. */
const DIGIT_WIDE = 0.55

/** How far a figure reaches to either side, millimetres: it may be longer than what it measures. */
function figureEnds(
  { from, to, text }: Extract<Mark, { kind: 'dimension' }>,
  ink: number,
): readonly [number, number] {
  const middle = ((from.xM + to.xM) / 2) * MM
  const half = (text.length * FIGURE_SIZE * DIGIT_WIDE * ink) / 2
  return [middle - half, middle + half]
}

function pointsOf(mark: Mark): readonly Point[] {
  switch (mark.kind) {
    case 'area':
    case 'line':
    case 'wood':
    case 'member':
      return mark.points
    case 'anchor':
      return [mark.at, mark.towards]
    case 'dimension':
      return [mark.from, mark.to]
    case 'disc':
    case 'node':
    case 'joint':
    case 'tie':
    case 'foot':
      return [mark.at]
  }
}

function markSvg(mark: Mark, ink: number): string {
  const line = (role = '') => {
    const { width, dash } = INKS[role] ?? PLAIN
    const dashes = dash ? ` stroke-dasharray="${dash.map((length) => num(length * ink)).join(' ')}"` : ''
    return `fill="none" stroke="#000" stroke-width="${num(width * ink)}"${dashes}`
  }
  const text = (words: string, size: number, at: Point, dx: number, dy: number, isMiddle = false) =>
    `<text font-size="${num(size * ink)}" font-family="sans-serif"${isMiddle ? ' text-anchor="middle"' : ''} x="${num(at.xM * MM + dx * ink)}" y="${num(-at.yM * MM + dy * ink)}">${escapeXml(words)}</text>`
  const ring = (at: Point, radius: number) =>
    `<circle ${line()} cx="${x(at)}" cy="${y(at)}" r="${num(radius * ink)}"/>`
  switch (mark.kind) {
    case 'area':
      return `<polygon ${line(mark.role)} points="${path(mark.points)}"/>`
    case 'line':
      return `<polyline ${line(mark.role)} points="${path(mark.points)}"/>`
    case 'disc':
      return `<circle ${line(mark.role)} cx="${x(mark.at)}" cy="${y(mark.at)}" r="${num(mark.radiusM * MM)}"/>`
    case 'node':
      return `<g id="node-${mark.number}">${ring(mark.at, 12)}${text(String(mark.number), 40, mark.at, 20, -20)}</g>`
    case 'joint':
      return ring(mark.at, 8)
    case 'member':
      return memberSvg(mark, ink)
    case 'anchor':
      return `<g id="${escapeXml(mark.id)}"><path ${line()} d="M${x(mark.at)} ${y(mark.at)} l${num(-40 * ink)} ${num(90 * ink)} h${num(80 * ink)} z"/>${text(mark.label, 50, mark.at, 50, 80)}</g>`
    case 'wood':
      return `<polyline fill="none" stroke="#000" stroke-linecap="round" stroke-linejoin="round" stroke-width="${num(mark.diameterMm)}" points="${path(mark.points)}"/>`
    case 'tie':
      return ring(mark.at, 8)
    case 'foot':
      return text(mark.label, 60, mark.at, 0, 90, true)
    case 'dimension': {
      const middle = { xM: (mark.from.xM + mark.to.xM) / 2, yM: (mark.from.yM + mark.to.yM) / 2 }
      return text(mark.text, FIGURE_SIZE, middle, 0, -20, true)
    }
  }
}

/**
 * As thick as it is, a white outline round its middle line, drawn in one so that its edges show at any size;
 * what is no thicker than ink is one line of it.
 */
function memberSvg(mark: Extract<Mark, { kind: 'member' }>, ink: number): string {
  const lineMm = PLAIN.width * ink
  const widthMm = mark.widthM * MM
  const shape =
    widthMm > 2 * lineMm
      ? `<polygon fill="#fff" stroke="#000" stroke-width="${num(lineMm)}" points="${path(outlineOf(mark.points, mark.widthM / 2))}"/>`
      : `<polyline fill="none" stroke="#000" stroke-width="${num(Math.max(lineMm, widthMm))}" points="${path(mark.points)}"/>`
  return `<g id="${escapeXml(mark.id)}">${shape}</g>`
}

/**
 * Both sides of a line at a distance from it: up the one and down the other. At a bend it is cut across the
 * middle.
 */
function outlineOf(points: readonly Point[], halfM: number): readonly Point[] {
  const sides = points.map((p, i) => {
    const [from, to] = [points[Math.max(0, i - 1)]!, points[Math.min(points.length - 1, i + 1)]!]
    const [dx, dy] = [to.xM - from.xM, to.yM - from.yM]
    const scale = halfM / (Math.hypot(dx, dy) || 1)
    const side = (sign: number): Point => ({ xM: p.xM - sign * dy * scale, yM: p.yM + sign * dx * scale })
    return [side(1), side(-1)] as const
  })
  return [...sides.map(([left]) => left), ...sides.map(([, right]) => right).reverse()]
}

const x = (p: Point) => num(p.xM * MM)
const y = (p: Point) => num(-p.yM * MM)
const path = (points: readonly Point[]) => points.map((p) => `${x(p)},${y(p)}`).join(' ')

function num(value: number): string {
  return String(Math.round(value * 100) / 100 + 0)
}

function escapeXml(text: string): string {
  return text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`)
}
