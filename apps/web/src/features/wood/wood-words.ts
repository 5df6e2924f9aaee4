import { findKind } from '@klados/core/kinds'
import { stageOn } from '@klados/core/season'
import type { CalendarDate } from '@klados/core/season'
import { findSystem } from '@klados/core/training'
import { pieceAge } from '@klados/core/wood'
import type { Piece } from '@klados/core/wood'
import { craftOf } from '../../i18n/craft-words.ts'
import type { TFunction } from '../../i18n/texts.ts'
import { pieceWords } from '../../ui/piece-words.ts'
import type { WoodBenchData } from './use-bench.ts'

/** What a piece is on a day, in the word of the craft that its plant is trained by, else in the common one. */
export function woodWords(t: TFunction, piece: Piece, data: WoodBenchData, on: CalendarDate): string {
  const plant = [...data.plants, ...data.gone].find(({ id }) => id === piece.plantId)
  const kind = findKind(plant?.body.kindId ?? '')
  const system = findSystem(plant?.body.system ?? null)
  if (kind && system && piece.calledRole === null) {
    const { hemisphere, latitudeDeg } = data
    const role = system.role(
      { age: pieceAge(piece, on, hemisphere), isOnWood: piece.parent.on === 'piece' },
      { stage: stageOn(on, latitudeDeg, hemisphere, kind.growsAllYear), on, hemisphere },
    )
    if (role !== null) return craftOf(t, system.id)('role', role)
  }
  return pieceWords(t, piece, data, on, kind?.habit)
}
