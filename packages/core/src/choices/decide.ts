import { freeWay, lineOf, wayFrom } from '../wood/index.ts'
import type { Option, Overrides, PlantView, Proposal, Question } from '../training/index.ts'
import type { DoneContext } from './actions.ts'
import type { ChoiceRecord, Decided } from './projection.ts'

/** What is done to wood by a choice: what was chosen among, and what follows from it. */
export type Deeds = Pick<ChoiceRecord, 'decided' | 'followUps'>

/**
 * What an answer decides of each candidate, with what the grower did otherwise and why. Where nothing was chosen among,
 * what follows is all that is decided. Lines that an answer leads wood along are written as what of the plant's frames they
 * run along.
 */
export function deedsOf(
  view: Pick<PlantView, 'tracks' | 'stem'>,
  question: Question,
  proposal: Proposal,
  usual: Proposal,
  overrides: Overrides,
  reasonOf: (pieceId: string) => string,
): Deeds {
  const led = (pieceId: string, path: Option['path'], told: Option['way']) => {
    const way = path && (told ?? wayFrom(path, view.tracks, view.stem(pieceId)?.base.zM ?? 0))
    return { path: way && lineOf(way), way }
  }
  const decided = question.candidates.map(({ pieceId, letter, judgements }): Decided => {
    const { id, deed, cutM, aboveBuds, path, way, wire, towards } = proposal.chosen.get(pieceId)!
    const before = usual.chosen.get(pieceId)!
    const isOwn = overrides.has(pieceId)
    return {
      pieceId,
      letter,
      deed,
      cutM,
      aboveBuds,
      ...led(pieceId, path, way),
      wire,
      towards,
      isOwn,
      reason: isOwn ? reasonOf(pieceId) : '',
      proposed: before.id === id ? null : before.deed,
      judgements:
        judgements.length === 0 ? null : judgements.map(({ code, figure, unit }) => ({ code, figure, unit })),
    }
  })
  const followUps = proposal.followUps.map((one) => ({ ...one, ...led(one.pieceId, one.path, one.way) }))
  if (decided.length > 0) return { decided, followUps: followUps.length === 0 ? null : followUps }
  return {
    followUps: null,
    decided: followUps.map(
      ({ pieceId, deed, cutM, aboveBuds, path, way }, i): Decided => ({
        pieceId,
        letter: String(i + 1),
        deed,
        cutM,
        aboveBuds,
        path,
        way,
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

/** What is decided as it is written down: lines as what of the frames they run along. */
export const asWritten = ({ decided, followUps }: Deeds) => ({
  decided: decided.map(({ path, way, ...one }) => ({ ...one, way: wayOf(path, way) })),
  followUps: followUps?.map(({ path, way, ...one }) => ({ ...one, way: wayOf(path, way) })) ?? null,
})

const wayOf = (path: Decided['path'], way: Decided['way']) => path && (way ?? freeWay(path))

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
