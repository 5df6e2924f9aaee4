import { describe, expect, it } from 'vitest'
import { siteOf } from '../../test/frames.ts'
import { designOf } from '../../test/frames.ts'
import { kindsFor, startDesign } from '../design/index.ts'
import { standardCatalogue } from '../catalogue/index.ts'
import { planFrame } from '../plan/index.ts'
import { at3 } from '../geometry/index.ts'
import { choice, length, stock, whole } from './field.ts'
import { frameKinds } from './kinds/index.ts'
import type { Pattern, PatternKind } from './kinds/index.ts'
import { NO_WIRES, WALL_WIRE, frameKind } from './kind.ts'
import { LayoutBuilder } from './layout.ts'

/** A bough laid over two forked sticks: a kind that Klados does not have, in one record. */
const trestle = frameKind({
  kind: 'trestle',
  fields: {
    forks: whole(2, 9),
    heightM: length(0.2, 3),
    buriedM: length(0, 1, 'short'),
    lash: choice('willow', 'string'),
    forkStockId: stock('stake'),
  },
  traits: { ...frameKinds.stakes.traits, fills: 'outline' },
  places: { bed: 99 },
  usualPlant: 'hop',
  startWith: WALL_WIRE,
  start: () => ({
    kind: 'trestle',
    forks: 3,
    heightM: 1.2,
    buriedM: 0.3,
    lash: 'willow',
    forkStockId: 'pole-hazel-25',
  }),
  wires: NO_WIRES,
  checks: () => ['leg-bending'],
  sheet: ['members'],
  lay: ({ site, idsOf }, { forks, heightM, buriedM, forkStockId }) => {
    const builder = new LayoutBuilder()
    const alongM = Array.from({ length: forks }, (_, i) => (i * site.widthM) / (forks - 1))
    idsOf(builder, 'fork', alongM).forEach((id, i) => {
      const foot = at3(alongM[i]!, 0)
      const path = [at3(alongM[i]!, -buriedM), at3(alongM[i]!, heightM)]
      builder.member({
        id: `k${id}`,
        role: 'stake',
        path,
        stockId: forkStockId,
        buriedM,
        foot,
        label: `K${i + 1}`,
      })
    })
    return builder.build()
  },
})

describe('an eighteenth kind of frame', () => {
  it('is laid out, checked, billed and offered once its record is in the list', () => {
    const list = frameKinds as unknown as Record<string, unknown>
    list.trestle = trestle
    try {
      const kind = 'trestle' as PatternKind
      expect(kindsFor({ kind: 'bed' }).at(-1)).toBe(kind)
      const site = siteOf(4, 2, { surface: 'open' })
      const design = startDesign(
        { kind: 'bed', widthM: 4, usableHeightM: 2, firstForkM: 0 },
        kind,
        standardCatalogue,
      )
      const plan = planFrame(site, { ...design, plantKindId: 'hop' })
      expect(plan.problems).toEqual([])
      expect(plan.frame!.members.map((member) => member.id)).toEqual(['k0', 'k1', 'k2'])
      expect(plan.checks.map((check) => check.code)).toEqual(['leg-bending'])
      expect(plan.takeOff!.items.map((item) => item.what)).toEqual(['stock'])
      const tooMany = { ...(design.pattern as object), forks: 10 } as unknown as Pattern
      expect(planFrame(site, designOf(tooMany)).problems).toEqual([
        expect.objectContaining({
          code: 'core/out-of-range',
          details: { field: 'forks', value: 10, min: 2, max: 9 },
        }),
      ])
    } finally {
      delete list.trestle
    }
  })
})
