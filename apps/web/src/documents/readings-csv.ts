import { isCalendarDate } from '@klados/core/season'
import Papa from 'papaparse'

export interface CsvReading {
  readonly line: string
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
 * is today.
 */
export function readReadings(csv: string, lines: ReadonlySet<string>, today: string): ReadReadings {
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
    const reading = {
      line: (fields.wire ?? '').trim(),
      tensionN: number('tension_n'),
      temperatureC: number('temperature_c'),
      on: (fields.date ?? '').trim() || today,
    }
    const what = !lines.has(reading.line)
      ? 'line'
      : !(reading.tensionN > 0 && reading.tensionN <= 100_000)
        ? 'tension'
        : !(Math.abs(reading.temperatureC) <= 60)
          ? 'temperature'
          : !isCalendarDate(reading.on) || reading.on > today
            ? 'date'
            : null
    if (what) problems.push({ row: i + 2, what })
    else readings.push(reading)
  })
  return { readings, problems }
}
