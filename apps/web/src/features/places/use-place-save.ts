import type { Place, PlaceBody } from '@klados/contract'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useDeletePhotoMutation } from '../../data/api.ts'
import type { ApiError } from '../../data/api.ts'
import { saveDocument } from '../../data/saves.ts'
import { useAppDispatch, useAppSelector } from '../../data/store.ts'
import { refusalWords } from '../../ui/refusal.ts'
import type { Measured } from './measures.ts'

interface PlaceToSave {
  readonly gardenId: string
  readonly id: string
  readonly stored: Place | undefined
  readonly isNew: boolean
  readonly measured: Measured
  /** The save has been taken over, here or into what waits to be sent: the draft is done with. */
  readonly onTaken: () => void
}

type Status = { readonly tone: 'plain' | 'limit' | 'due'; readonly text: string } | null

/** Saving a place and what came of it. */
export function usePlaceSave({ gardenId, id, stored, isNew, measured, onTaken }: PlaceToSave) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const [status, setStatus] = useState<Status>(null)
  const [nameError, setNameError] = useState<string>()
  /** A photo that the saved place does not show any more; it is on the server until it is deleted there. */
  const [gonePhoto, setGonePhoto] = useState<string | null>(null)
  const [deletePhoto] = useDeletePhotoMutation()
  // A save of one's own that came through while one typed on is no reason to ask: it is what one types on top
  // of.
  const ownVersion = useAppSelector((state) => state.sync.ownVersions[id] ?? 0)
  const { body, basedOn } = measured
  const send = (isRemoved: boolean) => {
    const named: PlaceBody = { ...body, name: body.name.trim() }
    const basis = Math.max(basedOn, ownVersion)
    return dispatch(saveDocument('places', gardenId, { id, basedOn: basis, body: named, isRemoved }))
  }
  const save = async (then: 'stay' | 'frame', isRemoved = false) => {
    if (body.name.trim() === '') {
      setNameError(t('account.required'))
      return
    }
    const outcome = await send(isRemoved)
    if (outcome.kind !== 'refused') onTaken()
    const before = stored?.body.photo?.fileId
    setGonePhoto(outcome.kind === 'saved' && before && before !== body.photo?.fileId ? before : null)
    switch (outcome.kind) {
      case 'refused':
        return setStatus({ tone: 'limit', text: refusalWords(t, outcome) })
      case 'conflict': {
        const { savedBy: by, version } = outcome.current
        return setStatus({ tone: 'limit', text: t('place.conflict', { by, version }) })
      }
      // What waits for the server stands here already: one goes on with it.
      case 'waiting':
      case 'saved':
        if (then === 'frame') return void navigate(`/g/${gardenId}/places/${id}/frame`)
        setStatus(
          outcome.kind === 'waiting'
            ? { tone: 'due', text: t('frame.waiting') }
            : { tone: 'plain', text: t(isRemoved ? 'place.removed' : 'place.saved') },
        )
        if (isNew) void navigate(`/g/${gardenId}/places/${id}/measures`, { replace: true })
    }
  }
  const deleteGone = async (fileId: string) => {
    const { error } = await deletePhoto({ gardenId, fileId })
    setGonePhoto(null)
    setStatus(
      error
        ? { tone: 'limit', text: refusalWords(t, error as ApiError) }
        : { tone: 'plain', text: t('photo.deleted') },
    )
  }
  return {
    save,
    status,
    nameError,
    /** Something was typed: what was said of the last save is said no more. */
    touched: () => {
      setStatus(null)
      setNameError(undefined)
    },
    gonePhoto,
    deleteGone,
  }
}
