import type { Parsed } from '@klados/core/units'
import type { TFunction } from '../i18n/texts.ts'
import { withMark } from '../i18n/language.ts'

/** Why a figure cannot be read, or both that it can be read as. */
export function readingProblem(
  t: TFunction,
  { reason, either: [one, other] = ['', ''] }: Extract<Parsed, { ok: false }>,
): string {
  return t(`length.${reason}`, { one: withMark(one), other: withMark(other) })
}
