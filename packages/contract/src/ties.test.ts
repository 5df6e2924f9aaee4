import { standardCatalogue } from '@klados/core/catalogue'
import { startDesign } from '@klados/core/design'
import { expect, it } from 'vitest'
import { frameBodySchema } from './frame.ts'
import { storesBodySchema } from './stores.ts'
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

it('a row and a cover of the release before come up without slab or season, their wires made off as is usual', () => {
  const bodyOf = (kind: 'row' | 'net', without: readonly string[]) => {
    const design = startDesign(
      { kind: 'row', widthM: 30, usableHeightM: 2, firstForkM: 0 },
      kind,
      standardCatalogue,
    )
    const less = (of: object) =>
      Object.fromEntries(Object.entries(of).filter(([key]) => !without.includes(key)))
    return {
      placeId: '01a23342-6b8c-7013-ad58-f111198a1021',
      name: 'Before',
      stage: 'stands',
      design: { ...less(design), pattern: less(design.pattern) },
    }
  }
  const up = (kind: 'row' | 'net') => {
    const body = bodyOf(kind, ['wireEnding', 'strainers', 'endSlabM', 'cover', 'offInWinter'])
    expect(frameBodySchema.safeParse(body).success).toBe(false)
    return frameBodySchema.parse(upcastBody('frames', body)).design
  }
  expect(up('row')).toMatchObject({ wireEnding: null, strainers: 1, pattern: { endSlabM: 0 } })
  // Nobody has said that it comes off: snow counts until somebody does.
  expect(up('net')).toMatchObject({ wireEnding: null, pattern: { cover: 'net', offInWinter: false } })
})

it('a garden’s own catalogue of the release before is offered the eyes, ropes and screws of this one, as they ship', () => {
  const isNew = ({ id }: { readonly id: string }) =>
    ['eye-130', 'eye-140', 'stainless-rope-4', 'stainless-rope-6', 'screw-flange-1400'].includes(id)
  const old = <T extends { readonly id: string }>(list: readonly T[]) => list.filter((one) => !isNew(one))
  const { fixings, wires, screws } = standardCatalogue
  const catalogue = {
    ...standardCatalogue,
    fixings: old(fixings),
    wires: old(wires).map((wire) => ({ ...wire, breakingLoadN: 1000 })),
    screws: old(screws),
  }
  const up = storesBodySchema.parse(upcastBody('stores', { catalogue, onHand: [] })).catalogue!
  expect(up.fixings).toEqual(expect.arrayContaining([...fixings]))
  expect(up.screws).toEqual(expect.arrayContaining([...screws]))
  for (const rope of wires.filter(isNew)) {
    const { massKgPerM, breakingLoadN, ...rest } = up.wires.find(({ id }) => id === rope.id)!
    expect(rope).toMatchObject(rest)
    expect(massKgPerM).toBeCloseTo(rope.massKgPerM, 9)
    expect(breakingLoadN).toBeCloseTo(rope.breakingLoadN, 6)
  }
  // What was the garden's own stays as it was.
  expect(up.wires.find(({ id }) => id === 'stainless-2')!.breakingLoadN).toBe(1000)
  expect(storesBodySchema.parse(upcastBody('stores', { catalogue: null, onHand: [] })).catalogue).toBeNull()
})
