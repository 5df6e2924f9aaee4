import fc from 'fast-check'
import { polylineLengthM } from '../src/geometry/index.ts'
import { standardCatalogue } from '../src/catalogue/index.ts'
import { tryFrame } from '../src/design/index.ts'
import { viewPlant } from '../src/training/index.ts'
import type { PlantView, TrainingInput } from '../src/training/index.ts'
import type { Piece } from '../src/wood/index.ts'
import { designOf, siteOf, tierLevels } from './frames.ts'
import { seeded } from './seeded.ts'
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

const stemArb = fc.record({
  lengthM: fc.double({ min: 0.05, max: 5, noNaN: true }),
  lean: fc.double({ min: -90, max: 90, noNaN: true }),
  mm: fc.double({ min: 2, max: 30, noNaN: true }),
  age: fc.integer({ min: 0, max: 6 }),
  on: fc.double({ min: 0, max: 1, noNaN: true }),
  under: fc.integer({ min: -2, max: 8 }),
  health: fc.constantFrom('sound' as const, 'sick' as const, 'dead' as const, null),
  bends: fc.constantFrom('pliable' as const, 'stiff' as const, null),
})

/** A plant of any wood at 1.5 m on some day, on two metres and more of level wires. */
export const plantArb = fc
  .record({
    stems: fc.array(stemArb, { maxLength: 9 }),
    on: fc.constantFrom('2026-02-01', '2026-03-25', '2026-05-25', '2026-08-20', '2026-11-01'),
    steps: fc.array(fc.double({ min: 0.1, max: 0.6, noNaN: true }), { minLength: 1, maxLength: 4 }),
  })
  .map(({ stems, on, steps }) => {
    const wood = new Wood(1.5, on)
    stems.forEach((one, i) => {
      const parentId = one.under < 0 || one.under >= i ? null : `s${one.under}`
      const parent = parentId === null ? null : wood.pieces.get(parentId)!
      const alongM = parent === null ? 0 : one.on * polylineLengthM(parent.path)
      const foot = parent?.path[0] ?? { xM: 1.5, yM: 0 }
      wood.stem(`s${i}`, parentId, alongM, [foot.xM, foot.yM + alongM], one.lengthM, one.lean, {
        baseMm: one.mm,
        // Wood is never older than what it grew from.
        seasonsThen: parent === null ? one.age : Math.min(one.age, parent.seasonsThen),
        health: one.health,
        bends: one.bends,
        ...(parent === null && one.under === -2 ? { parent: { on: 'below-graft' as const } } : {}),
      })
    })
    let heightM = 0.3
    return { wood, frames: wiresAt(3, ...steps.map((step) => (heightM += step))) }
  })

export function viewOf(
  wood: Wood,
  kindId: string,
  frames: TrainingInput['frames'],
  rest: Partial<TrainingInput> = {},
): PlantView {
  const widthM = frames[0]!.frame.nodes.reduce((most, { at }) => Math.max(most, at.xM), 0)
  return viewPlant({
    plant: { id: 'p', kindId, xM: wood.xM, footYM: 0, plantedOn: '2018-03-01', graftHeightM: null },
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

/** A cane-pruned vine in winter with so many canes round its head, as seasons leave them. */
export function vineOf(seed: number, canes: number): PlantView {
  const random = seeded(seed)
  const wood = new Wood(1.1, '2026-02-01')
  wood.stem('trunk', null, 0, [1.1, 0], 0.8, 0, { seasonsThen: 8, baseMm: 40, calledRole: 'trunk' })
  for (const side of ['l', 'r'] as const)
    wood.stem(`stub-${side}`, 'trunk', 0.8, [1.1, 0.8], 0.3, side === 'l' ? -80 : 80, {
      seasonsThen: 2,
      baseMm: 14,
    })
  for (let i = 0; i < canes; i++) {
    const side = random() < 0.5 ? 'l' : 'r'
    const alongM = random() * 0.28
    const lengthM = 0.3 + random() * 1.5
    wood.stem(
      `c${i}`,
      `stub-${side}`,
      alongM,
      [1.1 + (side === 'l' ? -alongM : alongM), 0.81],
      lengthM,
      random() * 40 - 20,
      {
        baseMm: 5 + random() * 9,
        buds: Math.max(2, Math.round(lengthM / (0.06 + random() * 0.05))),
        light: random() < 0.3 ? 'well-lit' : random() < 0.3 ? 'shaded' : null,
      },
    )
  }
  return viewOf(wood, 'wine-grape', wiresAt(2.2, 0.9), { goal: { by: 'plain', aim: 24, min: 20, max: 28 } })
}
