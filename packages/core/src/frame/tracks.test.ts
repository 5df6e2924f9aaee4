import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { options, patternArbs, siteOf } from '../../test/frames.ts'
import { runs } from '../../test/runs.ts'
import { CoreError } from '../errors/index.ts'
import { distance3M } from '../geometry/index.ts'
import { frameKinds, makeFrame, tracksOf } from './index.ts'
import type { Frame, Pattern, PatternKind } from './index.ts'

/** What each kind of frame gives wood to follow, and how it runs. */
const TABLE: Readonly<Record<PatternKind, readonly string[]>> = {
  tiers: ['carrying level'],
  diamonds: ['carrying inclined', 'carrying upright'],
  zigzag: ['carrying inclined', 'carrying upright', 'carrying level'],
  triangles: ['carrying inclined', 'carrying level', 'carrying upright'],
  grid: ['carrying level', 'carrying upright'],
  free: ['carrying level', 'carrying inclined', 'carrying upright', 'carrying curved', 'carrying wound'],
  fan: ['carrying level', 'carrying upright', 'rib inclined', 'rib level', 'rib upright'],
  row: ['carrying level', 'foliage level'],
  overhead: ['beam level', 'carrying level', 'carrying upright', 'post upright', 'rafter level'],
  arch: ['hoop curved', 'rung level'],
  net: ['carrying level', 'post upright'],
  spiral: ['cord wound', 'cord curved', 'cord inclined', 'ring curved', 'stake upright'],
  obelisk: ['leg inclined', 'leg upright', 'rung level', 'ring curved'],
  pole: ['core upright'],
  stakes: ['stake upright'],
  column: ['bar level', 'column upright'],
  brush: ['twig upright', 'twig inclined'],
}

const site = siteOf(6, 2.4)
const laid = (pattern: Pattern): Frame | null => {
  try {
    return makeFrame(site, pattern, options)
  } catch (error) {
    if (error instanceof CoreError) return null
    throw error
  }
}

describe('the tracks of a frame', () => {
  it.each(Object.keys(patternArbs) as PatternKind[])('of kind %s', (kind) => {
    const forms = new Set<string>()
    fc.assert(
      fc.property(patternArbs[kind] as fc.Arbitrary<Pattern>, (pattern) => {
        const frame = laid(pattern)
        if (!frame) return
        const tracks = tracksOf(frame)
        if (frame.runs.length + frame.members.length > 0) expect(tracks.length).toBeGreaterThan(0)
        for (const { part, way, form, lengthM } of tracks) {
          forms.add(`${part.role} ${form}`)
          expect(way.length).toBeGreaterThan(1)
          expect(lengthM).toBeGreaterThan(0)
          expect(lengthM).toBeGreaterThanOrEqual(distance3M(way[0]!, way.at(-1)!) - 1e-9)
        }
      }),
      { numRuns: runs(40) },
    )
    // A wire that was moved off a pipe is short and steep now and then: of wires the usual forms are held to, of the rest all.
    for (const form of forms) if (!form.startsWith('carrying')) expect(TABLE[kind]).toContain(form)
    // Lines laid by hand run as the hand likes.
    if (kind !== 'free') expect(forms).toContain(TABLE[kind][0])
  })

  it('of a pergola are as many as it has wires, each at its own depth', () => {
    const pattern = {
      ...frameKinds.overhead.start({ widthM: 5, usableHeightM: 2.4, firstForkM: 0 } as never),
      depthM: 3,
      wireSpacingM: 0.5,
    }
    const wires = tracksOf(laid(pattern as Pattern)!).filter(({ part }) => part.role === 'carrying')
    expect(wires).toHaveLength(7)
    expect(new Set(wires.map(({ way }) => way[0]!.zM.toFixed(3))).size).toBe(7)
  })
})
