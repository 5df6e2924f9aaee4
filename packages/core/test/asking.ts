import { findSystem, isRefused, openQuestions, propose } from '../src/training/index.ts'
import type { PlantView, Proposal, Question } from '../src/training/index.ts'

/** What a system asks first of a plant as it stands. */
export const ask = (systemId: string, view: PlantView): Question =>
  openQuestions(findSystem(systemId)!, view)[0]!

export function answer(question: Question, overrides: ReadonlyMap<string, string> = new Map()): Proposal {
  const found = propose(question, overrides)
  if (isRefused(found)) throw new Error(`refused: ${found.rules.join()}`)
  return found
}

export const deedsOf = (proposal: Proposal) =>
  Object.fromEntries([...proposal.chosen].map(([id, { deed }]) => [id, deed]))

export const codesOf = (question: Question, id: string) =>
  question.candidates.find(({ pieceId }) => pieceId === id)!.judgements.map(({ code }) => code)
