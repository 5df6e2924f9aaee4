import type { FrameBody, FrameStage, PlaceBody } from '@klados/contract'
import type { FrameNode, NodeId } from '@klados/core/frame'
import type { Point } from '@klados/core/geometry'
import type { Change } from './change.ts'

/** How many of some parameters, of the design or its pattern, are not as they usually are. */
export type UnusualIn = (keys: readonly string[], of?: 'design' | 'pattern') => number

/** What the inputs of the bench go by, all of them alike. */
export interface InputsProps {
  readonly gardenId: string
  readonly place: PlaceBody
  readonly design: FrameBody['design']
  readonly name: string
  readonly onName: (name: string) => void
  readonly onChange: Change
  readonly canWrite: boolean
  readonly node: FrameNode | null
  readonly nodeId: string | null
  readonly onNode: (id: NodeId | null) => void
  readonly laid: readonly FrameNode[]
  readonly onStep: (by: number) => void
  readonly onMove: (id: string, at: Point) => void
  readonly onPutBack: (id: string) => void
  /** Fixings and posts that lie on what is to be left alone. */
  readonly onSpots: number
  readonly stage: FrameStage
  readonly onStage: (stage: FrameStage) => void
  readonly currency: string
}
