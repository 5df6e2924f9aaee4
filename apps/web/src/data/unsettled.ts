import type { Frame } from '@klados/core/frame'
import type { WoodState } from '@klados/core/journal'
import { heldOf } from '@klados/core/part-fold'
import type { PartBrief } from '@klados/core/part-fold'
import { tieStanding } from '@klados/core/wood'
import type { Piece, Tie, TieStanding } from '@klados/core/wood'
import type { Place, Plant } from '@klados/contract'
import { useMemo } from 'react'
import { layOut } from '../plan/lay-out.ts'
import { useCatalogue } from './catalogue.ts'
import { useFrames, usePlaces, usePlants } from './documents.ts'
import { selectWoodByPlant } from './readings.ts'
import type { PartWood } from './readings.ts'
import { useAppSelector } from './store.ts'
import { useSame } from '../ui/use-same.ts'

/** A tie that is not where its wire is any more, since the frame under it was revised. */
export interface UnsettledTie {
  readonly tie: Tie
  readonly piece: Piece
  readonly plant: Plant
  readonly place: Place
  /** What the piece hangs together with. */
  readonly wood: WoodState
  readonly standing: Extract<TieStanding, { is: 'elsewhere' }> | { readonly is: 'free' }
}

/** What the ties that are on hold on to, and where each was made; told of a closed fold too. */
const heldIn = new WeakMap<PartWood, PartBrief['held']>()
function heldBy(part: PartWood): PartBrief['held'] {
  const known = heldIn.get(part)
  if (known) return known
  const held = part.brief()?.held ?? heldOf(part.now())
  heldIn.set(part, held)
  return held
}

/** The parts with a tie on something that stands. */
function holdersOf(woods: ReadonlyMap<string, PartWood>): readonly PartWood[] {
  const holders: PartWood[] = []
  woods.forEach((part) => heldBy(part).length > 0 && holders.push(part))
  return holders
}

function framesHeld(holders: readonly PartWood[]): readonly string[] {
  const frames = new Set<string>()
  for (const part of holders) for (const { support } of heldBy(part)) frames.add(support.frameId)
  return [...frames]
}

/** Ties of the garden that wait to be settled, until each is led to its wire, tied anew or taken off. */
export function useUnsettled(gardenId: string): readonly UnsettledTie[] {
  const woods = useAppSelector(selectWoodByPlant)
  const plants = usePlants(gardenId)
  const places = usePlaces(gardenId)
  const frames = useFrames(gardenId)
  const catalogue = useCatalogue(gardenId)
  const holders = useMemo(() => holdersOf(woods), [woods])
  const holding = useSame(useMemo(() => framesHeld(holders), [holders]))
  const standing = useMemo(() => {
    const held = new Set(holding)
    const placeById = new Map(places?.map((place) => [place.id, place]))
    return new Map(
      (frames ?? []).flatMap((document) => {
        // Only frames that something is tied to are laid out for this.
        const place = placeById.get(document.body.placeId)
        if (document.isRemoved || !place || !held.has(document.id)) return []
        const frame = layOut(place.body, document.body.design, catalogue)
        return frame ? [[document.id, frame] as const] : []
      }),
    )
  }, [holding, places, frames, catalogue])
  const off = useMemo(() => offTiesOn(standing), [standing])
  return useMemo(() => {
    if (!frames) return []
    const plantById = new Map(plants?.map((plant) => [plant.id, plant]))
    const placeById = new Map(places?.filter((place) => !place.isRemoved).map((place) => [place.id, place]))
    return holders.flatMap((part) =>
      off(part).flatMap((one): UnsettledTie[] => {
        const plant = plantById.get(one.tie.plantId)
        const place = plant && placeById.get(plant.body.placeId)
        return plant && !plant.isRemoved && place ? [{ ...one, wood: part.now(), plant, place }] : []
      }),
    )
  }, [holders, off, plants, places, frames])
}

type OffTie = Pick<UnsettledTie, 'tie' | 'piece' | 'standing'>

/** Reckoned once for each state of a plant's wood, as long as no frame changes. */
function offTiesOn(standing: ReadonlyMap<string, Frame>): (part: PartWood) => readonly OffTie[] {
  const known = new WeakMap<PartWood, readonly OffTie[]>()
  return (part) => {
    const before = known.get(part)
    if (before) return before
    const isAnyOff = heldBy(part).some((held) => isOff(tieStanding(held, standing)))
    const found = isAnyOff ? offTies(part.now(), standing) : NONE_OFF
    known.set(part, found)
    return found
  }
}
const NONE_OFF: readonly OffTie[] = []
const isOff = ({ is }: TieStanding): boolean => is === 'elsewhere' || is === 'free'

function offTies(wood: WoodState, standing: ReadonlyMap<string, Frame>): readonly OffTie[] {
  return [...wood.ties.values()].flatMap((tie): OffTie[] => {
    if (tie.endedOn !== null) return []
    const stands = tieStanding(tie, standing)
    if (stands.is !== 'elsewhere' && stands.is !== 'free') return []
    const standingNow = stands.is === 'elsewhere' ? stands : ({ is: 'free' } as const)
    return [{ tie, piece: wood.pieces.get(tie.pieceId)!, standing: standingNow }]
  })
}
