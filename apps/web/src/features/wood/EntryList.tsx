import type { Place, Plant } from '@klados/contract'
import { inForce } from '@klados/core/journal'
import { useMemo, useState } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { formatDate } from '../../data/dates.ts'
import { Field } from '../../ui/Field.tsx'
import { EntryGlyph } from '../../ui/EntryGlyph.tsx'
import { entryGlyphs } from '../../ui/entry-glyphs.ts'
import type { Glyph } from '../../ui/entry-glyphs.ts'
import { entryWords } from '../../ui/entry-words.ts'
import { useUnits } from '../../ui/units.tsx'
import type { WoodBenchData } from './use-bench.ts'
import type { Recorder } from '../../data/use-recorder.ts'

interface EntryListProps {
  readonly data: WoodBenchData
  readonly place: Place
  readonly plant: Plant | null
  readonly on: string
  readonly canWrite: boolean
  readonly recorder: Recorder
}

const SHOWN = 7

/**
 * The journal up to the day shown, newest first, like acts of one day in one line; and a note to add to it.
 */
export function EntryList({ data, place, plant, on, canWrite, recorder }: EntryListProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const [text, setText] = useState('')
  const lines = useMemo(() => {
    const ofPlant = plant ? data.entries.filter(({ plantId }) => plantId === plant.id) : data.entries
    const entries = inForce(ofPlant).filter(({ at }) => at <= on)
    const groups = new Map<string, { at: string; words: string; glyph: Glyph; count: number }>()
    for (const entry of entries.reverse()) {
      const words = entryWords(t, units, entry)
      const key = `${entry.at} ${words}`
      const group = groups.get(key)
      if (group) group.count++
      else groups.set(key, { at: entry.at, words, glyph: entryGlyphs[entry.kind], count: 1 })
      if (groups.size > SHOWN) break
    }
    return [...groups.values()].slice(0, SHOWN)
  }, [data.entries, on, plant, t, units])
  const write = () => {
    if (text.trim() === '') return
    recorder.write(t('wood.note'), [
      {
        kind: 'note.written',
        placeId: place.id,
        plantId: plant?.id ?? null,
        at: on,
        body: { v: 1, text: text.trim() },
      },
    ])
    setText('')
  }
  return (
    <section>
      <h2 className="mb-1">{t('wood.entries')}</h2>
      <ol>
        {lines.map((line) => (
          <li
            key={`${line.at} ${line.words}`}
            className="flex gap-3 border-b border-dotted border-faint py-[3px]"
          >
            <span className="w-24 shrink-0 text-slate">{formatDate(line.at)}</span>
            <EntryGlyph glyph={line.glyph} />
            <span className="min-w-0 break-words">
              {line.words}
              {line.count > 1 && ` × ${line.count}`}
            </span>
          </li>
        ))}
      </ol>
      {canWrite && (
        <form
          className="mt-2 grid grid-cols-[1fr_auto] items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault()
            write()
          }}
        >
          <Field label={t('wood.note')}>
            {(ids) => (
              <input
                {...ids}
                className="input"
                value={text}
                maxLength={2000}
                placeholder={t('wood.notePlaceholder')}
                onChange={(e) => setText(e.target.value)}
              />
            )}
          </Field>
          <button type="submit" className="btn" disabled={text.trim() === ''}>
            {t('wood.noteDo')}
          </button>
        </form>
      )}
    </section>
  )
}
