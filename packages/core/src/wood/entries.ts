import {
  above,
  choice,
  day,
  flag,
  list,
  noneOr,
  number,
  oneOf,
  part,
  path,
  point,
  text,
  uuid,
  v1,
  whole,
} from '../shape/index.ts'
import { alongM, parentShape, supportShape } from './address.ts'
import { wayShape } from './way.ts'
import {
  bends,
  faults,
  healths,
  hitches,
  lights,
  pieceRoles,
  purposes,
  sides,
  tieEnds,
  tieFailures,
} from './wood.ts'

/** Longest piece and widest stem that are taken for real. */
const mm = above(0, 2000)
const loopLengthMm = above(0, 20_000)
const reason = text(200)
const angleDeg = number(0, 180)
const materialId = part()
const pieceId = uuid

/** What the first releases called the parts of a plant. */
const firstParts = ['trunk', 'arm', 'cane', 'lateral', 'spur', 'shoot'] as const

const loop = {
  materialId,
  hitch: choice(...hitches),
  supportDiameterMm: mm,
  stemDiameterMm: mm,
  loopLengthMm,
}
const grown = {
  pieceId,
  parent: parentShape,
  seasonsOld: whole(0, 200),
  baseMm: mm,
  tipMm: noneOr(mm),
  buds: noneOr(whole(0, 1000)),
  side: noneOr(choice(...sides)),
  role: noneOr(choice(...pieceRoles)),
}
const atPlace = v1({ pieceId, alongM: noneOr(alongM) })
const gone = v1({ pieceId, reason })

/**
 * Everything that is done to wood and ties or seen of them, once each. Wood is addressed by its piece and
 * metres along it.
 */
export const woodEntries = {
  /** A piece that is there: grown since, or drawn for the first time. */
  'piece.grew': oneOf(
    'v',
    { v: choice(1), path, ...grown },
    // Or its figures are those of a typical plant, which nobody has measured here.
    { v: choice(2), path, ...grown, isTypical: flag },
    // In space, along what it is led by.
    { v: choice(3), way: wayShape, ...grown, isTypical: flag },
  ),
  /** It grew on from its tip, by this line. */
  'piece.extended': oneOf('v', { v: choice(1), pieceId, path }, { v: choice(2), pieceId, way: wayShape }),
  /** Its line is another now: laid along a wire, led elsewhere. What sits on it moves with it. */
  'piece.laid': oneOf('v', { v: choice(1), pieceId, path }, { v: choice(2), pieceId, way: wayShape }),
  /** Lowered as a whole towards the level, by one step of several; degrees from upright. */
  'piece.lowered': oneOf(
    'v',
    { v: choice(1), pieceId, path, angleDeg },
    { v: choice(2), pieceId, way: wayShape, angleDeg },
  ),
  'piece.measured': v1({
    pieceId,
    baseMm: noneOr(mm),
    tipMm: noneOr(mm),
    buds: noneOr(whole(0, 1000)),
  }),
  /** Cut to this length, above so many buds where they were counted; what sits beyond goes with it. */
  'piece.cut': v1({ pieceId, alongM: above(0, 1000), aboveBuds: noneOr(whole(0, 1000)), reason }),
  /** Its soft tip taken out, so that it stops or branches. */
  'piece.tipped': v1({ pieceId, alongM: above(0, 1000) }),
  'piece.removed': gone,
  /** A bud or a shoot taken off by hand while it is soft. */
  'piece.rubbed-out': gone,
  /** Torn out at its base: a sucker, a runner. */
  'piece.pulled': gone,
  'piece.notched': atPlace,
  'piece.stripped': atPlace,
  'piece.thinned': v1({ pieceId, alongM: noneOr(alongM), count: noneOr(whole(0, 10_000)) }),
  'piece.wound': v1({ pieceId, alongM: noneOr(alongM), support: noneOr(supportShape) }),
  'piece.tucked': v1({ pieceId, alongM: noneOr(alongM), support: noneOr(supportShape) }),
  'piece.sealed': atPlace,
  'piece.layered': atPlace,
  /** Its nodes counted, as it stands: how many have leaves or could, and how many of them have rooted. */
  'piece.nodes': v1({ pieceId, nodes: whole(0, 1000), rooted: whole(0, 1000) }),
  'piece.judged': v1({ pieceId, health: choice(...healths), reason }),
  /** What the hand and the eye tell of it; what is `null` was not looked at. */
  'piece.seen': v1({
    pieceId,
    bends: noneOr(choice(...bends)),
    light: noneOr(choice(...lights)),
    fault: noneOr(choice(...faults)),
  }),
  'piece.meant': v1({ pieceId, for: noneOr(choice(...purposes)) }),
  'piece.called': v1({ pieceId, role: noneOr(choice(...pieceRoles)) }),
  /** Rooted and a plant of its own from now on, with all that sits on it. */
  'piece.became-plant': v1({ pieceId, newPlantId: uuid }),
  /** The plant taken apart: these pieces, with all that sits on them, are another plant's. */
  'plant.divided': v1({ pieceIds: list(pieceId, 200), newPlantId: uuid }),

  'tie.made': oneOf(
    'v',
    { v: choice(1), tieId: uuid, stemId: pieceId, at: point, ...loop },
    { v: choice(2), tieId: uuid, pieceId, alongM, support: noneOr(supportShape), ...loop },
  ),
  'tie.checked': v1({ tieId: uuid }),
  'tie.loosened': v1({ tieId: uuid, loopLengthMm, stemDiameterMm: mm }),
  'tie.replaced': oneOf(
    'v',
    {
      v: choice(1),
      tieId: uuid,
      newTieId: uuid,
      materialId,
      hitch: choice(...hitches),
      loopLengthMm,
      stemDiameterMm: mm,
    },
    { v: choice(2), tieId: uuid, newTieId: uuid, alongM, support: noneOr(supportShape), ...loop },
    // Found to have failed, and tied anew at its place as it had been.
    {
      v: choice(3),
      tieId: uuid,
      newTieId: uuid,
      why: choice(...tieFailures),
      loopLengthMm,
      stemDiameterMm: mm,
    },
  ),
  'tie.removed': v1({ tieId: uuid, reason }),
  'tie.ended': v1({ tieId: uuid, why: choice(...tieEnds) }),
  'tie.postponed': v1({ tieId: uuid, untilOn: day }),
  /** What a tie of which only the place was known holds on to. */
  'tie.addressed': v1({ tieId: uuid, support: supportShape }),

  // What the first releases wrote of wood. It is read for ever and written no more.
  'stem.drawn': v1({
    stemId: pieceId,
    part: choice(...firstParts),
    parentStemId: noneOr(pieceId),
    points: path,
    ageSeasons: whole(0, 200),
    diameterMm: mm,
  }),
  'stem.redrawn': v1({ stemId: pieceId, points: path, why: choice('grown', 'laid') }),
  'stem.measured': v1({ stemId: pieceId, diameterMm: mm }),
  'stem.shortened': v1({ stemId: pieceId, toLengthM: above(0, 1000), reason }),
  'stem.removed': v1({ stemId: pieceId, reason }),
} as const
