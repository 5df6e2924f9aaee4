import { findSystem, systemsFor } from '../src/training/index.ts'
import type { ExpectedPiece, PlantView, TrainingInput, TrainingSystem } from '../src/training/index.ts'
import { plantKinds } from '../src/kinds/index.ts'
import type { Piece } from '../src/wood/index.ts'
import { seeded } from './seeded.ts'
import { Wood, viewOf, wiresAt } from './training.ts'

/** What is told of a plant that a system is tried on. */
export interface Trial {
  readonly system: TrainingSystem
  readonly kindId: string
  readonly years: number
  readonly on: string
  readonly seed: number
  readonly frames?: TrainingInput['frames']
}

export const kindFor = (system: TrainingSystem): string =>
  plantKinds.find(({ id }) => systemsFor(id).some((one) => one.id === system.id))!.id

/** In winter all that a plant of so many years has; in spring the same cut to spurs, with the shoots of the year. */
export function plantOf({
  system,
  kindId,
  years,
  on,
  seed,
  frames = wiresAt(2.4, 0.5, 0.9, 1.3, 1.7),
}: Trial): PlantView {
  const random = seeded(seed)
  const empty = viewOf(new Wood(1.2, on), kindId, frames, { on })
  const expected = findSystem(system.id)!.skeleton(empty, years)
  const wood = new Wood(1.2, on)
  for (const one of expected) wood.pieces.set(one.name, varied(one, wood, random))
  if (on.slice(5, 7) === '05') inSpring(wood, random)
  return viewOf(wood, kindId, frames, { on })
}

const oneOf = <T>(random: () => number, ...from: readonly T[]): T => from[Math.floor(random() * from.length)]!

/** As one would find it: thicker or thinner, some of it counted, some of it seen to be good or bad. */
function varied(one: ExpectedPiece, wood: Wood, random: () => number): Piece {
  const isYoung = one.seasonsOld <= 1
  const lengthShare = isYoung ? 0.4 + 0.8 * random() : 1
  const [base] = [one.path[0]!]
  const path = one.path.map(
    ({ xM, yM }) => [base.xM + (xM - base.xM) * lengthShare, base.yM + (yM - base.yM) * lengthShare] as const,
  )
  const seen = isYoung
    ? {
        buds: random() < 0.6 ? Math.round(3 + random() * 14) : one.buds,
        light: oneOf(random, null, null, 'well-lit', 'shaded') as Piece['light'],
        bends: oneOf(random, null, null, null, 'pliable', 'stiff') as Piece['bends'],
        fault: oneOf(random, null, null, null, null, 'crossing', 'weak', 'woven') as Piece['fault'],
        health: oneOf(random, null, null, null, null, 'doubtful', 'sick', 'dead') as Piece['health'],
        meantFor: oneOf(random, null, null, null, 'cane', 'spur') as Piece['meantFor'],
        baseMm: one.baseMm * (0.5 + random()),
        tipMm: random() < 0.3 ? 4 : null,
      }
    : {}
  wood.add(one.name, path, {
    parent:
      one.on === null ? { on: 'crown', leadId: null } : { on: 'piece', pieceId: one.on, alongM: one.alongM },
    seasonsThen: one.seasonsOld,
    baseMm: one.baseMm,
    calledRole: one.role,
    side: one.side,
    ...seen,
  })
  return wood.pieces.get(one.name)!
}

function inSpring(wood: Wood, random: () => number): void {
  const canes = [...wood.pieces.values()].filter(({ seasonsThen }) => seasonsThen === 1)
  const aboveBuds = 2
  for (const cane of canes) {
    const cut = { on: wood.on, reason: 'spur', alongM: 0.15, aboveBuds }
    wood.pieces.set(cane.id, { ...cane, cuts: [cut], health: null })
    const foot = cane.path[0]!
    for (let n = 0; n <= aboveBuds; n++)
      wood.stem(
        `${cane.id}-shoot-${n}`,
        cane.id,
        0.05 * n,
        [foot.xM, foot.yM + 0.05 * n],
        0.3,
        40 * random() - 20,
        {
          seasonsThen: 0,
          baseMm: 4,
          fault: oneOf(random, null, null, null, 'weak'),
          side: oneOf(random, null, null, 'back', 'up'),
        },
      )
  }
}
