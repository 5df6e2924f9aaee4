import type { Candidate } from '@klados/core/training'
import { useState } from 'react'
import { useTranslation } from '../../../i18n/use-translation.tsx'
import type { Choosing } from './use-choosing.ts'
import { deedWords, hasManyWires, reasonWords } from './words.ts'
import type { Speech } from './words.ts'

interface Alike {
  readonly words: string
  readonly why: string
  readonly isOff: boolean
  readonly isOwn: boolean
  readonly candidates: Candidate[]
}

/** What is to be done alike for the same reasons stands in one line; what the grower chose otherwise by itself. */
function alike(say: Speech, choosing: Choosing): Alike[] {
  const { question, proposal, overrides } = choosing
  const many = hasManyWires(question)
  const groups = new Map<string, Alike>()
  for (const candidate of question.candidates) {
    const one = proposal.chosen.get(candidate.pieceId)!
    const words = deedWords(say, question.code, one, many)
    const why = reasonWords(say, candidate, choosing, 2)
    const isOwn = overrides.has(candidate.pieceId)
    const key = isOwn ? candidate.pieceId : `${words}; ${why}`
    const known = groups.get(key)
    if (known) known.candidates.push(candidate)
    else groups.set(key, { words, why, isOff: one.deed === 'off', isOwn, candidates: [candidate] })
  }
  return [...groups.values()]
}

/** The proposal in lines: the letters, what is done, why. A letter opens its own why and what else could be done. */
export function ProposalLines({ say, choosing }: { readonly say: Speech; readonly choosing: Choosing }) {
  const { t } = useTranslation()
  return (
    <ul>
      {alike(say, choosing).map(({ words, why, isOff, isOwn, candidates }) => {
        const tone = isOff ? 'text-iron' : 'text-verdigris'
        const first = candidates[0]!
        const said = (
          <>
            <span className="min-w-0 flex-1">
              {words}
              {isOwn && <span className="text-ochre"> · {t('choose.own')}</span>}
            </span>
            <span className="max-w-[50%] text-right text-[0.8125rem] text-slate">{why}</span>
          </>
        )
        return (
          <li key={first.pieceId} className="border-b border-dotted border-faint">
            {candidates.length === 1 ? (
              <button
                type="button"
                className="flex min-h-9 w-full items-baseline gap-2 py-1 text-left"
                onClick={() => choosing.focus(first.pieceId)}
              >
                <span className={`w-5 font-bold ${tone}`}>{first.letter}</span>
                {said}
              </button>
            ) : (
              <>
                <p className="flex items-baseline gap-2 pt-1">{said}</p>
                <Letters candidates={candidates} tone={tone} onFocus={choosing.focus} />
              </>
            )}
          </li>
        )
      })}
    </ul>
  )
}

const SHOWN = 24

interface LettersProps {
  readonly candidates: readonly Candidate[]
  readonly tone: string
  readonly onFocus: (pieceId: string) => void
}

/** The letters of what is done alike; of very many the first, and the rest where they are asked for. */
function Letters({ candidates, tone, onFocus }: LettersProps) {
  const { t } = useTranslation()
  const [isWhole, showWhole] = useState(candidates.length <= SHOWN)
  const rest = candidates.length - SHOWN
  return (
    <div className="-ml-2 flex flex-wrap items-center">
      {(isWhole ? candidates : candidates.slice(0, SHOWN)).map(({ pieceId, letter }) => (
        <button
          key={pieceId}
          type="button"
          className={`min-h-9 min-w-9 font-bold ${tone}`}
          onClick={() => onFocus(pieceId)}
        >
          {letter}
        </button>
      ))}
      {!isWhole && (
        <button type="button" className="btn btn-plain" onClick={() => showWhole(true)}>
          {t('choose.more', { count: rest })}
        </button>
      )}
    </div>
  )
}
