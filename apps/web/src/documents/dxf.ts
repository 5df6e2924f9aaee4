import type { DisplayList, Mark, Role } from '@klados/core/drawing'
import type { Point } from '@klados/core/geometry'
import Drawing from 'dxf-writer'

/**
 * Layers by what a mark is; colour numbers are the format's own, so that a plan prints black and reads on
 * screen.
 */
const LAYERS = {
  place: 8,
  avoid: 30,
  wire: 7,
  'wire-light': 9,
  string: 32,
  member: 42,
  fixing: 1,
  joint: 8,
  anchor: 6,
  sheet: 9,
  tub: 7,
  wood: 3,
  text: 7,
} as const
type Layer = keyof typeof LAYERS

/** Layers of wires and string; other lines are those of the place. */
const WIRE_LAYERS: Readonly<Partial<Record<Role, Layer>>> = {
  wire: 'wire',
  'wire-light': 'wire-light',
  cord: 'string',
}

const MM = 1000
const FIXING_MM = 12
const JOINT_MM = 6
const TEXT_MM = 40

/**
 * The drawing as DXF in millimetres, true scale, a layer for each kind of part. Y runs up, as in the drawing.
 */
export function drawingDxf(list: DisplayList): string {
  const drawing = new Drawing()
  drawing.setUnits('Millimeters')
  for (const [name, colour] of Object.entries(LAYERS)) drawing.addLayer(name, colour, 'CONTINUOUS')
  for (const mark of list) drawMark(drawing, mark)
  return drawing.toDxfString()
}

function drawMark(drawing: Drawing, mark: Mark): void {
  const on = (layer: Layer) => drawing.setActiveLayer(layer)
  const path = (points: readonly Point[], closed = false) =>
    drawing.drawPolyline(
      points.map((p) => [p.xM * MM, p.yM * MM]),
      closed,
    )
  const text = (at: Point, words: string) => {
    on('text')
    drawing.drawText(at.xM * MM + 20, at.yM * MM + 20, TEXT_MM, 0, asciiOnly(words))
  }
  switch (mark.kind) {
    case 'area':
      on(
        mark.role === 'spot'
          ? 'avoid'
          : mark.role === 'tub'
            ? 'tub'
            : mark.role === 'mesh' || mark.role === 'cover'
              ? 'sheet'
              : 'place',
      )
      path(mark.points, true)
      return
    case 'disc':
      on('avoid')
      drawing.drawCircle(mark.at.xM * MM, mark.at.yM * MM, mark.radiusM * MM)
      return
    case 'line':
      on(WIRE_LAYERS[mark.role] ?? 'place')
      path(mark.points)
      return
    case 'node':
      on('fixing')
      drawing.drawCircle(mark.at.xM * MM, mark.at.yM * MM, FIXING_MM)
      text(mark.at, String(mark.number))
      return
    case 'joint':
      if (mark.joint === 'through') return
      on('joint')
      drawing.drawCircle(mark.at.xM * MM, mark.at.yM * MM, JOINT_MM)
      return
    case 'member':
      on('member')
      path(mark.points)
      if (mark.label) text(mark.points.at(-1)!, mark.label)
      return
    case 'anchor':
      on('anchor')
      path([mark.towards, mark.at, { xM: mark.at.xM, yM: mark.at.yM - mark.depthM }])
      text(mark.at, mark.label)
      return
    case 'wood':
      on('wood')
      path(mark.points)
      return
    case 'tie':
      on('joint')
      drawing.drawCircle(mark.at.xM * MM, mark.at.yM * MM, JOINT_MM)
      return
    case 'foot':
      text(mark.at, mark.label)
      return
    case 'dimension':
      text(mark.from, mark.text)
  }
}

/**
 * The format's old text encoding: letters beyond it are written by their number, as its readers know to read.
 */
function asciiOnly(words: string): string {
  return [...words]
    .map((c) =>
      c.codePointAt(0)! < 128 ? c : `\\U+${c.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}`,
    )
    .join('')
}
