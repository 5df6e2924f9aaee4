import { useEffect } from 'react'
import { areLetterKeysOn } from '../../ui/letter-keys.ts'
import type { Choosing } from './choose/use-choosing.ts'
import { shownOptions } from './choose/options-shown.ts'

export const readings = ['look', 'choose', 'do', 'count'] as const
export type Reading = (typeof readings)[number]

interface ReadingKeys {
  readonly reading: Reading
  readonly onReading: (reading: Reading) => void
  readonly choosing: Choosing | null
  readonly onCommit: () => void
  readonly onNextPlant: (step: 1 | -1) => void
}

/**
 * The bench by keys alone, wherever the focus is but in a field: 1 to 4 for its readings, letters for candidates, then
 * figures for what else to do with one, Escape back, Ctrl and Enter to commit as plan, Page keys along the plants.
 */
export function useReadingKeys({ reading, onReading, choosing, onCommit, onNextPlant }: ReadingKeys): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement
      if (/^(INPUT|SELECT|TEXTAREA)$/.test(target.tagName) || event.defaultPrevented || event.altKey) return
      const isCommit = event.key === 'Enter' && (event.ctrlKey || event.metaKey)
      if ((event.ctrlKey || event.metaKey) && !isCommit) return
      if (event.key.length === 1 && !areLetterKeysOn()) return
      if (event.key === 'PageDown' || event.key === 'PageUp') onNextPlant(event.key === 'PageDown' ? 1 : -1)
      else if (reading === 'choose' && choosing && isCommit) onCommit()
      else if (reading === 'choose' && choosing && takes(event.key, choosing)) {
        // Taken by the candidate.
      } else if (['1', '2', '3', '4'].includes(event.key)) onReading(readings[Number(event.key) - 1]!)
      else return
      event.preventDefault()
    }
    document.addEventListener('keydown', onKey)
    return () => document.removeEventListener('keydown', onKey)
  })
}

function takes(key: string, choosing: Choosing): boolean {
  const { question, focused, proposal } = choosing
  const candidate = question.candidates.find(({ pieceId }) => pieceId === focused)
  if (key === 'Escape' && candidate) {
    choosing.focus(null)
    return true
  }
  if (/^[1-9]$/.test(key) && candidate) {
    const option = shownOptions(candidate, proposal.chosen.get(candidate.pieceId)!)[Number(key) - 1]
    if (option) choosing.take(candidate.pieceId, option.id)
    return true
  }
  const named = question.candidates.find(({ letter }) => letter === key.toUpperCase())
  if (!named) return false
  choosing.focus(named.pieceId)
  return true
}
