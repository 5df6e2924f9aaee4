import type { CalendarDate } from '../season/index.ts'
import { WITHDRAWAL } from './entry.ts'
import type { Entry } from './entry.ts'

/** Entries that nothing in force supersedes, once each, by day and then by id; withdrawals are left out. */
export function inForce<E extends Entry>(entries: readonly E[]): E[] {
  const seen = new Set<string>()
  const supersededBy = new Map<string, string[]>()
  // Days first, then ids within a day: a few hundred days sort at once, and most days come in order already.
  const byDay = new Map<CalendarDate, E[]>()
  for (const entry of entries) {
    if (seen.has(entry.id)) continue
    seen.add(entry.id)
    if (entry.supersedes !== null) push(supersededBy, entry.supersedes, entry.id)
    if (entry.kind !== WITHDRAWAL) push(byDay, entry.at, entry)
  }
  const verdicts = new Map<string, boolean>()
  const isInForce = ({ id }: Entry) => !supersededBy.has(id) || stands(id, supersededBy, verdicts)
  return [...byDay]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .flatMap(([, day]) => {
      const standing = supersededBy.size === 0 ? day : day.filter(isInForce)
      return standing.sort((a, b) => (a.id < b.id ? -1 : 1))
    })
}

/** An entry stands when no standing entry supersedes it, so withdrawing a withdrawal restores. */
function stands(
  id: string,
  supersededBy: ReadonlyMap<string, readonly string[]>,
  verdicts: Map<string, boolean>,
): boolean {
  // Walked with a stack of its own: a long chain of undo and redo must not overflow the machine's.
  const stack = [id]
  while (stack.length > 0) {
    const current = stack.at(-1)!
    const over = supersededBy.get(current) ?? []
    // A ring can only come from a forged file; the half-made verdict `true` then ends it.
    const open = over.filter((other) => !verdicts.has(other) && !stack.includes(other))
    if (open.length > 0) stack.push(...open)
    else {
      verdicts.set(current, !over.some((other) => verdicts.get(other) ?? false))
      stack.pop()
    }
  }
  return verdicts.get(id)!
}

function push<V>(map: Map<string, V[]>, key: string, value: V): void {
  const list = map.get(key)
  if (list) list.push(value)
  else map.set(key, [value])
}
