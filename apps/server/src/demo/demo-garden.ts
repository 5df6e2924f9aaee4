import type { FrameBody, OnHand, PlaceBody, PlantBody } from '@klados/contract'
import type { JournalEntry } from '@klados/core/journal'

/** What the demo is made of, before it is in a database. */
export interface DemoGarden {
  readonly places: readonly { readonly id: string; readonly body: PlaceBody }[]
  readonly frames: readonly {
    readonly id: string
    readonly notes: readonly string[]
    readonly body: FrameBody
  }[]
  readonly plants: readonly { readonly id: string; readonly body: PlantBody }[]
  readonly entries: readonly JournalEntry[]
  readonly onHand: readonly OnHand[]
}
