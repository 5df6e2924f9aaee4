import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { expectReference, referenceCases } from '../../test/reference.ts'
import { deranged, options, patternArbs, siteOf, rowLevel } from '../../test/frames.ts'
import { CoreError } from '../errors/index.ts'
import { distance3M, pathLengthM } from '../geometry/index.ts'
import { isInSpot, makeFrame, markOut, nearestOnLines, turnsForLength, woundString } from './index.ts'
import type { Frame, Pattern, PatternKind, Pot, RowPattern, PatternOfKind } from './index.ts'
import { runs } from '../../test/runs.ts'

const site = siteOf(6, 2.4)
const kinds = Object.keys(patternArbs) as PatternKind[]
const layOrRefuse = (pattern: Pattern, at = site): Frame | CoreError => {
  try {
    return makeFrame(at, pattern, options)
  } catch (error) {
    if (error instanceof CoreError) return error
    throw error
  }
}
const numbersIn = (value: unknown): number[] =>
  typeof value === 'number'
    ? [value]
    : Array.isArray(value)
      ? value.flatMap(numbersIn)
      : value && typeof value === 'object'
        ? Object.values(value).flatMap(numbersIn)
        : []

describe('every kind of frame', () => {
  it.each(kinds)(
    '%s is laid from measures, in finite numbers, its parts the lengths they are drawn',
    (kind) => {
      let laid = 0
      fc.assert(
        fc.property(patternArbs[kind] as fc.Arbitrary<Pattern>, (pattern) => {
          const frame = layOrRefuse(pattern)
          if (frame instanceof CoreError) return
          laid++
          expect(numbersIn(frame).filter((n) => !Number.isFinite(n))).toEqual([])
          for (const run of frame.runs)
            expect(run.lengthM).toBeCloseTo(distance3M(frame.nodes[run.from]!.at, frame.nodes[run.to]!.at), 9)
          const figure = (key: string) => frame.figures.find((one) => one.key === key)?.value ?? 0
          for (const { cutLengthM, pieces, bendsM, path } of frame.members) {
            // Arcs are drawn in chords; laps and loops are cut but not seen.
            const unseenM = (pieces - 1) * figure('core-lap') + bendsM.length * figure('corner-loop')
            expect(cutLengthM * pieces - unseenM).toBeGreaterThanOrEqual(pathLengthM(path) - 1e-9)
            expect(cutLengthM * pieces - unseenM).toBeLessThanOrEqual(pathLengthM(path) * 1.01 + 0.09)
          }
          const ids = [...frame.nodes, ...frame.members, ...frame.anchors, ...frame.sheets].map(
            (part) => part.id,
          )
          expect(new Set(frame.nodes.map((n) => n.id)).size).toBe(frame.nodes.length)
          expect(ids.every((id) => id.length > 0)).toBe(true)
        }),
        { numRuns: runs(60) },
      )
      expect(laid).toBeGreaterThan(15)
    },
  )

  it.each(kinds)(
    '%s with slips of the hand is a frame or a typed error, never NaN and never a hang',
    (kind) => {
      const arb = (patternArbs[kind] as fc.Arbitrary<Pattern>).chain(deranged)
      fc.assert(
        fc.property(arb, (pattern) => {
          const frame = layOrRefuse(pattern)
          if (frame instanceof CoreError) return
          expect(
            numbersIn([frame.nodes, frame.runs, frame.members, frame.sheets]).filter(
              (n) => !Number.isFinite(n),
            ),
          ).toEqual([])
        }),
        { numRuns: runs(150) },
      )
    },
  )

  it.each(kinds)(
    '%s is marked out along the tape without going back, each kind of mark by itself',
    (kind) => {
      fc.assert(
        fc.property(patternArbs[kind] as fc.Arbitrary<Pattern>, (pattern) => {
          const frame = layOrRefuse(pattern)
          if (frame instanceof CoreError) return
          const { rows } = markOut(frame, site)
          for (const isFixing of [true, false]) {
            let last = -Infinity
            for (const row of rows.filter((r) => (r.what === 'node') === isFixing)) {
              expect(row.alongM).toBeGreaterThanOrEqual(last - 1e-6)
              last = row.alongM
            }
          }
        }),
        { numRuns: runs(30) },
      )
    },
  )
})

const row = (rest: Partial<RowPattern> = {}): RowPattern => ({
  kind: 'row',
  maxPostSpacingM: 6,
  postHeightM: 1.9,
  postBuriedM: 0.6,
  postStockId: 'post-round-80',
  endStockId: 'post-round-100',
  endBuriedM: 0.8,
  endLeanDeg: 10,
  endSlabM: 0,
  end: {
    kind: 'tied-back',
    attachHeightM: 1.5,
    angleDeg: 45,
    screwId: 'screw-eye-1200',
    inLine: 1,
    strands: 2,
  },
  armStockId: 'batten-20x30',
  levels: [
    rowLevel(0, 0.7),
    rowLevel(1, 1.2, { role: 'foliage', form: 'pair' }),
    rowLevel(2, 1.6, { role: 'foliage', form: 'arms', spreadM: 0.6 }),
  ],
  waterHeightM: 0.4,
  plantSpacingM: 1.5,
  roomBeyondM: null,
  ...rest,
})

describe('a row', () => {
  const field = siteOf(40, 2, { surface: 'open' })

  it('has posts in equal bays, wires at their heights on every post, and plants between', () => {
    const frame = makeFrame(field, row(), options)
    expect(frame.members.filter((m) => m.role === 'line-post')).toHaveLength(6)
    expect(frame.members.filter((m) => m.role === 'end-post')).toHaveLength(2)
    expect(frame.members.filter((m) => m.role === 'cross-arm')).toHaveLength(8)
    // One fruiting wire, a pair, a pair on arms, a water wire: six lines, and two tie-backs.
    expect(new Set(frame.runs.map((r) => r.line.id)).size).toBe(8)
    expect(frame.plants).toHaveLength(27)
    for (const plant of frame.plants)
      for (const post of frame.members)
        if (post.foot) expect(Math.abs(post.foot.xM - plant.at.xM)).toBeGreaterThan(0.1)
  })

  it('follows the slope: every wire is as high above its ground as asked', () => {
    const slope = makeFrame({ ...field, riseM: 4 }, row({ endLeanDeg: 0 }), options)
    for (const node of slope.nodes.filter((n) => String(n.id).startsWith('w0.')))
      expect(node.at.yM - node.at.xM * 0.1).toBeCloseTo(0.7, 9)
    const lengthM = slope.runs.filter((r) => r.line.id === 'w0').reduce((sum, r) => sum + r.lengthM, 0)
    expect(lengthM).toBeCloseTo(Math.hypot(40, 4), 9)
  })

  it('ties back outside the row, as far out as the angle asks', () => {
    const frame = makeFrame(field, row({ endLeanDeg: 0 }), options)
    expect(frame.anchors.map((a) => a.at.xM)).toEqual([expect.closeTo(-1.5, 9), expect.closeTo(41.5, 9)])
  })

  it('steps its posts off what lies in the ground, and says which and how far', () => {
    const avoid = [
      { id: 'd', kind: 'band' as const, axis: 'vertical' as const, fromM: 11.4, toM: 11.47, what: 'drain' },
    ]
    const frame = makeFrame({ ...field, avoid }, row(), options)
    expect(frame.shifts).toEqual([
      { id: 'p2', label: 'P3', movedM: expect.closeTo((40 / 7) * 2 - 11.4, 9), spot: null },
    ])
    const wide = [{ ...avoid[0]!, fromM: 11, toM: 12 }]
    expect(makeFrame({ ...field, avoid: wide }, row(), options).findings).toEqual([
      expect.objectContaining({ code: 'frame/post-on-spot', label: 'P3', spot: 'drain' }),
    ])
  })

  it('refuses wires out of order or above their posts', () => {
    expect(() => makeFrame(field, row({ levels: [rowLevel(0, 1), rowLevel(1, 0.9)] }), options)).toThrow(
      expect.objectContaining({ code: 'frame/wires-out-of-order' }),
    )
    expect(() => makeFrame(field, row({ levels: [rowLevel(0, 2.4)] }), options)).toThrow(
      expect.objectContaining({ code: 'frame/wire-above-posts' }),
    )
    const lifted = (form: 'single' | 'pair') => row({ levels: [rowLevel(0, 1.7, { form, liftM: 0.5 })] })
    expect(() => makeFrame(field, lifted('pair'), options)).toThrow(/above its posts/)
    expect(() => makeFrame(field, lifted('single'), options)).not.toThrow()
  })
})

describe('string wound round stakes', () => {
  it.each(referenceCases('helix').map((c) => [c.name, c] as const))('%s', (_, reference) => {
    const { input } = reference
    const circleRadiusM = input.circleRadiusM ?? input.stakeSpacingM / (2 * Math.sin(Math.PI / input.stakes))
    const winding = { ...input, circleRadiusM }
    if (input.kind === 'turnsForLength') {
      const found = turnsForLength(winding, input.targetLengthM)
      expectReference(
        reference,
        found
          ? {
              possible: true,
              chords: found.chords,
              turns: found.turns,
              usedLengthM: found.totalLengthM,
              leftoverM: input.targetLengthM - found.totalLengthM,
            }
          : { possible: false },
      )
    } else {
      const turns = input.turns ?? (input.endHeightM - input.startHeightM) / input.pitchM
      expectReference(reference, { ...woundString(winding, turns) })
    }
  })

  it('takes in the frame exactly the string that the formula gives', () => {
    fc.assert(
      fc.property(patternArbs.spiral, (pattern: PatternOfKind<'spiral'>) => {
        const frame = layOrRefuse(pattern)
        if (frame instanceof CoreError) return
        const laid = frame.runs.reduce((sum, run) => sum + run.lengthM + run.wrapM, 0)
        expect(laid).toBeCloseTo(frame.figures.find((f) => f.key === 'string-length')!.value, 6)
      }),
    )
  })
})

describe('a fan', () => {
  it('has no rib longer than was asked, and wires as wide as its ribs need and no wider than the wall', () => {
    fc.assert(
      fc.property(
        patternArbs.fan as fc.Arbitrary<PatternOfKind<'fan'>>,
        fc.boolean(),
        (pattern, fromRight) => {
          const wall = { ...site, viewingEnd: fromRight ? ('right' as const) : ('left' as const) }
          const frame = layOrRefuse(pattern, wall)
          if (frame instanceof CoreError || pattern.wireStepM === null) return
          const eyes = frame.nodes.filter((node) => node.joint === 'eye').map((node) => node.at.xM)
          expect(Math.min(...eyes)).toBeGreaterThanOrEqual(-1e-9)
          expect(Math.max(...eyes)).toBeLessThanOrEqual(site.widthM + 1e-9)
          for (const rib of frame.members) {
            const tip = rib.path.at(-1)!
            expect(rib.cutLengthM).toBeLessThanOrEqual((pattern.ribReachM ?? Infinity) + 1e-9)
            expect(tip.xM).toBeGreaterThanOrEqual(Math.min(...eyes) - 1e-6)
            expect(tip.xM).toBeLessThanOrEqual(Math.max(...eyes) + 1e-6)
          }
        },
      ),
    )
  })
})

describe('a frame in a pot', () => {
  it.each(['spiral', 'obelisk', 'pole', 'stakes', 'arch'] as const)(
    '%s goes down inside it, or is refused with both widths',
    (kind) => {
      fc.assert(
        fc.property(patternArbs[kind] as fc.Arbitrary<Extract<Pattern, { pot: Pot | null }>>, (pattern) => {
          if (!pattern.pot) return
          const apartM = pattern.kind === 'arch' && pattern.potsAs === 'each-foot' ? pattern.spanM / 2 : 0
          const half = pattern.pot.widthM / 2 + apartM + 1e-9
          const frame = layOrRefuse(pattern)
          if (frame instanceof CoreError) {
            if (frame.code === 'frame/wider-than-pot')
              expect(frame.details.acrossM).toBeGreaterThan(pattern.pot.widthM)
            return
          }
          for (const { foot } of frame.members)
            if (foot) expect(Math.abs(foot.xM - site.widthM / 2)).toBeLessThanOrEqual(half)
        }),
      )
    },
  )

  it('a hoop by itself has no rungs, wants one plant and is as long as it is bent', () => {
    const hoop: PatternOfKind<'arch'> = {
      kind: 'arch',
      spanM: 0.2,
      heightM: 0.5,
      depthM: 1,
      hoops: 1,
      rungStepM: 0.1,
      buriedM: 0.1,
      hoopStockId: 'rod-steel-6',
      rungStockId: 'rod-steel-6',
      pot: {
        shape: 'round',
        widthM: 0.22,
        heightM: 0.2,
        ballastKg: 0,
        drainageM: 0,
        hasCharcoal: false,
        isThere: false,
      },
      potsAs: 'trough',
    }
    const frame = makeFrame(site, hoop, options)
    expect(frame.members).toHaveLength(1)
    expect(frame.plants).toHaveLength(1)
    expect(frame.members[0]!.cutLengthM).toBeCloseTo(2 * (0.4 + 0.1) + Math.PI * 0.1, 9)
  })
})

describe('a column in a tub', () => {
  const column: PatternOfKind<'column'> = {
    kind: 'column',
    tub: {
      shape: 'square',
      widthM: 0.6,
      heightM: 0.5,
      ballastKg: 0,
      drainageM: 0,
      hasCharcoal: false,
      isThere: false,
    },
    columnStockId: 'post-steel-48',
    barStockId: 'rod-steel-12',
    lowerM: 1.4,
    upperM: 1.42,
    reachM: 0.7,
    gravelM: 0.08,
    plants: 4,
  }

  it('is refused where bars cannot clear each other, with the least difference', () => {
    expect(() => makeFrame(site, { ...column, upperM: 1.41 }, options)).toThrow(
      expect.objectContaining({
        code: 'frame/levels-do-not-clear',
        details: { apartM: expect.closeTo(0.01, 9), barM: 0.012 },
      }),
    )
    const frame = makeFrame(site, column, options)
    const [lower, upper] = ['hole-lower', 'hole-upper'].map(
      (key) => frame.figures.find((f) => f.key === key)!.value,
    )
    expect(upper! - lower!).toBeGreaterThan(0.012)
  })
})

describe('lines of a wall', () => {
  it('take the nearest crossing that is free, or none within the tolerance', () => {
    const lines = { uprights: { firstM: 0.2, stepM: 0.4 }, levels: { firstM: 0.075, stepM: 0.075 } }
    const area = { leftM: 0, rightM: 6, bottomM: 0, topM: 2.4 }
    const at = { xM: 1.05, yM: 0.8 }
    expect(nearestOnLines(at, [], area, 0.1, lines)).toEqual({
      xM: expect.closeTo(1, 9),
      yM: expect.closeTo(0.825, 9),
    })
    expect(nearestOnLines(at, [], area, 0.02, lines)).toBeNull()
    const knot = { id: 'k', kind: 'point' as const, xM: 1, yM: 0.825, radiusM: 0.03, what: 'knot' }
    expect(nearestOnLines(at, [knot], area, 0.1, lines)).toEqual({
      xM: expect.closeTo(1, 9),
      yM: expect.closeTo(0.75, 9),
    })
  })

  it('never leave a node in a spot or off its line, unless it is reported', () => {
    fc.assert(
      fc.property(
        patternArbs.diamonds,
        fc.record({
          firstM: fc.double({ min: 0, max: 0.5, noNaN: true }),
          stepM: fc.double({ min: 0.05, max: 0.6, noNaN: true }),
        }),
        (pattern, uprights) => {
          const knot = { id: 'k', kind: 'point' as const, xM: 2, yM: 1.2, radiusM: 0.2, what: 'knot' }
          const wall = { ...site, uprights, avoid: [knot] }
          const frame = makeFrame(wall, pattern, { ...options, snap: 'uprights', moveToleranceM: 0.2 })
          const reported = new Set(frame.findings.map((f) => f.nodeId))
          for (const node of frame.nodes) {
            if (reported.has(node.id)) continue
            const steps = (node.at.xM - uprights.firstM) / uprights.stepM
            expect(Math.abs(steps - Math.round(steps))).toBeLessThan(1e-6)
            expect(isInSpot(node.at, knot)).toBe(false)
          }
        },
      ),
      { numRuns: runs(60) },
    )
  })
})
