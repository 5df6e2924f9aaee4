import type { Catalogue } from '@klados/core/catalogue'
import type { FramePlan } from '@klados/core/plan'
import type { FrameBody, Place } from '@klados/contract'
import type { TFunction } from '../i18n/texts.ts'
import type { Units } from '../ui/units.tsx'
import type { Names } from './names.ts'

/** What a sheet is made from: a frame with its plan, and the words and units of its reader. */
export interface SheetInput {
  readonly t: TFunction
  readonly units: Units
  readonly names: Names
  readonly catalogue: Catalogue
  readonly place: Place
  readonly body: FrameBody
  readonly plan: FramePlan
  readonly currency: string
  /** The version that is kept, 0 before the first; and whether what is shown differs from it. */
  readonly version: number
  readonly isDraft: boolean
}
