import type { Frame } from '@klados/core/frame'
import type { FramePlan } from '@klados/core/plan'
import type { FrameBody, FrameDocument, Place } from '@klados/contract'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useFrameRevisionsQuery } from '../../data/api.ts'
import { changed, dropped, rebased } from '../../data/drafts.ts'
import type { FrameDraft } from '../../data/drafts.ts'
import { dayAt, formatDate } from '../../data/dates.ts'
import { refetchFrames } from '../../data/saves.ts'
import { useAppDispatch, useAppSelector } from '../../data/store.ts'
import { deskOf } from '../../data/sync/desk-thunk.ts'
import { selectClash, selectUnsentDocuments } from '../../data/sync/slice.ts'
import type { WithIds } from '../../plan/lasting-ids.ts'
import { ClashMessage } from '../../ui/ClashMessage.tsx'
import { Message } from '../../ui/Message.tsx'
import { Alike } from './Alike.tsx'
import { Exports } from './Exports.tsx'
import { JUMPS } from './jumps.ts'
import { RevisionMessage } from './RevisionNews.tsx'
import type { RevisionNews } from './RevisionNews.tsx'
import { useFrameSave } from './use-frame-save.ts'
import { useSaveKeys } from '../../ui/use-undo-keys.ts'
import { useKeptFocus } from '../../ui/use-kept-focus.ts'
import { TextField } from '../../ui/TextField.tsx'

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
  /** The frame as it was saved last, and what gives a changed one the ids of its parts. */
  readonly before: Frame | null
  readonly withIds: WithIds
  /** What somebody else has saved meanwhile. */
  readonly theirs: FrameDocument | null
  /** Whether it lies on the drawing: it may not fit the place as that is now. */
  readonly isTheirsDrawn: boolean
  /** Puts what is on the bench beside it, as a variant; its id. */
  readonly onCopy: () => string
}

/** Keeping the frame: save with a note, see and bring back revisions, take it along on paper or as files. */
export function Saving(props: SavingProps) {
  const { gardenId, place, frameId, stored, draft, body, plan, canWrite, theirs, onCopy } = props
  const { t } = useTranslation()
  const part = useKeptFocus<HTMLElement>()
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const isWaiting = useAppSelector((state) =>
    selectUnsentDocuments(state, 'frames', gardenId).some((item) => item.documentId === frameId),
  )
  // A save that met a newer version lies in the tray: once more it would only lay another beside it.
  const clash = useAppSelector((state) => selectClash(state, frameId))
  const { save, refusal, note, setNote, news } = useFrameSave({ ...props, frame: plan.frame })
  const letGo = async () => {
    if (clash) await dispatch(deskOf((desk) => desk.letGo(clash.key)))
  }
  const met = clash
    ? clash.state
    : theirs && !isWaiting
      ? { savedBy: theirs.savedBy, version: theirs.version }
      : null
  const takeTheirs = () => {
    dispatch(dropped(frameId))
    void letGo()
    dispatch(refetchFrames())
  }
  const canSave = body.name.trim() !== '' && plan.frame !== null && met === null
  useSaveKeys(canWrite && draft && canSave ? () => void save(draft.basedOn) : null)
  const status = isWaiting
    ? t('frame.waiting')
    : draft || !stored
      ? t('frame.unsaved')
      : t('frame.savedOn', {
          version: stored.version,
          date: formatDate(dayAt(stored.savedAt)),
          by: stored.savedBy,
        })
  return (
    <section ref={part} className="flex flex-col gap-2" data-walk={draft ? 'changed' : undefined}>
      <p role="status" className={draft ? 'text-ochre' : 'text-slate'}>
        {status}
      </p>
      {refusal && <Message tone="limit">{refusal}</Message>}
      {met && canWrite && (
        <ClashMessage
          said={t('frame.conflict', { by: met.savedBy, version: met.version })}
          drawn={props.isTheirsDrawn ? t('frame.theirsDrawn') : null}
          onTheirs={takeTheirs}
          onMine={() => {
            const { version } = met
            dispatch(rebased({ frameId, basedOn: version }))
            // What has been drawn since then goes along; without a draft on this device the save goes as it
            // was.
            if (draft) void save(version).then(letGo)
            else if (clash) void dispatch(deskOf((desk) => desk.saveOver(clash.key)))
          }}
          onBoth={
            draft
              ? () => {
                  const copyId = onCopy()
                  takeTheirs()
                  void navigate(`/g/${gardenId}/places/${place.id}/frame/${copyId}`)
                }
              : null
          }
        />
      )}
      {canWrite && draft && (
        <SaveForm
          note={note}
          onNote={setNote}
          news={news}
          canSave={canSave}
          onSave={() => void save(draft.basedOn)}
          onDiscard={stored && stored.version > 0 ? () => dispatch(dropped(frameId)) : null}
        />
      )}
      {canWrite && stored && !draft && !isWaiting && (
        <Alike gardenId={gardenId} place={place} stored={stored} />
      )}
      <Exports {...props} />
      {stored && stored.version > 0 && (
        <Revisions
          gardenId={gardenId}
          frameId={frameId}
          stored={stored}
          canWrite={canWrite}
          body={body}
          draft={draft}
        />
      )}
    </section>
  )
}

interface SaveFormProps {
  readonly note: string
  readonly onNote: (note: string) => void
  readonly news: RevisionNews
  readonly canSave: boolean
  readonly onSave: () => void
  /** Null where there is nothing to go back to. */
  readonly onDiscard: (() => void) | null
}

function SaveForm({ note, onNote, news, canSave, onSave, onDiscard }: SaveFormProps) {
  const { t } = useTranslation()
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        onSave()
      }}
    >
      <TextField
        label={t('frame.saveNote')}
        value={note}
        longest={300}
        placeholder={t('frame.saveNotePlaceholder')}
        onChange={onNote}
      />
      <RevisionMessage news={news} />
      <div className="flex flex-wrap gap-2">
        <button id={JUMPS.save} type="submit" className="btn btn-main flex-1" disabled={!canSave}>
          {t('frame.save')}
        </button>
        {onDiscard && (
          <button type="button" className="btn" onClick={onDiscard}>
            {t('frame.discard')}
          </button>
        )}
      </div>
    </form>
  )
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
        basis: revision.body,
        isContinued: false,
      }),
    )
  return (
    <details onToggle={(event) => setIsOpen(event.currentTarget.open)}>
      <summary>
        {t('frame.revisions')} ({stored.version})
      </summary>
      <ol className="mt-1 flex flex-col gap-1">
        {data?.map((revision) => (
          <li key={revision.version} className="border-b border-dotted border-faint pb-1">
            <span className="font-semibold">{revision.version}</span> {revision.note || t('frame.noNote')}{' '}
            <span className="text-slate">
              {formatDate(dayAt(revision.savedAt))}, {revision.savedBy}
            </span>{' '}
            {canWrite && revision.version !== stored.version && (
              <button
                type="button"
                className="underline underline-offset-[3px]"
                onClick={() => bringBack(revision)}
              >
                {t('frame.useRevision')}
              </button>
            )}
          </li>
        ))}
      </ol>
    </details>
  )
}
