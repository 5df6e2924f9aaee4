import { asWritten, contextOf, woodDone } from '@klados/core/choices'
import type { Deeds } from '@klados/core/choices'
import { planTies } from '@klados/core/ties'
import type { TiePlan } from '@klados/core/ties'
import type { PlantView } from '@klados/core/training'
import { v7 as uuidv7 } from 'uuid'
import type { NewEntry } from '../../../data/record.ts'
import type { WoodBenchData } from '../use-bench.ts'
import type { Training } from './training.ts'
import type { Choosing } from './use-choosing.ts'

/** Minutes of a practised hand: to look and decide, for each cut, for each cane bent down, for each tie. */
const MINUTES = { look: 1, cut: 0.2, lay: 0.6, tie: 0.5 } as const

export interface TiesOfPiece extends TiePlan {
  readonly pieceId: string
}

/** Ties that what is laid or lowered will take, by piece; old ties on it come off with being moved. */
export function tiesFor({ decided, followUps }: Deeds, view: PlantView, data: WoodBenchData): TiesOfPiece[] {
  const led = [...decided, ...(followUps ?? [])].flatMap(({ pieceId, path }) =>
    path ? [{ pieceId, path }] : [],
  )
  return led.flatMap(({ pieceId, path }) => {
    const stem = view.stem(pieceId)
    if (!stem) return []
    const plan = planTies(
      {
        path,
        ageSeasons: stem.age,
        baseMm: stem.baseMm,
        tipMm: stem.piece.tipMm,
        isPermanent: stem.role === 'arm' || stem.role === 'trunk',
      },
      data.supports,
    )
    return [{ pieceId, ...plan }]
  })
}

export function minutesOf({ decided, followUps }: Deeds, ties: number): number {
  const all = [...decided, ...(followUps ?? [])]
  const cuts = all.filter(({ cutM }) => cutM !== null).length
  const laid = all.filter(({ path }) => path !== null).length
  return Math.round(MINUTES.look + cuts * MINUTES.cut + laid * MINUTES.lay + ties * MINUTES.tie)
}

/** Everything that is written when a choice is carried out: the wood, marks for next winter, the ties. */
export function doneEntries(
  deeds: Deeds,
  ties: readonly TiesOfPiece[],
  training: Training,
  data: WoodBenchData,
  head: { readonly placeId: string; readonly at: string },
  reasonOf: (pieceId: string) => string,
): NewEntry[] {
  const { view, plant } = training
  const base = { ...head, plantId: plant.id }
  const wood = woodDone(deeds, contextOf(view, reasonOf)).map((one): NewEntry => ({ ...base, ...one }))
  const laid = new Map(ties.map(({ pieceId, ...plan }) => [pieceId, plan]))
  const loosed = [...laid.keys()].flatMap((pieceId) =>
    data.ties
      .filter((tie) => tie.pieceId === pieceId && tie.endedOn === null)
      .map(
        (tie): NewEntry => ({
          ...base,
          kind: 'tie.ended',
          body: { v: 1, tieId: tie.id, why: 'taken-off' },
        }),
      ),
  )
  const made = ties.flatMap(({ pieceId, materialId, hitch, ties: planned }) =>
    planned.map(
      (tie): NewEntry => ({
        ...base,
        kind: 'tie.made',
        body: {
          v: 2,
          tieId: uuidv7(),
          pieceId,
          alongM: tie.alongM,
          support: tie.support,
          materialId,
          hitch,
          supportDiameterMm: tie.supportDiameterMm,
          stemDiameterMm: tie.stemMm,
          loopLengthMm: tie.loopMm,
        },
      }),
    ),
  )
  return [...loosed, ...wood, ...made]
}

/** The choice itself as an entry. */
export function choiceEntry(
  choosing: Choosing,
  deeds: Deeds,
  training: Training,
  as: 'plan' | 'done',
  figures: { readonly ties: number; readonly minutes: number },
  head: { readonly placeId: string; readonly at: string },
): NewEntry {
  const { question, proposal } = choosing
  return {
    ...head,
    plantId: training.plant.id,
    kind: 'choice.made',
    body: {
      v: 2,
      choiceId: uuidv7(),
      system: training.system!.id,
      question: question.code,
      as,
      ...asWritten(deeds),
      buds: proposal.buds,
      budsMin: question.buds.min,
      budsMax: question.buds.max,
      bareM: proposal.bareM,
      isProven: proposal.isProven,
      ...figures,
    },
  }
}

/** Marks on shoots for next winter, from what was said of them. */
export function marksFor(
  choosing: Choosing,
  training: Training,
  head: { readonly placeId: string; readonly at: string },
): NewEntry[] {
  return choosing.proposal.remarks.flatMap(({ code, pieceId }): NewEntry[] => {
    const purpose = code === 'next-spur' ? 'spur' : code === 'next-cane' ? 'cane' : null
    return purpose === null || pieceId === null
      ? []
      : [{ ...head, plantId: training.plant.id, kind: 'piece.meant', body: { v: 1, pieceId, for: purpose } }]
  })
}
