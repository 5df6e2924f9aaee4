import { SkipLinks } from '../../ui/SkipLinks.tsx'
import { JUMPS } from './jumps.ts'
import type { FramePlan } from '@klados/core/plan'
import type { FrameBody, FrameDocument, Place } from '@klados/contract'
import type { FrameNode } from '@klados/core/frame'
import type { Point, ViewDirection } from '@klados/core/geometry'
import { useDeferredValue, useMemo, useState } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useGardenQuery } from '../../data/api.ts'
import type { FrameDraft } from '../../data/drafts.ts'
import { useCanWrite } from '../../data/garden-access.ts'
import { useUnsettled } from '../../data/unsettled.ts'
import { useRecorder } from '../../data/use-recorder.ts'
import type { Hit } from '../../elevation/Elevation.tsx'
import { useLastingIds, useSavedFrame } from '../../plan/lasting-ids.ts'
import { usePlan } from '../../plan/use-plan.ts'
import type { BenchPlan } from '../../plan/use-plan.ts'
import { findingWords, problemWords } from '../../plan/words.ts'
import { UnsettledTies } from '../../ties/UnsettledTies.tsx'
import { Choice } from '../../ui/Choice.tsx'
import { Message } from '../../ui/Message.tsx'
import { Slip } from '../../ui/Slip.tsx'
import { useUnits } from '../../ui/units.tsx'
import { useLasting } from '../../ui/use-lasting.ts'
import { benchKeys, nodeBeside } from './bench-keys.ts'
import { BayDrawing } from '../../plan/BayDrawing.tsx'
import { BenchDrawing } from './BenchDrawing.tsx'
import type { Sibling } from './BenchDrawing.tsx'
import { BenchHead } from './BenchHead.tsx'
import { Consequences } from './Consequences.tsx'
import { Fit } from './Fit.tsx'
import { Inputs } from './Inputs.tsx'
import { Saving } from './Saving.tsx'
import type { Step } from './Stringing.tsx'
import { VerdictLine } from './VerdictLine.tsx'
import { useFrameEdits } from './use-frame-edits.ts'

interface BenchProps {
  readonly gardenId: string
  readonly place: Place
  readonly frameId: string
  readonly stored: FrameDocument | undefined
  readonly draft: FrameDraft | undefined
  readonly siblings: readonly Sibling[]
}

const VIEWS = ['elevation', 'side', 'plan'] as const

/**
 * The frame bench: measured inputs, the elevation that follows every keystroke, and the slip of consequences.
 */
export function Bench({ gardenId, place, frameId, stored, draft, siblings }: BenchProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const canWrite = useCanWrite(gardenId)
  const { data: garden } = useGardenQuery(gardenId)
  const body = draft?.body ?? stored!.body
  const { design } = body
  const [nodeId, onNode] = useState<string | null>(null)
  const [step, onStep] = useState<Step | null>(null)
  const [chosenView, setView] = useState<ViewDirection>('elevation')
  const plan = usePlan(gardenId, frameId, place.body, design)
  // While a measure is impossible the last possible drawing stays in sight, pale, so that nothing jumps away.
  // So do its consequences, marked as what they are.
  const [lastGood, setLastGood] = useState<BenchPlan | null>(null)
  if (plan.frame && plan !== lastGood) setLastGood(plan)
  const frame = plan.frame ?? lastGood?.frame ?? null
  // A key shows in its field and on the drawing at once; what follows from it, a breath later and in slices.
  const shown = useMemo(
    () => ({ plan: plan.frame ? plan : (lastGood ?? plan), design }),
    [plan, lastGood, design],
  )
  const settled = useDeferredValue(shown)
  const view = frame?.hasDepth ? chosenView : 'elevation'
  const recorder = useRecorder()
  const unsettled = useUnsettled(gardenId).filter((one) => one.tie.support?.frameId === frameId)
  const before = useSavedFrame(gardenId, place.body, stored)
  const saved = { frame: before, version: stored?.version ?? 0 }
  const withIds = useLastingIds(gardenId, place.body, saved, draft)
  // Somebody else's, where it is newer than what this draft began from: both lie on the drawing till one is chosen.
  const theirs = draft && stored && draft.basedOn > 0 && stored.version > draft.basedOn ? stored : null
  const isTheirsDrawn = useSavedFrame(gardenId, place.body, theirs ?? undefined) !== null
  const edits = useFrameEdits({ place, frameId, stored, draft, body, withIds })
  const takeRemedy = useLasting((next: FrameBody['design']) => edits.change('remedy', next))
  const chosen = { nodeId, onNode, step, onStep }
  const canDrag = canWrite && view === 'elevation'
  const press = (at: Point, hit: Hit | null) => {
    if (hit?.kind === 'node') return onNode(hit.id)
    // On a frame drawn by hand a click beside all nodes puts a new one there, wired to the chosen one.
    onNode(canWrite && nodeId !== null ? edits.addNode(at, nodeId) : null)
  }
  const kindName = t(`frame.${design.pattern.kind}`)
  const currency = garden?.currency ?? 'EUR'
  return (
    <div className="grid min-h-0 flex-1 gap-6 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_340px]">
      <section className="flex min-w-0 flex-col gap-2">
        <SkipLinks
          to={(['drawing', 'figures', 'checks'] as const).map((part) => ({
            id: JUMPS[part],
            label: t(`skip.${part}`),
          }))}
        />
        <BenchHead
          base={`/g/${gardenId}/places/${place.id}`}
          place={place}
          frameId={frameId}
          kindName={kindName}
          draft={draft}
          siblings={siblings}
          canWrite={canWrite}
          onCopy={edits.copy}
        />
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
        <div className="sticky top-0 z-10 bg-plaster max-sm:[--drawing-most:30vh]">
          <div id={JUMPS.drawing} tabIndex={-1} className={`outline-none ${plan.frame ? '' : 'opacity-45'}`}>
            <BenchDrawing
              gardenId={gardenId}
              place={place}
              frameId={frameId}
              kindName={kindName}
              plan={plan}
              frame={frame}
              view={view}
              siblings={siblings}
              theirs={theirs?.body.design ?? null}
              chosen={chosen}
              onPress={press}
              onDrag={canDrag ? (at, hit) => edits.moveNode(hit.id, at) : null}
              onKey={benchKeys(plan, frame, chosen, canDrag ? edits : null, units.system)}
            />
          </div>
          <Problems plan={plan} />
          <ChosenNode place={place} node={frame?.nodes.find((one) => one.id === nodeId) ?? null} />
          {plan.frame && (
            <VerdictLine
              gardenId={gardenId}
              place={place}
              frameId={frameId}
              plan={settled.plan}
              design={settled.design}
              stage={body.stage}
              isSaved={stored !== undefined && draft === undefined}
              canWrite={canWrite}
              currency={currency}
            />
          )}
        </div>
        {view === 'elevation' && <BayDrawing gardenId={gardenId} place={place} plan={settled.plan} />}
        <Findings plan={plan} />
        <UnsettledTies gardenId={gardenId} items={unsettled} canWrite={canWrite} onWrite={recorder.write} />
        {canWrite && (
          <Fit
            gardenId={gardenId}
            place={place}
            design={design}
            onTake={(pattern) => edits.change('fit', { pattern, dragged: {} })}
          />
        )}
        <Inputs
          gardenId={gardenId}
          place={place.body}
          design={design}
          name={body.name}
          onName={edits.rename}
          onChange={edits.change}
          canWrite={canWrite}
          node={frame?.nodes.find((node) => node.id === nodeId && node.number > 0) ?? null}
          nodeId={nodeId}
          onNode={onNode}
          laid={frame?.nodes ?? []}
          onStep={(by) => frame && onNode(nodeBeside(frame, nodeId, by))}
          onMove={(id, at) => canWrite && edits.moveNode(id, at)}
          onPutBack={edits.putBack}
          onSpots={(frame?.findings ?? []).filter(({ code }) => code !== 'frame/no-line-near').length}
          stage={body.stage}
          onStage={edits.setStage}
          currency={currency}
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
            currency={currency}
            canWrite={canWrite}
            before={before}
            withIds={withIds}
            theirs={theirs}
            isTheirsDrawn={isTheirsDrawn}
            onCopy={edits.copy}
          />
          {!plan.frame && lastGood && (
            <p className="font-semibold text-ochre" role="status">
              {t('slip.lastGood')}
            </p>
          )}
          <div className={`flex flex-col gap-5 ${plan.frame ? '' : 'opacity-60'}`}>
            <Consequences
              gardenId={gardenId}
              place={place}
              frameId={frameId}
              {...settled}
              stage={body.stage}
              currency={currency}
              onTake={canWrite && plan.frame ? takeRemedy : null}
              {...chosen}
            />
          </div>
        </Slip>
      </div>
    </div>
  )
}

/** For those who hear the page: the node that keys have come to, and where it is. */
function ChosenNode({ place, node }: { place: Place; node: FrameNode | null }) {
  const { t } = useTranslation()
  const units = useUnits()
  const { viewingEnd, widthM } = place.body
  return (
    <p role="status" className="sr-only">
      {node &&
        node.number > 0 &&
        t('frame.nodeIs', {
          n: node.number,
          end: t(`place.${viewingEnd}`),
          along: units.length(viewingEnd === 'left' ? node.at.xM : widthM - node.at.xM, 'short'),
          height: units.length(node.at.yM, 'short'),
        })}
    </p>
  )
}

/** More at once would cover what one types. */
const MOST_PROBLEMS = 3

/** Why the measures do not fit: told where one looks, however far down one types. */
function Problems({ plan }: { plan: FramePlan }) {
  const { t } = useTranslation()
  const units = useUnits()
  if (plan.problems.length === 0) return null
  return (
    <div className="flex flex-col gap-1 pb-1">
      {plan.problems.slice(0, MOST_PROBLEMS).map((problem, i) => (
        <Message key={`${problem.code} ${i}`} tone="limit">
          {problemWords(t, units, problem)}
        </Message>
      ))}
    </div>
  )
}

function Findings({ plan }: { plan: FramePlan }) {
  const { t } = useTranslation()
  const units = useUnits()
  const findings = plan.frame?.findings ?? []
  if (findings.length === 0) return null
  return (
    <div className="flex flex-col gap-1">
      {findings.slice(0, 4).map((finding) => (
        <Message key={finding.nodeId} tone="due">
          {findingWords(t, units, finding)}
        </Message>
      ))}
    </div>
  )
}
