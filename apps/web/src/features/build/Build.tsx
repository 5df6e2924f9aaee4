import { ScreenTitle } from '../../ui/ScreenTitle.tsx'
import type { FrameDocument, Place } from '@klados/contract'
import type { Catalogue } from '@klados/core/catalogue'
import type { FramePlan } from '@klados/core/plan'
import { drawSite } from '@klados/core/drawing'
import type { MarkOutRow } from '@klados/core/frame'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { usePlaces, useFrames } from '../../data/documents.ts'
import { useCatalogue } from '../../data/catalogue.ts'
import { todayHere } from '../../data/dates.ts'
import { useCanWrite } from '../../data/garden-access.ts'
import { useRecorder } from '../../data/use-recorder.ts'
import { StillElevation } from '../../elevation/StillElevation.tsx'
import { drawLaid } from '../../plan/lay-out.ts'
import { useCondition, usePlan } from '../../plan/use-plan.ts'
import { onePress } from '../../ui/one-press.ts'
import { NotHere } from '../../ui/NotHere.tsx'
import { Choice } from '../../ui/Choice.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { Loading } from '../../ui/Message.tsx'
import { alongStyle, offText } from '../../plan/words.ts'
import { useUnits } from '../../ui/units.tsx'
import { DriveForm } from './DriveForm.tsx'
import { Tensions } from './Tensions.tsx'
import type { NewEntry } from '../../data/record.ts'
import { useUndoKeys } from '../../ui/use-undo-keys.ts'

/**
 * On site, mark by mark: what is next, where it goes, and how it really went; then the wires and their pull.
 */
export function Build() {
  const { gardenId, placeId, frameId } = useParams() as { gardenId: string; placeId: string; frameId: string }
  const { t } = useTranslation()
  const places = usePlaces(gardenId)
  const frames = useFrames(gardenId)
  if (!places || !frames) return <Loading>{t('app.loading')}</Loading>
  const place = places.find((one) => one.id === placeId)
  const frame = frames.find((one) => one.id === frameId)
  if (!place || !frame) return <NotHere gardenId={gardenId} />
  return <Site gardenId={gardenId} place={place} document={frame} />
}

interface SiteProps {
  readonly gardenId: string
  readonly place: Place
  readonly document: FrameDocument
}

function Site({ gardenId, place, document }: SiteProps) {
  const { t } = useTranslation()
  const plan = usePlan(gardenId, document.id, place.body, document.body.design)
  const catalogue = useCatalogue(gardenId)
  const condition = useCondition(document.id)
  const canWrite = useCanWrite(gardenId)
  const recorder = useRecorder()
  useUndoKeys(recorder.last ? recorder.undo : null)
  const [tab, setTab] = useState<'marks' | 'wires'>('marks')
  // A hoop is set with both its feet at once.
  const rows = plan.markOut?.rows.filter((row) => !row.isSecondFoot) ?? []
  const isDone = (row: MarkOutRow) =>
    row.what === 'node'
      ? condition.fixings.has(row.partId)
      : row.what === 'post'
        ? condition.posts.has(row.partId)
        : condition.drives.has(row.partId)
  const [chosen, setChosen] = useState<string | null>(null)
  const current = rows.find((row) => row.partId === chosen) ?? rows.find((row) => !isDone(row)) ?? null
  const done = rows.filter(isDone).length
  const write = (what: string, entry: Pick<NewEntry, 'kind' | 'body'>) => {
    recorder.write(what, [{ ...entry, placeId: place.id, plantId: null, at: todayHere() } as NewEntry])
    setChosen(null)
  }
  if (!plan.frame)
    return <NotHere gardenId={gardenId} to={`/g/${gardenId}/places/${place.id}/frame/${document.id}`} />
  const list = [...drawSite(place.body, place.body.surface), ...drawLaid(plan.frame, catalogue)]
  return (
    <div className="mx-auto flex w-full max-w-2xl flex-col gap-3">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <ScreenTitle>{t('build.title', { frame: document.body.name, place: place.body.name })}</ScreenTitle>
        <Link to={`/g/${gardenId}/places/${place.id}/frame/${document.id}`}>{t('sheet.back')}</Link>
      </div>
      <StillElevation
        label={t('sheet.elevation')}
        wall={place.body}
        surface={place.body.surface}
        list={list}
        chosenId={current?.partId ?? null}
        maxHeight="190px"
      />
      {plan.lines.length > 0 && (
        <Choice
          label={t('build.what')}
          value={tab}
          options={[
            { value: 'marks', label: t('build.marks', { done, of: rows.length }) },
            { value: 'wires', label: t('build.wires') },
          ]}
          onChange={setTab}
        />
      )}
      {tab === 'wires' && plan.lines.length > 0 ? (
        <Tensions
          gardenId={gardenId}
          place={place}
          frameId={document.id}
          plan={plan}
          pattern={document.body.design.pattern}
          condition={condition}
          canWrite={canWrite}
          recorder={recorder}
        />
      ) : (
        <>
          <p role="status" className="text-slate">
            {done === rows.length ? t('build.allDone') : t('build.progress', { done, of: rows.length })}
          </p>
          {current && canWrite && (
            <MarkCard
              key={current.partId}
              place={place}
              frameId={document.id}
              plan={plan}
              catalogue={catalogue}
              row={current}
              wasDone={isDone(current)}
              onWrite={write}
            />
          )}
          {recorder.last && (
            <button type="button" className="btn min-h-12 self-start" onClick={recorder.undo}>
              {t('wood.undo', { what: recorder.last.what })}
            </button>
          )}
          <ol className="grid grid-cols-[repeat(auto-fill,minmax(64px,1fr))] gap-2">
            {rows.map((row) => (
              <li key={`${row.what} ${row.partId}`}>
                <button
                  type="button"
                  className={`btn min-h-12 w-full flex-col !gap-0 ${isDone(row) ? 'btn-main' : ''} ${row === current ? 'outline outline-2 outline-offset-1 outline-[var(--verdigris)]' : ''}`}
                  aria-pressed={row === current}
                  onClick={() => setChosen(row.partId)}
                >
                  <span className="text-[0.9375rem]">{row.label}</span>
                  <span className="text-[0.71875rem] font-normal">
                    {t(isDone(row) ? 'build.isDone' : 'build.isOpen')}
                  </span>
                </button>
              </li>
            ))}
          </ol>
        </>
      )}
    </div>
  )
}

interface MarkCardProps {
  readonly place: Place
  readonly frameId: string
  readonly plan: FramePlan
  readonly catalogue: Catalogue
  readonly row: MarkOutRow
  readonly wasDone: boolean
  readonly onWrite: (what: string, entry: Pick<NewEntry, 'kind' | 'body'>) => void
}

/**
 * One mark, large enough to read at arm's length: where it goes, done in one tap, or where it went instead.
 */
function MarkCard({ place, frameId, plan, catalogue, row, wasDone, onWrite }: MarkCardProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const style = alongStyle(row, place.body.widthM)
  const [alongM, setAlongM] = useState(row.alongM)
  const [heightM, setHeightM] = useState(row.heightM)
  const [isElsewhere, setIsElsewhere] = useState(false)
  const toX = (m: number) => (place.body.viewingEnd === 'left' ? m : place.body.widthM - m)
  const what = t(`build.did.${row.what}`, { label: row.label })
  const write = (m: number, h: number) => {
    const at = { xM: toX(m), yM: h }
    if (row.what === 'node')
      onWrite(what, { kind: 'fixing.set', body: { v: 1, frameId, nodeId: row.partId, at } })
    else if (row.what === 'post')
      onWrite(what, { kind: 'post.placed', body: { v: 1, frameId, postId: row.partId, xM: at.xM } })
  }
  return (
    <section className="slip flex flex-col gap-3">
      <div className="flex items-baseline gap-4">
        <h2 className="text-[1.875rem]">{row.label}</h2>
        <p className="text-slate">
          {t(`build.${row.what}`)}
          {wasDone ? `, ${t('build.isDone')}` : ''}
        </p>
      </div>
      <dl className="grid grid-cols-2 gap-2 text-[1.375rem] font-bold">
        <div>
          <dt className="text-[0.8125rem] font-normal text-slate">
            {t('frame.nodeAlong', { end: t(`place.${place.body.viewingEnd}`) })}
          </dt>
          <dd>{offText(t, units, row.alongM, style, 'along')}</dd>
        </div>
        {row.what === 'node' && (
          <div>
            <dt className="text-[0.8125rem] font-normal text-slate">{t('frame.nodeHeight')}</dt>
            <dd>{units.length(row.heightM, 'short')}</dd>
          </div>
        )}
        {Math.abs(row.outM) > 1e-3 && (
          <div>
            <dt className="text-[0.8125rem] font-normal text-slate">{t('slip.back')}</dt>
            <dd>{units.length(row.outM, 'short')}</dd>
          </div>
        )}
      </dl>
      {row.movedM > 5e-4 && (
        <p className="text-ochre">{t('elevation.moved', { distance: units.length(row.movedM, 'short') })}</p>
      )}
      {row.what === 'anchor' ? (
        <DriveForm
          place={place}
          frameId={frameId}
          plan={plan}
          catalogue={catalogue}
          row={row}
          onWrite={(entry) => onWrite(what, entry)}
        />
      ) : (
        <>
          <button
            type="button"
            className="btn btn-main min-h-14 text-[1.0625rem]"
            onClick={onePress(() => write(row.alongM, row.heightM))}
          >
            {t(`build.asMarked.${row.what}`)}
          </button>
          {!isElsewhere && (
            <button type="button" className="btn min-h-12" onClick={() => setIsElsewhere(true)}>
              {t('build.elsewhere')}
            </button>
          )}
          {isElsewhere && (
            <div className="grid grid-cols-2 items-end gap-2">
              <LengthField
                label={t('frame.nodeAlong', { end: t(`place.${place.body.viewingEnd}`) })}
                style={style}
                minM={0}
                maxM={place.body.widthM}
                valueM={alongM}
                onChange={setAlongM}
              />
              {row.what === 'node' && (
                <LengthField
                  label={t('frame.nodeHeight')}
                  style="short"
                  minM={0}
                  maxM={50}
                  valueM={heightM}
                  onChange={setHeightM}
                />
              )}
              <button
                type="button"
                className="btn btn-main col-span-2 min-h-12"
                onClick={onePress(() => write(alongM, heightM))}
              >
                {t('build.setThere')}
              </button>
            </div>
          )}
        </>
      )}
    </section>
  )
}
