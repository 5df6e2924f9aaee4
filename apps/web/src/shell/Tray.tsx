import { clauses } from '../i18n/clauses.ts'
import type { TFunction } from '../i18n/texts.ts'
import { listPlain } from '../i18n/language.ts'
import { DateField } from '../ui/DateField.tsx'
import { useState } from 'react'
import { Link } from 'react-router'
import { useTranslation } from '../i18n/use-translation.tsx'
import { useSessionQuery } from '../data/api.ts'
import { usePlaces } from '../data/documents.ts'
import { todayHere } from '../data/dates.ts'
import { useAppDispatch, useAppSelector } from '../data/store.ts'
import { deskOf } from '../data/sync/desk-thunk.ts'
import { lastSave } from '../data/sync/items.ts'
import type { EntryItem, Item } from '../data/sync/items.ts'
import { selectTray } from '../data/sync/slice.ts'
import { refusalWords } from '../ui/refusal.ts'
import { ClockAhead } from './ClockAhead.tsx'
import { useWhat } from './use-what.ts'

const SHOWN = 12

/**
 * What the server did not take, each with its reason, until its writer decides: send it again, mend it, write
 * it down as a note, or let it go. Nothing leaves it by itself.
 */
export function Tray({ gardenId }: { gardenId: string }) {
  const { t } = useTranslation()
  const { data: session } = useSessionQuery(undefined)
  const own = useAppSelector(selectTray)
  // What was written for a garden that one is out of has no other tray to lie in.
  const gardens = session?.memberships.map((one) => one.gardenId) ?? [gardenId]
  const here = own.filter((item) => item.gardenId === gardenId || !gardens.includes(item.gardenId))
  const refused = here.filter((item) => item.state.is !== 'held')
  const held = groupsOf(here.filter((item) => item.state.is === 'held'))
  const elsewhere = own.length - here.length
  if (own.length === 0) return null
  const waiting = here.length - refused.length
  const parts = [
    refused.length > 0 && t('tray.refused', { count: refused.length }),
    waiting > 0 && t('tray.waiting', { count: waiting }),
    elsewhere > 0 && t('tray.elsewhere', { count: elsewhere }),
  ].filter((one) => one !== false)
  return (
    <details className="border border-l-4 border-faint border-l-iron bg-paper px-4 py-2">
      {/* One line, so that on a phone the work stays in sight; it does not go before everything is decided. */}
      <summary className="cursor-pointer font-semibold">{clauses(t, parts)}</summary>
      <ClockAhead items={refused} />
      <ul className="mt-1 flex flex-col">
        {refused.slice(0, SHOWN).map((item) => (
          <Refused key={item.key} gardenId={gardenId} item={item} />
        ))}
        {[...held.values()].map((group) => (
          <Held key={group[0]!.key} gardenId={gardenId} items={group} />
        ))}
      </ul>
      {refused.length > SHOWN && (
        <p className="text-slate">{t('tray.more', { count: refused.length - SHOWN })}</p>
      )}
    </details>
  )
}

/** What is held for one reason stands in one line. */
function groupsOf(items: readonly Item[]): ReadonlyMap<string, readonly Item[]> {
  const groups = new Map<string, Item[]>()
  for (const item of items) {
    const code = 'code' in item.state ? item.state.code : ''
    groups.set(code, [...(groups.get(code) ?? []), item])
  }
  return groups
}

function Held({ gardenId, items }: { gardenId: string; items: readonly Item[] }) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const what = useWhat(gardenId)
  const [isAsking, setIsAsking] = useState(false)
  const each = (act: 'tryAgain' | 'letGo') => {
    for (const { key } of items) void dispatch(deskOf((desk) => desk[act](key)))
  }
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-dotted border-faint py-2 last:border-b-0">
      <p className="min-w-0 flex-1 basis-64">
        <span className="font-semibold text-ochre">{t('tray.waits')}</span>{' '}
        {items.length === 1 ? what(items[0]!) : t('tray.things', { count: items.length })}.{' '}
        {reasonWords(t, items[0]!)}
      </p>
      <button type="button" className="btn" onClick={() => each('tryAgain')}>
        {t('tray.tryAgain')}
      </button>
      {isAsking ? (
        <button type="button" className="btn text-iron" onClick={() => each('letGo')}>
          {t('tray.letGoSurely', { count: items.length })}
        </button>
      ) : (
        <button type="button" className="btn btn-plain px-0" onClick={() => setIsAsking(true)}>
          {t('tray.letGo')}
        </button>
      )}
    </li>
  )
}

function Refused({ gardenId, item }: { gardenId: string; item: Item }) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const what = useWhat(gardenId)
  const [isAsking, setIsAsking] = useState(false)
  const { key } = item
  return (
    <li className="flex flex-col gap-2 border-b border-dotted border-faint py-2 last:border-b-0">
      <p>
        <span className="font-semibold text-iron">{t('tray.notTaken')}</span> {what(item)}.{' '}
        {reasonWords(t, item)}
      </p>
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        {item.kind === 'entry' && <EntryChoices gardenId={gardenId} item={item} words={what(item)} />}
        {item.kind === 'document' && item.state.is === 'clashed' && (
          <>
            {/* A frame has its draft on the bench, where both can be seen: that is the place to choose. */}
            {item.area !== 'frames' && (
              <button
                type="button"
                className="btn"
                onClick={() => void dispatch(deskOf((desk) => desk.saveOver(key)))}
              >
                {t('frame.saveOver')}
              </button>
            )}
            <Link className="btn no-underline" to={documentPath(gardenId, item)}>
              {t(item.area === 'frames' ? 'tray.atTheFrame' : 'tray.seeTheirs')}
            </Link>
          </>
        )}
        {item.state.is === 'refused' && item.kind !== 'entry' && (
          <button
            type="button"
            className="btn"
            onClick={() => void dispatch(deskOf((desk) => desk.tryAgain(key)))}
          >
            {t('tray.tryAgain')}
          </button>
        )}
        {isAsking ? (
          <button
            type="button"
            className="btn text-iron"
            onClick={() => void dispatch(deskOf((desk) => desk.letGo(key)))}
          >
            {t('tray.letGoSurely', { count: 1 })}
          </button>
        ) : (
          <button type="button" className="btn btn-plain px-0" onClick={() => setIsAsking(true)}>
            {t('tray.letGo')}
          </button>
        )}
      </div>
    </li>
  )
}

/**
 * An entry can be mended where its day or its words are at fault, and its gist can always be kept as a note.
 */
function EntryChoices({ gardenId, item, words }: { gardenId: string; item: EntryItem; words: string }) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const places = usePlaces(gardenId)
  const today = todayHere()
  const [at, setAt] = useState(item.entry.at > today ? today : item.entry.at)
  const [text, setText] = useState(item.entry.kind === 'note.written' ? item.entry.body.text : '')
  const isNote = item.entry.kind === 'note.written'
  const canNote = !isNote && places?.some((place) => place.id === item.entry.placeId && !place.isRemoved)
  const mend = () =>
    dispatch(
      deskOf((desk) =>
        desk.mend([item.key], (entry) =>
          entry.kind === 'note.written'
            ? { ...entry, at, body: { v: 1, text: text.trim() || '–' } }
            : { ...entry, at },
        ),
      ),
    )
  const asNote = () =>
    dispatch(
      deskOf((desk) =>
        desk.mend([item.key], ({ placeId, recordedAt, id }) => ({
          id,
          placeId,
          plantId: null,
          kind: 'note.written',
          at,
          recordedAt,
          supersedes: null,
          body: { v: 1, text: words },
        })),
      ),
    )
  return (
    <form
      className="flex basis-full flex-wrap items-end gap-x-4 gap-y-2"
      onSubmit={(event) => {
        event.preventDefault()
        void mend()
      }}
    >
      <DateField label={t('tray.day')} max={today} value={at} onChange={setAt} />
      {isNote && (
        <label className="flex min-w-[min(14rem,100%)] flex-1 flex-col text-[0.8125rem] text-slate">
          {t('tray.text')}
          <input
            className="input"
            value={text}
            maxLength={2000}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
      )}
      <button type="submit" className="btn">
        {t('tray.mend')}
      </button>
      {canNote && (
        <button type="button" className="btn" onClick={() => void asNote()}>
          {t('tray.asNote')}
        </button>
      )}
    </form>
  )
}

function documentPath(gardenId: string, item: Extract<Item, { kind: 'document' }>): string {
  const { placeId } = lastSave(item).body as { placeId?: string }
  if (item.area === 'stores') return `/g/${gardenId}/stores`
  if (item.area === 'places') return `/g/${gardenId}/places/${item.documentId}/measures`
  if (item.area === 'plants') return `/g/${gardenId}/places/${placeId}/wood`
  return `/g/${gardenId}/places/${placeId}/frame/${item.documentId}`
}

function reasonWords(t: TFunction, { state }: Item): string {
  if (state.is === 'clashed') return t('tray.clashed', { by: state.savedBy, version: state.version })
  if (state.is === 'waiting') return ''
  const fields = listPlain((state.fields ?? []).map((field) => field.path).filter(Boolean))
  return `${refusalWords(t, state)}${fields ? ` (${fields})` : ''}`
}
