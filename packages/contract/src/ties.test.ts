import { standardCatalogue } from '@klados/core/catalogue'
import { startDesign } from '@klados/core/design'
import { expect, it } from 'vitest'
import { frameBodySchema } from './frame.ts'
import { upcastBody } from './upcasts.ts'

it('a row of before this release, whose ties were one wire each, comes up as that, and one of now as it is', () => {
  const place = { kind: 'row', widthM: 30, usableHeightM: 2, firstForkM: 0 } as const
  const design = startDesign(place, 'row', standardCatalogue)
  if (design.pattern.kind !== 'row' || design.pattern.end.kind !== 'tied-back')
    throw new Error('not tied back')
  const { strands, ...end } = design.pattern.end
  const bodyOf = (of: object) => ({
    placeId: '01a23342-6b8c-7013-ad58-f111198a1021',
    name: 'Long row',
    stage: 'stands',
    design: { ...design, pattern: { ...design.pattern, end: of } },
  })
  const up = (of: object) => frameBodySchema.parse(upcastBody('frames', bodyOf(of))).design.pattern
  expect(frameBodySchema.safeParse(bodyOf(end)).success).toBe(false)
  expect(up(end)).toEqual({ ...design.pattern, end: { ...end, strands: 1 } })
  expect(strands).toBeGreaterThan(1)
  expect(up({ ...end, strands })).toEqual(design.pattern)
  expect(up({ kind: 'free' })).toEqual({ ...design.pattern, end: { kind: 'free' } })
})
