import { lineId } from '@klados/core/frame'
import { describe, expect, it } from 'vitest'
import { readReadings } from './readings-csv.ts'

const [low, high] = [lineId('w0'), lineId('w1a')]
const lines = new Map([
  ['w0', low],
  ['w1a', high],
  ['carrying wire 1', low],
])
const read = (csv: string) => readReadings(csv, lines, '2026-05-01')

describe('readings of a tension meter', () => {
  it('are read in any order of columns, with either decimal mark, dated today unless they say', () => {
    const csv = 'temperature_C,wire,tension_N,date\n12,Carrying wire 1,640,2026-04-02\r\n"7,5",w1a,"180,5",\n'
    expect(read(csv)).toEqual({
      readings: [
        { line: low, tensionN: 640, temperatureC: 12, on: '2026-04-02' },
        { line: high, tensionN: 180.5, temperatureC: 7.5, on: '2026-05-01' },
      ],
      problems: [],
    })
  })

  it('that make no sense are left out and named by their row', () => {
    const csv =
      'wire,tension_N,temperature_C,date\nw9,600,10,\nw0,-5,10,\nw0,600,hot,\nw0,600,10,2026-06-01\nw0,600,10,2026-02-30\nw0,600,10,\n'
    const { readings, problems } = read(csv)
    expect(readings).toHaveLength(1)
    expect(problems).toEqual([
      { row: 2, what: 'line' },
      { row: 3, what: 'tension' },
      { row: 4, what: 'temperature' },
      { row: 5, what: 'date' },
      { row: 6, what: 'date' },
    ])
  })

  it('without their columns are refused whole', () => {
    expect(read('a,b\n1,2\n').problems).toEqual([{ row: 1, what: 'columns' }])
  })
})
