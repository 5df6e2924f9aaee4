import type { LineId } from '@klados/core/frame'
import { isCalendarDate } from '@klados/core/season'
import Papa from 'papaparse'

export interface CsvReading {
  readonly line: LineId
  readonly tensionN: number
  readonly temperatureC: number
  readonly on: string
}

export interface ReadReadings {
  readonly readings: readonly CsvReading[]
  /** Rows that were left out, with their number in the file and what is wrong with them. */
  readonly problems: readonly {
    readonly row: number
    readonly what: 'line' | 'tension' | 'temperature' | 'date' | 'columns'
  }[]
}

/**
 * Readings of a tension meter: `wire,tension_N,temperature_C,date`, in any order of columns; a missing date
 * is today. A wire goes by its name or its id, in either case of letters: `lines` has both, in small ones.
 */
export function readReadings(csv: string, lines: ReadonlyMap<string, LineId>, today: string): ReadReadings {
  const { data, meta } = Papa.parse<Record<string, string>>(csv, {
    header: true,
    skipEmptyLines: true,
    transformHeader: (name) => name.trim().toLowerCase(),
  })
  if (!['wire', 'tension_n', 'temperature_c'].every((name) => meta.fields?.includes(name)))
    return { readings: [], problems: [{ row: 1, what: 'columns' }] }
  const readings: CsvReading[] = []
  const problems: ReadReadings['problems'][number][] = []
  data.forEach((fields, i) => {
    const number = (name: string) => Number((fields[name] ?? '').trim().replace(',', '.') || NaN)
    const line = lines.get((fields.wire ?? '').trim().toLowerCase())
    const reading = {
      tensionN: number('tension_n'),
      temperatureC: number('temperature_c'),
      on: (fields.date ?? '').trim() || today,
    }
    const what =
      line === undefined
        ? 'line'
        : !(reading.tensionN > 0 && reading.tensionN <= 100_000)
          ? 'tension'
          : !(Math.abs(reading.temperatureC) <= 60)
            ? 'temperature'
            : !isCalendarDate(reading.on) || reading.on > today
              ? 'date'
              : null
    if (what) problems.push({ row: i + 2, what })
    else readings.push({ ...reading, line: line! })
  })
  return { readings, problems }
}
