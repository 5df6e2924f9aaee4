import type { Place } from '@klados/contract'
import { groundAt } from '@klados/core/frame'
import { distanceM, nearestAlong } from '@klados/core/geometry'
import type { Point } from '@klados/core/geometry'
import { snapPoint } from '@klados/core/wood'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Recorder } from '../../data/use-recorder.ts'
import type { Hit } from '../../elevation/Elevation.tsx'
import type { PieceTraits } from './DrawPanel.tsx'
import { newPieceEntry } from './new-piece.ts'
import type { WoodBenchData } from './use-bench.ts'

export const woodTools = ['choose', 'draw', 'stand'] as const
export type WoodTool = (typeof woodTools)[number]

const SNAP_PX = 10
/** How far from wood a press still means it. */
const THUMB_PX = 22
const SAME_SPOT_PX = 2
const mm = (m: number) => Math.round(m * 1000) / 1000

interface ToolsInput {
  readonly place: Place
  readonly data: WoodBenchData
  readonly on: string
  /** Whose piece is drawn, where that is settled. */
  readonly plantId: string | null
  readonly recorder: Recorder
  /** `at`: where it was pressed; not for what was chosen by having been drawn. */
  readonly onChoose: (hit: Hit | null, at: Point | null) => void
}

/** What is in the hand at the wood bench, and how far one has got with it. */
export function useWoodTools({ place, data, on, plantId, recorder, onChoose }: ToolsInput) {
  const { t } = useTranslation()
  const [tool, setTool] = useState<WoodTool>(data.plants.length === 0 ? 'stand' : 'choose')
  const [points, setPoints] = useState<readonly Point[]>([])
  const [hover, setHover] = useState<Point | null>(null)
  const [standAtM, setStandAtM] = useState<number | null>(null)
  const [traits, setTraits] = useState<PieceTraits>({ role: 'arm', ageSeasons: 0, baseMm: 8 })
  const snap = (at: Point, pxPerM: number): Point => {
    const { nodes, runs } = data.snaps
    const alive = data.pieces.filter((one) => one.removedOn === null)
    const feet = data.plants.map((one) => ({ xM: one.body.xM, yM: groundAt(place.body, one.body.xM) }))
    const marks = { nodes: [...nodes, ...feet], runs, wood: alive.map((one) => one.path) }
    const { point } = snapPoint(at, marks, SNAP_PX / pxPerM)
    return { xM: mm(point.xM), yM: Math.max(0, mm(point.yM)) }
  }
  /** A thumb is broad: what lies nearest to a press is meant by it. */
  const nearWood = (at: Point, pxPerM: number): Hit | null => {
    const [nearest] = data.pieces
      .filter((one) => one.removedOn === null)
      .map((one) => ({ id: one.id, distanceM: nearestAlong(one.path, at).distanceM }))
      .sort((a, b) => a.distanceM - b.distanceM)
    return nearest && nearest.distanceM * pxPerM <= THUMB_PX ? { kind: 'wood', id: nearest.id } : null
  }
  const pick = (next: WoodTool) => {
    setTool(next)
    setPoints([])
    setHover(null)
    setStandAtM(null)
  }
  const finish = () => {
    if (points.length < 2) return
    const drawn = newPieceEntry(points, traits, {
      place,
      plants: data.plants,
      pieces: data.pieces,
      plantId,
      on,
    })
    if (drawn) {
      recorder.write(t('entry.piece.grew', { part: t(`wood.parts.${traits.role}`) }), [drawn.entry])
      onChoose({ kind: 'wood', id: drawn.pieceId }, null)
    }
    pick('choose')
  }
  const draw = (at: Point, pxPerM: number) => {
    const next = snap(at, pxPerM)
    const last = points.at(-1)
    // A second click on the same spot, as a double click gives, ends the piece.
    if (last && distanceM(last, next) * pxPerM < SAME_SPOT_PX) finish()
    else setPoints([...points, next])
  }
  return {
    tool,
    pick,
    points,
    /** The points set and the one under the pointer. */
    shown: hover && points.length > 0 ? [...points, hover] : points,
    traits,
    setTraits,
    standAtM,
    setStandAtM,
    finish,
    add: (point: Point) => setPoints((old) => [...old, point]),
    press: (at: Point, hit: Hit | null, pxPerM: number) => {
      if (tool === 'draw') draw(at, pxPerM)
      else if (tool === 'stand') setStandAtM(Math.min(place.body.widthM, Math.max(0, mm(at.xM))))
      else onChoose(hit && hit.kind !== 'node' ? hit : nearWood(at, pxPerM), at)
    },
    hover: (at: Point, pxPerM: number) => {
      if (tool === 'draw') setHover(snap(at, pxPerM))
    },
    key: (event: React.KeyboardEvent): boolean => {
      if (event.key === 'Escape' && tool !== 'choose') {
        pick('choose')
        return true
      }
      if (tool !== 'draw') return false
      if (event.key === 'Enter') finish()
      else if (event.key === 'Backspace') setPoints((old) => old.slice(0, -1))
      else return false
      return true
    },
  }
}
export type WoodTools = ReturnType<typeof useWoodTools>
