import type { Place } from '@klados/contract'
import {
  distance3M,
  distanceM,
  nearestSeen,
  pathLengthM,
  polylineLengthM,
  rolledUp,
  seenLines,
  seenPoint,
} from '@klados/core/geometry'
import type { DeepPoint, Look, Point } from '@klados/core/geometry'
import { readQuickLine } from '@klados/core/training'
import type { SeasonStage } from '@klados/core/season'
import type { QuickStem } from '@klados/core/training'
import { snapPoint, tracedLine } from '@klados/core/wood'
import type { PieceRole, SnapMarks } from '@klados/core/wood'
import { useMemo, useState } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import type { Recorder } from '../../data/use-recorder.ts'
import type { Hit } from '../../elevation/Elevation.tsx'
import { useUnits } from '../../ui/units.tsx'
import { seasonsOfNew } from './enter/stem-entries.ts'
import { footOf } from './foot.ts'
import type { Hand, HandEvent, WoodTool } from './bench-state.ts'
import { drawnEntries } from './new-piece.ts'
import type { WoodBenchData } from './use-bench.ts'

const SNAP_PX = 10
/** How far from wood a press still means it. */
const THUMB_PX = 22
const SAME_SPOT_PX = 2
/** A press that moves farther than this before it is let go draws. */
const STROKE_PX = 14
/** Between points of a stroke: what lies nearer is the hand's shake. */
const STROKE_STEP_PX = 3
const mm = (m: number) => Math.round(m * 1000) / 1000

export interface PieceTraits {
  /** `null`: what follows from its age and place. */
  readonly role: PieceRole | null
  /** `null`: of last summer in winter, of this one in summer. */
  readonly ageSeasons: number | null
  readonly baseMm: number
}

interface ToolsInput {
  readonly place: Place
  readonly data: WoodBenchData
  readonly on: string
  /** Whose piece is drawn, where that is settled. */
  readonly plantId: string | null
  readonly stage: SeasonStage
  /** From where one looks: what is drawn is set in space from there. */
  readonly look: Look
  readonly recorder: Recorder
  readonly hand: Hand
  readonly send: (event: HandEvent) => void
  /** `at`: where it was pressed; not for what was chosen by having been drawn. */
  readonly onChoose: (hit: Hit | null, at: Point | null) => void
}

/** What is in the hand at the wood bench, and how far one has got with it. */
export function useWoodTools({
  place,
  data,
  on,
  plantId,
  stage,
  look,
  recorder,
  hand,
  send,
  onChoose,
}: ToolsInput) {
  const { t } = useTranslation()
  const units = useUnits()
  // Where nothing stands yet one begins by standing a plant; once there is one, by pointing at it.
  const tool = data.plants.length + data.gone.length === 0 ? 'stand' : (hand.tool ?? 'choose')
  const { points, stroke, hover, standAtM } = hand
  const [traits, setTraits] = useState<PieceTraits>({ role: null, ageSeasons: null, baseMm: 8 })
  // What a hand can be near to: looked for when one draws, once for all the places that it passes.
  const marks = useMemo(() => onceAsked(() => marksAt(place, data, look)), [place, data, look])
  const firstFoot = () => data.plants[0] && footOf(place, data, data.plants[0])
  const clean = (p: DeepPoint): DeepPoint => ({
    xM: mm(p.xM),
    yM: Math.max(0, mm(p.yM)),
    ...(p.zM === undefined ? {} : { zM: mm(p.zM) }),
  })
  const inSpace = (seen: Point): DeepPoint => clean(placeSeen(seen, look, data, points.at(-1) ?? firstFoot()))
  const snap = (at: Point, pxPerM: number): DeepPoint =>
    inSpace(snapPoint(at, marks(), SNAP_PX / pxPerM).point)
  /** A thumb is broad: what lies nearest to a press is meant by it. */
  const nearWood = (at: Point, pxPerM: number): Hit | null => {
    const [nearest] = data.pieces
      .filter((one) => one.removedOn === null)
      .map((one) => ({ id: one.id, distanceM: nearestSeen(one.path, at, look).distanceM }))
      .sort((a, b) => a.distanceM - b.distanceM)
    return nearest && nearest.distanceM * pxPerM <= THUMB_PX ? { kind: 'wood', id: nearest.id } : null
  }
  const pick = (next: WoodTool) => send({ do: 'take', tool: next })
  const record = (stem: QuickStem): string | null => {
    const { role, ageSeasons } = traits
    const seasonsOld = ageSeasons ?? seasonsOfNew(stage)
    const bench = { place, data, plantId, on, look }
    const drawn = drawnEntries(points, stem, { seasonsOld, role }, bench)
    if (!drawn) return null
    recorder.write(t('entry.piece.grew', { part: t(`wood.parts.${role ?? 'shoot'}`) }), drawn.entries)
    return drawn.pieceId
  }
  const finish = () => {
    if (points.length < 2) return
    const read = readQuickLine(`${traits.baseMm}mm`, units.system, new Map(), pathLengthM(points))
    const pieceId = read.ok ? record(read.stem) : null
    if (pieceId) onChoose({ kind: 'wood', id: pieceId }, null)
    pick('choose')
  }
  const draw = (at: Point, pxPerM: number) => {
    const next = snap(at, pxPerM)
    const last = points.at(-1)
    // A second click on the same spot, as a double click gives, ends the piece.
    if (last && distance3M(last, next) * pxPerM < SAME_SPOT_PX) finish()
    else send({ do: 'set-point', point: next })
  }
  const standAt = (atM: number) => send({ do: 'stand-at', atM })
  return {
    tool,
    pick,
    points,
    /** The points set and the one under the pointer. */
    shown: stroke
      ? [...points, ...stroke.map(inSpace)]
      : hover && points.length > 0
        ? [...points, hover]
        : points,
    strokes: hand.strokes,
    traits,
    setTraits,
    standAtM,
    setStandAtM: standAt,
    /** Asked of these tools as they were when the plant was told to stand. */
    stood: () => send({ do: 'stood', hand }),
    finish,
    /** Writes the drawn line with its figures; the tool stays in the hand for the next. */
    record: (stem: QuickStem) => {
      if (points.length >= 2 && record(stem)) send({ do: 'drawn' })
    },
    add: (point: DeepPoint) => send({ do: 'set-point', point }),
    press: (at: Point, hit: Hit | null, pxPerM: number) => {
      if (tool === 'draw') send({ do: 'stroke', at })
      else if (tool === 'stand' && look.from !== 'side')
        standAt(Math.min(place.body.widthM, Math.max(0, mm(at.xM))))
      else onChoose(hit && hit.kind !== 'node' ? hit : nearWood(at, pxPerM), at)
    },
    hover: (at: Point, pxPerM: number) => {
      if (tool !== 'draw') return
      const last = stroke?.at(-1)
      if (!stroke || !last) send({ do: 'hover', at: snap(at, pxPerM) })
      else if (distanceM(last, at) * pxPerM >= STROKE_STEP_PX) send({ do: 'stroke', at })
    },
    /** A press let go where it began sets a point; one that moved drew a line. */
    release: (at: Point, pxPerM: number) => {
      if (tool !== 'draw' || !stroke) return
      const isPress = polylineLengthM([...stroke, at]) * pxPerM < STROKE_PX
      const traced = isPress ? null : tracedLine([...stroke, at], marks(), SNAP_PX / pxPerM).map(inSpace)
      send({ do: 'end-stroke', points: traced })
      if (isPress) draw(at, pxPerM)
    },
    key: (event: React.KeyboardEvent): boolean => {
      if (event.key === 'Escape' && tool !== 'choose') {
        pick('choose')
        return true
      }
      if (tool !== 'draw') return false
      if (event.key === 'Enter') finish()
      else if (event.key === 'Backspace') send({ do: 'take-point-back' })
      else return false
      return true
    },
  }
}
export type WoodTools = ReturnType<typeof useWoodTools>

function marksAt(place: Place, data: WoodBenchData, look: Look): SnapMarks {
  const { nodes, runs } = data.snaps
  const feet = data.plants.map((plant) => footOf(place, data, plant))
  const alive = data.pieces.filter((one) => one.removedOn === null)
  return {
    nodes: [...nodes, ...feet].map((p) => seenPoint(p, look)),
    runs: runs.flatMap((run) =>
      seenLines(run, look).flatMap(({ points: seen }) => seen.slice(1).map((p, i) => [seen[i]!, p] as const)),
    ),
    wood: alive.flatMap((one) => seenLines(one.path, look).map(({ points: seen }) => seen)),
  }
}

function onceAsked<T>(make: () => T): () => T {
  let made: { readonly value: T } | null = null
  return () => (made ??= { value: make() }).value
}

/** Nearer than this what is pressed lies on what it is drawn along, metres. */
const ON_IT_M = 0.005

/**
 * The place in space that is meant by one on the sheet: on the surface of what is unrolled; on what it lies on there;
 * else as high, as far back or as far along as what was drawn before it. From the front nothing says how far back: that
 * follows from what the line is led along.
 */
function placeSeen(
  seen: Point,
  look: Look,
  { tracks, pieces }: WoodBenchData,
  before: DeepPoint = { xM: 0, yM: 0 },
): DeepPoint {
  if (look.from === 'elevation') return seen
  if (look.from === 'unrolled') return rolledUp(seen, look.round)
  const ways = [
    ...pieces.filter((one) => one.removedOn === null).map(({ path }) => path),
    ...tracks.map(({ way }) => way),
  ]
  for (const way of ways) {
    const near = nearestSeen(way, seen, look)
    if (near.distanceM <= ON_IT_M) return { zM: 0, ...near.point }
  }
  return look.from === 'side'
    ? { xM: before.xM, yM: seen.yM, zM: seen.xM }
    : { xM: seen.xM, yM: before.yM, zM: seen.yM }
}
