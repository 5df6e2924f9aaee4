import type { TFunction } from '../../i18n/texts.ts'

/** The points of the compass that have a name, degrees from north. */
export const EIGHTHS = [0, 45, 90, 135, 180, 225, 270, 315] as const
const NEAR_DEG = 12

/** Eight points of the compass in words, anything between in degrees. */
export function facingWord(t: TFunction, degrees: number): string {
  const eighth = EIGHTHS.find((one) => Math.abs(((degrees - one + 540) % 360) - 180) <= NEAR_DEG)
  return eighth === undefined ? t('facing.exact', { degrees }) : t(`facing.${eighth}`)
}
