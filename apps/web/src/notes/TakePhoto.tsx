import { useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { useTranslation } from '../i18n/use-translation.tsx'
import { useAppDispatch } from '../data/store.ts'
import { deskOf } from '../data/sync/desk-thunk.ts'
import { Message } from '../ui/Message.tsx'
import { shrink } from './shrink.ts'

export interface TakenPhoto {
  readonly fileId: string
  readonly content: Blob
  readonly widthPx: number
  readonly heightPx: number
}

interface TakePhotoProps {
  readonly gardenId: string
  readonly label: string
  readonly className?: string
  /** It lies on this device, and goes to the server before what shows it. */
  readonly onTaken: (photo: TakenPhoto) => void
}

/** Takes or chooses a photo: made small on the device, kept there, sent when it can be. */
export function TakePhoto({ gardenId, label, className = '', onTaken }: TakePhotoProps) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const [problem, setProblem] = useState<string | null>(null)
  const [isBusy, setIsBusy] = useState(false)
  const take = async (file: File | undefined) => {
    if (!file) return
    setIsBusy(true)
    setProblem(null)
    const made = await shrink(file)
    if (made.kind === 'shrunk') {
      const { content, widthPx, heightPx } = made
      const fileId = uuidv7()
      await dispatch(deskOf((desk) => desk.addPhoto(gardenId, fileId, content)))
      onTaken({ fileId, content, widthPx, heightPx })
    } else setProblem(t(`photo.problem.${made.kind}`, { name: made.name }))
    setIsBusy(false)
  }
  return (
    <>
      <label className={`btn cursor-pointer focus-within:outline-2 ${className}`}>
        {isBusy ? t('photo.sending') : label}
        <input
          type="file"
          accept="image/*"
          className="sr-only"
          disabled={isBusy}
          onChange={(event) => {
            void take(event.target.files?.[0])
            // The same one chosen once more is a choice too.
            event.target.value = ''
          }}
        />
      </label>
      {problem && <Message tone="limit">{problem}</Message>}
    </>
  )
}
