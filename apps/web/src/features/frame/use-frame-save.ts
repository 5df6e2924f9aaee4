import type { FrameBody, Place } from '@klados/contract'
import type { Frame } from '@klados/core/frame'
import { useState } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { changed } from '../../data/drafts.ts'
import type { FrameDraft } from '../../data/drafts.ts'
import { record } from '../../data/record.ts'
import { saveDocument } from '../../data/saves.ts'
import { useAppDispatch } from '../../data/store.ts'
import type { WithIds } from '../../plan/lasting-ids.ts'
import { refusalWords } from '../../ui/refusal.ts'
import { useRevisionNews } from './RevisionNews.tsx'

interface FrameToSave {
  readonly gardenId: string
  readonly place: Place
  readonly frameId: string
  readonly draft: FrameDraft | undefined
  readonly body: FrameBody
  readonly frame: Frame | null
  /** As it was saved last. */
  readonly before: Frame | null
  readonly withIds: WithIds
}

/** Saving a frame as its next revision: under the ids that its parts keep, with what that does to ties. */
export function useFrameSave({ gardenId, place, frameId, draft, body, frame, before, withIds }: FrameToSave) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const [note, setNote] = useState('')
  const [refusal, setRefusal] = useState<string | null>(null)
  const news = useRevisionNews(gardenId, place.id, frameId, before, frame)
  /**
   * Ties of which only the place was known say what they held on to, so that everybody sees them until they
   * are settled.
   */
  const addressTies = () => {
    const unknown = news.ties.filter(({ tie }) => tie.support === null)
    if (unknown.length === 0) return
    dispatch(
      record(
        unknown.map(({ tie, support }) => ({
          kind: 'tie.addressed',
          placeId: place.id,
          plantId: tie.plantId,
          body: { v: 1, tieId: tie.id, support },
        })),
      ),
    )
  }
  const save = async (basedOn: number) => {
    setRefusal(null)
    const named = { ...body, design: withIds(body.design) }
    // The draft is what is saved, or it would count as changed since.
    if (draft && JSON.stringify(named) !== JSON.stringify(body))
      dispatch(changed({ draft, body: named, isContinued: true }))
    const outcome = await dispatch(
      saveDocument('frames', gardenId, { id: frameId, basedOn, body: named, note }),
    )
    if (outcome.kind === 'saved' || outcome.kind === 'waiting') {
      addressTies()
      setNote('')
    } else if (outcome.kind === 'refused') setRefusal(refusalWords(t, outcome))
  }
  return { save, refusal, note, setNote, news }
}
