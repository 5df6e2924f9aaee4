import { useEffect, useState } from 'react'
import { keepSeen } from '../data/copy/photos.ts'
import { usePhotoUrl } from '../data/photo-url.ts'
import { useTranslation } from '../i18n/use-translation.tsx'

interface JournalPhotoProps {
  readonly gardenId: string
  readonly fileId: string
  readonly note: string
}

/** A photo of the journal, small till it is pressed. What was seen once is there without a signal too. */
export function JournalPhoto({ gardenId, fileId, note }: JournalPhotoProps) {
  const { t } = useTranslation()
  const [isLarge, setIsLarge] = useState(false)
  const href = usePhotoUrl(gardenId, fileId)
  useEffect(() => {
    void keepSeen(gardenId, fileId).catch(() => undefined)
  }, [gardenId, fileId])
  return (
    <button
      type="button"
      className={`cursor-pointer border border-faint ${isLarge ? 'basis-full' : 'self-start'}`}
      aria-expanded={isLarge}
      aria-label={t(isLarge ? 'note.smaller' : 'note.larger', { note: note || t('note.photo') })}
      onClick={() => setIsLarge(!isLarge)}
    >
      <img
        src={href}
        alt={note || t('note.photo')}
        loading="lazy"
        className={isLarge ? 'w-full' : 'h-14 w-20 object-cover'}
      />
    </button>
  )
}
