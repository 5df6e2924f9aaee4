import type { FrameBody, FrameDocument, FrameStage, Place } from '@klados/contract'
import type { Point } from '@klados/core/geometry'
import { useEffect, useRef } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { changed } from '../../data/drafts.ts'
import type { FrameDraft } from '../../data/drafts.ts'
import { isSameStep } from '../../data/one-step.ts'
import type { LastChange } from '../../data/one-step.ts'
import { useAppDispatch } from '../../data/store.ts'
import type { WithIds } from '../../plan/lasting-ids.ts'
import type { Change } from './change.ts'
import { movedNode } from './free-nodes.ts'
import { newNodeId } from './new-part.ts'

interface EditedFrame {
  readonly place: Place
  readonly frameId: string
  readonly stored: FrameDocument | undefined
  readonly draft: FrameDraft | undefined
  readonly body: FrameBody
  readonly withIds: WithIds
}

export interface FrameEdits {
  readonly change: Change
  readonly rename: (name: string) => void
  readonly setStage: (stage: FrameStage) => void
  /** Takes a node to where it was dragged; held within the place, to the millimetre. */
  readonly moveNode: (id: string, at: Point) => void
  /** A dragged node goes back to where the pattern has it. */
  readonly putBack: (id: string) => void
  /** On a frame drawn by hand: a new node, wired to that one. Its id, or null where there is none to wire to. */
  readonly addNode: (at: Point, fromId: string) => string | null
  /** A variant that starts as what is on the bench. Its id. */
  readonly copy: () => string
}

/** What is done at one press, each a step of its own; all else is typed or dragged. */
const PRESSES: ReadonlySet<string> = new Set([
  'add',
  'add below',
  'take',
  'put back',
  'fit',
  'kind',
  'stage',
  'remedy',
])

/** A variant that was just made of this frame: changes go to it until it stands on the bench. */
interface CopyMade {
  readonly fromId: string
  body: FrameBody
  readonly id: string
}

const round = (m: number) => Math.round(m * 1000) / 1000

/** What can be done to the frame on the bench: all of it changes the draft, step by step. */
export function useFrameEdits({ place, frameId, stored, draft, body, withIds }: EditedFrame): FrameEdits {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const last = useRef<LastChange | null>(null)
  const copyMade = useRef<CopyMade | null>(null)
  // Back at the frame that it was made of, changes are that frame's own again.
  useEffect(() => () => void (copyMade.current = null), [frameId])
  const { design } = body
  const changeBody = (what: string, next: FrameBody) => {
    const time = Date.now()
    const copied = copyMade.current
    if (copied?.fromId === frameId) {
      const changedCopy = { ...next, name: copied.body.name, stage: copied.body.stage }
      const draft = { frameId: copied.id, basedOn: 0, body: copied.body }
      copied.body = changedCopy
      dispatch(changed({ draft, body: changedCopy, isContinued: false }))
      return
    }
    const isContinued = !PRESSES.has(what) && isSameStep(last.current, { what, time, from: body })
    const named = { ...next, design: withIds(next.design) }
    last.current = { what, time, body: named }
    const start = { frameId, basedOn: stored?.version ?? 0, body }
    dispatch(changed({ draft: draft ?? start, body: named, isContinued }))
  }
  const change: Change = (what, part) => changeBody(what, { ...body, design: { ...design, ...part } })
  return {
    change,
    rename: (name) => changeBody('name', { ...body, name }),
    setStage: (stage) => changeBody('stage', { ...body, stage }),
    moveNode: (id, at) => {
      const { widthM, firstForkM, usableHeightM } = place.body
      const hold = (value: number, most: number) => round(Math.min(most, Math.max(0, value)))
      const to = { xM: hold(at.xM, widthM), yM: hold(at.yM, firstForkM + usableHeightM) }
      const byHand = design.pattern.kind === 'free' && design.pattern.nodes.find((node) => node.id === id)
      if (design.pattern.kind === 'free' && byHand)
        change(`drag ${id}`, { pattern: movedNode(design.pattern, byHand.id, to) })
      else change(`drag ${id}`, { dragged: { ...design.dragged, [id]: to } })
    },
    putBack: (id) => {
      const { [id]: _, ...dragged } = design.dragged
      change(`put back ${id}`, { dragged })
    },
    addNode: (at, fromId) => {
      const { pattern } = design
      const from = pattern.kind === 'free' && pattern.nodes.find((one) => one.id === fromId)
      if (pattern.kind !== 'free' || !from) return null
      const id = newNodeId()
      const xM = Math.min(place.body.widthM, round(Math.max(0, at.xM)))
      const node = { id, xM, yM: round(Math.max(0, at.yM)), isStart: false }
      change('add', {
        pattern: { ...pattern, nodes: [...pattern.nodes, node], runs: [...pattern.runs, [from.id, id]] },
      })
      return id
    },
    copy: () => {
      const copyId = uuidv7()
      const name = t('frame.copyOf', { name: body.name }).slice(0, 80)
      const copied: FrameBody = { ...body, name, stage: 'idea' }
      copyMade.current = { fromId: frameId, id: copyId, body: copied }
      dispatch(
        changed({ draft: { frameId: copyId, basedOn: 0, body: copied }, body: copied, isContinued: false }),
      )
      return copyId
    },
  }
}
