import { levelWires } from '@klados/core/training'
import type { Place } from '@klados/contract'
import type { Rect } from '@klados/core/geometry'
import type { Training } from './choose/training.ts'
import type { Choosing } from './choose/use-choosing.ts'
import type { Reading } from './use-reading-keys.ts'

/** A place this many times as wide as a plant's own share is shown plant by plant. */
const PLANT_BY_PLANT = 2.2
const BESIDE_M = 0.35

/** The part of a long place that one plant fills, with a little of its neighbours. */
export function windowOf({ body }: Place, training: Training | null): Rect | null {
  if (!training) return null
  const { share, input, stems } = training.view
  const wideM = share.toM - share.fromM
  if (wideM < 0.2 || body.widthM < wideM * PLANT_BY_PLANT) return null
  const { footYM } = input.plant
  const topM = Math.max(
    ...levelWires(training.view).map(({ heightM }) => footYM + heightM),
    ...stems.flatMap(({ piece }) => piece.path.map(({ yM }) => yM)),
    footYM + 1,
  )
  return {
    leftM: share.fromM - BESIDE_M,
    rightM: share.toM + BESIDE_M,
    bottomM: footYM - 0.05,
    topM: topM + 0.1,
  }
}

/** While one chooses, what is in question and what it sits on is in ink and the rest is quiet. */
export function inInkOf(reading: Reading, training: Training | null): ReadonlySet<string> | null {
  if (reading === 'look' || reading === 'count' || !training) return null
  const asked = training.question?.candidates.map(({ pieceId }) => pieceId) ?? []
  const planned = training.planned?.decided.map(({ pieceId }) => pieceId) ?? []
  const ink = new Set(reading === 'choose' ? asked : planned)
  for (const id of [...ink]) for (let at = training.view.stem(id)?.parent; at; at = at.parent) ink.add(at.id)
  for (const stem of training.view.stems) if (stem.role === 'trunk' || stem.role === 'arm') ink.add(stem.id)
  return ink
}

/** What is drawn over the wood: the proposal while one chooses, the plan while one carries it out. */
export function marksOf(reading: Reading, training: Training | null, choosing: Choosing | null) {
  if (reading === 'choose' && choosing) {
    const { question, proposal, focused } = choosing
    const deeds = question.candidates.map(({ pieceId, letter }) => ({
      ...proposal.chosen.get(pieceId)!,
      pieceId,
      letter,
    }))
    return { deeds, followUps: proposal.followUps, bare: proposal.bare, focused }
  }
  const planned = reading === 'do' ? training?.planned : null
  return planned ? { deeds: planned.decided, followUps: planned.followUps ?? [] } : null
}
