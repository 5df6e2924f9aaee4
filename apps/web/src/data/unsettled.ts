import type { Catalogue } from '@klados/core/catalogue'
import type { Frame } from '@klados/core/frame'
import type { WoodState } from '@klados/core/journal'
import { heldOf } from '@klados/core/part-fold'
import type { PartBrief } from '@klados/core/part-fold'
import { tieStanding } from '@klados/core/wood'
import type { Piece, Tie, TieStanding } from '@klados/core/wood'
import type { FrameDocument, Place, Plant } from '@klados/contract'
import { layOut } from '../plan/lay-out.ts'
import { useCatalogue } from './catalogue.ts'
import { todayHere } from './dates.ts'
import { useFrames, usePlaces, usePlants } from './documents.ts'
import { changedSince } from './part-folds.ts'
import { selectWoodByPlant } from './readings.ts'
import type { PartWood } from './readings.ts'
import { standsOn } from './standing.ts'
import { useAppSelector } from './store.ts'
import type { Table } from './wide-map.ts'

/** A tie that is not where its wire is any more, since the frame under it was revised. */
export interface UnsettledTie {
  readonly tie: Tie
  readonly piece: Piece
  readonly plant: Plant
  readonly place: Place
  /** What the piece hangs together with. */
  readonly wood: WoodState
  /** What stands now of what ties hold on to. */
  readonly frames: ReadonlyMap<string, Frame>
  readonly standing: Extract<TieStanding, { is: 'elsewhere' }> | { readonly is: 'free' }
}

/** What the ties that are on hold on to, and where each was made; told of a closed fold too. */
const NOTHING_HELD: PartBrief['held'] = []
const heldIn = new WeakMap<PartWood, PartBrief['held']>()
function heldBy(part: PartWood | undefined): PartBrief['held'] {
  if (!part) return NOTHING_HELD
  const known = heldIn.get(part)
  if (known) return known
  const held = part.brief()?.held ?? heldOf(part.now())
  heldIn.set(part, held)
  return held
}

type Woods = Table<PartWood>
/** What stands, beside the wood itself. */
interface Ground {
  readonly plants: readonly Plant[] | undefined
  readonly places: readonly Place[] | undefined
  readonly frames: readonly FrameDocument[] | undefined
  readonly catalogue: Catalogue
}

/** Ties of the garden that wait to be settled, until each is led to its wire, tied anew or taken off. */
export function useUnsettled(gardenId: string): readonly UnsettledTie[] {
  const woods = useAppSelector(selectWoodByPlant)
  const plants = usePlants(gardenId)
  const places = usePlaces(gardenId)
  const frames = useFrames(gardenId)
  const catalogue = useCatalogue(gardenId)
  return unsettledOf(woods, { plants, places, frames, catalogue })
}

const NO_TIES: readonly UnsettledTie[] = []

/** Asked for by several parts of a screen at once, and after each tap: only what that changed is looked through. */
export function createUnsettled(): (woods: Woods, ground: Ground) => readonly UnsettledTie[] {
  let last: { readonly woods: Woods; readonly ground: Ground } | null = null
  let plantById: ReadonlyMap<string, Plant> = new Map()
  let placeById: ReadonlyMap<string, Place> = new Map()
  /** Frames that something was tied to since the ground was another: only these are laid out for this. */
  let held = new Set<string>()
  let standing: ReadonlyMap<string, Frame> = new Map()
  let byPart = new Map<string, readonly UnsettledTie[]>()
  let all = NO_TIES
  const layOutHeld = ({ frames, catalogue }: Ground) =>
    new Map(
      (frames ?? []).flatMap((document) => {
        const place = placeById.get(document.body.placeId)
        if (document.isRemoved || !place || !held.has(document.id)) return []
        const frame = layOut(place.body, document.body.design, catalogue)
        return frame ? [[document.id, frame] as const] : []
      }),
    )
  const tiesOf = (part: PartWood): readonly UnsettledTie[] =>
    offTies(part, standing).flatMap((one): UnsettledTie[] => {
      const plant = plantById.get(one.tie.plantId)
      const place = plant && placeById.get(plant.body.placeId)
      const isHere = plant && standsOn(plant, todayHere()) && place && !place.isRemoved
      return isHere ? [{ ...one, wood: part.now(), frames: standing, plant, place }] : []
    })
  return (woods, ground) => {
    if (!ground.frames) return NO_TIES
    const isSameGround =
      last !== null &&
      last.ground.plants === ground.plants &&
      last.ground.places === ground.places &&
      last.ground.frames === ground.frames &&
      last.ground.catalogue === ground.catalogue
    if (last && isSameGround && last.woods === woods) return all
    if (!isSameGround) {
      plantById = new Map(ground.plants?.map((plant) => [plant.id, plant]))
      placeById = new Map(ground.places?.map((place) => [place.id, place]))
      held = new Set()
    }
    const changed = last && isSameGround ? changedSince(last.woods, woods) : null
    last = { woods, ground }
    const before = held.size
    for (const key of changed ?? woods.keys())
      for (const { support } of heldBy(woods.get(key))) held.add(support.frameId)
    const isAnew = !changed || held.size > before
    if (!isSameGround || held.size > before) standing = layOutHeld(ground)
    if (isAnew) byPart = new Map()
    let isSame = !isAnew
    for (const key of isAnew ? woods.keys() : changed) {
      const part = woods.get(key)
      const ties = part ? tiesOf(part) : NO_TIES
      isSame &&= ties.length === 0 && !byPart.has(key)
      if (ties.length > 0) byPart.set(key, ties)
      else byPart.delete(key)
    }
    if (!isSame) all = byPart.size > 0 ? [...byPart.values()].flat() : NO_TIES
    return all
  }
}
const unsettledOf = createUnsettled()

type OffTie = Pick<UnsettledTie, 'tie' | 'piece' | 'standing'>

const NONE_OFF: readonly OffTie[] = []
const isOff = ({ is }: TieStanding): boolean => is === 'elsewhere' || is === 'free'

/** A fold is opened only where its brief tells of a tie that is off. */
function offTies(part: PartWood, standing: ReadonlyMap<string, Frame>): readonly OffTie[] {
  if (!heldBy(part).some((held) => isOff(tieStanding(held, standing)))) return NONE_OFF
  const wood = part.now()
  return [...wood.ties.values()].flatMap((tie): OffTie[] => {
    if (tie.endedOn !== null) return []
    const stands = tieStanding(tie, standing)
    if (stands.is !== 'elsewhere' && stands.is !== 'free') return []
    const standingNow = stands.is === 'elsewhere' ? stands : ({ is: 'free' } as const)
    return [{ tie, piece: wood.pieces.get(tie.pieceId)!, standing: standingNow }]
  })
}
