import { useState } from 'react'
import { keepSeen } from '../data/copy/photos.ts'
import type { NewEntry } from '../data/record.ts'
import { useTranslation } from '../i18n/use-translation.tsx'
import { TakePhoto } from './TakePhoto.tsx'
import type { TakenPhoto } from './TakePhoto.tsx'
import { TextField } from '../ui/TextField.tsx'

interface NoteFormProps {
  readonly gardenId: string
  readonly placeId: string
  readonly plantId: string | null
  /** The wood that a photo shows, where one has pointed at it. */
  readonly pieceId: string | null
  readonly on: string
  readonly onWrite: (what: string, entries: readonly NewEntry[]) => void
}

const LONGEST_OF_PHOTO = 400

/** A note for the journal, and a photo with or without one. */
export function NoteForm({ gardenId, placeId, plantId, pieceId, on, onWrite }: NoteFormProps) {
  const { t } = useTranslation()
  const [text, setText] = useState('')
  const head = { placeId, plantId, at: on }
  const note = text.trim()
  const write = () => {
    if (note === '') return
    onWrite(t('wood.note'), [{ ...head, kind: 'note.written', body: { v: 1, text: note } }])
    setText('')
  }
  const photographed = async ({ fileId, content }: TakenPhoto) => {
    // Before the journal shows it, which would ask the server for what is not there yet.
    await keepSeen(gardenId, fileId, content).catch(() => undefined)
    const pieceIds = pieceId === null ? null : [pieceId]
    // A note too long for a photo is one of its own.
    const isShort = note.length <= LONGEST_OF_PHOTO
    onWrite(t('note.photo'), [
      ...(isShort ? [] : [{ ...head, kind: 'note.written' as const, body: { v: 1 as const, text: note } }]),
      { ...head, kind: 'photo.taken', body: { v: 1, fileId, pieceIds, note: isShort ? note : '' } },
    ])
    setText('')
  }
  return (
    <form
      className="mt-2 flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        write()
      }}
    >
      <div className="min-w-[min(10rem,100%)] flex-1">
        <TextField
          label={t('wood.note')}
          value={text}
          longest={2000}
          placeholder={t('wood.notePlaceholder')}
          onChange={setText}
        />
      </div>
      <button type="submit" className="btn" disabled={note === ''}>
        {t('wood.noteDo')}
      </button>
      <TakePhoto gardenId={gardenId} label={t('note.take')} onTaken={(photo) => void photographed(photo)} />
    </form>
  )
}
