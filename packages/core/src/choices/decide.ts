import type { Overrides, PlantView, Proposal, Question } from '../training/index.ts'
import type { DoneContext } from './actions.ts'
import type { ChoiceRecord } from './projection.ts'

type Decided = ChoiceRecord['decided'][number]
/** What is done to wood by a choice: what was chosen among, and what follows from it. */
export type Deeds = Pick<ChoiceRecord, 'decided' | 'followUps'>

/**
 * What an answer decides of each candidate, with what the grower did otherwise and why. Where nothing was chosen among,
 * what follows is all that is decided.
 */
export function deedsOf(
  question: Question,
  proposal: Proposal,
  usual: Proposal,
  overrides: Overrides,
  reasonOf: (pieceId: string) => string,
): Deeds {
  const decided = question.candidates.map(({ pieceId, letter, judgements }): Decided => {
    const { id, deed, cutM, aboveBuds, path, wire, towards } = proposal.chosen.get(pieceId)!
    const before = usual.chosen.get(pieceId)!
    const isOwn = overrides.has(pieceId)
    return {
      pieceId,
      letter,
      deed,
      cutM,
      aboveBuds,
      path,
      wire,
      towards,
      isOwn,
      reason: isOwn ? reasonOf(pieceId) : '',
      proposed: before.id === id ? null : before.deed,
      judgements:
        judgements.length === 0 ? null : judgements.map(({ code, figure, unit }) => ({ code, figure, unit })),
    }
  })
  const { followUps } = proposal
  if (decided.length > 0) return { decided, followUps: followUps.length === 0 ? null : followUps }
  return {
    followUps: null,
    decided: followUps.map(
      ({ pieceId, deed, cutM, aboveBuds, path }, i): Decided => ({
        pieceId,
        letter: String(i + 1),
        deed,
        cutM,
        aboveBuds,
        path,
        wire: null,
        towards: null,
        isOwn: false,
        reason: '',
        proposed: null,
        judgements: null,
      }),
    ),
  }
}

/** What carrying a choice out has to know of the plant as it stands. */
export const contextOf = (view: PlantView, reasonOf: DoneContext['reasonOf']): DoneContext => ({
  lengthM: (id) => view.stem(id)?.lengthM ?? null,
  isSoft: (id) => view.stem(id)?.age === 0,
  reasonOf,
  isOn: (id, under) => {
    for (let at = view.stem(id)?.parent; at; at = at.parent) if (at.id === under) return true
    return false
  },
})
