import { standardCatalogue } from '@klados/core/catalogue'
import { startDesign } from '@klados/core/design'
import { drawSite } from '@klados/core/drawing'
import { planFrame } from '@klados/core/plan'
import { expect, it } from 'vitest'
import { sampleWall } from '../sample/sample-wall.ts'
import { UNITS } from '../ui/units.tsx'
import { dimensionMarks } from './dimensions.ts'

it.each([
  ['row', 'row', 48],
  ['tiers', 'wall', 6.4],
  ['diamonds', 'wall', 9.2],
] as const)(
  'the drawing of %s says how far along and how high, and no figure runs into the next',
  (kind, home, widthM) => {
    const firstForkM = home === 'row' ? 0 : 0.4
    const surface = home === 'row' ? ('open' as const) : ('brick' as const)
    const rest = {
      name: 'Here',
      facingDeg: 180,
      uprights: null,
      levels: null,
      fence: null,
      photo: null,
      riseM: 0,
    }
    const place = {
      ...sampleWall,
      ...rest,
      kind: home,
      widthM,
      usableHeightM: 1.9,
      firstForkM,
      surface,
      avoid: [],
    }
    const design = startDesign({ ...place, kind: home }, kind, standardCatalogue)
    const { frame } = planFrame(place, design)
    const marks = dimensionMarks(frame!, place, UNITS.metric)
    const figures = marks.flatMap((mark) => (mark.kind === 'dimension' ? [mark] : []))
    const lowest = Math.min(...figures.map(({ from }) => from.yM))
    const along = figures.filter(({ from }) => from.yM === lowest).sort((a, b) => a.from.xM - b.from.xM)
    const up = figures.filter(({ from }) => from.yM > 0).sort((a, b) => a.from.yM - b.from.yM)
    expect(along.length).toBeGreaterThan(2)
    expect(up.length).toBeGreaterThan(0)
    along
      .slice(1)
      .forEach(({ from }, i) => expect(from.xM - along[i]!.from.xM).toBeGreaterThan(0.08 * widthM))
    up.slice(1).forEach(({ from }, i) => expect(from.yM - up[i]!.from.yM).toBeGreaterThan(0.03 * widthM))
    // The last is as far as the place is long, from the end that one looks from.
    expect(along.at(-1)!.text).toBe(UNITS.metric.length(widthM, widthM > 10 ? 'long' : 'short'))
    expect(along[0]!.text).toMatch(/^0/)
  },
)

it('a pot’s figures stand below the ground that is drawn under it', () => {
  const place = {
    ...sampleWall,
    ...{ name: 'Here', facingDeg: 180, uprights: null, levels: null, fence: null, photo: null, riseM: 0 },
    kind: 'tub' as const,
    widthM: 0.66,
    usableHeightM: 1.6,
    firstForkM: 0,
    avoid: [],
  }
  const { frame } = planFrame(place, startDesign({ ...place, kind: 'tub' }, 'spiral', standardCatalogue))
  const ground = drawSite(place, 'open').find((mark) => mark.kind === 'area' && mark.role === 'ground')!
  const lowest = Math.min(...(ground.kind === 'area' ? ground.points.map(({ yM }) => yM) : []))
  for (const mark of dimensionMarks(frame!, place, UNITS.imperial))
    if (mark.kind === 'dimension') expect(mark.from.yM).toBeLessThan(lowest)
})
