import { levelId, nodeId } from '@klados/core/frame'
import { standardCatalogue } from '@klados/core/catalogue'
import type { Place, Plant } from '@klados/contract'
import { describe, expect, it } from 'vitest'
import { sampleDesign, sampleWall } from '../sample/sample-wall.ts'
import { layOut } from './lay-out.ts'
import { plantWants } from './plant-wants.ts'
import { pieceLetter } from './words.ts'

const head = { version: 1, isRemoved: false, note: '', savedAt: '', savedBy: '' }
const place: Place = {
  ...head,
  id: 'place',
  body: {
    ...sampleWall,
    avoid: [],
    name: 'Wall',
    kind: 'wall',
    facingDeg: 180,
    surface: 'brick',
    riseM: 0,
    uprights: null,
    levels: null,
    fence: null,
    photo: null,
  },
}
const plant = (startNodeId: string | null, rest: Partial<Plant> = {}): Plant => ({
  ...head,
  id: `plant ${startNodeId}`,
  body: {
    placeId: 'place',
    name: 'P',
    kindId: 'pear',
    xM: 1,
    startNodeId: startNodeId === null ? null : nodeId(startNodeId),
    plantedOn: '2024-01-01',
    system: null,
    rootstock: '',
    graftHeightM: null,
    motherId: null,
    formPlanted: null,
    leads: [],
    budGoal: null,
    ended: null,
  },
  ...rest,
})

describe('what a pattern wants', () => {
  const diamonds = layOut(sampleWall, sampleDesign, standardCatalogue)!
  const tiers = layOut(
    sampleWall,
    {
      ...sampleDesign,
      pattern: {
        kind: 'tiers',
        levels: [
          { id: levelId('t0'), heightM: 0.5 },
          { id: levelId('t1'), heightM: 1 },
        ],
        maxSupportSpacingM: 2,
      },
    },
    standardCatalogue,
  )!

  it('is a plant at each start node, and the nodes without one are named', () => {
    const wants = plantWants(place, diamonds, [plant('c0.0'), plant('c0.1', { isRemoved: true })])
    expect(wants).toMatchObject({ want: 12, have: 1 })
    expect(wants.freeNodes.map((node) => node.id)).toContain('c0.1')
    expect(wants.freeNodes).toHaveLength(11)
    const dead = plant('c0.0')
    const ended = { on: '2025-01-01', why: 'frost' }
    expect(plantWants(place, diamonds, [{ ...dead, body: { ...dead.body, ended } }]).have).toBe(0)
  })

  it('is as many as the kind’s spacing allows where wires have no start', () => {
    expect(plantWants(place, tiers, [plant(null)])).toMatchObject({ want: 2, have: 1, freeNodes: [] })
    expect(plantWants(place, tiers, [], 'raspberry').want).toBe(18)
    expect(plantWants(place, tiers, [])).toMatchObject({ want: 0, have: 0 })
  })

  it('is free where nothing stands nearer than half the way to the next, from one end to the other', () => {
    const all = plantWants(place, tiers, [], 'raspberry').free.map(({ xM }) => xM)
    expect(all).toHaveLength(18)
    expect(all).toEqual([...all].sort((a, b) => a - b))
    const third = plant(null)
    const at = { ...third, body: { ...third.body, xM: all[2]! + 0.05 } }
    const left = plantWants(place, tiers, [at], 'raspberry').free.map(({ xM }) => xM)
    expect(left).toEqual(all.filter((_, i) => i !== 2))
    const starts = plantWants(place, diamonds, [plant('c0.0')])
    expect(starts.free).toHaveLength(11)
    expect(new Set(starts.free.map(({ startNodeId }) => startNodeId))).toEqual(
      new Set(starts.freeNodes.map(({ id }) => id)),
    )
  })
})

describe('letters of pieces', () => {
  it('go on after Z', () => {
    expect([0, 25, 26, 51, 52, 701, 702].map(pieceLetter)).toEqual(['A', 'Z', 'AA', 'AZ', 'BA', 'ZZ', 'AAA'])
  })
})
