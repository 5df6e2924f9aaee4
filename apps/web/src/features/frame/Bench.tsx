import type { FramePlan } from '@klados/core/plan'
import type { FrameBody, FrameDocument, Place } from '@klados/contract'
import { drawSite } from '@klados/core/drawing'
import type { DisplayList } from '@klados/core/drawing'
import type { Frame } from '@klados/core/frame'
import type { Point, ViewDirection } from '@klados/core/geometry'
import { useMemo, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { useGardenQuery } from '../../data/api.ts'
import { useCatalogue } from '../../data/catalogue.ts'
import { changed, redone, undone } from '../../data/drafts.ts'
import type { FrameDraft } from '../../data/drafts.ts'
import { useCanWrite } from '../../data/garden-access.ts'
import { useAppDispatch } from '../../data/store.ts'
import { Elevation } from '../../elevation/Elevation.tsx'
import type { Hit } from '../../elevation/Elevation.tsx'
import { PhotoUnderlay } from '../../elevation/PhotoUnderlay.tsx'
import type { View } from '../../elevation/view.ts'
import { DimensionShape, Marks } from '../../elevation/marks.tsx'
import { drawLaid, layOut } from '../../plan/lay-out.ts'
import { usePlan } from '../../plan/use-plan.ts'
import { Message } from '../../ui/Message.tsx'
import { Choice, Pick } from '../../ui/Choice.tsx'
import { Slip } from '../../ui/Slip.tsx'
import { useUnits } from '../../ui/units.tsx'
import { findingWords, problemWords } from '../../plan/words.ts'
import type { Change } from './change.ts'
import { Consequences } from './Consequences.tsx'
import { Fit } from './Fit.tsx'
import { movedNode } from './free-nodes.ts'
import { newNodeId } from './new-part.ts'
import { useRecorder } from '../../data/use-recorder.ts'
import { useUnsettled } from '../../data/unsettled.ts'
import { UnsettledTies } from '../../ties/UnsettledTies.tsx'
import { useLastingIds } from '../../plan/lasting-ids.ts'
import { Inputs } from './Inputs.tsx'
import { Saving } from './Saving.tsx'
import { stepBy } from './Stringing.tsx'
import type { Step } from './Stringing.tsx'

interface Sibling {
  readonly id: string
  readonly name: string
  readonly body: FrameBody
}

interface BenchProps {
  readonly gardenId: string
  readonly place: Place
  readonly frameId: string
  readonly stored: FrameDocument | undefined
  readonly draft: FrameDraft | undefined
  readonly siblings: readonly Sibling[]
}

/** Keystrokes in one field, or one drag, within this time of each other are one step of undo. */
const SAME_STEP_MS = 1500
const STEP_M = { metric: 0.01, imperial: 0.0127 } as const
const VIEWS = ['elevation', 'side', 'plan'] as const

/**
 * The frame bench: measured inputs, the elevation that follows every keystroke, and the slip of consequences.
 */
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
  const [step, setStep] = useState<Step | null>(null)
  const [chosenView, setView] = useState<ViewDirection>('elevation')
  const lastChange = useRef({ what: '', time: 0 })
  const plan = usePlan(gardenId, frameId, place.body, design)
  // While a measure is impossible the last possible drawing stays in sight, pale, so that nothing jumps away.
  const [lastFrame, setLastFrame] = useState<Frame | null>(plan.frame)
  if (plan.frame && plan.frame !== lastFrame) setLastFrame(plan.frame)
  const frame = plan.frame ?? lastFrame
  const view = frame?.hasDepth ? chosenView : 'elevation'
  const list = useBenchList(gardenId, place, frame, view)
  const recorder = useRecorder()
  const unsettled = useUnsettled(gardenId).filter((one) => one.tie.support?.frameId === frameId)
  const others = useSiblingMarks(gardenId, place, siblings, frameId)

  const withIds = useLastingIds(gardenId, place.body, stored, draft)
  const changeBody = (what: string, next: FrameBody) => {
    const now = Date.now()
    const isContinued = lastChange.current.what === what && now - lastChange.current.time < SAME_STEP_MS
    lastChange.current = { what, time: now }
    const start = { frameId, basedOn: stored?.version ?? 0, body }
    const named = { ...next, design: withIds(next.design) }
    dispatch(changed({ draft: draft ?? start, body: named, isContinued }))
  }
  const change: Change = (what, part) => changeBody(what, { ...body, design: { ...design, ...part } })
  const moveNode = (id: string, at: Point) => {
    if (!canWrite || view !== 'elevation') return
    const { widthM, firstForkM, usableHeightM } = place.body
    const hold = (value: number, most: number) => Math.round(Math.min(most, Math.max(0, value)) * 1000) / 1000
    const to = { xM: hold(at.xM, widthM), yM: hold(at.yM, firstForkM + usableHeightM) }
    const byHand = design.pattern.kind === 'free' && design.pattern.nodes.find((node) => node.id === id)
    if (design.pattern.kind === 'free' && byHand)
      change(`drag ${id}`, { pattern: movedNode(design.pattern, byHand.id, to) })
    else change(`drag ${id}`, { dragged: { ...design.dragged, [id]: to } })
  }
  const putBack = (id: string) => {
    const { [id]: _, ...dragged } = design.dragged
    change(`put back ${id}`, { dragged })
  }
  const stepNode = (by: number) => {
    if (!frame) return
    const order = frame.nodes.filter((node) => node.number > 0).sort((a, b) => a.number - b.number)
    if (order.length === 0) return
    const at = order.findIndex((node) => node.id === nodeId)
    setNodeId(order[(at + by + order.length) % order.length]!.id)
  }
  const press = (at: Point, hit: Hit | null) => {
    if (hit?.kind === 'node') return setNodeId(hit.id)
    // On a frame drawn by hand a click beside all nodes puts a new one there, wired to the chosen one.
    if (design.pattern.kind !== 'free' || !canWrite || nodeId === null) return setNodeId(null)
    const from = design.pattern.nodes.find((one) => one.id === nodeId)
    if (!from) return setNodeId(null)
    const id = newNodeId()
    const round = (m: number) => Math.round(Math.max(0, m) * 1000) / 1000
    const node = { id, xM: Math.min(place.body.widthM, round(at.xM)), yM: round(at.yM), isStart: false }
    change('add', {
      pattern: {
        ...design.pattern,
        nodes: [...design.pattern.nodes, node],
        runs: [...design.pattern.runs, [from.id, id]],
      },
    })
    setNodeId(id)
  }
  const key = (event: React.KeyboardEvent): boolean => {
    if (event.key === 'n' || event.key === 'p') {
      stepNode(event.key === 'n' ? 1 : -1)
      return true
    }
    if (event.key === '.' || event.key === ',') {
      setStep(stepBy(plan, step, event.key === '.' ? 1 : -1))
      return true
    }
    if (event.key === 'Escape') {
      setNodeId(null)
      setStep(null)
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
    const stepM = STEP_M[units.system]
    moveNode(node.id, { xM: node.at.xM + dx * stepM, yM: node.at.yM + dy * stepM })
    return true
  }
  const copy = () => {
    const copyId = uuidv7()
    const copied: FrameBody = { ...body, name: t('frame.copyOf', { name: body.name }).slice(0, 80) }
    dispatch(
      changed({ draft: { frameId: copyId, basedOn: 0, body: copied }, body: copied, isContinued: false }),
    )
    void navigate(`/g/${gardenId}/places/${place.id}/frame/${copyId}`)
  }
  const kindName = t(`frame.${design.pattern.kind}`)
  const base = `/g/${gardenId}/places/${place.id}`
  return (
    <div className="grid min-h-0 flex-1 gap-6 lg:grid-cols-[minmax(0,1fr)_340px]">
      <section className="flex min-w-0 flex-col gap-2">
        <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <h1>{place.body.name}</h1>
          {siblings.length > 1 && (
            <div className="w-48">
              <Pick
                label={t('frame.which')}
                value={frameId}
                options={siblings.map((s) => ({ value: s.id, label: s.name }))}
                onChange={(id) => void navigate(`${base}/frame/${id}`)}
              />
            </div>
          )}
          <p className="min-w-52 flex-1 text-slate">
            {kindName}, {units.length(place.body.widthM)} × {units.length(place.body.usableHeightM)}.{' '}
            <Link to={`${base}/measures`}>{t('places.measure')}</Link>
            {siblings.length > 1 && (
              <>
                {' '}
                <Link to={`${base}/variants`}>{t('frame.compare')}</Link>
              </>
            )}
          </p>
          {canWrite && (
            <div className="flex flex-wrap gap-2">
              <button
                type="button"
                className="btn"
                disabled={!draft?.past.length}
                onClick={() => dispatch(undone(frameId))}
              >
                {t('frame.undo')}
              </button>
              <button
                type="button"
                className="btn"
                disabled={!draft?.future.length}
                onClick={() => dispatch(redone(frameId))}
              >
                {t('frame.redo')}
              </button>
              <button type="button" className="btn btn-plain px-1" onClick={copy}>
                {t('frame.variant')}
              </button>
              <Link className="btn btn-plain px-1" to={`${base}/frame/new`}>
                {t('frame.another')}
              </Link>
            </div>
          )}
        </div>
        {frame?.hasDepth && (
          <Choice
            isInline
            label={t('frame.view')}
            value={view}
            options={VIEWS.map((value) => ({ value, label: t(`frame.views.${value}`) }))}
            onChange={setView}
          />
        )}
        {/* It stays in sight while one types and steps; what takes the focus scrolls clear of it. */}
        <div className={`bg-plaster lg:sticky lg:top-0 lg:z-10 ${plan.frame ? '' : '[&>*]:opacity-45'}`}>
          <Elevation
            label={t('frame.drawing', {
              pattern: kindName,
              place: place.body.name,
              nodes: frame?.nodes.length ?? 0,
              runs: frame?.runs.length ?? 0,
            })}
            wall={place.body}
            surface={place.body.surface}
            list={list}
            from={view}
            chosenId={nodeId}
            showNumbers
            tapeAlong
            onPress={press}
            {...(canWrite && view === 'elevation'
              ? { onDrag: (at: Point, hit: Hit) => moveNode(hit.id, at) }
              : {})}
            onKey={key}
            underlay={(v) =>
              view === 'elevation' && (
                <>
                  {place.body.photo && (
                    <PhotoUnderlay gardenId={gardenId} photo={place.body.photo} view={v} />
                  )}
                  {others.length > 0 && (
                    <g className="draw-sibling" aria-hidden="true" pointerEvents="none">
                      <Marks list={others} view={v} movedText={() => ''} />
                    </g>
                  )}
                </>
              )
            }
            overlay={(v) =>
              frame &&
              view === 'elevation' && (
                <BenchOverlay view={v} place={place} frame={frame} plan={plan} nodeId={nodeId} step={step} />
              )
            }
          />
        </div>
        <Troubles plan={plan} />
        <UnsettledTies gardenId={gardenId} items={unsettled} canWrite={canWrite} onWrite={recorder.write} />
        {canWrite && (
          <Fit
            gardenId={gardenId}
            place={place}
            design={design}
            onTake={(pattern) => change('fit', { pattern, dragged: {} })}
          />
        )}
        <Inputs
          gardenId={gardenId}
          place={place.body}
          design={design}
          name={body.name}
          onName={(name) => changeBody('name', { ...body, name })}
          onChange={change}
          canWrite={canWrite}
          node={frame?.nodes.find((node) => node.id === nodeId && node.number > 0) ?? null}
          nodeId={nodeId}
          onNode={setNodeId}
          laid={frame?.nodes ?? []}
          onStep={stepNode}
          onMove={moveNode}
          onPutBack={putBack}
        />
      </section>
      <div className="flex flex-col gap-5">
        <Slip label={t('slip.label')}>
          <Saving
            gardenId={gardenId}
            place={place}
            frameId={frameId}
            stored={stored}
            draft={draft}
            body={body}
            plan={plan}
            currency={garden?.currency ?? 'EUR'}
            canWrite={canWrite}
          />
          <Consequences
            gardenId={gardenId}
            place={place}
            frameId={frameId}
            design={design}
            plan={plan}
            currency={garden?.currency ?? 'EUR'}
            nodeId={nodeId}
            onNode={setNodeId}
            step={step}
            onStep={setStep}
          />
        </Slip>
      </div>
    </div>
  )
}

function useBenchList(gardenId: string, place: Place, frame: Frame | null, view: ViewDirection): DisplayList {
  const catalogue = useCatalogue(gardenId)
  return useMemo(() => {
    const site = view === 'elevation' ? drawSite(place.body, place.body.surface) : []
    return [...site, ...(frame ? drawLaid(frame, catalogue, view) : [])]
  }, [place, frame, view, catalogue])
}

/** The wires and posts of the other frames here, faintly: what a later tier has to fit. */
function useSiblingMarks(
  gardenId: string,
  place: Place,
  siblings: readonly Sibling[],
  frameId: string,
): DisplayList {
  const catalogue = useCatalogue(gardenId)
  return useMemo(
    () =>
      siblings
        .filter((sibling) => sibling.id !== frameId)
        .flatMap((sibling) => {
          const frame = layOut(place.body, sibling.body.design, catalogue)
          return frame
            ? drawLaid(frame, catalogue).filter((mark) => mark.kind === 'line' || mark.kind === 'member')
            : []
        }),
    [siblings, frameId, place, catalogue],
  )
}

function Troubles({ plan }: { plan: FramePlan }) {
  const { t } = useTranslation()
  const units = useUnits()
  const findings = plan.frame?.findings ?? []
  if (plan.problems.length === 0 && findings.length === 0) return null
  return (
    <div className="flex flex-col gap-1">
      {plan.problems.map((problem, i) => (
        <Message key={`${problem.code} ${i}`} tone="limit">
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
  readonly step: Step | null
}

/**
 * What was asked for: the chosen node's distances from the datum, and the chosen piece of wire as far as it
 * is strung.
 */
function BenchOverlay({ view, place, frame, plan, nodeId, step }: OverlayProps) {
  const units = useUnits()
  const node = frame.nodes.find((one) => one.id === nodeId && one.number > 0)
  const way = step === null ? undefined : plan.wires[step.wire]?.stringing?.pieces[step.piece]
  const datumM = place.body.viewingEnd === 'left' ? 0 : place.body.widthM
  const pointAt = (index: number) =>
    `${view.x(frame.nodes[index]!.at.xM)},${view.y(frame.nodes[index]!.at.yM)}`
  const last = way && step ? frame.nodes[way.nodes[step.runs]!] : undefined
  return (
    <>
      {way && step && (
        <polyline
          className="draw-wire-chosen"
          points={way.nodes
            .slice(0, step.runs + 1)
            .map(pointAt)
            .join(' ')}
        />
      )}
      {last && <circle className="draw-chosen-halo" cx={view.x(last.at.xM)} cy={view.y(last.at.yM)} r={8} />}
      {node && (
        <>
          <DimensionShape
            view={view}
            from={{ xM: datumM, yM: node.at.yM }}
            to={node.at}
            text={units.length(Math.abs(node.at.xM - datumM), 'short')}
          />
          <DimensionShape
            view={view}
            from={{ xM: node.at.xM, yM: 0 }}
            to={node.at}
            text={units.length(node.at.yM, 'short')}
          />
        </>
      )}
    </>
  )
}
