import type { Place, Plant } from '@klados/contract'
import { inForce, isNewer } from '@klados/core/journal'
import { useMemo, useState } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { formatDate } from '../../data/dates.ts'
import { JournalPhoto } from '../../notes/JournalPhoto.tsx'
import { NoteForm } from '../../notes/NoteForm.tsx'
import { EntryGlyph } from '../../ui/EntryGlyph.tsx'
import { entryGlyphs } from '../../ui/entry-glyphs.ts'
import type { Glyph } from '../../ui/entry-glyphs.ts'
import { entryWords } from '../../ui/entry-words.ts'
import { useUnits } from '../../ui/units.tsx'
import type { WoodBenchData } from './use-bench.ts'
import type { Recorder } from '../../data/use-recorder.ts'

interface EntryListProps {
  readonly gardenId: string
  readonly data: WoodBenchData
  readonly place: Place
  readonly plant: Plant | null
  /** The piece that is chosen, which a photo is then of. */
  readonly pieceId: string | null
  readonly on: string
  readonly canWrite: boolean
  readonly recorder: Recorder
}

/** So many lines are shown at first, and with each asking for earlier ones as many more. */
const SHOWN = 7

interface Line {
  readonly key: string
  readonly at: string
  readonly words: string
  readonly glyph: Glyph
  readonly photo: { readonly fileId: string; readonly note: string } | null
  count: number
}

/**
 * The journal up to the day shown, newest first, like acts of one day in one line; and a note to add to it.
 */
export function EntryList(props: EntryListProps) {
  const { gardenId, data, place, plant, pieceId, on, canWrite, recorder } = props
  const { t } = useTranslation()
  const units = useUnits()
  const [shown, setShown] = useState(SHOWN)
  // Where one plant stands alone nobody has chosen it: what is told of the place is told with it.
  const isAlone = data.plants.length + data.gone.length === 1
  const own = isAlone ? null : (plant?.id ?? null)
  const lines = useMemo(() => {
    const ofPlant = own ? data.entries.filter(({ plantId }) => plantId === own) : data.entries
    const entries = inForce(ofPlant).filter(({ at }) => at <= on)
    const groups = new Map<string, Line>()
    for (const entry of entries.reverse()) {
      const words = entryWords(t, units, entry)
      const photo = entry.kind === 'photo.taken' && !isNewer(entry) ? entry.body : null
      const key = photo ? photo.fileId : `${entry.at} ${words}`
      const group = groups.get(key)
      if (group) group.count++
      else groups.set(key, { key, at: entry.at, words, glyph: entryGlyphs[entry.kind], photo, count: 1 })
      if (groups.size > shown) break
    }
    return [...groups.values()]
  }, [data.entries, on, own, shown, t, units])
  return (
    <section>
      <h2 className="mb-1">{t('wood.entries')}</h2>
      <ol>
        {lines.slice(0, shown).map((line) => (
          <li
            key={line.key}
            className="flex flex-wrap gap-x-3 gap-y-1 border-b border-dotted border-faint py-[3px]"
          >
            <span className="w-24 shrink-0 text-slate">{formatDate(line.at)}</span>
            <EntryGlyph glyph={line.glyph} />
            <span className="min-w-0 flex-1 break-words">
              {line.words}
              {line.count > 1 && ` × ${line.count}`}
            </span>
            {line.photo && (
              <JournalPhoto gardenId={gardenId} fileId={line.photo.fileId} note={line.photo.note} />
            )}
          </li>
        ))}
      </ol>
      {lines.length > shown && (
        <button type="button" className="btn btn-plain px-0" onClick={() => setShown(shown + SHOWN)}>
          {t('wood.earlier')}
        </button>
      )}
      {canWrite && (
        <NoteForm
          {...{ gardenId, on, pieceId }}
          placeId={place.id}
          plantId={plant?.id ?? null}
          onWrite={recorder.write}
        />
      )}
    </section>
  )
}
