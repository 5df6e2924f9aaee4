import { tieStanding } from '@klados/core/wood'
import type { Piece, Tie, TieStanding } from '@klados/core/wood'
import type { Place, Plant } from '@klados/contract'
import { useMemo } from 'react'
import { layOut } from '../plan/lay-out.ts'
import { useCatalogue } from './catalogue.ts'
import { useFrames, usePlaces, usePlants } from './documents.ts'
import { selectWoodNow } from './readings.ts'
import { useAppSelector } from './store.ts'

/** A tie that is not where its wire is any more, since the frame under it was revised. */
export interface UnsettledTie {
  readonly tie: Tie
  readonly piece: Piece
  readonly plant: Plant
  readonly place: Place
  readonly standing: Extract<TieStanding, { is: 'elsewhere' }> | { readonly is: 'free' }
}

/** Ties of the garden that wait to be settled, until each is led to its wire, tied anew or taken off. */
export function useUnsettled(gardenId: string): readonly UnsettledTie[] {
  const wood = useAppSelector(selectWoodNow)
  const plants = usePlants(gardenId)
  const places = usePlaces(gardenId)
  const frames = useFrames(gardenId)
  const catalogue = useCatalogue(gardenId)
  const standing = useMemo(() => {
    const held = new Set<string>()
    for (const tie of wood.ties.values())
      if (tie.endedOn === null && tie.support) held.add(tie.support.frameId)
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
  }, [wood, places, frames, catalogue])
  return useMemo(() => {
    if (!frames) return []
    const plantById = new Map(plants?.map((plant) => [plant.id, plant]))
    const placeById = new Map(places?.filter((place) => !place.isRemoved).map((place) => [place.id, place]))
    return [...wood.ties.values()].flatMap((tie): UnsettledTie[] => {
      const plant = plantById.get(tie.plantId)
      const place = plant && placeById.get(plant.body.placeId)
      if (tie.endedOn !== null || !plant || plant.isRemoved || !place) return []
      const stands = tieStanding(tie, standing)
      if (stands.is !== 'elsewhere' && stands.is !== 'free') return []
      const standingNow = stands.is === 'elsewhere' ? stands : ({ is: 'free' } as const)
      return [{ tie, piece: wood.pieces.get(tie.pieceId)!, plant, place, standing: standingNow }]
    })
  }, [wood, plants, places, frames, standing])
}
