import type { Place } from '@klados/contract'
import { nearestSeen } from '@klados/core/geometry'
import type { Point } from '@klados/core/geometry'
import { useDeferredValue, useMemo, useReducer, useState } from 'react'
import { useSearchParams } from 'react-router'
import { useCanWrite } from '../../data/garden-access.ts'
import { useRecorder } from '../../data/use-recorder.ts'
import type { Hit } from '../../elevation/Elevation.tsx'
import { useUndoKeys } from '../../ui/use-undo-keys.ts'
import { benchAfter, benchAtFirst } from './bench-state.ts'
import { chosenIn } from './chosen.ts'
import { useTraining } from './choose/training.ts'
import { useAnswer } from './choose/use-answer.ts'
import { useChoosing } from './choose/use-choosing.ts'
import { useRow } from './count/use-row.ts'
import { lookOf, looksOf } from './looks.ts'
import type { WoodBenchData } from './use-bench.ts'
import { useReadingKeys } from './use-reading-keys.ts'
import type { Reading } from './use-reading-keys.ts'
import { useWoodTools } from './use-wood-tools.ts'

export interface BenchProps {
  readonly gardenId: string
  readonly place: Place
  readonly on: string
  readonly onDay: (on: string) => void
  readonly today: string
  readonly data: WoodBenchData
}

/**
 * What the parts of the bench share: what it is doing, what follows from that, and what it can be told. Keys, pointer and
 * touch tell it the same.
 */
export function useBenchRoom(props: BenchProps) {
  const { gardenId, place, on, data } = props
  const canWrite = useCanWrite(gardenId)
  const recorder = useRecorder()
  useUndoKeys(recorder.last ? recorder.undo : null)
  const [search] = useSearchParams()
  const [state, send] = useReducer(benchAfter, null, () =>
    benchAtFirst(search.get('tie'), search.get('plant')),
  )
  const { reading } = state
  // The switch is seen at once; what it asks of the plant takes a phone a breath.
  const settled = useDeferredValue(reading)
  const choice = chosenIn(data, state)
  const { plant, isGone } = choice
  const training = useTraining(gardenId, place, data, isGone ? null : plant, on, state.asked)
  const looks = useMemo(() => looksOf(data), [data])
  // Where a system's wood is best seen, until one looks from elsewhere.
  const wanted = state.look ?? training?.system?.look ?? 'elevation'
  const look = useMemo(
    () => lookOf(looks.find((one) => one === wanted) ?? 'elevation', data),
    [looks, wanted, data],
  )
  const [isPhotoShown, showPhoto] = useState(true)
  const photo = place.body.photo && { isShown: isPhotoShown, onShow: showPhoto }
  const isAsked =
    settled === 'choose' && training !== null && (!training.answered || state.againId === training.plant.id)
  const choosing = useChoosing(isAsked ? training.question : null)
  const answer = useAnswer(choosing, training, data, { placeId: place.id, at: on }, recorder)
  const read = (next: Reading) => send({ do: 'read', reading: next, plantId: plant?.id ?? null })
  const commit = (as: 'plan' | 'done') => {
    answer?.commit(as)
    send({ do: 'answered' })
    choosing?.reset()
    read(as === 'plan' ? 'do' : 'look')
  }
  const goTo = (plantId: string) => {
    send({ do: 'go-to', plantId })
    choosing?.focus(null)
  }
  useReadingKeys({
    reading,
    onReading: read,
    choosing,
    onCommit: () => canWrite && commit('plan'),
    onNextPlant: (step) => {
      const inOrder = [...data.plants].sort((a, b) => a.body.xM - b.body.xM)
      const next = inOrder[inOrder.findIndex((one) => one.id === plant?.id) + step]
      if (next) goTo(next.id)
    },
  })
  const point = (hit: Hit | null, at: Point | null) => {
    const asked =
      hit?.kind === 'wood' && choosing?.question.candidates.find(({ pieceId }) => pieceId === hit.id)
    if (asked) return choosing!.focus(asked.pieceId)
    if (reading === 'choose') return
    const piece = hit?.kind === 'wood' ? data.state.pieces.get(hit.id) : undefined
    const under =
      piece && at
        ? { pieceId: piece.id, alongM: nearestSeen(piece.path, at, look).alongM, isByKey: false }
        : null
    send({ do: 'point', at: hit, under })
  }
  const tools = useWoodTools({
    place,
    data,
    on,
    plantId: plant?.id ?? state.plantId,
    stage: training?.view.stage ?? 'growing',
    look,
    recorder,
    hand: state.hand,
    send,
    onChoose: point,
  })
  const row = useRow(place, data, on, reading === 'count')
  return {
    ...props,
    canWrite,
    recorder,
    state,
    send,
    settled,
    choice,
    training,
    looks,
    look,
    photo,
    choosing,
    answer,
    tools,
    row,
    read,
    commit,
    goTo,
  }
}

export type BenchRoom = ReturnType<typeof useBenchRoom>
