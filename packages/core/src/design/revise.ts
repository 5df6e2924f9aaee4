import type { FrameDesign, PlannedSite } from './design.ts'
import type { Catalogue } from '../catalogue/index.ts'
import { CoreError } from '../errors/index.ts'
import { axesOf, carryIds, frameOptions, makeFrame } from '../frame/index.ts'
import type { AnchorId, Frame, LevelId, LineId, MemberId, NodeId } from '../frame/index.ts'

/**
 * A frame as it was saved last, with the ids that others know its parts by; `null` where it cannot be laid
 * out.
 */
export interface SavedFrame {
  readonly frame: Frame | null
  readonly version: number
}

/**
 * The design with the ids that its parts keep: what is still the same thing as in the saved frame has its id,
 * what is new has one that no revision before has given. Levels and nodes drawn by hand bring their ids
 * along. A design that cannot be laid out keeps the ids that it has.
 */
export function withLastingIds(
  site: PlannedSite,
  design: FrameDesign,
  saved: SavedFrame | null,
  catalogue: Catalogue,
): FrameDesign {
  if (!saved) return design
  const axes = tryAxes(site, design, catalogue)
  if (!axes) return design
  const before = saved.frame?.kind === design.pattern.kind ? saved.frame : null
  let made = 0
  // Made with the version that is to come: no earlier one can have given it.
  const fresh = () => `r${saved.version + 1}-${made++}`
  const ids: Record<string, readonly string[]> = {}
  for (const [name, { positionsM }] of Object.entries(axes)) {
    const old = before?.axes[name]
    // An axis that the saved frame did not have may be one of an earlier revision: its numbers are spent.
    const kept = old ? carryIds(old, positionsM, fresh) : positionsM.map(fresh)
    if (kept.some((id, i) => id !== String(i))) ids[name] = kept
  }
  return { ...design, ids }
}

function tryAxes(site: PlannedSite, design: FrameDesign, catalogue: Catalogue): Frame['axes'] | null {
  return attempt(() => axesOf(site, design.pattern, frameOptions({ ...design, ids: {} }, catalogue)))
}

export function tryFrame(site: PlannedSite, design: FrameDesign, catalogue: Catalogue): Frame | null {
  return attempt(() => makeFrame(site, design.pattern, frameOptions(design, catalogue)))
}

function attempt<T>(lay: () => T): T | null {
  try {
    return lay()
  } catch (error) {
    if (error instanceof CoreError) return null
    throw error
  }
}

/** Parts of one revision that the next one has no more. */
export interface PartsGone {
  readonly lines: readonly LineId[]
  readonly levels: readonly LevelId[]
  readonly nodes: readonly NodeId[]
  readonly members: readonly MemberId[]
  readonly anchors: readonly AnchorId[]
}

export function partsGone(before: Frame, after: Frame): PartsGone {
  const gone = <T extends { readonly id: unknown }>(was: readonly T[], is: readonly T[]) => {
    const left = new Set(is.map((one) => one.id))
    return was.flatMap((one) => (left.has(one.id) ? [] : [one.id as T['id']]))
  }
  const levels = (frame: Frame) => new Set(frame.lines.flatMap((line) => (line.level ? [line.level] : [])))
  const levelsLeft = levels(after)
  return {
    lines: gone(before.lines, after.lines),
    levels: [...levels(before)].filter((level) => !levelsLeft.has(level)),
    nodes: [...gone(before.nodes, after.nodes), ...gone(before.plants, after.plants)],
    members: gone(before.members, after.members),
    anchors: gone(before.anchors, after.anchors),
  }
}
