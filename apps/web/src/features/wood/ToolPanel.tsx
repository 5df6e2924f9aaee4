import type { Place } from '@klados/contract'
import { useState } from 'react'
import type { ComponentProps } from 'react'
import type { Recorder } from '../../data/use-recorder.ts'
import type { Training } from './choose/training.ts'
import { DrawPanel } from './DrawPanel.tsx'
import { Figures } from './Figures.tsx'
import { RemovedList } from './PlantEnd.tsx'
import { PiecePanel } from './PiecePanel.tsx'
import { JustAdded } from './JustAdded.tsx'
import { StandPanel } from './StandPanel.tsx'
import { TiePanel } from './TiePanel.tsx'
import type { WoodBenchData } from './use-bench.ts'
import type { Chosen } from './chosen.ts'
import type { WoodTools } from './use-wood-tools.ts'

interface ToolPanelProps {
  readonly gardenId: string
  readonly place: Place
  readonly data: WoodBenchData
  readonly on: string
  readonly canWrite: boolean
  readonly recorder: Recorder
  readonly tools: WoodTools
  readonly choice: Chosen
  readonly onPlant: (plantId: string | null) => void
  readonly training: Training | null
  readonly photo: ComponentProps<typeof DrawPanel>['photo']
}

/** What the tool in the hand needs, or what is known of the part that is chosen. */
export function ToolPanel({ gardenId, tools, choice, onPlant, photo, training, ...rest }: ToolPanelProps) {
  const { place, data, on, canWrite } = rest
  const { piece, tie, plant, isGone } = choice
  const [added, setAdded] = useState<readonly string[]>([])
  if (tools.tool === 'draw') return <DrawPanel data={data} tools={tools} photo={photo} />
  if (tools.tool === 'stand')
    return (
      <>
        <StandPanel
          gardenId={gardenId}
          place={place}
          data={data}
          atM={tools.standAtM}
          onAt={tools.setStandAtM}
          onDone={(id) => {
            tools.stood()
            onPlant(id)
          }}
          onAll={(ids) => {
            if (ids[0] === undefined) return
            tools.stood()
            onPlant(ids[0])
            setAdded(ids)
          }}
        />
        {canWrite && <RemovedList gardenId={gardenId} plants={data.removed} />}
      </>
    )
  const position = training?.positions.find(({ pieceId }) => pieceId === piece?.id) ?? null
  if (piece) return <PiecePanel key={piece.id} piece={piece} position={position} {...rest} />
  if (tie) return <TiePanel key={tie.id} gardenId={gardenId} tie={tie} {...rest} />
  return (
    <>
      <JustAdded gardenId={gardenId} plants={data.plants.filter(({ id }) => added.includes(id))} />
      <Figures {...{ gardenId, place, data, plant, isGone, on, canWrite }} onPlant={onPlant} />
    </>
  )
}
