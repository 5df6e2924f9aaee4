import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { isDeep } from './json-body.ts'

const nested = (depth: number) => '['.repeat(depth) + ']'.repeat(depth)

describe('how deep a text is nested', () => {
  it('is looked at up to what anybody sends, and a megabyte of brackets is seen at its beginning', () => {
    expect(isDeep(nested(40))).toBe(false)
    expect(isDeep(nested(41))).toBe(true)
    expect(isDeep('['.repeat(1_000_000))).toBe(true)
    expect(isDeep(`[${'[],'.repeat(100_000)}[]]`)).toBe(false)
  })

  it('does not count brackets within strings, whatever is escaped there', () => {
    fc.assert(fc.property(fc.string(), (text) => !isDeep(JSON.stringify([text + '['.repeat(60) + text]))))
    expect(isDeep(`{"a\\\\":${nested(60)}}`)).toBe(true)
  })
})
