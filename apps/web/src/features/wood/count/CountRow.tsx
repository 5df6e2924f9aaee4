import type { Place } from '@klados/contract'
import { budState, readTallyLine, rowTotals } from '@klados/core/tally'
import { formatMass } from '@klados/core/units'
import type { UnitSystem } from '@klados/core/units'
import { memo, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { useTranslation } from '../../../i18n/use-translation.tsx'
import { saveDocument } from '../../../data/saves.ts'
import { useAppDispatch } from '../../../data/store.ts'
import type { Recorder } from '../../../data/use-recorder.ts'
import { onePress } from '../../../ui/one-press.ts'
import { Choice } from '../../../ui/Choice.tsx'
import { LineField } from '../../../ui/LineField.tsx'
import { SlipGroup, SlipRow } from '../../../ui/Slip.tsx'
import { useUnits } from '../../../ui/units.tsx'
import { SampleBudgetOf } from './SampleBudget.tsx'
import type { RowLine } from './use-row.ts'

interface CountRowProps {
  readonly gardenId: string
  readonly place: Place
  readonly row: readonly RowLine[]
  readonly recorder: Recorder
  readonly on: string
  readonly plantId: string | null
  readonly onPlant: (plantId: string) => void
  readonly canWrite: boolean
}

const filters = ['all', 'unknown', 'off', 'portrait'] as const
type Filter = (typeof filters)[number]

const isShown = (line: RowLine, filter: Filter): boolean => {
  const state = budState(line)
  if (filter === 'unknown') return state === 'unknown'
  if (filter === 'off') return state === 'short' || state === 'over'
  return filter === 'all' || line.is === 'portrait'
}

/** The row as a list of plants that are counted one after another; what is drawn stands among them. */
export function CountTable({
  place,
  row,
  plantId,
  onPlant,
}: Pick<CountRowProps, 'place' | 'row' | 'plantId' | 'onPlant'>) {
  const { t } = useTranslation()
  const units = useUnits()
  const [filter, setFilter] = useState<Filter>('all')
  const shown = useMemo(() => row.filter((line) => isShown(line, filter)), [row, filter])
  const lines = useLinesInTwo(shown, filter)
  const list = useRef<HTMLDivElement>(null)
  useEffect(() => {
    if (list.current) keepInSight(list.current)
  }, [plantId, lines])
  if (row.length === 0) return <p className="text-slate">{t('tally.none')}</p>
  return (
    <section className="flex min-w-0 flex-col gap-2">
      <div className="no-print flex flex-wrap items-center justify-between gap-2">
        <Choice
          isInline
          label={t('tally.filter')}
          value={filter}
          options={filters.map((value) => ({ value, label: t(`tally.filters.${value}`) }))}
          onChange={setFilter}
        />
        <span className="text-[0.8125rem] text-slate">{t(`tally.from.${place.body.viewingEnd}`)}</span>
        <button type="button" className="btn" onClick={() => window.print()}>
          {t('tally.tags')}
        </button>
      </div>
      <div
        ref={list}
        className="no-print max-h-[30vh] overflow-auto sm:max-h-[52vh]"
        tabIndex={0}
        role="region"
        aria-label={t('tally.title')}
      >
        <table className="w-full text-right [&_td]:px-2 [&_th]:px-2">
          <thead className="sticky top-0 bg-plaster text-[0.8125rem] text-slate">
            <tr>
              {(
                [
                  'n',
                  'name',
                  'canes',
                  'spurs',
                  'buds',
                  'target',
                  'state',
                  'ties',
                  'minutes',
                  'prunings',
                ] as const
              ).map((key) => (
                <th
                  key={key}
                  scope="col"
                  className={`font-normal ${key === 'name' || key === 'state' ? 'text-left' : ''} ${ASIDE.has(key) ? 'max-sm:hidden' : ''}`}
                >
                  {t(`tally.head.${key}`)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {lines.map((line) => (
              <Line
                key={line.id}
                line={line}
                isChosen={line.id === plantId}
                onPlant={onPlant}
                system={units.system}
              />
            ))}
          </tbody>
        </table>
      </div>
      <Tags placeName={place.body.name} row={row} />
    </section>
  )
}

/** So many lines fill a screen; those of a long row come a breath later. */
const AT_FIRST = 24

/** A list that is opened, or filtered anew, shows its first lines at once and all of them when they are drawn. */
function useLinesInTwo(shown: readonly RowLine[], filter: Filter): readonly RowLine[] {
  const drawn = useDeferredValue<Filter | null>(filter, null)
  return useMemo(() => (drawn === filter ? shown : shown.slice(0, AT_FIRST)), [drawn, filter, shown])
}

/** The line of the plant at hand, in the middle of a list that it has left; the page itself stays where it is. */
function keepInSight(list: HTMLElement): void {
  const line = list.querySelector('[aria-pressed="true"]')?.closest('tr')
  const head = list.querySelector('thead')
  if (!line || !head) return
  const [view, at] = [list.getBoundingClientRect(), line.getBoundingClientRect()]
  const top = view.top + head.offsetHeight
  if (at.top >= top && at.bottom <= view.bottom) return
  list.scrollTop += at.top - top - (view.bottom - top - at.height) / 2
}

/** What is printed of the row: a tag for each plant. */
const Tags = memo(function Tags({ placeName, row }: { placeName: string; row: readonly RowLine[] }) {
  return (
    <ul className="hidden grid-cols-4 gap-4 print:grid">
      {row.map((line) => (
        <Tag key={line.id} placeName={placeName} n={line.n} plantName={line.plant.body.name} />
      ))}
    </ul>
  )
})

const Tag = memo(function Tag({
  placeName,
  n,
  plantName,
}: {
  placeName: string
  n: number
  plantName: string
}) {
  const { t } = useTranslation()
  return (
    <li className="border border-ink p-3 text-center">
      <strong className="block text-2xl">{n}</strong>
      {t('tally.tagOf', { place: placeName, n: '' })}
      <span className="block">{plantName}</span>
    </li>
  )
})

/** Columns that a narrow screen leaves out: the plant at hand has them on its slip. */
const ASIDE: ReadonlySet<string> = new Set(['spurs', 'ties', 'minutes', 'prunings'])

const TONES = {
  short: 'text-iron',
  over: 'text-iron',
  within: 'text-verdigris',
  unknown: 'text-slate',
  'not-counted': 'text-slate',
} as const

interface LineProps {
  readonly line: RowLine
  readonly isChosen: boolean
  readonly onPlant: (id: string) => void
  readonly system: UnitSystem
}

/** Of four hundred lines only those that change are drawn again. */
const Line = memo(function Line({ line, isChosen, onPlant, system }: LineProps) {
  const { t } = useTranslation()
  const { counted, target } = line
  const state = budState(line)
  const cell = (value: number | null | undefined) => value ?? '–'
  return (
    <tr className={isChosen ? 'bg-wash' : ''}>
      <td>{line.n}</td>
      <td className="whitespace-nowrap text-left">
        <button
          type="button"
          className="min-h-7 underline decoration-faint underline-offset-4"
          aria-pressed={isChosen}
          onClick={() => onPlant(line.id)}
        >
          {line.plant.body.name}
        </button>{' '}
        <span className="text-[0.8125rem] text-slate">
          {line.is === 'counted' ? '' : t(`tally.is.${line.is}`)}
        </span>
      </td>
      <td>{cell(counted?.canes)}</td>
      <td className="max-sm:hidden">{cell(counted?.spurs)}</td>
      <td className="font-bold">{cell(counted?.buds)}</td>
      <td>{line.is === 'missing' ? '' : target.aim}</td>
      <td className={`text-left ${TONES[state]}`}>{t(`tally.state.${state}`)}</td>
      <td className="max-sm:hidden">{cell(counted?.ties)}</td>
      <td className="max-sm:hidden">{cell(counted?.minutes)}</td>
      <td className="max-sm:hidden">
        {counted && counted.pruningsKg !== null ? formatMass(counted.pruningsKg, system) : '–'}
      </td>
    </tr>
  )
})

/** The plant at hand: one line, and on to the next; the row added up against its budget. */
export function CountSlip(props: CountRowProps) {
  const { gardenId, place, row, recorder, on, plantId, onPlant, canWrite } = props
  const { t } = useTranslation()
  const units = useUnits()
  const dispatch = useAppDispatch()
  const input = useRef<HTMLInputElement>(null)
  const [text, setText] = useState('')
  const [last, setLast] = useState<string | null>(null)
  const totals = useMemo(() => rowTotals(row), [row])
  const at = Math.max(
    0,
    row.findIndex(({ id }) => id === plantId),
  )
  const line = row[at]
  if (!line) return <p className="text-slate">{t('tally.none')}</p>
  const read = readTallyLine(text)
  const next = () => {
    const to = row.slice(at + 1).find(({ is }) => is !== 'missing')
    if (to) onPlant(to.id)
    setText('')
    input.current?.focus()
  }
  const write = (words: string) => {
    const said = readTallyLine(words)
    if (!said.ok) return
    recorder.write(t('tally.recorded', { name: line.plant.body.name }), [
      {
        kind: 'plant.tallied',
        placeId: place.id,
        plantId: line.id,
        at: on,
        body: { v: 1, ...said.counted, cropKg: null },
      },
    ])
    setLast(words)
    next()
  }
  const isMissing = line.is === 'missing'
  const end = () => {
    const body = { ...line.plant.body, ended: isMissing ? null : { on, why: t('tally.missing') } }
    void dispatch(saveDocument('plants', gardenId, { id: line.id, basedOn: line.plant.version, body }))
    if (!isMissing) next()
  }
  return (
    <section className="flex flex-col gap-3">
      <h2>{t('tally.of', { name: line.plant.body.name, n: line.n, of: row.length })}</h2>
      {canWrite && (
        <form
          className="flex flex-col gap-2"
          onSubmit={(event) => {
            event.preventDefault()
            write(text)
          }}
        >
          <LineField
            label={t('tally.line')}
            hint={t('tally.lineHint')}
            error={
              read.ok || text.trim() === ''
                ? undefined
                : t(`tally.failure.${read.reason}`, { word: read.word })
            }
            input={input}
            value={text}
            onChange={setText}
          />
          <div className="flex flex-wrap gap-2">
            <button type="submit" className="btn btn-main flex-1" disabled={!read.ok}>
              {t('enter.add')}
            </button>
            <button
              type="button"
              className="btn"
              disabled={last === null}
              onClick={(event) => onePress(() => last !== null && write(last))(event)}
            >
              {t('tally.copyLast')}
            </button>
            <button type="button" className="btn" onClick={next}>
              {t('tally.skip')}
            </button>
            <button type="button" className="btn btn-plain" onClick={end}>
              {t(isMissing ? 'wood.ended.back' : 'tally.missingDo')}
            </button>
          </div>
        </form>
      )}
      <SlipGroup title={t('tally.totals')}>
        <SlipRow label={t('tally.known')}>
          {t('tally.knownOf', { known: totals.known, of: totals.plants - totals.missing - totals.young })}
        </SlipRow>
        <SlipRow label={t('tally.buds')} isDeciding>
          {t('tally.budsOf', { buds: totals.buds, wanted: totals.wantedOfKnown })}
        </SlipRow>
        <SlipRow label={t('tally.wantedWhole')}>{totals.wanted}</SlipRow>
        <SlipRow label={t('tally.short')} tone={totals.short > 0 ? 'due' : undefined}>
          {totals.short}
        </SlipRow>
        <SlipRow label={t('tally.over')} tone={totals.over > 0 ? 'due' : undefined}>
          {totals.over > 0 ? t('tally.toTrim', { plants: totals.over, count: totals.toTrim }) : 0}
        </SlipRow>
        <SlipRow label={t('tally.notIn')}>
          {t('tally.notInWords', { missing: totals.missing, young: totals.young })}
        </SlipRow>
        <SlipRow label={t('tally.head.canes')}>{totals.canes}</SlipRow>
        <SlipRow label={t('tally.head.ties')}>{totals.ties}</SlipRow>
        <SlipRow label={t('tally.head.minutes')}>{totals.minutes}</SlipRow>
        {totals.pruningsKg > 0 && (
          <SlipRow label={t('tally.head.prunings')}>{formatMass(totals.pruningsKg, units.system)}</SlipRow>
        )}
      </SlipGroup>
      {canWrite && <SampleBudgetOf gardenId={gardenId} row={row} onPlant={onPlant} />}
    </section>
  )
}
