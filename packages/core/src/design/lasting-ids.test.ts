import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { designOf, nearStart, rowLevel, siteOf, tierLevels } from '../../test/frames.ts'
import { standardCatalogue } from '../catalogue/index.ts'
import { frameKinds, levelId, makeFrame, frameOptions } from '../frame/index.ts'
import type { Frame, Pattern, PatternKind, PatternOfKind } from '../frame/index.ts'
import { partsGone, tryFrame, withLastingIds } from './index.ts'
import type { FrameDesign, PlannedSite } from './index.ts'
import { runs } from '../../test/runs.ts'

const kinds = Object.keys(frameKinds) as PatternKind[]
const lay = (site: PlannedSite, design: FrameDesign): Frame =>
  makeFrame(site, design.pattern, frameOptions(design, standardCatalogue))

/** A frame that is saved as version after version, as the bench saves one. */
function revisions(site: PlannedSite, first: FrameDesign) {
  let version = 1
  let design = first
  return {
    frame: () => lay(site, design),
    design: () => design,
    revise: (next: FrameDesign): Frame => {
      const saved = { frame: tryFrame(site, design, standardCatalogue), version }
      design = withLastingIds(site, next, saved, standardCatalogue)
      version++
      return lay(site, design)
    },
  }
}

const row = (maxPostSpacingM: number): PatternOfKind<'row'> => ({
  ...frameKinds.row.start({ kind: 'row', widthM: 36, usableHeightM: 2, firstForkM: 0 }),
  maxPostSpacingM,
})
const field = siteOf(36, 2.2, { surface: 'open' })
const posts = (frame: Frame) => frame.members.filter((member) => member.foot && member.role !== 'brace')
const at = (frame: Frame, id: string) => posts(frame).find((post) => post.id === id)!.foot!.xM

describe('ids of a frame’s parts', () => {
  it('are their numbers in a first design, as the journal has known them from the start', () => {
    const frame = lay(field, designOf(row(6)))
    expect(posts(frame).map((post) => post.id)).toEqual(['p0', 'p1', 'p2', 'p3', 'p4', 'p5', 'p6'])
    expect(frame.lines.map((line) => line.id)).toEqual([
      'w0',
      'w1a',
      'w1b',
      'w2a',
      'w2b',
      'water',
      'tie-left',
      'tie-left-2',
      'tie-right',
      'tie-right-2',
    ])
    expect(frame.nodes[0]!.id).toBe('w0.p0')
    const tiers: Pattern = { kind: 'tiers', levels: tierLevels(0.5, 1), maxSupportSpacingM: 2 }
    expect(lay(siteOf(4, 1.6), designOf(tiers)).nodes.map((node) => node.id)).toEqual([
      't0.0',
      't0.1',
      't0.2',
      't1.0',
      't1.1',
      't1.2',
    ])
  })

  it('stay with tiers when one is put below them, and the new one has an id of its own', () => {
    const wall = siteOf(6, 2)
    const tiers = (levels: PatternOfKind<'tiers'>['levels']): Pattern => ({
      kind: 'tiers',
      levels,
      maxSupportSpacingM: 2,
    })
    const old = tierLevels(0.6, 1.1, 1.6)
    const frame = revisions(wall, designOf(tiers(old)))
    const before = frame.frame()
    const after = frame.revise(designOf(tiers([{ id: levelId('new'), heightM: 0.2 }, ...old])))
    for (const node of before.nodes)
      expect(after.nodes.find((one) => one.id === node.id)?.at).toEqual(node.at)
    expect(partsGone(before, after)).toEqual({ lines: [], levels: [], nodes: [], members: [], anchors: [] })
    expect(after.lines.map((line) => line.id)).toEqual(['new', 't0', 't1', 't2'])
  })

  it('stay with the posts that stand where they stood, and with the ends, when bays are changed', () => {
    const frame = revisions(field, designOf(row(6)))
    const wide = frame.revise(designOf(row(12)))
    // 0 6 12 18 24 30 36 becomes 0 12 24 36.
    expect(posts(wide).map((post) => post.id)).toEqual(['p0', 'p2', 'p4', 'p6'])
    const narrow = frame.revise(designOf(row(6)))
    expect(posts(narrow).map((post) => post.id)).toEqual(['p0', 'pr3-0', 'p2', 'pr3-1', 'p4', 'pr3-2', 'p6'])
    for (const id of ['p0', 'p2', 'p4', 'p6']) expect(at(narrow, id)).toBeCloseTo(at(wide, id), 9)
  })

  it('are told when their parts go: lines, anchors, posts, and the levels that they were on', () => {
    const frame = revisions(field, designOf(row(6)))
    const before = frame.frame()
    const pattern = row(12)
    const after = frame.revise(
      designOf({ ...pattern, levels: pattern.levels.slice(0, 2), waterHeightM: null, end: { kind: 'free' } }),
    )
    const gone = partsGone(before, after)
    expect(gone.members).toEqual(['p1', 'p3', 'p5'])
    expect(gone.lines).toEqual(['w2a', 'w2b', 'water', 'tie-left', 'tie-left-2', 'tie-right', 'tie-right-2'])
    expect(gone.levels).toEqual(['w2'])
    expect(gone.anchors).toEqual(['anchor-left', 'anchor-left-2', 'anchor-right', 'anchor-right-2'])
  })

  it('come back with a revision that is brought back, and go on from it', () => {
    const frame = revisions(field, designOf(row(6)))
    const first = { design: frame.design(), laid: frame.frame() }
    frame.revise(designOf(row(12)))
    // Version 2 is saved; version 1 is brought back and one bay made wider.
    const brought = { frame: first.laid, version: 2 }
    const same = withLastingIds(field, first.design, brought, standardCatalogue)
    expect(posts(lay(field, same)).map((post) => post.id)).toEqual(posts(first.laid).map((post) => post.id))
    const changed = withLastingIds(field, designOf(row(12)), brought, standardCatalogue)
    expect(posts(lay(field, changed)).map((post) => post.id)).toEqual(['p0', 'p2', 'p4', 'p6'])
  })

  it('of one kind of frame are not taken up by another', () => {
    const wall = siteOf(6, 2)
    const frame = revisions(wall, designOf({ kind: 'tiers', levels: tierLevels(0.6), maxSupportSpacingM: 2 }))
    const before = new Set(frame.frame().nodes.map((node) => node.id))
    const grid = frame.revise(designOf({ kind: 'grid', verticals: 3, horizontals: 2 }))
    const fan = frame.revise(
      designOf(frameKinds.fan.start({ kind: 'wall', widthM: 6, usableHeightM: 2, firstForkM: 0 })),
    )
    for (const part of [...grid.nodes, ...fan.nodes]) expect(before.has(part.id)).toBe(false)
    const again = new Set(grid.nodes.map((node) => node.id))
    for (const part of fan.nodes) expect(again.has(part.id)).toBe(false)
  })

  it('of wires that were taken away are not those of wires that are put up later', () => {
    const wall = siteOf(3.8, 0.8)
    const fan = (wireStepM: number | null) =>
      designOf({
        ...frameKinds.fan.start({ kind: 'wall', widthM: 3.8, usableHeightM: 0.8, firstForkM: 0 }),
        wireStepM,
      })
    const frame = revisions(wall, fan(0.2))
    const before = new Set(frame.frame().lines.map((line) => line.id))
    frame.revise(fan(null))
    for (const line of frame.revise(fan(0.14)).lines) expect(before.has(line.id)).toBe(false)
  })

  it.each(kinds)(
    'of %s are each one part’s, stay where nothing moved, and none comes back to mean another',
    (kind) => {
      fc.assert(
        fc.property(fc.array(nearStart(kind), { minLength: 2, maxLength: 5 }), (steps) => {
          const { place } = steps[0]!
          const site = siteOf(place.widthM, place.usableHeightM, {
            firstForkM: place.firstForkM,
            surface: 'open',
          })
          const frame = revisions(site, designOf(steps[0]!.pattern))
          if (!tryFrame(site, frame.design(), standardCatalogue)) return
          let before = frame.frame()
          const gone = new Set<string>()
          for (const { pattern } of steps.slice(1)) {
            if (!tryFrame(site, designOf(pattern), standardCatalogue)) continue
            const after = frame.revise(designOf(pattern))
            for (const family of [after.nodes, after.members, after.anchors, after.lines]) {
              const ids = family.map((part) => part.id as string)
              expect(new Set(ids).size).toBe(ids.length)
            }
            for (const [name, axis] of Object.entries(after.axes)) {
              const old = before.axes[name]
              for (const id of axis.ids) expect(gone.has(`${name} ${id}`)).toBe(false)
              if (!old) continue
              const kept = new Set(axis.ids)
              for (const id of old.ids) if (!kept.has(id)) gone.add(`${name} ${id}`)
              if (old.positionsM.length > 0 && axis.positionsM.length > 0)
                expect(axis.ids[0]).toBe(old.ids[0])
              // Kept things keep their order.
              const order = axis.ids.flatMap((id) => (old.ids.includes(id) ? [old.ids.indexOf(id)] : []))
              expect(order).toEqual([...order].sort((a, b) => a - b))
            }
            before = after
          }
          // Nothing changed, nothing renamed.
          const same = frame.revise(frame.design())
          expect(same.nodes.map((node) => node.id)).toEqual(before.nodes.map((node) => node.id))
          expect(same.members.map((member) => member.id)).toEqual(before.members.map((member) => member.id))
        }),
        { numRuns: runs(25) },
      )
    },
  )

  it('in a list that fits no more keep the ends at the ends', () => {
    const ids = { post: ['a', 'b', 'c', 'd'] }
    const of = (maxPostSpacingM: number) =>
      posts(lay(field, designOf(row(maxPostSpacingM), { ids }))).map((post) => post.id)
    expect(of(12)).toEqual(['pa', 'pb', 'pc', 'pd'])
    expect(of(18)).toEqual(['pa', 'pb', 'pd'])
    expect(of(9)).toEqual(['pa', 'pb', 'pc', 'px0', 'pd'])
  })
})

describe('levels that share an id', () => {
  it('are refused, since nobody could say which of them is meant', () => {
    const levels = [rowLevel(0, 0.7), rowLevel(0, 1.2)]
    expect(() => lay(field, designOf({ ...row(6), levels }))).toThrow(
      expect.objectContaining({ code: 'frame/same-id' }),
    )
  })
})
