import type { PlantView } from './plant.ts'
import type { Proposal } from './propose.ts'

export const cautionCodes = [
  'springing',
  'thorns',
  'sap',
  'saw',
  'stone-fruit-dormant',
  'bleeds-late',
  'frost-two-passes',
  'woven-panel',
] as const
export type CautionCode = (typeof cautionCodes)[number]

/** What can hurt someone, or the plant, in doing what an answer says: one table for all systems. */
export function cautionsOf(view: PlantView, proposal: Proposal): CautionCode[] {
  const { kind, stage, settings } = view
  const done = [...proposal.chosen.values()].map(({ deed }) => deed)
  const cutIds = [
    ...[...proposal.chosen].filter(([, { cutM }]) => cutM !== null).map(([id]) => id),
    ...proposal.followUps.filter(({ deed }) => deed !== 'lower').map(({ pieceId }) => pieceId),
  ]
  const isCut = cutIds.length > 0
  const isDormant = stage === 'dormant' || stage === 'leaf-fall'
  const found: CautionCode[] = []
  const add = (code: CautionCode, isSo: boolean) => isSo && found.push(code)
  add(
    'springing',
    done.some((deed) => deed === 'lay' || deed === 'to-and-fro') ||
      proposal.followUps.some(({ deed }) => deed === 'lower'),
  )
  add('thorns', kind.hazards.includes('thorns'))
  add('sap', kind.hazards.includes('irritant-sap') && isCut)
  add(
    'saw',
    cutIds.some((id) => (view.stem(id)?.baseMm ?? 0) > settings.sawMm),
  )
  add('stone-fruit-dormant', (kind.isStoneFruit ?? false) && isDormant && isCut)
  add('bleeds-late', (kind.bleeds ?? false) && stage === 'bud-swell' && isCut)
  add('frost-two-passes', (kind.bleeds ?? false) && stage === 'dormant' && isCut)
  add(
    'woven-panel',
    [...proposal.chosen].some(([id, { deed }]) => deed !== 'off' && view.stem(id)?.piece.fault === 'woven'),
  )
  return found
}
