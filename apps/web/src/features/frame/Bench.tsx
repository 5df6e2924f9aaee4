import type { FrameBody, FrameDocument, Place } from '@klados/contract'
import { drawFrame, drawWall } from '@klados/core/drawing'
import type { Frame } from '@klados/core/frame'
import type { Point } from '@klados/core/geometry'
import { planFrame } from '@klados/core/materials'
import type { FramePlan } from '@klados/core/materials'
import { useMemo, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate } from 'react-router'
import { useGardenQuery } from '../../data/api.ts'
import { changed, redone, undone } from '../../data/drafts.ts'
import type { FrameDraft } from '../../data/drafts.ts'
import { useCanWrite } from '../../data/garden-access.ts'
import { useAppDispatch } from '../../data/store.ts'
import { Elevation } from '../../elevation/Elevation.tsx'
import type { View } from '../../elevation/view.ts'
import { DimensionShape } from '../../elevation/marks.tsx'
import { Message } from '../../ui/Message.tsx'
import { Pick } from '../../ui/Choice.tsx'
import { Slip } from '../../ui/Slip.tsx'
import { useUnits } from '../../ui/units.tsx'
import { findingWords, problemWords } from '../../plan/words.ts'
import type { Change } from './change.ts'
import { Consequences } from './Consequences.tsx'
import { Inputs } from './Inputs.tsx'
import { Saving } from './Saving.tsx'

interface BenchProps {
  readonly gardenId: string
  readonly place: Place
  readonly frameId: string
  readonly stored: FrameDocument | undefined
  readonly draft: FrameDraft | undefined
  readonly siblings: readonly { readonly id: string; readonly name: string }[]
}

/** Keystrokes in one field, or one drag, within this time of each other are one step of undo. */
const SAME_STEP_MS = 1500
const STEP_M = { metric: 0.01, imperial: 0.0127 } as const

/** The frame bench: measured inputs, the elevation that follows every keystroke, and the slip of consequences. */
export function Bench({ gardenId, place, frameId, stored, draft, siblings }: BenchProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const canWrite = useCanWrite(gardenId)
  const { data: garden } = useGardenQuery(gardenId)
  const body = draft?.body ?? stored!.body
  const { design } = body
  const [nodeId, setNodeId] = useState<string | null>(null)
  const [piece, setPiece] = useState<number | null>(null)
  const lastChange = useRef({ what: '', time: 0 })
  const plan = useMemo(() => planFrame(place.body, place.body.surface, design), [place, design])
  // While a measure is impossible the last possible drawing stays in sight, pale, so that nothing jumps away.
  const [lastFrame, setLastFrame] = useState<Frame | null>(plan.frame)
  if (plan.frame && plan.frame !== lastFrame) setLastFrame(plan.frame)
  const frame = plan.frame ?? lastFrame
  const list = useMemo(() => [...drawWall(place.body), ...(frame ? drawFrame(frame) : [])], [place, frame])

  const changeBody = (what: string, next: FrameBody) => {
    const now = Date.now()
    const isContinued = lastChange.current.what === what && now - lastChange.current.time < SAME_STEP_MS
    lastChange.current = { what, time: now }
    const start = { frameId, basedOn: stored?.version ?? 0, body }
    dispatch(changed({ draft: draft ?? start, body: next, isContinued }))
  }
  const change: Change = (what, part) => changeBody(what, { ...body, design: { ...design, ...part } })
  const moveNode = (id: string, at: Point) => {
    if (!canWrite) return
    const { widthM, firstForkM, usableHeightM } = place.body
    const hold = (value: number, most: number) => Math.round(Math.min(most, Math.max(0, value)) * 1000) / 1000
    const to = { xM: hold(at.xM, widthM), yM: hold(at.yM, firstForkM + usableHeightM) }
    change(`drag ${id}`, { dragged: { ...design.dragged, [id]: to } })
  }
  const putBack = (id: string) => {
    const { [id]: _, ...dragged } = design.dragged
    change(`put back ${id}`, { dragged })
  }
  const stepNode = (by: number) => {
    if (!frame) return
    const order = [...frame.nodes].sort((a, b) => a.number - b.number)
    const at = order.findIndex((node) => node.id === nodeId)
    setNodeId(order[(at + by + order.length) % order.length]!.id)
  }
  const key = (event: React.KeyboardEvent): boolean => {
    if (event.key === 'n' || event.key === 'p') {
      stepNode(event.key === 'n' ? 1 : -1)
      return true
    }
    const node = frame?.nodes.find((one) => one.id === nodeId)
    if (!node) return false
    if (event.key === 'Delete' || event.key === 'Backspace') {
      putBack(node.id)
      return true
    }
    const [dx, dy] =
      { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key] ?? []
    if (!event.shiftKey || dx === undefined || dy === undefined) return false
    const step = STEP_M[units.system]
    moveNode(node.id, { xM: node.at.xM + dx * step, yM: node.at.yM + dy * step })
    return true
  }
  const patternName = t(`frame.${design.pattern.kind}`)
  return (
    <div className="grid min-h-0 flex-1 gap-6 lg:grid-cols-[minmax(0,1fr)_340px]">
      <section className="flex min-w-0 flex-col gap-2">
        <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <h1>{place.body.name}</h1>
          {siblings.length > 1 && (
            <div className="w-48">
              <Pick label={t('frame.which')} value={frameId} options={siblings.map((s) => ({ value: s.id, label: s.name }))} onChange={(id) => void navigate(`/g/${gardenId}/places/${place.id}/frame/${id}`)} />
            </div>
          )}
          <p className="flex-1 text-slate">
            {patternName}, {units.length(place.body.widthM)} × {units.length(place.body.usableHeightM)}.{' '}
            <Link to={`/g/${gardenId}/places/${place.id}/measures`}>{t('places.measure')}</Link>
          </p>
          {canWrite && (
            <div className="flex gap-2">
              <button type="button" className="btn" disabled={!draft?.past.length} onClick={() => dispatch(undone(frameId))}>{t('frame.undo')}</button>
              <button type="button" className="btn" disabled={!draft?.future.length} onClick={() => dispatch(redone(frameId))}>{t('frame.redo')}</button>
              <Link className="btn btn-plain" to={`/g/${gardenId}/places/${place.id}/frame/new`}>{t('frame.another')}</Link>
            </div>
          )}
        </div>
        <div className={plan.frame ? '' : 'opacity-45'}>
          <Elevation
            label={t('frame.drawing', { pattern: patternName, place: place.body.name, nodes: frame?.nodes.length ?? 0, runs: frame?.runs.length ?? 0 })}
            wall={place.body}
            surface={place.body.surface}
            list={list}
            chosenId={nodeId}
            showNumbers
            tapeAlong
            onPress={(_, hit) => setNodeId(hit?.kind === 'node' ? hit.id : null)}
            {...(canWrite ? { onDrag: (at: Point, hit: { id: string }) => moveNode(hit.id, at) } : {})}
            onKey={key}
            overlay={(view) => frame && <BenchOverlay view={view} place={place} frame={frame} plan={plan} nodeId={nodeId} piece={piece} />}
          />
        </div>
        <Troubles plan={plan} />
        <Inputs
          place={place.body}
          design={design}
          name={body.name}
          onName={(name) => changeBody('name', { ...body, name })}
          onChange={change}
          canWrite={canWrite}
          node={frame?.nodes.find((node) => node.id === nodeId) ?? null}
          onStep={stepNode}
          onMove={moveNode}
          onPutBack={putBack}
        />
      </section>
      <div className="flex flex-col gap-5">
        <Slip label={t('slip.label')}>
          <Saving gardenId={gardenId} place={place} frameId={frameId} stored={stored} draft={draft} body={body} plan={plan} currency={garden?.currency ?? 'EUR'} canWrite={canWrite} />
          <Consequences gardenId={gardenId} place={place} design={design} plan={plan} currency={garden?.currency ?? 'EUR'} nodeId={nodeId} onNode={setNodeId} piece={piece} onPiece={setPiece} />
        </Slip>
      </div>
    </div>
  ) // prettier-ignore
}

function Troubles({ plan }: { plan: FramePlan }) {
  const { t } = useTranslation()
  const units = useUnits()
  const findings = plan.frame?.findings ?? []
  if (plan.problems.length === 0 && findings.length === 0) return null
  return (
    <div className="flex flex-col gap-1">
      {plan.problems.map((problem) => (
        <Message key={problem.code} tone="limit">
          {problemWords(t, units, problem)}
        </Message>
      ))}
      {findings.slice(0, 4).map((finding) => (
        <Message key={finding.nodeId} tone="due">
          {findingWords(t, units, finding)}
        </Message>
      ))}
    </div>
  )
}

interface OverlayProps {
  readonly view: View
  readonly place: Place
  readonly frame: Frame
  readonly plan: FramePlan
  readonly nodeId: string | null
  readonly piece: number | null
}

/** What was asked for: the chosen node's distances from the datum, and the chosen piece of wire along its way. */
function BenchOverlay({ view, place, frame, plan, nodeId, piece }: OverlayProps) {
  const units = useUnits()
  const node = frame.nodes.find((one) => one.id === nodeId)
  const way = piece === null ? undefined : plan.stringing?.pieces[piece]
  const datumM = place.body.viewingEnd === 'left' ? 0 : place.body.widthM
  return (
    <>
      {way && (
        <polyline
          className="draw-wire-chosen"
          points={way.nodes.map((i) => `${view.x(frame.nodes[i]!.at.xM)},${view.y(frame.nodes[i]!.at.yM)}`).join(' ')}
        />
      )}
      {node && (
        <>
          <DimensionShape view={view} from={{ xM: datumM, yM: node.at.yM }} to={node.at} text={units.length(Math.abs(node.at.xM - datumM), 'short')} />
          <DimensionShape view={view} from={{ xM: node.at.xM, yM: 0 }} to={node.at} text={units.length(node.at.yM, 'short')} />
        </>
      )}
    </>
  ) // prettier-ignore
}
