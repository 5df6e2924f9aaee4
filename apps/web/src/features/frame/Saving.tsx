import type { FrameBody, FrameDocument, Place } from '@klados/contract'
import type { FramePlan } from '@klados/core/plan'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useFrameRevisionsQuery } from '../../data/api.ts'
import { changed, dropped, rebased } from '../../data/drafts.ts'
import type { FrameDraft } from '../../data/drafts.ts'
import { formatDate } from '../../data/dates.ts'
import { refetchFrames, saveDocument } from '../../data/saves.ts'
import { useAppDispatch, useAppSelector } from '../../data/store.ts'
import { Field } from '../../ui/Field.tsx'
import { refusalWords } from '../../ui/refusal.ts'
import { Message } from '../../ui/Message.tsx'
import { Exports } from './Exports.tsx'

interface SavingProps {
  readonly gardenId: string
  readonly place: Place
  readonly frameId: string
  readonly stored: FrameDocument | undefined
  readonly draft: FrameDraft | undefined
  readonly body: FrameBody
  readonly plan: FramePlan
  readonly currency: string
  readonly canWrite: boolean
}

/** Keeping the frame: save with a note, see and bring back revisions, take it along on paper or as files. */
export function Saving(props: SavingProps) {
  const { gardenId, frameId, stored, draft, body, canWrite } = props
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const [note, setNote] = useState('')
  const [conflict, setConflict] = useState<FrameDocument | null>(null)
  const [refusal, setRefusal] = useState<string | null>(null)
  const isWaiting = useAppSelector((state) => state.saves.waiting[frameId] === true)
  const isClashed = useAppSelector((state) => state.saves.clashed[frameId] === true)

  const save = async (basedOn: number) => {
    setRefusal(null)
    const outcome = await dispatch(saveDocument('frames', gardenId, { id: frameId, basedOn, body, note }))
    if (outcome.kind === 'saved') {
      setConflict(null)
      setNote('')
      dispatch(dropped(frameId))
    } else if (outcome.kind === 'conflict') setConflict(outcome.current)
    else if (outcome.kind === 'refused') setRefusal(refusalWords(t, outcome))
  }
  const status = isWaiting
    ? t('frame.waiting')
    : draft
      ? t('frame.unsaved')
      : t('frame.savedOn', {
          version: stored!.version,
          date: formatDate(stored!.savedAt.slice(0, 10)),
          by: stored!.savedBy,
        })
  return (
    <section className="flex flex-col gap-2">
      <p role="status" className={draft ? 'text-ochre' : 'text-slate'}>{status}</p>
      {isClashed && <Message tone="limit">{t('frame.clashed')}</Message>}
      {refusal && <Message tone="limit">{refusal}</Message>}
      {conflict && (
        <Message tone="limit">
          <p>{t('frame.conflict', { by: conflict.savedBy, version: conflict.version })}</p>
          <div className="mt-2 flex gap-2">
            <button type="button" className="btn" onClick={() => { dispatch(dropped(frameId)); setConflict(null); dispatch(refetchFrames()) }}>{t('frame.takeTheirs')}</button>
            <button type="button" className="btn" onClick={() => { dispatch(rebased({ frameId, basedOn: conflict.version })); void save(conflict.version) }}>{t('frame.saveOver')}</button>
          </div>
        </Message>
      )}
      {canWrite && draft && (
        <form className="flex flex-col gap-2" onSubmit={(event) => { event.preventDefault(); void save(draft.basedOn) }}>
          <Field label={t('frame.saveNote')}>
            {(ids) => <input {...ids} className="input" value={note} maxLength={300} placeholder={t('frame.saveNotePlaceholder')} onChange={(e) => setNote(e.target.value)} />}
          </Field>
          <div className="flex flex-wrap gap-2">
            <button type="submit" className="btn btn-main flex-1" disabled={body.name.trim() === '' || props.plan.frame === null}>{t('frame.save')}</button>
            {stored && <button type="button" className="btn" onClick={() => dispatch(dropped(frameId))}>{t('frame.discard')}</button>}
          </div>
        </form>
      )}
      <Exports {...props} />
      {stored && <Revisions gardenId={gardenId} frameId={frameId} stored={stored} canWrite={canWrite} body={body} draft={draft} />}
    </section>
  ) // prettier-ignore
}

interface RevisionsProps {
  readonly gardenId: string
  readonly frameId: string
  readonly stored: FrameDocument
  readonly canWrite: boolean
  readonly body: FrameBody
  readonly draft: FrameDraft | undefined
}

function Revisions({ gardenId, frameId, stored, canWrite, body, draft }: RevisionsProps) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const [isOpen, setIsOpen] = useState(false)
  const { data } = useFrameRevisionsQuery({ gardenId, frameId }, { skip: !isOpen })
  const bringBack = (revision: FrameDocument) =>
    dispatch(
      changed({
        draft: draft ?? { frameId, basedOn: stored.version, body },
        body: revision.body,
        isContinued: false,
      }),
    )
  return (
    <details onToggle={(event) => setIsOpen(event.currentTarget.open)}>
      <summary>{t('frame.revisions')} ({stored.version})</summary>
      <ol className="mt-1 flex flex-col gap-1">
        {data?.map((revision) => (
          <li key={revision.version} className="border-b border-dotted border-faint pb-1">
            <span className="font-semibold">{revision.version}</span> {revision.note || t('frame.noNote')}{' '}
            <span className="text-slate">{formatDate(revision.savedAt.slice(0, 10))}, {revision.savedBy}</span>{' '}
            {canWrite && revision.version !== stored.version && (
              <button type="button" className="underline underline-offset-[3px]" onClick={() => bringBack(revision)}>{t('frame.useRevision')}</button>
            )}
          </li>
        ))}
      </ol>
    </details>
  ) // prettier-ignore
}
