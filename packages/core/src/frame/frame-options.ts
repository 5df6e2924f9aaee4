import { findFixing, findStock, findWire, stockWidthM } from '../catalogue/index.ts'
import type { Catalogue } from '../catalogue/index.ts'
import { CoreError } from '../errors/index.ts'
import type { AxisIds } from './axis.ts'
import type { Point } from '../geometry/index.ts'

export type Snap = 'none' | 'uprights' | 'levels' | 'both'

export interface FrameOptions {
  /** How far a node or post may move off an avoided spot, or to a line of the place, metres. */
  readonly moveToleranceM: number
  /**
   * Nodes put elsewhere by hand, by node id; posts of a row by post id. Ids that the pattern no longer has
   * are passed over.
   */
  readonly dragged: Readonly<Record<string, Point>>
  /** Thickness of the string that is wound, metres. */
  readonly cordM: number
  /** Half the hole of a fixing: so far it stays clear of what is avoided, metres. */
  readonly holeRadiusM: number
  /** Which lines of the place (studs, courses) fixings must sit on. */
  readonly snap: Snap
  /** Ids that things in order keep, where they are not simply their numbers. */
  readonly ids: AxisIds
  /**
   * Width of a stock as seen from the front, and its depth in bending, metres. Throws for a stock that is not
   * known.
   */
  readonly stockWidthM: (stockId: string) => number
  readonly stockDepthM: (stockId: string) => number
  /** The longest on sale, metres; endless where none is. */
  readonly stockLongestM: (stockId: string) => number
}

/** What of a design decides how it is laid out, besides the pattern. */
export interface LayingOut {
  readonly moveToleranceM: number
  readonly dragged: Readonly<Record<string, Point>>
  readonly snap: Snap
  readonly ids: AxisIds
  /** Of the fixings; left out where a pattern is only tried. */
  readonly fixingId?: string
  /** Of the string, in what is wound. */
  readonly wireId?: string
}

/** What laying out a design needs to know of the catalogue. */
export function frameOptions(design: LayingOut, catalogue: Catalogue): FrameOptions {
  const stock = (stockId: string) => {
    const found = findStock(catalogue, stockId)
    if (!found)
      throw new CoreError('frame/unknown-stock', `There is no ${stockId} in the catalogue`, { stockId })
    return found
  }
  const fixing = design.fixingId === undefined ? undefined : findFixing(catalogue, design.fixingId)
  const cord = design.wireId === undefined ? undefined : findWire(catalogue, design.wireId)
  const holeMm = fixing && !fixing.stick ? Math.max(fixing.plugMm, fixing.threadMm) : 0
  return {
    moveToleranceM: design.moveToleranceM,
    cordM: (cord?.diameterMm ?? 0) / 1000,
    holeRadiusM: holeMm / 2000,
    dragged: design.dragged,
    snap: design.snap,
    ids: design.ids,
    stockWidthM: (stockId) => stockWidthM(stock(stockId)),
    stockLongestM: (stockId) => Math.max(...stock(stockId).lengths.map(({ lengthM }) => lengthM)),
    stockDepthM: (stockId) => {
      const { section } = stock(stockId)
      return (section.shape === 'rectangle' ? section.depthMm : section.diameterMm) / 1000
    },
  }
}
