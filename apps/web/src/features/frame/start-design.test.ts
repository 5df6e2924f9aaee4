import { planFrame } from '@klados/core/plan'
import { frameBodySchema } from '@klados/contract'
import type { PlaceBody } from '@klados/contract'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { sampleWall } from '../../sample/sample-wall.ts'
import { fieldsFor } from './pattern-fields.ts'
import { kindsFor, startDesign } from './start-design.ts'

const placeId = '01890a5d-ac96-774b-bcce-b302099a8057'
/** Places of every kind, of sizes that people have. */
const sizes = {
  wall: [2, 25],
  fence: [2, 40],
  row: [8, 200],
  bed: [2, 20],
  terrace: [1.5, 6],
  bench: [0.25, 2],
  tub: [0.3, 1],
} as const
const placeArb = fc.constantFrom(...(Object.keys(sizes) as (keyof typeof sizes)[])).chain((kind) => {
  const isFace = kind === 'wall' || kind === 'fence'
  const [least, most] = sizes[kind]
  return fc
    .record({
      widthM: fc.double({ min: least, max: most, noNaN: true }).map((m) => Math.round(m * 100) / 100),
      usableHeightM: fc.double({ min: 1.2, max: 3, noNaN: true }).map((m) => Math.round(m * 100) / 100),
    })
    .map((size): PlaceBody => ({
      ...sampleWall,
      ...size,
      name: 'Here',
      facingDeg: 180,
      riseM: 0,
      uprights: null,
      levels: null,
      photo: null,
      kind,
      surface: isFace ? 'brick' : 'open',
      firstForkM: isFace ? 0.4 : 0,
      avoid: [],
    }))
})
const startArb = placeArb.chain((place) =>
  fc.constantFrom(...kindsFor(place)).map((kind) => ({ place, kind })),
)

describe('a new frame', () => {
  it('fits the place that it is begun at, whatever its kind, and can be saved as it is', () => {
    fc.assert(
      fc.property(startArb, ({ place, kind }) => {
        const design = startDesign(place, kind)
        expect(planFrame(place, design).problems).toEqual([])
        expect(frameBodySchema.safeParse({ placeId, name: 'New', design }).error?.issues).toBeUndefined()
      }),
      { numRuns: 150 },
    )
  })

  it('has a field for every measure, and begins within what the field takes', () => {
    fc.assert(
      fc.property(startArb, ({ place, kind }) => {
        const { pattern } = startDesign(place, kind)
        for (const spec of fieldsFor(pattern)) {
          const value = pattern[spec.key as keyof typeof pattern] as unknown
          if (spec.ask === 'length' && typeof value === 'number') {
            expect([spec.key, value >= (spec.minM ?? 0), value <= (spec.maxM ?? Infinity)]).toEqual([
              spec.key,
              true,
              true,
            ])
          } else if (spec.ask === 'whole' || spec.ask === 'number') {
            expect(value).toBeGreaterThanOrEqual(spec.min)
            expect(value).toBeLessThanOrEqual(spec.max)
          } else if (spec.ask === 'choice') expect(spec.options).toContain(value)
        }
      }),
    )
  })
})
