import type { Place } from '@klados/contract'
import type { Piece } from '@klados/core/wood'
import type { Position } from '@klados/core/training'
import type { WoodBenchData } from './use-bench.ts'
import type { Recorder } from '../../data/use-recorder.ts'

/** A piece and what its panel is told of it. */
export interface PiecePanelProps {
  readonly piece: Piece
  /** What it is in its plant's system. */
  readonly position: Position | null
  readonly place: Place
  readonly data: WoodBenchData
  readonly on: string
  readonly canWrite: boolean
  readonly recorder: Recorder
}
