import { standardCatalogue } from '@klados/core/catalogue'
import { drawFrame } from '@klados/core/drawing'
import { frameOptions, makeFrame } from '@klados/core/frame'
import DxfParser from 'dxf-parser'
import { describe, expect, it } from 'vitest'
import { sampleDesign, sampleWall } from '../sample/sample-wall.ts'
import { drawingDxf } from './dxf.ts'

const options = frameOptions(sampleDesign, standardCatalogue)

describe('the DXF', () => {
  it('is read by another program’s parser with every wire at its true length, in millimetres, on its layer', () => {
    const frame = makeFrame(sampleWall, sampleDesign.pattern, options)
    const list = drawFrame(frame, { view: 'elevation', ...options })
    const read = new DxfParser().parseSync(drawingDxf(list))!
    expect(read.header.$INSUNITS).toBe(4)
    const wires = read.entities.filter((entity) => entity.layer === 'wire') as unknown as {
      vertices: { x: number; y: number }[]
    }[]
    expect(wires).toHaveLength(frame.runs.length)
    wires.forEach(({ vertices: [a, b] }, i) => {
      expect(Math.hypot(b!.x - a!.x, b!.y - a!.y)).toBeCloseTo(frame.runs[i]!.lengthM * 1000, 6)
    })
    expect(read.entities.filter((entity) => entity.layer === 'fixing')).toHaveLength(36)
    expect(Object.keys(read.tables.layer.layers)).toEqual(
      expect.arrayContaining(['wire', 'member', 'anchor', 'fixing']),
    )
  })

  it('keeps letters that the format has no code for', () => {
    const text = drawingDxf([{ kind: 'foot', id: 'f', at: { xM: 0, yM: 0 }, label: 'Kiefernspalier Ü' }])
    expect(text).toContain('Kiefernspalier \\U+00DC')
  })
})
