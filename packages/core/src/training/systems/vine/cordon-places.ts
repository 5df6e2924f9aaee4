import { pointAlong } from '../../../geometry/index.ts'
import type { PlantView, Stem } from '../../plant.ts'
import type { Judgement, Option, Remark, Stretch } from '../../question.ts'
import type { Position } from '../../system.ts'
import { armsOf } from './head.ts'
import type { Head } from './head.ts'
import { isSpurred } from './canes.ts'
import { remark } from './says.ts'

/** Shorter wood at the head is no arm. */
const ARM_M = 0.3
/** Fewer gaps than this tell no rhythm. */
const ENOUGH_GAPS = 3

export interface CordonArm {
  readonly side: 'left' | 'right'
  readonly stem: Stem
  /** Metres from the arm's base, one for each spur that a full arm has. */
  readonly placesM: readonly number[]
}

export function cordonArms(view: PlantView, head: Head): CordonArm[] {
  return armsOf(view, head)
    .filter(({ stem }) => stem.lengthM >= ARM_M)
    .map((arm) => {
      const step = stepOf(view, arm.stem)
      const count = Math.max(1, Math.round(arm.stem.lengthM / step))
      return {
        ...arm,
        placesM: Array.from({ length: count }, (_, i) => (i + 0.5) * (arm.stem.lengthM / count)),
      }
    })
}

/** How far apart the spurs of an arm stand: as most of them do, else as the garden has it. */
function stepOf(view: PlantView, arm: Stem): number {
  const at = view
    .childrenOf(arm.id)
    .map(({ alongM }) => alongM)
    .sort((a, b) => a - b)
  const SAME_M = 0.05
  const gaps = at.slice(1).flatMap((alongM, i) => (alongM - at[i]! > SAME_M ? [alongM - at[i]!] : []))
  gaps.sort((a, b) => a - b)
  return gaps.length < ENOUGH_GAPS ? view.settings.spurStepM : gaps[Math.floor((gaps.length - 1) / 2)]!
}

/** Where on an arm a stem stands, by the wood between them; `null` for one that stands on no arm. */
export function placeOn(stem: Stem, arm: Stem): { readonly alongM: number; readonly outM: number } | null {
  let outM = 0
  for (let at: Stem | null = stem; at; at = at.parent) {
    if (at.parent?.id === arm.id) return { alongM: at.alongM, outM }
    outM += at.alongM
  }
  return null
}

/** The place that something so far along an arm stands at. */
export const placeOf = (arm: CordonArm, alongM: number): number =>
  Math.min(arm.placesM.length - 1, Math.max(0, Math.floor((alongM / arm.stem.lengthM) * arm.placesM.length)))

/** Arms and their spur places; what stands at each: a spur of this winter, or one of older wood. */
export function cordonPositions(view: PlantView, head: Head): Position[] {
  const standing = view.stems.filter((stem) => stem.age >= 1 || isSpurred(stem))
  return cordonArms(view, head).flatMap((arm) => [
    { what: 'arm', side: arm.side, n: 1, at: arm.stem.tip, pieceId: arm.stem.id } as const,
    ...arm.placesM.map((alongM, i): Position => {
      const here = standing.find((stem) => {
        const on = stem.parent?.id === arm.stem.id ? placeOn(stem, arm.stem) : null
        return on !== null && placeOf(arm, on.alongM) === i
      })
      return {
        what: 'spur',
        side: arm.side,
        n: i + 1,
        at: pointAlong(arm.stem.piece.path, alongM),
        pieceId: here?.id ?? null,
      }
    }),
  ])
}

/** A shoot of last summer, and where on which arm it stands. */
export interface Growth {
  readonly stem: Stem
  readonly arm: CordonArm | null
  readonly alongM: number
  readonly outM: number
  readonly isAtHead: boolean
  readonly isAtEnd: boolean
  readonly judgements: readonly Judgement[]
}

/** Places that have their spur since this winter's cut. */
export function filledPlaces(arm: CordonArm, standing: readonly Stem[]): ReadonlySet<number> {
  return new Set(
    standing.flatMap((one) => {
      const on = placeOn(one, arm.stem)
      return on ? [placeOf(arm, on.alongM)] : []
    }),
  )
}

/** Places with a growth that keep a bud more, since nothing stands at the place beside: that nearer the head first. */
export function fillersOf(
  arms: readonly CordonArm[],
  growths: readonly Growth[],
  filled: ReadonlyMap<CordonArm, ReadonlySet<number>>,
): ReadonlyMap<CordonArm, ReadonlySet<number>> {
  return new Map(
    arms.map((arm) => {
      const grown = new Set(
        growths.filter((one) => one.arm === arm).map(({ alongM }) => placeOf(arm, alongM)),
      )
      const missing = arm.placesM.flatMap((_, i) => (grown.has(i) || filled.get(arm)!.has(i) ? [] : [i]))
      const beside = missing.flatMap((i) => [i - 1, i + 1].filter((at) => grown.has(at)).slice(0, 1))
      return [arm, new Set(beside)]
    }),
  )
}

/** Each place of the arm wants a spur; what was cut already this winter fills its own. */
export function armStretch({ stem, placesM }: CordonArm, filled: ReadonlySet<number>): Stretch {
  const step = stem.lengthM / placesM.length
  const wanted = placesM.flatMap((_, i) => (filled.has(i) ? [] : [[i * step, (i + 1) * step] as const]))
  return {
    id: stem.id,
    lengthM: stem.lengthM,
    wanted,
    frameId: null,
    lineId: null,
    wire: null,
    path: stem.piece.path,
  }
}

/** Places where no spur will stand, each with what can fill it. */
export function missingPlaces(
  arms: readonly CordonArm[],
  standing: readonly Stem[],
  growths: readonly Growth[],
  spurBuds: number,
  chosenOf: (pieceId: string) => Option | null,
): Remark[] {
  return arms.flatMap((arm) => {
    const isKept = (stem: Stem) => isSpurred(stem) || ['spur', 'lay'].includes(chosenOf(stem.id)?.deed ?? '')
    const isLong = (stem: Stem) => (chosenOf(stem.id)?.aboveBuds ?? 0) > spurBuds
    const near = [...standing, ...growths.map(({ stem }) => stem)].flatMap((stem) => {
      const on = placeOn(stem, arm.stem)
      return on ? [{ stem, place: placeOf(arm, on.alongM), kept: isKept(stem) }] : []
    })
    return arm.placesM.flatMap((_, i): Remark[] => {
      if (near.some(({ place, kept }) => place === i && kept)) return []
      const shoot = near.find(({ place }) => place === i)
      const neighbour =
        near.find(({ place, kept }) => place === i - 1 && kept) ??
        near.find(({ place, kept }) => place === i + 1 && kept)
      const missing = remark('place-missing', { n: i + 1, side: arm.side, isLack: true })
      if (shoot)
        return [
          missing,
          remark('place-filled-by-shoot', { pieceId: shoot.stem.id, n: i + 1, side: arm.side }),
        ]
      return [
        missing,
        remark(neighbour && isLong(neighbour.stem) ? 'place-fills' : 'place-filled-by-neighbour', {
          pieceId: neighbour?.stem.id ?? null,
          n: i + 1,
          side: arm.side,
        }),
      ]
    })
  })
}
