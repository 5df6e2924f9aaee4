import { above, choice, list, noneOr, number, text, uuid, v1, whole } from '../shape/index.ts'

/** What is read off a plant or a piece, and in which unit. */
export const readingUnits = {
  'leaf-length': 'm',
  'string-length': 'm',
  'shoot-length': 'm',
  prunings: 'kg',
  crop: 'kg',
  shoots: 'count',
  clusters: 'count',
  girth: 'm',
} as const
export type ReadingOf = keyof typeof readingUnits
export const readingKinds = Object.keys(readingUnits) as readonly ReadingOf[]

/** Stages of the year as growers see them; phenological scales are mapped to these. */
export const stages = [
  'bud-swell',
  'budburst',
  'flowering',
  'fruit-set',
  'ripening',
  'ripe',
  'leaf-fall',
  'dormant',
] as const

const count = noneOr(whole(0, 100_000))
const kilograms = noneOr(number(0, 100_000))
const note = text(400)

/** What a plant was given and what was seen of it as a whole. */
export const plantEntries = {
  'reading.taken': v1({
    what: choice(...readingKinds),
    value: number(0, 1e6),
    pieceId: noneOr(uuid),
    alongM: noneOr(number(0, 1000)),
  }),
  /** A plant counted instead of drawn. */
  'plant.tallied': v1({
    canes: count,
    spurs: count,
    buds: count,
    ties: count,
    minutes: count,
    pruningsKg: kilograms,
    cropKg: kilograms,
  }),
  /** Canes that come up anew each year, counted over a length of row: of this summer, of last, and of those cut out since. */
  'plant.canes': v1({
    fresh: whole(0, 100_000),
    fruited: whole(0, 100_000),
    cutOut: whole(0, 100_000),
    overM: above(0, 1000),
  }),
  'stage.seen': v1({ stage: choice(...stages) }),
  'plant.watered': v1({ litres: noneOr(above(0, 100_000)) }),
  'plant.fed': v1({ what: text(120), grams: noneOr(above(0, 1e6)) }),
  'plant.mulched': v1({ what: text(120) }),
  'plant.treated': v1({ what: text(120), against: text(120), waitDays: noneOr(whole(0, 366)) }),
  /** Of the plant or the place; and of some wood, where one has pointed at it. */
  'photo.taken': v1({ fileId: uuid, pieceIds: noneOr(list(uuid, 20)), note }),
  'plant.died': v1({ why: note }),
  'plant.replanted': v1({ newPlantId: uuid, why: note }),
} as const
