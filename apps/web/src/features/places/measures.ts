import { usualConditions } from '@klados/core/design'
import { placeKinds } from '@klados/core/frame'
import type { AvoidSpot } from '@klados/core/frame'
import type { PlaceBody } from '@klados/contract'
import { upcastBody } from '@klados/contract/upcasts'
import { v7 as uuidv7 } from 'uuid'
import type { Placing } from './Spots.tsx'

/** Places whose frames are fixed to a face; all others stand on ground of their own. */
export const hasFace = (kind: PlaceBody['kind']) => kind === 'wall' || kind === 'fence'
/** Where the measures of a new place begin. */
export const freshPlace: PlaceBody = {
  name: '',
  kind: 'wall',
  widthM: 4,
  usableHeightM: 1.8,
  firstForkM: 0.3,
  facingDeg: 180,
  surface: 'brick',
  setting: 'open',
  viewingEnd: 'left',
  avoid: [],
  riseM: 0,
  uprights: null,
  levels: null,
  conditions: usualConditions,
  fence: null,
  photo: null,
}

/** How large places of other kinds usually are, to begin from. */
const USUAL_SIZE: Readonly<Partial<Record<PlaceBody['kind'], Partial<PlaceBody>>>> = {
  fence: { widthM: 9, usableHeightM: 1.5 },
  row: { widthM: 30, usableHeightM: 2 },
  bed: { widthM: 4, usableHeightM: 2.2 },
  terrace: { widthM: 3, usableHeightM: 2.4, setting: 'terrace' },
  tub: { widthM: 0.5, usableHeightM: 2 },
  bench: { widthM: 0.5, usableHeightM: 1.5, setting: 'indoors' },
}

/** A new place of the kind that was asked for, with what is usual there; a wall where nothing was. */
export function freshPlaceOf(asked: string | null): PlaceBody {
  const kind = placeKinds.find((one) => one === asked)
  if (!kind) return freshPlace
  return { ...freshPlace, ...changedKind(freshPlace.kind, kind), ...USUAL_SIZE[kind] }
}

export interface Measured {
  /** The version that one began to change: a save on top of somebody else's is told as that. */
  readonly basedOn: number
  readonly body: PlaceBody
}

/** A draft of these or earlier measures; null for what is none. */
export function readMeasured(value: unknown): Measured | null {
  const { basedOn, body } = value as { basedOn?: unknown; body?: unknown }
  const up = upcastBody('places', body) as Partial<PlaceBody> | undefined
  return typeof basedOn === 'number' && typeof up?.widthM === 'number' && Array.isArray(up.avoid)
    ? { basedOn, body: up as PlaceBody }
    : null
}

/** What changes with the kind of place: one without a face has no first fork on it and nothing to drill. */
export function changedKind(from: PlaceBody['kind'], kind: PlaceBody['kind']): Partial<PlaceBody> {
  // A fence is of boards until somebody says otherwise.
  const surface = kind === 'fence' ? 'boards' : 'brick'
  if (hasFace(kind) === hasFace(from)) return hasFace(kind) && kind !== from ? { kind, surface } : { kind }
  return hasFace(kind)
    ? { kind, surface, firstForkM: 0.3, riseM: 0 }
    : { kind, surface: 'open', firstForkM: 0, uprights: null, levels: null }
}

/** Half the width of a band where nothing is drilled, and the radius of a spot, as they are first put down. */
const BAND_HALF_M = 0.04
const SPOT_RADIUS_M = 0.03

/** A spot where nothing may be drilled, put down where the drawing was pressed; held on the face. */
export function spotAt(
  placing: NonNullable<Placing>,
  at: { readonly xM: number; readonly yM: number },
  { widthM, firstForkM, usableHeightM }: PlaceBody,
): AvoidSpot {
  const inside = (value: number, most: number) => Math.min(most, Math.max(0, Math.round(value * 1000) / 1000))
  const xM = inside(at.xM, widthM)
  const yM = inside(at.yM, firstForkM + usableHeightM)
  const id = uuidv7()
  if (placing === 'point') return { id, kind: 'point', xM, yM, radiusM: SPOT_RADIUS_M, what: '' }
  const middleM = placing === 'vertical' ? xM : yM
  const fromM = Math.max(0, middleM - BAND_HALF_M)
  return { id, kind: 'band', axis: placing, fromM, toM: middleM + BAND_HALF_M, what: '' }
}
