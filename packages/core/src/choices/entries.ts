import {
  choice,
  flag,
  list,
  noneOr,
  number,
  oneOf,
  part,
  path,
  record,
  text,
  uuid,
  v1,
  whole,
} from '../shape/index.ts'
import { wayShape } from '../wood/index.ts'
import { deeds, figureUnits } from '../training/index.ts'

const metres = noneOr(number(0, 1000))

/** What was decided of a piece: by whom, and what spoke for it and against it. */
const decided = {
  pieceId: uuid,
  letter: text(8),
  deed: choice(...deeds),
  cutM: metres,
  aboveBuds: noneOr(whole(0, 1000)),
  /** The wire that it goes along, from below. */
  wire: noneOr(whole(1, 1000)),
  towards: noneOr(choice('left', 'right')),
  isOwn: flag,
  /** What the grower gave as the reason for an own choice. */
  reason: text(200),
  /** What Klados would have done, where that is something else. */
  proposed: noneOr(choice(...deeds)),
  judgements: noneOr(
    list(
      record({ code: part(), figure: noneOr(number(-1e6, 1e6)), unit: noneOr(choice(...figureUnits)) }),
      20,
    ),
  ),
}
/** What follows for other wood: old canes cut, laterals shortened, arms lowered. */
const followUp = {
  pieceId: uuid,
  deed: choice('cut', 'off', 'spur', 'lower'),
  cutM: metres,
  aboveBuds: noneOr(whole(0, 1000)),
  why: part(),
}
const made = {
  choiceId: uuid,
  system: part(),
  question: part(),
  as: choice('plan', 'done'),
  buds: whole(0, 100_000),
  budsMin: whole(0, 100_000),
  budsMax: whole(0, 100_000),
  bareM: number(0, 10_000),
  isProven: flag,
  ties: whole(0, 10_000),
  minutes: number(0, 100_000),
}
const onWall = { path: noneOr(path) }
const inSpace = { way: noneOr(wayShape) }

/**
 * A choice among wood, written down whole: what there was, what was proposed, what the grower did otherwise and why.
 * Next year it is held against what came of it.
 */
export const choiceEntries = {
  'choice.made': oneOf(
    'v',
    {
      v: choice(1),
      ...made,
      decided: list(record({ ...decided, ...onWall }), 200),
      followUps: noneOr(list(record({ ...followUp, ...onWall }), 1000)),
    },
    // What is led lies in space, along parts of its frame.
    {
      v: choice(2),
      ...made,
      decided: list(record({ ...decided, ...inSpace }), 200),
      followUps: noneOr(list(record({ ...followUp, ...inSpace }), 1000)),
    },
  ),
  /** What had been planned is done. */
  'choice.done': v1({ choiceId: uuid, minutes: noneOr(number(0, 100_000)) }),
  'choice.dropped': v1({ choiceId: uuid, reason: text(200) }),
} as const
