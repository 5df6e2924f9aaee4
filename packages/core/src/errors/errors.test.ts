import { readFileSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { describe, expect, it } from 'vitest'
import { CoreError, coreErrorCodes, requirePositive, requireRange } from './index.ts'

const core = fileURLToPath(new URL('..', import.meta.url))
const sources = (folder: string): string[] =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name)
    if (statSync(path).isDirectory()) return sources(path)
    return name.endsWith('.ts') && !name.endsWith('.test.ts') ? [readFileSync(path, 'utf8')] : []
  })

describe('error codes', () => {
  it('are each thrown somewhere, under their own name and no other', () => {
    const thrown = sources(core).flatMap((code) =>
      [...code.matchAll(/new CoreError\(\s*'([^']+)'/g)].map((m) => m[1]!),
    )
    expect([...new Set(thrown)].sort()).toEqual(Object.keys(coreErrorCodes).sort())
  })
})

describe('range checks', () => {
  it('let good numbers through and name the field and limits of bad ones', () => {
    expect(requireRange('spanM', 2, 0, 5)).toBe(2)
    expect(requirePositive('spanM', 1e-9)).toBe(1e-9)
    for (const bad of [Number.NaN, Infinity, -Infinity]) {
      expect(() => requireRange('spanM', bad, 0)).toThrow(
        expect.objectContaining({ code: 'core/not-finite' }),
      )
    }
    const caught = (() => {
      try {
        return requireRange('spanM', 6, 0, 5)
      } catch (error) {
        return error
      }
    })()
    expect(caught).toBeInstanceOf(CoreError)
    expect(caught).toMatchObject({
      code: 'core/out-of-range',
      details: { field: 'spanM', value: 6, min: 0, max: 5 },
    })
    expect(() => requirePositive('spanM', 0)).toThrow(/spanM/)
  })
})
