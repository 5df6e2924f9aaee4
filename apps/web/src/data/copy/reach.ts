import type { StoredEntry } from '@klados/contract'

/**
 * The entries after `base` up to `last`, and of those up to the base the ones up to `before`: a garden that was begun from
 * what stands gets its history afterwards. With the base at 0 all of them are here.
 */
export interface Reach {
  readonly base: number
  readonly last: number
  readonly before: number
}
export const NOTHING: Reach = { base: 0, last: 0, before: 0 }
export const hasAll = ({ base, last }: Reach, upTo: number) => base === 0 && last >= upTo

/** Those of the entries after `from` that can be kept without a gap, and what is here then; `null` where none can. */
export function whatFits(
  { base, last, before }: Reach,
  from: number,
  entries: readonly StoredEntry[],
): { readonly entries: readonly StoredEntry[]; readonly reach: Reach } | null {
  const end = entries.at(-1)?.seq
  if (end === undefined) return null
  if (from === last) return { entries, reach: { base, last: end, before } }
  if (base === 0 || from !== before) return null
  // What is after the base is here already.
  const history = entries.filter(({ seq }) => seq <= base)
  return {
    entries: history,
    reach: end >= base ? { base: 0, last, before: 0 } : { base, last, before: end },
  }
}
