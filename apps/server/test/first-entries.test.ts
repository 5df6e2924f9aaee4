import { readFileSync } from 'node:fs'
import { entrySchema } from '@klados/contract'
import { describe, expect, it } from 'vitest'

describe('entries of the first releases', () => {
  it('are taken as they were written, from an old phone or out of a file', () => {
    const path = new URL('../../../packages/core/test/fixtures/demo-v1.json', import.meta.url)
    const { entries } = JSON.parse(readFileSync(path, 'utf8')) as { entries: { kind: string }[] }
    const refused = entries.filter((entry) => !entrySchema.safeParse(entry).success)
    expect(refused).toEqual([])
    expect(new Set(entries.map((entry) => entry.kind)).has('stem.redrawn')).toBe(true)
  })
})
