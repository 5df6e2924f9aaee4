import type { Place } from '@klados/contract'
import { pathLengthM } from '@klados/core/geometry'
import { findSystem } from '@klados/core/training'
import { grownTo, trackFinder } from '@klados/core/wood'
import type { Piece } from '@klados/core/wood'
import { useState } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import type { NewEntry } from '../../data/record.ts'
import type { Recorder } from '../../data/use-recorder.ts'
import { LengthField } from '../../ui/LengthField.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import type { WoodBenchData } from './use-bench.ts'

interface GrownProps {
  readonly piece: Piece
  readonly place: Place
  readonly data: WoodBenchData
  readonly on: string
  readonly recorder: Recorder
}

const LONGEST_M = 60
const MOST_NODES = 1000

/** How long a piece is by now; of a soft climber on its pole, its nodes and how many of them have roots. */
export function Grown({ piece, place, data, on, recorder }: GrownProps) {
  const { t } = useTranslation()
  const lengthM = pathLengthM(piece.path)
  const [nowM, setNowM] = useState(Math.round(lengthM * 1000) / 1000)
  const system = findSystem(data.plants.find(({ id }) => id === piece.plantId)?.body.system ?? null)
  const head = { placeId: place.id, plantId: piece.plantId, at: on }
  const hasGrown = nowM > lengthM + 0.001
  const growth = (): NewEntry[] =>
    hasGrown
      ? [
          {
            ...head,
            kind: 'piece.extended',
            body: { v: 2, pieceId: piece.id, way: grownTo(piece, nowM, trackFinder(data.standing)) },
          },
        ]
      : []
  return (
    <section className="flex flex-col gap-2">
      <h2>{t('wood.grown.title')}</h2>
      <div className="grid grid-cols-[1fr_auto] items-end gap-2">
        <LengthField
          label={t('wood.grown.length')}
          minM={0.005}
          maxM={LONGEST_M}
          valueM={nowM}
          onChange={setNowM}
        />
        {!system?.countsNodes && (
          <button
            type="button"
            className="btn"
            disabled={!hasGrown}
            onClick={() => recorder.write(t('wood.grown.done'), growth())}
          >
            {t('wood.grown.do')}
          </button>
        )}
      </div>
      {system?.countsNodes && (
        <Nodes
          piece={piece}
          onCount={(nodes, rooted) =>
            recorder.write(t('wood.grown.counted'), [
              ...growth(),
              { ...head, kind: 'piece.nodes', body: { v: 1, pieceId: piece.id, nodes, rooted } },
            ])
          }
        />
      )}
    </section>
  )
}

function Nodes({
  piece,
  onCount,
}: {
  readonly piece: Piece
  readonly onCount: (nodes: number, rooted: number) => void
}) {
  const { t } = useTranslation()
  const last = piece.nodeCounts.at(-1)
  const [nodes, setNodes] = useState(last?.nodes ?? 0)
  const [rooted, setRooted] = useState(last?.rooted ?? 0)
  const isTooMany = rooted > nodes
  return (
    <>
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          label={t('wood.grown.nodes')}
          value={nodes}
          min={0}
          max={MOST_NODES}
          step={1}
          onChange={(value) => setNodes(Math.round(value))}
        />
        <NumberField
          label={t('wood.grown.rooted')}
          value={rooted}
          min={0}
          max={MOST_NODES}
          step={1}
          onChange={(value) => setRooted(Math.round(value))}
        />
      </div>
      {isTooMany && (
        <p role="alert" className="text-iron">
          {t('wood.grown.tooMany')}
        </p>
      )}
      <button
        type="button"
        className="btn self-start"
        disabled={nodes === 0 || isTooMany}
        onClick={() => onCount(nodes, rooted)}
      >
        {t('wood.grown.count')}
      </button>
    </>
  )
}
