import type { ChoiceRecord } from '@klados/core/choices'
import { FRONT, alongPath, inSpace, seenLines, seenPoint } from '@klados/core/geometry'
import type { DeepPoint, Look, Point } from '@klados/core/geometry'
import { findSystem, levelWires } from '@klados/core/training'
import type { PlantView } from '@klados/core/training'

const LETTER_MM = 2.3
const APART_MM = 5.2
const MARGIN_MM = 7
const CUT_MM = 2.4
/** How far wires go on beyond the plant's share. */
const BEYOND_M = 0.15

const num = (value: number) => String(Math.round(value * 100) / 100)
const escapeXml = (text: string) => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`)

/**
 * The plant with its plan as SVG for paper, one unit a millimetre of it: what stays is drawn through and what goes is
 * broken, so that it can be read without colour; a stroke at each cut, dashes where a cane will lie, letters as on the list.
 * It is looked at from where its system's wood is best seen: what is unrolled on the screen, on paper from the front.
 */
export function cuttingDrawing(
  view: PlantView,
  choice: ChoiceRecord,
  fit: { readonly widthMm: number; readonly heightMm: number },
): string {
  const { fromM, toM } = view.share
  const system = findSystem(choice.system)
  const look: Look = system?.look === 'plan' || system?.look === 'side' ? { from: system.look } : FRONT
  const isFront = look.from === 'elevation'
  const ways = isFront
    ? levelWires(view).map(({ path }) => path)
    : (system?.tracks?.(view) ?? []).map(({ way }) => way)
  const wires = ways.map((path) => clipped(path, fromM - BEYOND_M, toM + BEYOND_M))
  const led = [...choice.decided, ...(choice.followUps ?? [])].flatMap(({ path }) => (path ? [path] : []))
  const all = [...wires, ...led, ...view.stems.map(({ piece }) => piece.path)]
    .flat()
    .map((p) => seenPoint(p, look))
  const footYM = view.input.plant.footYM
  const [left, right] = [least(all.map(({ xM }) => xM)), -least(all.map(({ xM }) => -xM))]
  const lowest = least(all.map(({ yM }) => yM))
  const [bottom, top] = [isFront ? Math.min(footYM, lowest) : lowest, -least(all.map(({ yM }) => -yM))]
  const perRow = Math.max(1, Math.floor((fit.widthMm - 2 * MARGIN_MM) / APART_MM))
  const rows = Math.ceil(choice.decided.length / perRow)
  const aboveMm = rows * APART_MM + LETTER_MM
  const room = { x: fit.widthMm - 2 * MARGIN_MM, y: fit.heightMm - 2 * MARGIN_MM - aboveMm }
  const scale = Math.min(room.x / Math.max(0.5, right - left), room.y / Math.max(0.5, top - bottom))
  const plantMm = (right - left) * scale
  const lettersMm = Math.min(perRow, choice.decided.length) * APART_MM
  const width = Math.max(plantMm, lettersMm) + 2 * MARGIN_MM
  const height = (top - bottom) * scale + 2 * MARGIN_MM + aboveMm
  const x = (p: Point) => (p.xM - left) * scale + (width - plantMm) / 2
  const y = (p: Point) => (top - p.yM) * scale + MARGIN_MM + aboveMm
  const line = (path: readonly DeepPoint[], style: string) =>
    seenLines(path, look)
      .map(
        ({ points }) =>
          `<polyline fill="none" stroke-linejoin="round" ${style} points="${points.map((p) => `${num(x(p))},${num(y(p))}`).join(' ')}"/>`,
      )
      .join('')
  const stroke = (path: readonly DeepPoint[], alongM: number) => {
    const at = seenPoint(alongPath(path, alongM), look)
    const before = seenPoint(alongPath(path, Math.max(0, alongM - 0.02)), look)
    const angle = Math.atan2(y(at) - y(before), x(at) - x(before)) + Math.PI / 2 - 0.4
    const [dx, dy] = [Math.cos(angle) * CUT_MM, Math.sin(angle) * CUT_MM]
    return `<line stroke="#b03a2e" stroke-width="0.8" x1="${num(x(at) - dx)}" y1="${num(y(at) - dy)}" x2="${num(x(at) + dx)}" y2="${num(y(at) + dy)}"/>`
  }
  const off = new Set(
    [...choice.decided, ...(choice.followUps ?? [])]
      .filter(({ deed }) => deed === 'off')
      .map(({ pieceId }) => pieceId),
  )
  const wood = view.stems.map(({ id, piece, baseMm }) =>
    line(
      piece.path,
      `stroke="${off.has(id) ? '#888' : '#23262a'}" stroke-width="${num(Math.max(0.35, (baseMm / 1000) * scale))}"${off.has(id) ? ' stroke-dasharray="1.2 1"' : ''}`,
    ),
  )
  const cuts = [...choice.decided, ...(choice.followUps ?? [])].flatMap(({ pieceId, deed, cutM, path }) => {
    const stem = view.stem(pieceId)
    if (!stem || cutM === null || path) return []
    return [stroke(stem.piece.path, deed === 'off' ? Math.min(0.03, stem.lengthM / 3) : cutM)]
  })
  const tips = choice.decided.flatMap(({ pieceId, letter }) => {
    const stem = view.stem(pieceId)
    if (!stem) return []
    const tip = seenPoint(stem.tip, look)
    return [{ pieceId, letter, x: x(tip), y: y(tip) }]
  })
  // Side by side above the plant, in the order of the tips that thin lines lead to: none lies on another.
  const inOrder = [...tips].sort((a, b) => a.x - b.x)
  const firstX = width / 2 - ((Math.min(perRow, inOrder.length) - 1) * APART_MM) / 2
  const letters = inOrder
    .map((one, i) => ({
      ...one,
      tipX: one.x,
      tipY: one.y,
      x: firstX + Math.floor(i / rows) * APART_MM,
      y: MARGIN_MM + (i % rows) * APART_MM,
    }))
    .map(
      (one) =>
        `<line stroke="#888" stroke-width="0.2" x1="${num(one.tipX)}" y1="${num(one.tipY)}" x2="${num(one.x)}" y2="${num(one.y)}"/>` +
        `<circle cx="${num(one.x)}" cy="${num(one.y)}" r="${LETTER_MM}" fill="#fff" stroke="#23262a" stroke-width="0.3"/>` +
        `<text x="${num(one.x)}" y="${num(one.y + 1.05)}" font-size="3" text-anchor="middle">${escapeXml(one.letter)}</text>`,
    )
  const ground = `<line stroke="#23262a" stroke-width="0.5" x1="${num((width - plantMm) / 2 - 3)}" y1="${num(y({ xM: left, yM: footYM }))}" x2="${num((width + plantMm) / 2 + 3)}" y2="${num(y({ xM: left, yM: footYM }))}"/>`
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${num(width)}mm" height="${num(height)}mm" viewBox="0 0 ${num(width)} ${num(height)}">`,
    ...(isFront ? [ground] : []),
    ...wires.map((path) => line(path, 'stroke="#888" stroke-width="0.25"')),
    ...wood,
    ...led.map((path) => line(path, 'stroke="#1f7a6d" stroke-width="0.8" stroke-dasharray="2.4 1.2"')),
    ...cuts,
    ...letters,
    '</svg>',
  ].join('\n')
}

const least = (values: readonly number[]): number => values.reduce((a, b) => Math.min(a, b), Infinity)

/** The part of a wire between two places across. */
function clipped(path: readonly DeepPoint[], fromM: number, toM: number): DeepPoint[] {
  const first = inSpace(path[0]!)
  const last = inSpace(path.at(-1)!)
  const at = (xM: number): DeepPoint => ({
    xM,
    zM: first.zM,
    yM: first.yM + ((last.yM - first.yM) * (xM - first.xM)) / (last.xM - first.xM || 1),
  })
  const [low, high] = [Math.min(first.xM, last.xM), Math.max(first.xM, last.xM)]
  return [at(Math.max(low, fromM)), at(Math.min(high, toM))]
}
