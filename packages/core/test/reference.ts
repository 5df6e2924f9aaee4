import { readFileSync } from 'node:fs'
import { expect } from 'vitest'

interface Tolerance {
  readonly rel?: number
  readonly abs?: number
  readonly exact?: boolean
  readonly byKey?: Readonly<Record<string, Tolerance>>
}

export interface ReferenceCase {
  readonly name: string
  // Inputs differ from file to file; each test names what it reads.
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  readonly input: any
  readonly expected: Readonly<Record<string, unknown>>
  readonly tolerance: Tolerance
}

export function referenceCases(file: string): ReferenceCase[] {
  const text = readFileSync(new URL(`./reference/${file}.json`, import.meta.url), 'utf8')
  return (JSON.parse(text) as { cases: ReferenceCase[] }).cases
}

/**
 * Holds every expected key that `actual` offers against the tolerance rule of the reference files; the rest
 * must be named.
 */
export function expectReference(
  reference: ReferenceCase,
  actual: Readonly<Record<string, unknown>>,
  options: { skipped?: readonly string[]; maxRel?: number } = {},
): void {
  for (const [key, expected] of Object.entries(reference.expected)) {
    if (options.skipped?.includes(key)) continue
    expect(actual, `${reference.name}: nothing computed for ${key}`).toHaveProperty(key)
    compare(`${reference.name}: ${key}`, actual[key], expected, tolerance(reference, key, options.maxRel))
  }
}

function tolerance(reference: ReferenceCase, key: string, maxRel = Infinity): Tolerance {
  const own = reference.tolerance.byKey?.[key] ?? reference.tolerance
  return { ...own, rel: Math.min(own.rel ?? 0, maxRel) }
}

function compare(what: string, actual: unknown, expected: unknown, allowed: Tolerance): void {
  if (Array.isArray(expected)) {
    expect(actual, what).toHaveLength(expected.length)
    expected.forEach((item, i) => compare(`${what}[${i}]`, (actual as unknown[])[i], item, allowed))
  } else if (typeof expected === 'number' && !allowed.exact) {
    const room = Math.max(allowed.abs ?? 0, (allowed.rel ?? 0) * Math.abs(expected))
    expect(
      Math.abs((actual as number) - expected),
      `${what}: ${actual} against ${expected}`,
    ).toBeLessThanOrEqual(room)
  } else {
    expect(actual, what).toEqual(expected)
  }
}
