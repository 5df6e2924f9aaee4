import type { JournalEntry } from '@klados/core/journal'
import { addDays, dateOfDay, dayNumber, daysBetween, seasonsOfGrowth, yearOf } from '@klados/core/season'
import type { CalendarDate, Hemisphere } from '@klados/core/season'
import { memo, useMemo } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { formatDate } from '../../data/dates.ts'
import { useSame } from '../../ui/use-same.ts'
import { entryGlyphs } from '../../ui/entry-glyphs.ts'

interface RingsProps {
  readonly entries: readonly JournalEntry[]
  readonly hemisphere: Hemisphere
  readonly on: CalendarDate
  readonly today: CalendarDate
  readonly onDay: (on: CalendarDate) => void
}

const HEIGHT = 44
/** A dormant season still takes up some of the band, or a winter's cuts would all fall on one line. */
const CALENDAR_SHARE = 0.45
const LEAST_GROWTH = 0.05

/**
 * Seasons as rings of a trunk seen edge-on, each as wide as its growth; entries are ticks in them; the slider
 * rides on them.
 */
export function Rings({ entries, hemisphere, on, today, onDay }: RingsProps) {
  const { t } = useTranslation()
  const days = useMemo(() => daysOf(entries), [entries])
  const first = useMemo(
    () => [...days.keys()].reduce((min, day) => (day < min ? day : min), addDays(today, -30)),
    [days, today],
  )
  const start = addDays(first, -10)
  const total = Math.max(1, daysBetween(start, today))
  const place = useMemo(() => {
    const grownAt = (date: CalendarDate) => seasonsOfGrowth(date, hemisphere, false)
    const from = grownAt(start)
    const grown = grownAt(today) - from
    // A band that lies wholly in the dormant season has no growth to be as wide as: then days alone count.
    if (grown < LEAST_GROWTH) return (date: CalendarDate) => daysBetween(start, date) / total
    return (date: CalendarDate) =>
      CALENDAR_SHARE * (daysBetween(start, date) / total) +
      (1 - CALENDAR_SHARE) * ((grownAt(date) - from) / grown)
  }, [start, today, total, hemisphere])
  // A list of words stays the list that it was while its days do: most taps put no new day on the band.
  const ticks = useSame(
    useMemo(
      () => [...days].flatMap(([day, tone]) => (tone && day >= start ? [`${day} ${tone}`] : [])),
      [days, start],
    ),
  )
  const percent = percentIn(place)
  return (
    <div className="flex items-center gap-3">
      <span className="text-[0.8125rem] font-semibold" aria-hidden="true">
        {t('wood.rings')}
      </span>
      <div
        className="relative min-w-0 flex-1 has-[:focus-visible]:outline-2 has-[:focus-visible]:outline-offset-2 has-[:focus-visible]:outline-verdigris"
        style={{ height: HEIGHT + 8 }}
      >
        <svg className="absolute inset-x-0 top-1 w-full overflow-visible" height={HEIGHT} aria-hidden="true">
          <Band place={place} start={start} today={today} ticks={ticks} />
          <line
            x1={percent(on)}
            x2={percent(on)}
            y1={-6}
            y2={HEIGHT + 4}
            stroke="var(--verdigris)"
            strokeWidth="3"
          />
        </svg>
        <input
          type="range"
          className="absolute inset-0 h-full w-full cursor-ew-resize opacity-0"
          aria-label={t('wood.ringsLabel')}
          aria-valuetext={formatDate(on, 'long')}
          min={0}
          max={1000}
          value={Math.round(place(on < start ? start : on) * 1000)}
          onChange={(event) => onDay(dayAt(Number(event.target.value) / 1000, place, start, today))}
          onKeyDown={(event) => {
            const step = { ArrowLeft: -1, ArrowRight: 1, PageDown: -30, PageUp: 30 }[event.key]
            if (step === undefined) return
            event.preventDefault()
            const moved = addDays(on, step)
            onDay(moved < start ? start : moved > today ? today : moved)
          }}
        />
      </div>
      <button type="button" className="btn" disabled={on === today} onClick={() => onDay(today)}>
        {t('wood.today')}
      </button>
    </div>
  )
}

type Along = (date: CalendarDate) => number
const percentIn = (place: Along) => (date: CalendarDate) => `${(place(date) * 100).toFixed(3)}%`

interface BandProps {
  readonly place: Along
  readonly start: CalendarDate
  readonly today: CalendarDate
  /** Day and tone of each, with a space between. */
  readonly ticks: readonly string[]
}

/** The years and what happened in them; under the slider it stays as it is. */
const Band = memo(function Band({ place, start, today, ticks }: BandProps) {
  const percent = percentIn(place)
  const years = Array.from({ length: yearOf(today) - yearOf(start) + 1 }, (_, i) => yearOf(start) + i)
  return (
    <>
      {years.map((year, i) => {
        const from = i === 0 ? start : `${year}-01-01`
        const to = i === years.length - 1 ? today : `${year + 1}-01-01`
        return (
          <g key={year}>
            <rect
              x={percent(from)}
              y={0}
              width={`${((place(to) - place(from)) * 100).toFixed(3)}%`}
              height={HEIGHT}
              fill={i % 2 === 0 ? 'var(--ring-pale)' : 'var(--ring-dark)'}
              stroke="var(--bark-pale)"
              strokeWidth="1"
            />
            {place(to) - place(from) > 0.06 && (
              <svg x={percent(from)} y={0} overflow="visible">
                <text x={7} y={HEIGHT - 7} fontSize="12" fill="var(--ink)">
                  {year}
                </text>
              </svg>
            )}
          </g>
        )
      })}
      {ticks.map((tick) => {
        const [day, tone] = tick.split(' ') as [string, string]
        const x = percent(day)
        return (
          <line key={tick} x1={x} x2={x} y1={0} y2={tone === IRON ? 13 : 9} stroke={tone} strokeWidth="1.6" />
        )
      })}
    </>
  )
})

/** The days on which something was written, each with its tone; without one where things were only taken back. */
function daysOf(entries: readonly JournalEntry[]): ReadonlyMap<CalendarDate, string | undefined> {
  const days = new Map<CalendarDate, string | undefined>()
  for (const { at, kind } of entries)
    days.set(at, kind === 'entry.withdrawn' ? days.get(at) : tickTone(days.get(at), kind))
  return days
}

const IRON = 'var(--iron)'

/** Cuts in iron, ties in verdigris, the rest in ink; a day shows its gravest. */
function tickTone(before: string | undefined, kind: JournalEntry['kind']): string {
  const glyph = entryGlyphs[kind]
  if (before === IRON || glyph === 'cut') return IRON
  return before === 'var(--verdigris)' || glyph === 'tie' ? 'var(--verdigris)' : 'var(--ink)'
}

/** The day at a share of the band: its position rises with the days, so halving finds it. */
function dayAt(share: number, place: Along, start: CalendarDate, end: CalendarDate): CalendarDate {
  let low = dayNumber(start)
  let high = dayNumber(end)
  while (low < high) {
    const middle = Math.floor((low + high) / 2)
    if (place(dateOfDay(middle)) < share - 1e-9) low = middle + 1
    else high = middle
  }
  return dateOfDay(low)
}
