import type { CoreError } from '@klados/core/errors'
import type { FrameFinding } from '@klados/core/frame'
import type { MaterialItem } from '@klados/core/materials'
import type { TFunction } from 'i18next'
import type { Units } from '../ui/units.tsx'

/** What a refusal of core means for the grower, lengths in their own units. */
export function problemWords(t: TFunction, units: Units, error: CoreError): string {
  const d = error.details
  const length = (key: string) => units.length(Number(d[key]), 'long')
  switch (error.code) {
    case 'frame/cell-too-large':
      return t('problem.frame/cell-too-large', { cell: length('cellM'), space: length('spaceM') })
    case 'frame/heights-out-of-order':
      return t('problem.frame/heights-out-of-order', {
        tier: d.tier,
        height: length('heightM'),
        below: length('belowM'),
      })
    case 'frame/height-outside-wall':
      return t('problem.frame/height-outside-wall', { tier: d.tier, height: length('heightM'), from: length('fromM'), to: length('toM') }) // prettier-ignore
    case 'frame/too-many-nodes':
      return t('problem.frame/too-many-nodes')
    case 'stringing/piece-too-short':
      return t('problem.stringing/piece-too-short', { needed: units.length(Number(d.runM) + Number(d.wrapsM)), handling: length('handlingM') }) // prettier-ignore
    case 'materials/piece-longer-than-roll':
      return t('problem.materials/piece-longer-than-roll', { piece: length('pieceM'), roll: length('rollM') })
    case 'materials/no-rolls':
      return t('problem.materials/no-rolls')
    case 'core/out-of-range':
    case 'core/not-finite':
      return t(`problem.${error.code}`, { field: d.field })
    case 'units/unknown-gauge':
      return t('problem.other', { message: error.message })
  }
}

export function findingWords(t: TFunction, units: Units, finding: FrameFinding): string {
  const spot = finding.spot || t('place.spot')
  return finding.code === 'frame/spot-unavoidable'
    ? t('problem.spot-unavoidable', {
        number: finding.number,
        spot,
        tolerance: units.length(finding.toleranceM, 'short'),
      })
    : t('problem.dragged-onto-spot', { number: finding.number, spot })
}

export function itemWords(
  t: TFunction,
  units: Units,
  item: MaterialItem,
  names: { fixingId: string; plugMm: number | null },
): string {
  // prettier-ignore
  switch (item.what) {
    case 'roll':
      return t('sheet.items.roll', { length: units.length(item.lengthM) })
    case 'fixing':
      return t(`frame.fixingName.${names.fixingId}`)
    case 'plug':
      return t('sheet.items.plug', { mm: names.plugMm })
    case 'strainer':
      return t('sheet.items.strainer')
  }
}

/** A, B … Z, AA, AB …: how pieces of wire are called on the sheet and on the bench. */
export function pieceLetter(index: number): string {
  const last = String.fromCharCode(65 + (index % 26))
  return index < 26 ? last : pieceLetter(Math.floor(index / 26) - 1) + last
}
