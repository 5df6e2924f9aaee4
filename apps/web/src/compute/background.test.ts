import { standardCatalogue } from '@klados/core/catalogue'
import { planFrame } from '@klados/core/plan'
import { shoppingList } from '@klados/core/shopping'
import { expect, test } from 'vitest'
import { sampleDesign, sampleWall } from '../sample/sample-wall.ts'
import { background } from './background.ts'
import type { Progress } from './background.ts'

test('the shopping list of a thread is the one made here, and it tells of every frame on the way', () => {
  const told: Progress[] = []
  const frames = ['one', 'two', 'three'].map((name) => ({ name, site: sampleWall, design: sampleDesign }))
  const list = background.shopping({ frames, onHand: [], catalogue: standardCatalogue }, (now) =>
    told.push(now),
  )
  const plan = planFrame(sampleWall, sampleDesign)
  expect(list).toEqual(
    shoppingList(
      frames.map(({ name }) => ({ name, plan })),
      [],
      standardCatalogue,
    ),
  )
  expect(told).toEqual([0, 1, 2, 3].map((done) => ({ done, of: 4 })))
  // What crosses from thread to thread is copied.
  expect(structuredClone(list)).toEqual(list)
})

test('every layout that fits is priced as the bench would price it', () => {
  const told: Progress[] = []
  const fits = background.fits(
    { site: sampleWall, design: sampleDesign, catalogue: standardCatalogue },
    (now) => told.push(now),
  )
  expect(fits.length).toBeGreaterThan(1)
  expect(told.map(({ done }) => done)).toEqual(fits.map((_, i) => i))
  for (const { fit, cost } of fits)
    expect(cost).toBe(planFrame(sampleWall, { ...sampleDesign, pattern: fit.pattern }).takeOff?.cost)
})
