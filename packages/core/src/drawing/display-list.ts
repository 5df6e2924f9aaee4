import type { Joint, MemberRole } from '../frame/index.ts'
import type { Point } from '../geometry/index.ts'

/** What a mark stands for. Renderers choose ink and width by role; roles never name a colour. */
export type Role =
  | 'wall'
  | 'ground'
  | 'first-fork'
  | 'spot'
  | 'wire'
  | 'wire-light'
  | 'cord'
  | 'wire-chosen'
  | 'mesh'
  | 'cover'
  | 'sheet'
  | 'tub'
  | 'moved-from'
  | 'dimension'
  | 'plant'
  | 'ghost'

export type NodeMark = 'set' | 'moved' | 'dragged' | 'blocked'
export type WoodAge = 'shoot' | 'one-year' | 'two-year' | 'older'
export type TieMark = 'sound' | 'soon' | 'due' | 'overdue' | 'ended'

/**
 * One mark of a drawing. Positions are metres on the elevation; sizes without a unit of length are the
 * renderer's.
 */
export type Mark =
  | { readonly kind: 'area'; readonly role: Role; readonly id?: string; readonly points: readonly Point[] }
  | {
      readonly kind: 'disc'
      readonly role: Role
      readonly id: string
      readonly at: Point
      readonly radiusM: number
    }
  | { readonly kind: 'line'; readonly role: Role; readonly id?: string; readonly points: readonly Point[] }
  | {
      readonly kind: 'node'
      readonly id: string
      readonly number: number
      readonly at: Point
      readonly state: NodeMark
      readonly ideal: Point
      readonly movedM: number
      readonly isStart: boolean
    }
  | { readonly kind: 'joint'; readonly id: string; readonly joint: Joint; readonly at: Point }
  | {
      readonly kind: 'member'
      readonly id: string
      readonly part: MemberRole
      readonly points: readonly Point[]
      readonly widthM: number
      readonly label: string | null
    }
  | {
      readonly kind: 'anchor'
      readonly id: string
      readonly at: Point
      readonly towards: Point
      readonly depthM: number
      readonly label: string
    }
  | {
      readonly kind: 'wood'
      readonly id: string
      readonly age: WoodAge
      readonly points: readonly Point[]
      readonly diameterMm: number
      readonly buds: readonly Bud[]
      /** Drawn faint: it is there, and not in question now. */
      readonly isQuiet?: boolean
    }
  | { readonly kind: 'tie'; readonly id: string; readonly at: Point; readonly state: TieMark }
  | { readonly kind: 'foot'; readonly id: string; readonly at: Point; readonly label: string }
  | { readonly kind: 'dimension'; readonly from: Point; readonly to: Point; readonly text: string }

/** A bud beside a cane: where it sits and which way it points, radians from the x axis. */
export interface Bud {
  readonly at: Point
  readonly angle: number
}

export type DisplayList = readonly Mark[]
