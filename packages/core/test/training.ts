import { standardCatalogue } from '../src/catalogue/index.ts'
import { tryFrame } from '../src/design/index.ts'
import { viewPlant } from '../src/training/index.ts'
import type { PlantView, TrainingInput } from '../src/training/index.ts'
import type { Piece } from '../src/wood/index.ts'
import { designOf, siteOf, tierLevels } from './frames.ts'
import { pieceOf } from './wood.ts'

/** A place so wide with level wires at these heights. */
export function wiresAt(widthM: number, ...heightsM: number[]): TrainingInput['frames'] {
  const site = siteOf(widthM, Math.max(...heightsM) + 0.3)
  const pattern = { kind: 'tiers' as const, levels: tierLevels(...heightsM), maxSupportSpacingM: 2.4 }
  return [{ frameId: 'f', frame: tryFrame(site, designOf(pattern), standardCatalogue)! }]
}

/** Wood of one plant as a craftsman would tell it: everything measured from where it sits. */
export class Wood {
  readonly pieces = new Map<string, Piece>()
  constructor(
    readonly xM: number,
    readonly on: string,
  ) {}

  add(id: string, path: readonly (readonly [xM: number, yM: number])[], rest: Partial<Piece> = {}): string {
    const points = path.map(([xM, yM]) => ({ xM, yM }))
    const drawn = { drawnOn: this.on, measuredOn: this.on, seasonsThen: 1, baseMm: 9 }
    this.pieces.set(id, pieceOf({ id, path: points, ...drawn, ...rest }))
    return id
  }

  /** A straight stem from a place of another, so long, leaning so much from upright to the right. */
  stem(
    id: string,
    on: string | null,
    alongM: number,
    at: readonly [xM: number, yM: number],
    lengthM: number,
    leanDeg: number,
    rest: Partial<Piece> = {},
  ): string {
    const angle = (leanDeg * Math.PI) / 180
    const tip = [at[0] + Math.sin(angle) * lengthM, at[1] + Math.cos(angle) * lengthM] as const
    const parent = on === null ? {} : { parent: { on: 'piece' as const, pieceId: on, alongM } }
    return this.add(id, [at, tip], { ...parent, ...rest })
  }
}

export function viewOf(
  wood: Wood,
  kindId: string,
  frames: TrainingInput['frames'],
  rest: Partial<TrainingInput> = {},
): PlantView {
  const widthM = frames[0]!.frame.nodes.reduce((most, { at }) => Math.max(most, at.xM), 0)
  return viewPlant({
    plant: { id: 'p', kindId, xM: wood.xM, plantedOn: '2018-03-01', graftHeightM: null },
    pieces: wood.pieces,
    frames,
    othersXM: [],
    widthM,
    on: wood.on,
    hemisphere: 'north',
    latitudeDeg: 50,
    goal: null,
    pruningsKg: null,
    ...rest,
  })!
}
