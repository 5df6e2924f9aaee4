import type { DisplayList, Mark } from '../drawing/index.ts'
import type { Point } from '../geometry/index.ts'

const MARGIN_MM = 150
const MM = 1000

/** Ink for a drawing that leaves the house: plain black on white, told apart by width and dash. */
const STROKES: Readonly<Record<string, string>> = {
  wall: 'fill="none" stroke="#000" stroke-width="4"',
  ground: 'fill="none" stroke="#000" stroke-width="4"',
  'first-fork': 'fill="none" stroke="#000" stroke-width="2" stroke-dasharray="40 30"',
  spot: 'fill="none" stroke="#000" stroke-width="3" stroke-dasharray="12 12"',
  wire: 'fill="none" stroke="#000" stroke-width="3"',
  'wire-light': 'fill="none" stroke="#000" stroke-width="1.6"',
  string: 'fill="none" stroke="#000" stroke-width="3" stroke-dasharray="10 6"',
  mesh: 'fill="none" stroke="#000" stroke-width="2" stroke-dasharray="6 6"',
  cover: 'fill="none" stroke="#000" stroke-width="2" stroke-dasharray="4 12"',
  tub: 'fill="none" stroke="#000" stroke-width="4"',
}
const PLAIN = 'fill="none" stroke="#000" stroke-width="3"'

/**
 * The drawing as SVG in true scale: one user unit is one millimetre and the page is as large as the wall, so a length
 * measured in any viewer is the length on the wall. Coordinates are rounded to a hundredth of a millimetre.
 */
export function elevationSvg(list: DisplayList, title: string): string {
  const points = list.flatMap(pointsOf)
  const xs = points.map((p) => p.xM * MM)
  const ys = points.map((p) => -p.yM * MM)
  const min = (values: number[]) => values.reduce((a, b) => Math.min(a, b), 0)
  const max = (values: number[]) => values.reduce((a, b) => Math.max(a, b), 0)
  const left = min(xs) - MARGIN_MM
  const top = min(ys) - MARGIN_MM
  const width = max(xs) - min(xs) + 2 * MARGIN_MM
  const height = max(ys) - min(ys) + 2 * MARGIN_MM
  const body = list.map(markSvg).filter(Boolean).join('\n')
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="${num(width)}mm" height="${num(height)}mm" viewBox="${num(left)} ${num(top)} ${num(width)} ${num(height)}">
<title>${escapeXml(title)}</title>
${body}
</svg>
`
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

function markSvg(mark: Mark): string {
  switch (mark.kind) {
    case 'area':
      return `<polygon ${STROKES[mark.role] ?? PLAIN} points="${path(mark.points)}"/>`
    case 'line':
      return `<polyline ${STROKES[mark.role] ?? PLAIN} points="${path(mark.points)}"/>`
    case 'disc':
      return `<circle ${STROKES[mark.role] ?? PLAIN} cx="${x(mark.at)}" cy="${y(mark.at)}" r="${num(mark.radiusM * MM)}"/>`
    case 'node':
      return `<g id="node-${mark.number}"><circle ${PLAIN} cx="${x(mark.at)}" cy="${y(mark.at)}" r="12"/><text font-size="40" font-family="sans-serif" x="${num(mark.at.xM * MM + 20)}" y="${num(-mark.at.yM * MM - 20)}">${mark.number}</text></g>`
    case 'joint':
      return `<circle ${PLAIN} cx="${x(mark.at)}" cy="${y(mark.at)}" r="8"/>`
    case 'member':
      // As thick as it is, hollow, so that the centre line stays measurable.
      return `<g id="${escapeXml(mark.id)}"><polyline fill="none" stroke="#000" stroke-width="${num(mark.widthM * MM + 3)}" points="${path(mark.points)}"/><polyline fill="none" stroke="#fff" stroke-width="${num(Math.max(1, mark.widthM * MM - 3))}" points="${path(mark.points)}"/></g>`
    case 'anchor':
      return `<g id="${escapeXml(mark.id)}"><path ${PLAIN} d="M${x(mark.at)} ${y(mark.at)} l-40 90 h80 z"/><text font-size="50" font-family="sans-serif" x="${num(mark.at.xM * MM + 50)}" y="${num(-mark.at.yM * MM + 80)}">${escapeXml(mark.label)}</text></g>`
    case 'wood':
      return `<polyline fill="none" stroke="#000" stroke-linecap="round" stroke-linejoin="round" stroke-width="${num(mark.diameterMm)}" points="${path(mark.points)}"/>`
    case 'tie':
      return `<circle ${PLAIN} cx="${x(mark.at)}" cy="${y(mark.at)}" r="8"/>`
    case 'foot':
      return `<text font-size="60" font-family="sans-serif" text-anchor="middle" x="${x(mark.at)}" y="${num(-mark.at.yM * MM + 90)}">${escapeXml(mark.label)}</text>`
    case 'dimension':
      return `<text font-size="60" font-family="sans-serif" text-anchor="middle" x="${num(((mark.from.xM + mark.to.xM) * MM) / 2)}" y="${num((-(mark.from.yM + mark.to.yM) * MM) / 2 - 20)}">${escapeXml(mark.text)}</text>`
  }
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
