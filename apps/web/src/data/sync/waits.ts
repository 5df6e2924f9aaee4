import { lastSave } from './items.ts'
import type { Item } from './items.ts'
import { photoNeededBy } from './rules.ts'
import type { LanesHere } from './slice.ts'

/** What keeps something from being sent just now. */
export type WaitsFor =
  | { readonly is: 'session' | 'line' | 'server' | 'photo' | 'turn' }
  /** It was tried, and is tried again at an instant of this device's clock. */
  | { readonly is: 'again'; readonly at: number }
  | { readonly is: 'sending'; readonly sentBytes: number; readonly ofBytes: number }

export interface Surroundings {
  readonly canSend: boolean
  readonly isAway: boolean
  readonly isBusy: boolean
  readonly lanes: LanesHere
}

/** What an item waits for, given all that the outbox holds. What keeps everything is told before what keeps this one. */
export function waitsFor(item: Item, items: readonly Item[], around: Surroundings): WaitsFor {
  if (!around.canSend) return { is: 'session' }
  if (around.isAway) return { is: 'line' }
  if (item.kind !== 'photo' && photoNeededBy(item, items)) return { is: 'photo' }
  if (item.kind === 'photo') {
    const lane = around.lanes.photos[item.key]
    if (lane && lane.againAt !== null) return { is: 'again', at: lane.againAt }
    if (lane) return { is: 'sending', sentBytes: lane.sentBytes, ofBytes: item.content.size }
  } else if (around.isBusy) return { is: 'server' }
  else if (around.lanes.againAt !== null) return { is: 'again', at: around.lanes.againAt }
  return { is: 'turn' }
}

/** The instant at which it was written, as the id has it that it was given then; `null` where the id is none of ours. */
export function writtenAt(item: Item): number | null {
  const id =
    item.kind === 'entry' ? item.entry.id : item.kind === 'photo' ? item.fileId : lastSave(item).saveId
  return id[14] === '7' ? Number.parseInt(id.slice(0, 8) + id.slice(9, 13), 16) : null
}
