import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { grewBody, tieBody } from '../../test/bodies.ts'
import { options, siteOf } from '../../test/frames.ts'
import { wiresAt } from '../../test/training.ts'
import { frameKinds, makeFrame, roundOf, tracksOf } from '../frame/index.ts'
import type { Frame, Pattern } from '../frame/index.ts'
import {
  FRONT,
  alongPath,
  at3,
  distance3M,
  nearestSeen,
  pathLengthM,
  polylineLengthM,
  rolledUp,
  seenLines,
  seenPoint,
} from '../geometry/index.ts'
import type { DeepPoint, Look } from '../geometry/index.ts'
import { replayWood } from '../journal/index.ts'
import type { JournalEntry } from '../journal/index.ts'
import {
  alongTrack,
  courseOn,
  liesNow,
  lineOf,
  tiePoints,
  tieSupports,
  trackFinder,
  wayFrom,
  wayRound,
} from './index.ts'
import type { FrameTrack, Stretch } from './index.ts'

const started = (kind: keyof typeof frameKinds, rest: object = {}, widthM = 5): Frame =>
  makeFrame(
    siteOf(widthM, 2.4, { surface: 'open' }),
    {
      ...frameKinds[kind].start({ kind: 'row', widthM, usableHeightM: 2.4, firstForkM: 0 } as never),
      ...rest,
    } as Pattern,
    options,
  )
const pergola = started('overhead', { depthM: 3, wireSpacingM: 0.5 })
const pole = started('pole', {}, 0.6)
const tracksAt = (frame: Frame, frameId = 'f'): FrameTrack[] =>
  tracksOf(frame).map((track) => ({ ...track, frameId }))
const framesOf = (frame: Frame) => new Map([['f', frame]])
const roundOfPole = roundOf(pole, options.stockWidthM)!
const core = tracksAt(pole).find(
  ({ part }) => part.on === 'member' && part.memberId === roundOfPole.memberId,
)!

let n = 0
const entry = (kind: string, body: object, at = '2026-03-01'): JournalEntry =>
  ({
    id: `00000000-0000-7000-8000-${String(++n).padStart(12, '0')}`,
    kind,
    at,
    body,
    placeId: 'place',
    plantId: 'plant',
    supersedes: null,
  }) as unknown as JournalEntry
const grew = (pieceId: string, way: readonly Stretch[], rest: object = {}) => {
  const { path: _, ...body } = grewBody(pieceId, { v: 3, isTypical: false, ...rest }) as { path?: unknown }
  return entry('piece.grew', { ...body, way })
}
const share = fc.double({ min: 0.05, max: 0.95, noNaN: true })

describe('wood round a pole', () => {
  const courseArb = fc.record({
    fromM: fc.double({ min: 0, max: 0.3, noNaN: true }),
    riseM: fc.double({ min: 0.2, max: 0.7, noNaN: true }),
    turns: fc.double({ min: -6, max: 6, noNaN: true }),
    radiusM: fc.double({ min: 0.02, max: 0.2, noNaN: true }),
    angle: fc.double({ min: 0, max: 6, noNaN: true }),
  })

  it('is as long as a helix of its turns, stays as far off the middle, and turns the way that it says', () => {
    fc.assert(
      fc.property(courseArb, ({ fromM, riseM, turns, radiusM, angle }) => {
        const aside = at3(radiusM * Math.cos(angle), 0, radiusM * Math.sin(angle))
        const line = courseOn(core.way, { fromM, toM: fromM + riseM, turns, aside })
        const helixM = Math.hypot(riseM, 2 * Math.PI * radiusM * turns)
        expect(pathLengthM(line) / helixM).toBeGreaterThan(0.99)
        expect(pathLengthM(line) / helixM).toBeLessThanOrEqual(1 + 1e-9)
        const { xM, zM } = core.way[0]!
        for (const p of line) expect(Math.hypot(p.xM - xM, p.zM - zM)).toBeCloseTo(radiusM, 6)
      }),
    )
    // From in front, clockwise as seen from above: next it is on the left.
    const quarter = courseOn(core.way, { fromM: 0, toM: 0.4, turns: 0.25, aside: at3(0, 0, -0.05) })
    expect(quarter.at(-1)!.xM - core.way[0]!.xM).toBeCloseTo(-0.05, 6)
    expect(quarter.at(-1)!.zM).toBeCloseTo(0, 6)
  })

  it('that is drawn over the unrolled sheet runs through the places pressed, on the surface', () => {
    const look: Look = { from: 'unrolled', round: roundOfPole.round }
    const { xM, radiusM } = roundOfPole.round
    const pressed = fc.record({
      xM: fc.double({ min: xM - radiusM * 1.4, max: xM + radiusM * 1.4, noNaN: true }),
      yM: fc.double({ min: 0.35, max: 0.9, noNaN: true }),
    })
    fc.assert(
      fc.property(fc.array(pressed, { minLength: 2, maxLength: 5 }), (points) => {
        const inSpace = points.map((p) => rolledUp(p, roundOfPole.round))
        inSpace.forEach((p, i) => {
          expect(seenPoint(p, look).xM).toBeCloseTo(points[i]!.xM, 9)
        })
        const way = wayRound(inSpace, roundOfPole.round, core)
        const line = lineOf(way)
        for (const p of inSpace) expect(Math.min(...line.map((one) => distance3M(one, p)))).toBeLessThan(1e-6)
        for (const p of line)
          if (way.every(({ on }) => on === 'member'))
            expect(Math.hypot(p.xM - xM, p.zM - roundOfPole.round.zM)).toBeCloseTo(radiusM, 6)
      }),
    )
  })

  it('is seen in as many parts as the slit cuts it into, whole in length, and found again where it is pressed', () => {
    const stretch = alongTrack(core, { fromM: 0.1, toM: 0.9, turns: -2.5, aside: at3(0, 0, -0.04) })
    const look: Look = { from: 'unrolled', round: { ...roundOfPole.round, radiusM: 0.04 } }
    const lines = seenLines(stretch.points, look)
    expect(lines).toHaveLength(3)
    const seenM = lines.reduce((sum, { points }) => sum + polylineLengthM(points), 0)
    expect(seenM).toBeCloseTo(Math.hypot(0.8, 2 * Math.PI * 0.04 * 2.5), 2)
    fc.assert(
      fc.property(share, fc.constantFrom<Look>(look, FRONT, { from: 'side' }), (part, from) => {
        const alongM = pathLengthM(stretch.points) * part
        const at = seenPoint(alongPath(stretch.points, alongM), from)
        const near = nearestSeen(stretch.points, at, from)
        expect(near.distanceM).toBeLessThan(1e-3)
        expect(seenPoint(near.point, from).yM).toBeCloseTo(at.yM, 2)
      }),
    )
  })
})

describe('wood led along a frame', () => {
  const wires = tracksAt(pergola).filter(({ part }) => part.role === 'carrying')
  const middle = wires[3]!
  const along = alongTrack(middle, { fromM: 1, toM: 4, turns: 0, aside: at3(0, 0, 0) })
  const raised = started('overhead', { depthM: 3, wireSpacingM: 0.5, headroomM: 2.46 })
  const rise = raised.nodes[0]!.at.yM - pergola.nodes[0]!.at.yM

  it('is cut, grows on and is told with what is left of what it runs along', () => {
    fc.assert(
      fc.property(share, (part) => {
        const wood = replayWood([
          grew('arm', [along]),
          entry('piece.cut', { v: 1, pieceId: 'arm', alongM: 3 * part, aboveBuds: null, reason: '' }),
        ])
        const { path, led } = wood.pieces.get('arm')!
        expect(pathLengthM(path)).toBeCloseTo(3 * part, 9)
        expect(led).toHaveLength(1)
        expect(led[0]!.toM).toBeCloseTo(1 + 3 * part, 9)
        expect(led[0]!.endM).toBeCloseTo(3 * part, 9)
      }),
    )
    const grown = replayWood([
      grew('arm', [along]),
      entry('piece.extended', {
        v: 2,
        pieceId: 'arm',
        way: [alongTrack(middle, { fromM: 4, toM: 4.5, turns: 0, aside: at3(0, 0, 0) })],
      }),
    ]).pieces.get('arm')!
    expect(pathLengthM(grown.path)).toBeCloseTo(3.5, 9)
    expect(grown.led.map(({ startM, endM }) => [startM, endM])).toEqual([
      [0, expect.closeTo(3, 9)],
      [expect.closeTo(3, 9), expect.closeTo(3.5, 9)],
    ])
  })

  it('goes with its wire when the frame is revised, and hangs loose when that is gone or shorter', () => {
    const wood = replayWood([
      grew('arm', [along]),
      entry('tie.made', tieBody('t', 'arm', { alongM: 1 })),
      grew('shoot', [{ on: 'free', points: [at3(2, 2.5, 1.5), at3(2, 2.9, 1.5)] }], {
        parent: { on: 'piece', pieceId: 'arm', alongM: 1 },
      }),
    ])
    const asIs = liesNow(wood, trackFinder(framesOf(pergola)))
    expect(asIs.pieces.get('arm')).toBe(wood.pieces.get('arm'))
    expect(asIs.loose.size).toBe(0)
    const now = liesNow(wood, trackFinder(framesOf(raised)))
    expect(rise).toBeGreaterThan(0.1)
    expect(now.pieces.get('arm')!.path[0]!.yM).toBeCloseTo(along.points[0]!.yM + rise, 9)
    expect(now.ties.get('t')!.at.yM).toBeCloseTo(wood.ties.get('t')!.at.yM + rise, 9)
    // What grows on it goes along, and sits where it sat.
    const [shoot, was] = [now.pieces.get('shoot')!, wood.pieces.get('shoot')!]
    expect(distance3M(shoot.path[0]!, alongPath(now.pieces.get('arm')!.path, 1))).toBeLessThan(1e-6)
    expect(pathLengthM(shoot.path)).toBeCloseTo(pathLengthM(was.path), 9)
    const shorter = started('overhead', { depthM: 3, wireSpacingM: 0.5 }, 3)
    expect([...liesNow(wood, trackFinder(framesOf(shorter))).loose]).toEqual(['arm'])
    expect([...liesNow(wood, trackFinder(new Map())).loose]).toEqual(['arm'])
  })

  it('stays on its wire when what it grows on is led elsewhere, with its base where that is now', () => {
    const trunk = [{ on: 'free' as const, points: [at3(1, 0, 0), at3(1, 2, 0), at3(1, 2.5, 1.5)] }]
    const wood = replayWood([
      grew('trunk', trunk),
      grew('arm', [along], { parent: { on: 'piece', pieceId: 'trunk', alongM: 3.5811388 } }),
      entry('piece.laid', {
        v: 2,
        pieceId: 'trunk',
        way: [{ on: 'free', points: [at3(0.8, 0, 0), at3(0.8, 2, 0), at3(0.8, 2.5, 1.5)] }],
      }),
    ])
    const arm = wood.pieces.get('arm')!
    expect(distance3M(arm.path[0]!, at3(0.8, 2.5, 1.5))).toBeLessThan(1e-3)
    expect(distance3M(arm.path.at(-1)!, along.points.at(-1)!)).toBeLessThan(1e-9)
    const last = arm.led.at(-1)!
    expect(last.endM).toBeCloseTo(pathLengthM(arm.path), 6)
    expect(last.endM - last.startM).toBeCloseTo(3, 6)
  })

  it('meets every wire that it crosses, each at its own depth', () => {
    const top = along.points[0]!.yM
    const across: DeepPoint[] = [at3(2, top, 1.5), at3(2, top - 0.01, 3)]
    const supports = tieSupports([{ frameId: 'f', frame: pergola }], { wireMm: () => 3, stockM: () => 0.05 })
    const lines = supports.filter(({ part }) => part.on === 'line')
    const met = tiePoints(across, lines)
    // From the fourth wire out to the last; at its base and its soft tip nothing is tied.
    expect(met.map(({ at }) => Math.round((at.zM ?? 0) * 10) / 10)).toEqual([2, 2.5])
    // From the front all seven lie behind one another, and one of them is met.
    const front = across.map(({ xM, yM }, i) => ({ xM: xM + i, yM: yM + (i === 0 ? 0.1 : -0.1) }))
    expect(tiePoints(front, lines)).toHaveLength(1)
  })
})

describe('wood that was written down before it had depth', () => {
  const wires = tracksAt(pergola).filter(({ part }) => part.role === 'carrying')
  const third = wires[2]!
  const [a, b] = [third.way[0]!, third.way.at(-1)!]
  const path = [
    { xM: a.xM + 0.5, yM: a.yM },
    { xM: b.xM - 0.5, yM: b.yM },
  ]
  const cane = entry('piece.grew', grewBody('cane', { path }))
  const support = {
    on: 'line',
    frameId: 'f',
    lineId: third.part.on === 'line' ? third.part.lineId : null,
    alongM: 1,
  }

  it('lies in the plane of the wall until it is tied, then as deep as what it is tied to; from the front as ever', () => {
    const free = replayWood([cane])
    expect(liesNow(free, trackFinder(framesOf(pergola))).pieces.get('cane')).toBe(free.pieces.get('cane'))
    const tied = replayWood([cane, entry('tie.made', tieBody('t', 'cane', { alongM: 2, support }))])
    const now = liesNow(tied, trackFinder(framesOf(pergola))).pieces.get('cane')!
    expect(now.path.at(-1)!.zM).toBeCloseTo(third.way[0]!.zM, 9)
    expect(now.path.map(({ xM, yM }) => ({ xM, yM }))).toEqual(path)
    expect(seenLines(now.path, FRONT)[0]!.points).toEqual(seenLines(path, FRONT)[0]!.points)
  })

  it('is led by the wire that a line drawn from the front lies on, and free between', () => {
    const [{ frame }] = wiresAt(4, 0.6, 1.2) as unknown as [{ frame: Frame }]
    const tracks = tracksAt(frame)
    fc.assert(
      fc.property(share, share, fc.constantFrom(0.6, 1.2), (from, to, heightM) => {
        fc.pre(Math.abs(from - to) > 0.05)
        const line = [
          { xM: 4 * from, yM: heightM - 0.3 },
          { xM: 4 * from, yM: heightM },
          { xM: 4 * to, yM: heightM },
        ]
        const way = wayFrom(line, tracks)
        expect(way.at(-1)!.on).toBe('line')
        expect(pathLengthM(lineOf(way))).toBeCloseTo(polylineLengthM(line), 3)
        const off = wayFrom(
          line.map(({ xM, yM }) => ({ xM, yM: yM + 0.1 })),
          tracks.filter(({ form }) => form === 'level'),
        )
        expect(off.map(({ on }) => on)).toEqual(['free'])
      }),
    )
  })
})

describe('any life of wood in space', () => {
  const point3 = fc.record({
    xM: fc.double({ min: -2, max: 8, noNaN: true }),
    yM: fc.double({ min: 0, max: 3, noNaN: true }),
    zM: fc.double({ min: -1, max: 4, noNaN: true }),
  })
  const all = tracksAt(pergola)
  const stretch = fc.oneof(
    fc.array(point3, { minLength: 2, maxLength: 4 }).map((points): Stretch => ({ on: 'free', points })),
    fc
      .record({
        track: fc.constantFrom(...all),
        fromM: share,
        toM: share,
        turns: fc.constantFrom(0, 0, 1.5, -3),
        aside: point3,
      })
      .map(({ track, fromM, toM, ...rest }) =>
        alongTrack(track, { fromM: fromM * track.lengthM, toM: toM * track.lengthM, ...rest }),
      ),
  )
  const way = fc.array(stretch, { minLength: 1, maxLength: 3 })
  const which = fc.constantFrom('a', 'b', 'c', 'd')
  const deed = fc.oneof(
    fc
      .record({ id: which, on: fc.option(which, { nil: null }), alongM: share, way })
      .map(({ id, on, alongM, way: led }) =>
        grew(id, led, on === null ? {} : { parent: { on: 'piece', pieceId: on, alongM } }),
      ),
    fc
      .record({ id: which, way })
      .map(({ id, way: led }) => entry('piece.extended', { v: 2, pieceId: id, way: led })),
    fc
      .record({ id: which, way })
      .map(({ id, way: led }) => entry('piece.laid', { v: 2, pieceId: id, way: led })),
    fc
      .record({ id: which, alongM: share })
      .map(({ id, alongM }) =>
        entry('piece.cut', { v: 1, pieceId: id, alongM: alongM * 3, aboveBuds: null, reason: '' }),
      ),
    fc
      .record({ id: which, tie: fc.constantFrom('t', 'u'), alongM: share })
      .map(({ id, tie, alongM }) => entry('tie.made', tieBody(tie, id, { alongM }))),
  )

  it('keeps what is led, tied and grown within the piece, on the frames of then as on those of now', () => {
    fc.assert(
      fc.property(fc.array(deed, { maxLength: 14 }), (deeds) => {
        const wood = replayWood(deeds)
        for (const find of [trackFinder(framesOf(pergola)), trackFinder(framesOf(pole)), () => undefined]) {
          const { pieces, ties } = liesNow(wood, find)
          for (const piece of pieces.values()) {
            const lengthM = pathLengthM(piece.path)
            expect(Number.isFinite(lengthM)).toBe(true)
            let lastM = 0
            for (const { startM, endM } of piece.led) {
              expect(startM).toBeGreaterThanOrEqual(lastM - 1e-4)
              expect(endM).toBeGreaterThanOrEqual(startM - 1e-9)
              lastM = endM
            }
            if (piece.removedOn === null) expect(lastM).toBeLessThanOrEqual(lengthM + 1e-4)
          }
          for (const tie of ties.values()) expect(Number.isFinite(tie.at.xM + (tie.at.zM ?? 0))).toBe(true)
        }
        for (const { parent, removedOn } of wood.pieces.values())
          if (parent.on === 'piece' && removedOn === null)
            expect(parent.alongM).toBeLessThanOrEqual(
              pathLengthM(wood.pieces.get(parent.pieceId)!.path) + 1e-6,
            )
      }),
      { numRuns: 400 },
    )
  })
})
