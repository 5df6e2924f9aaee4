/** Under this name a packed map or set says what it is; nothing that is folded has a field of this name. */
const IS = '#'

/** The value as JSON can carry it: maps and sets as lists of what they hold, in their order. */
export function packed(value: unknown): unknown {
  if (value instanceof Map) return { [IS]: 'map', of: [...value].map((pair) => pair.map(packed)) }
  if (value instanceof Set) return { [IS]: 'set', of: [...value].map(packed) }
  if (Array.isArray(value)) return value.map(packed)
  if (value === null || typeof value !== 'object') return value
  return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, packed(one)]))
}

/** What was packed, once more. */
export function unpacked(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(unpacked)
  if (value === null || typeof value !== 'object') return value
  const { [IS]: is, of } = value as { [IS]?: unknown; of?: unknown }
  if (is === 'map') return new Map((of as [unknown, unknown][]).map(([k, v]) => [k, unpacked(v)]))
  if (is === 'set') return new Set((of as unknown[]).map(unpacked))
  const made: Record<string, unknown> = {}
  for (const key in value) made[key] = unpacked((value as Record<string, unknown>)[key])
  return made
}
