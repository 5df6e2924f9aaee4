import { frameKinds } from '@klados/core/frame'
import type { PatternKind } from '@klados/core/frame'
import { describe, expect, it } from 'vitest'
import { patternSchema } from './index.ts'

const kinds = Object.keys(frameKinds) as PatternKind[]
const start = (kind: PatternKind) =>
  frameKinds[kind].start({ kind: 'bench', widthM: 2, usableHeightM: 2, firstForkM: 0 })

describe('the schema of a pattern', () => {
  it.each(kinds)('takes what %s starts with as it is, and refuses a parameter more or one less', (kind) => {
    const pattern = start(kind)
    expect(patternSchema.parse(pattern)).toEqual(pattern)
    expect(patternSchema.safeParse({ ...pattern, extra: 1 }).success).toBe(false)
    for (const key of Object.keys(pattern)) {
      const { [key as keyof typeof pattern]: _, ...less } = pattern
      expect([key, patternSchema.safeParse(less).success]).toEqual([key, false])
    }
  })

  it.each(kinds)('holds the parameters of %s to the ranges of its record, ends included', (kind) => {
    const pattern = start(kind)
    for (const [key, field] of Object.entries(frameKinds[kind].fields)) {
      const takes = (value: unknown) => patternSchema.safeParse({ ...pattern, [key]: value }).success
      const range: [number, number] | null =
        field.ask === 'length' || field.ask === 'length-or-none'
          ? [field.minM, field.maxM]
          : field.ask === 'whole' || field.ask === 'number'
            ? [field.min, field.max]
            : null
      if (!range) continue
      expect([key, range.map(takes)]).toEqual([key, [true, true]])
      expect([key, takes(range[0] - 1), takes(range[1] + 1)]).toEqual([key, false, false])
      expect([key, takes(Number.NaN), takes(Infinity), takes('1')]).toEqual([key, false, false, false])
    }
  })

  it('refuses two levels of one id', () => {
    const row = frameKinds.row.start({ kind: 'row', widthM: 20, usableHeightM: 2, firstForkM: 0 })
    const [first, second, ...rest] = row.levels
    const doubled = { ...row, levels: [first, { ...second, id: first!.id }, ...rest] }
    expect(patternSchema.safeParse(row).success).toBe(true)
    expect(patternSchema.safeParse(doubled).success).toBe(false)
  })
})
