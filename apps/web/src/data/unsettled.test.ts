import type { FrameDocument, Place, Plant } from '@klados/contract'
import { standardCatalogue } from '@klados/core/catalogue'
import { timelineOf } from '@klados/core/fold'
import type { JournalEntry } from '@klados/core/journal'
import { woodProjection } from '@klados/core/wood'
import type { WoodState } from '@klados/core/wood'
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { grewBody, tieBody } from '../../../../packages/core/test/bodies.ts'
import { designOf, siteOf, tierLevels } from '../../../../packages/core/test/frames.ts'
import { folder } from './part-folds.ts'
import { plantKey, withAdded } from './parts.ts'
import type { Parts } from './parts.ts'
import { createUnsettled } from './unsettled.ts'

const PLANTS = ['pear', 'rose', 'vine'] as const
const FRAMES = ['tiers', 'others'] as const
const wall = siteOf(6, 2.4)
const levels = tierLevels(0.5, 0.9, 1.3)
/** Each frame as it was, with its middle wire lower, without it, and gone. */
const WAYS = ['as it was', 'lowered', 'without', 'gone'] as const
const designs = {
  'as it was': levels,
  lowered: levels.map((level, i) => (i === 1 ? { ...level, heightM: 0.8 } : level)),
  without: levels.filter((_, i) => i !== 1),
  gone: levels,
}

const places = [{ id: 'wall', isRemoved: false, body: wall }] as unknown as Place[]
const framesAs = (ways: readonly (typeof WAYS)[number][]) =>
  FRAMES.map((id, n) => ({
    id,
    isRemoved: ways[n] === 'gone',
    body: {
      placeId: 'wall',
      design: designOf({ kind: 'tiers', levels: designs[ways[n]!], maxSupportSpacingM: 2 }),
    },
  })) as unknown as FrameDocument[]
const plantsWithout = (gone: string | null) =>
  PLANTS.map((id) => ({
    id,
    isRemoved: id === gone,
    body: { placeId: 'wall', ended: null },
  })) as unknown as Plant[]

let made = 0
const entry = (plantId: string, kind: string, body: object) =>
  ({
    id: `e${String(++made).padStart(5, '0')}`,
    placeId: 'wall',
    plantId,
    kind,
    at: '2026-03-01',
    recordedAt: '',
    supersedes: null,
    body: { v: 1, ...body },
  }) as unknown as JournalEntry
const grown = PLANTS.map((plantId) =>
  entry(
    plantId,
    'piece.grew',
    grewBody(`cane of ${plantId}`, {
      path: [
        { xM: 1, yM: 0 },
        { xM: 1, yM: 2 },
      ],
    }),
  ),
)

const step = fc.oneof(
  fc.record({ tie: fc.constantFrom(...PLANTS), to: fc.constantFrom(...FRAMES), level: fc.nat(2) }),
  fc.record({ untie: fc.nat(20) }),
  fc.record({ frame: fc.nat(1), is: fc.constantFrom(...WAYS) }),
  fc.record({ remove: fc.constantFrom(null, ...PLANTS) }),
)

it('is after any number of steps what it is for whoever looks for the first time', () => {
  fc.assert(
    fc.property(fc.array(step, { maxLength: 25 }), (steps) => {
      const fold = folder<WoodState>({
        timeline: (entries) => timelineOf(woodProjection, entries),
        goOn: () => null,
      })
      const followed = createUnsettled()
      let parts: Parts = withAdded(new Map(), grown, plantKey)
      let [frames, plants] = [framesAs(['as it was', 'as it was']), plantsWithout(null)]
      const ways: (typeof WAYS)[number][] = ['as it was', 'as it was']
      const tied: { plantId: string; tieId: string }[] = []
      for (const one of steps) {
        if ('tie' in one) {
          const tieId = `tie ${tied.length}`
          tied.push({ plantId: one.tie, tieId })
          const { id, heightM } = levels[one.level]!
          const support = { on: 'line', frameId: one.to, lineId: id, alongM: 1 }
          const body = tieBody(tieId, `cane of ${one.tie}`, { v: 3, alongM: heightM, support })
          parts = withAdded(parts, [entry(one.tie, 'tie.made', body)], plantKey)
        } else if ('untie' in one) {
          const off = tied[one.untie]
          if (off) {
            const body = { tieId: off.tieId, reason: '' }
            parts = withAdded(parts, [entry(off.plantId, 'tie.removed', body)], plantKey)
          }
        } else if ('frame' in one) {
          ways[one.frame] = one.is
          frames = framesAs(ways)
        } else plants = plantsWithout(one.remove)
        const woods = fold(parts, new Map(), 'all').states
        const ground = { plants, places, frames, catalogue: standardCatalogue }
        const said = (ties: ReturnType<typeof followed>) =>
          ties.map(({ tie, standing }) => `${tie.id} ${JSON.stringify(standing)}`).sort()
        const now = followed(woods, ground)
        expect(said(now)).toEqual(said(createUnsettled()(new Map(woods), ground)))
        // Asked once more, the same list.
        expect(followed(woods, ground)).toBe(now)
      }
    }),
  )
})
