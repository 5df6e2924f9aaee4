import { quickSigns } from '@klados/core/training'
import type { QuickSign } from '@klados/core/training'
import type { TFunction } from '../../i18n/texts.ts'

/** The words that may stand behind a stem's figures, in the reader's language, and what each is a sign of. */
export const quickWords = (t: TFunction): ReadonlyMap<string, QuickSign> =>
  new Map(
    quickSigns.flatMap((sign) =>
      t(`enter.signs.${sign}`)
        .toLowerCase()
        .split(',')
        .map((word) => [word.trim(), sign] as const),
    ),
  )
