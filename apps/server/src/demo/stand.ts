import { usualConditions } from '@klados/core/design'
import type { FrameBody, PlaceBody, PlantBody } from '@klados/contract'
import { levelId } from '@klados/core/frame'
import type { RowLevel } from '@klados/core/frame'
import { v7 as uuidv7 } from 'uuid'
import type { DemoGarden } from './demo-garden.ts'

export type Design = FrameBody['design']

export const northern = { ...usualConditions, coldestC: -14, hottestC: 31 }
export const open: Omit<PlaceBody, 'name' | 'kind' | 'widthM' | 'usableHeightM'> = {
  firstForkM: 0,
  facingDeg: 180,
  surface: 'open',
  setting: 'open',
  viewingEnd: 'left',
  avoid: [],
  riseM: 0,
  uprights: null,
  levels: null,
  fence: null,
  photo: null,
  conditions: northern,
}

export const base: Omit<Design, 'pattern' | 'wireId' | 'tensionN' | 'rolls'> = {
  moveToleranceM: 0.3,
  dragged: {},
  snap: 'none',
  ids: {},
  light: null,
  endWrapM: 0.4,
  wireEnding: 'crimp',
  strainers: 1,
  handlingLengthM: 250,
  endsAt: 'any',
  fixingId: 'eye-130',
  setC: 12,
  plantKindId: null,
  repeat: 1,
  standOffM: null,
  plantOffM: null,
  feetBallastKg: 0,
  unknown: [],
  boughtPrice: null,
}
/** Wire on a wall, in lengths that one hand carries. */
export const wallWire: Omit<Design, 'pattern'> = {
  ...base,
  moveToleranceM: 0.04,
  endWrapM: 0.15,
  wireEnding: null,
  handlingLengthM: 12,
  wireId: 'stainless-2',
  tensionN: 150,
  rolls: [
    { lengthM: 25, price: 14 },
    { lengthM: 50, price: 25 },
  ],
}
export const fieldWire = {
  wireId: 'high-tensile-2.5',
  tensionN: 600,
  rolls: [
    { lengthM: 100, price: 26 },
    { lengthM: 650, price: 118 },
  ],
}
export const foliageWire = {
  wireId: 'high-tensile-2',
  tensionN: 200,
  rolls: [
    { lengthM: 100, price: 19 },
    { lengthM: 1000, price: 124 },
  ],
}
export const rope = {
  wireId: 'stainless-rope-3',
  tensionN: 180,
  rolls: [
    { lengthM: 25, price: 29 },
    { lengthM: 50, price: 54 },
  ],
}
export const string = { wireId: 'coir-6', tensionN: 10, rolls: [{ lengthM: 50, price: 7 }] }
export const level = (
  heightM: number,
  role: RowLevel['role'],
  form: RowLevel['form'],
  spreadM = 0.4,
): Omit<RowLevel, 'id'> => ({ heightM, role, form, spreadM, liftM: 0 })

/** Levels of a row and tiers of a wall, from below, named as a first design names them. */
export const rowLevels = (...levels: Omit<RowLevel, 'id'>[]): RowLevel[] =>
  levels.map((one, i) => ({ id: levelId(`w${i}`), ...one }))
export const tierLevels = (...heightsM: number[]) =>
  heightsM.map((heightM, i) => ({ id: levelId(`t${i}`), heightM }))

/** A plant of which nothing is known but that it was planted. */
export const plantedSimply = {
  startNodeId: null,
  plantedOn: '2000-01-01',
  system: null,
  rootstock: '',
  graftHeightM: null,
  motherId: null,
  formPlanted: null,
  leads: [],
  budGoal: null,
  ended: null,
} satisfies Partial<PlantBody>

export interface Stand {
  readonly place: DemoGarden['places'][number]
  readonly frame: DemoGarden['frames'][number]
  readonly plants: DemoGarden['plants']
}

export function stand(
  place: Pick<PlaceBody, 'name' | 'kind' | 'widthM' | 'usableHeightM'> & Partial<PlaceBody>,
  frame: { readonly name: string; readonly design: Design; readonly notes: readonly string[] },
  plants: readonly { readonly name: string; readonly kindId: string; readonly xM: number }[],
): Stand {
  const placeId = uuidv7()
  return {
    place: { id: placeId, body: { ...open, ...place } },
    frame: {
      id: uuidv7(),
      notes: frame.notes,
      body: { placeId, name: frame.name, stage: 'chosen', design: frame.design },
    },
    plants: plants.map((plant) => ({
      id: uuidv7(),
      body: { ...plantedSimply, ...plant, placeId },
    })),
  }
}
