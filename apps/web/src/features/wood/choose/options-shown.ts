import type { Candidate, Option } from '@klados/core/training'

const MOST_OPTIONS = 8

/** The other things to do with it: of the same deed on the same wire only the fullest. */
export function shownOptions(candidate: Candidate, now: Option): Option[] {
  const seen = new Set<string>()
  const others = candidate.options.filter((one) => one.id !== now.id)
  const first = others.filter((one) => {
    const key = `${one.deed} ${one.wire} ${one.towards} ${one.deed === 'cut' ? one.cutM : ''}`
    if (seen.has(key)) return false
    seen.add(key)
    return true
  })
  return first.slice(0, MOST_OPTIONS)
}
