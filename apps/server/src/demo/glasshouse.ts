import { tierLevels } from './stand.ts'
import { planFrame } from '@klados/core/plan'
import { usualConditions } from '@klados/core/design'
import { flat } from '@klados/core/geometry'
import { addDays } from '@klados/core/season'
import type { Diary } from './diary.ts'
import { base, northern, stand, string, wallWire } from './stand.ts'
import type { Stand } from './stand.ts'

const underGlass = { ...northern, windMPerS: 0, coldestC: 12 }
const ROD_WIRES_M = [0.5, 0.8, 1.1, 1.4, 1.7, 2, 2.3]
const ROD_X_M = 1.1

/** What grows under glass: a rod on the back wall, posts, a pole and a hoop. */
export function glasshouse(): {
  readonly stands: readonly Stand[]
  readonly rod: Stand
  readonly pothos: Stand
  readonly hoop: Stand
} {
  const rod = stand(
    {
      name: 'Glasshouse, back wall',
      kind: 'wall',
      widthM: 2.2,
      usableHeightM: 2.1,
      firstForkM: 0.4,
      facingDeg: 180,
      surface: 'brick',
      conditions: { ...usualConditions, windMPerS: 0, coldestC: 2, hottestC: 41 },
    },
    {
      name: 'Rod on wires',
      notes: ['Seven wires, a hand clear of the wall'],
      design: {
        ...wallWire,
        tensionN: 200,
        fixingId: 'eye-130',
        plantKindId: 'table-grape',
        pattern: { kind: 'tiers', levels: tierLevels(...ROD_WIRES_M), maxSupportSpacingM: 1.2 },
      },
    },
    [{ name: 'Black table grape', kindId: 'table-grape', xM: ROD_X_M }],
  )
  const vanilla = stand(
    {
      name: 'Glasshouse, vanilla posts',
      kind: 'bench',
      widthM: 0.6,
      usableHeightM: 2,
      setting: 'glass',
      conditions: underGlass,
    },
    {
      name: 'Wrapped posts',
      notes: ['Coir on a pipe; the moss dried out'],
      design: {
        ...base,
        ...string,
        repeat: 2,
        plantKindId: 'vanilla',
        pattern: {
          kind: 'pole',
          form: 'wrapped',
          heightM: 1.5,
          buriedM: 0.25,
          diameterM: 0.09,
          lapM: 0.02,
          moduleM: 0.3,
          coreStockId: 'pipe-plastic-50',
          rootsM: null,
          pot: {
            shape: 'round',
            widthM: 0.4,
            heightM: 0.35,
            ballastKg: 0,
            drainageM: 0,
            hasCharcoal: false,
            isThere: false,
          },
        },
      },
    },
    [{ name: 'Vanilla', kindId: 'vanilla', xM: 0.3 }],
  )
  const pothos = stand(
    {
      name: 'Glasshouse bench',
      kind: 'bench',
      widthM: 0.3,
      usableHeightM: 1.2,
      setting: 'glass',
      conditions: underGlass,
    },
    {
      name: 'Fibre pole',
      notes: ['Four modules for now'],
      design: {
        ...base,
        ...string,
        plantKindId: 'satin-pothos',
        pattern: {
          kind: 'pole',
          form: 'modules',
          heightM: 0.8,
          buriedM: 0.1,
          diameterM: 0.07,
          lapM: 0,
          moduleM: 0.2,
          coreStockId: 'cane-12',
          rootsM: null,
          pot: {
            shape: 'round',
            widthM: 0.18,
            heightM: 0.16,
            ballastKg: 0,
            drainageM: 0,
            hasCharcoal: false,
            isThere: false,
          },
        },
      },
    },
    [{ name: 'Satin pothos', kindId: 'satin-pothos', xM: 0.15 }],
  )
  const hoop = stand(
    {
      name: 'Glasshouse shelf',
      kind: 'bench',
      widthM: 0.5,
      usableHeightM: 1,
      setting: 'glass',
      conditions: underGlass,
    },
    {
      name: 'Hoop',
      notes: ['One hoop; the string of lights came off it'],
      design: {
        ...base,
        ...string,
        plantKindId: 'hoya',
        pattern: {
          kind: 'arch',
          spanM: 0.2,
          heightM: 0.45,
          depthM: 0.2,
          hoops: 1,
          rungStepM: 0.3,
          buriedM: 0.14,
          hoopStockId: 'rod-steel-6',
          rungStockId: 'rod-steel-6',
          pot: {
            shape: 'round',
            widthM: 0.22,
            heightM: 0.18,
            ballastKg: 0,
            drainageM: 0,
            hasCharcoal: false,
            isThere: false,
          },
          potsAs: 'trough',
        },
      },
    },
    [{ name: 'Hoya', kindId: 'hoya', xM: 0.15 }],
  )
  return { stands: [rod, vanilla, pothos, hoop], rod, pothos, hoop }
}

/**
 * The rod, a third of the wall higher each winter until it was at the top; from then on laterals cut back to
 * spurs.
 */
export function growRod(diary: Diary, year: number): void {
  const reach = [1.1, 1.7, 2.3]
  const line = (topM: number) => [
    { xM: ROD_X_M, yM: 0 },
    { xM: ROD_X_M + 0.02, yM: topM / 2 },
    { xM: ROD_X_M, yM: topM + 0.06 },
  ]
  const rod = diary.draw(`${year - 4}-11-24`, {
    role: 'trunk',
    parent: null,
    points: line(reach[0]!),
    age: 1,
    mm: 9,
  })
  reach.slice(1).forEach((topM, i) => diary.grow(`${year - 3 + i}-12-12`, rod, line(topM)))
  const mmIn = (season: number) => 9 + season * 6
  for (let season = 1; season < 5; season++) diary.measure(`${year - 4 + season}-12-13`, rod, mmIn(season))
  for (const [i, yM] of ROD_WIRES_M.entries()) {
    const season = Math.max(
      0,
      reach.findIndex((topM) => yM <= topM),
    )
    const made = `${year - 4 + season}-12-14`
    const tieId = diary.tie(made, {
      stem: rod,
      at: { xM: ROD_X_M, yM },
      material: 'padded-hose',
      hitch: 'figureEight',
      stemMm: mmIn(season),
      supportMm: 2,
      slackMm: 15,
    })
    // Let out every winter but the last, when the two above the door were not reached.
    for (let later = season + 1; later < 4; later++) {
      if (later === 3 && i > 4) continue
      diary.write(`${year - 4 + later}-12-14`, 'tie.loosened', {
        v: 1,
        tieId,
        loopLengthMm: mmIn(later) * 4 + 40,
        stemDiameterMm: mmIn(later),
      })
    }
    growSpur(diary, rod, { yM, side: i % 2 === 0 ? 1 : -1, year })
  }
  diary.note(`${year}-06-20`, 'One bunch a lateral from the second wire up; the rest pinched out.')
}

/** A lateral of this summer, stopped two leaves past its bunch; in winter it goes back to two buds. */
function growSpur(diary: Diary, rod: string, at: { yM: number; side: number; year: number }): void {
  const { yM, side, year } = at
  const points = [
    { xM: ROD_X_M, yM },
    { xM: ROD_X_M + side * 0.3, yM: yM + 0.05 },
    { xM: ROD_X_M + side * 0.62, yM: yM + 0.02 },
  ]
  const lateral = diary.draw(`${year}-05-28`, { role: 'lateral', parent: rod, points, age: 0, mm: 6 })
  const tieId = diary.tie(`${year}-06-10`, {
    stem: lateral,
    at: points[1]!,
    material: 'soft-jute',
    hitch: 'figureEight',
    stemMm: 6,
    supportMm: 2,
    slackMm: 34,
  })
  diary.write(`${year}-07-02`, 'tie.checked', { v: 1, tieId })
  diary.cut(`${year}-07-02`, lateral, 0.6, 'stopped two leaves past the bunch')
  diary.cut(`${year}-12-15`, lateral, 0.05, 'winter cut to two buds')
}

/**
 * The hoya twined round its hoop, tied where it would not hold; the flower stalks are left, they flower
 * again.
 */
export function growHoya(
  diary: Diary,
  { place, frame }: Stand,
  { year, today }: { year: number; today: string },
): void {
  const { path, foot } = planFrame(place.body, frame.body.design).frame!.members[0]!
  const round = [foot!, ...path.slice(1, -1)].map(flat)
  const vine = diary.draw(`${year - 3}-05-10`, {
    role: 'cane',
    parent: null,
    points: round.slice(0, Math.ceil(round.length / 3)),
    age: 0,
    mm: 2.5,
  })
  diary.grow(`${year - 1}-05-12`, vine, round.slice(0, Math.ceil(round.length / 1.6)))
  diary.grow(`${year}-06-02`, vine, round.slice(0, -2))
  diary.measure(`${year}-06-02`, vine, 4)
  const made = addDays(today, -40)
  for (const share of [0.1, 0.5, 0.8]) {
    const at = round[Math.floor((round.length - 3) * share)]!
    const tieId = diary.tie(made, {
      stem: vine,
      at,
      material: 'soft-jute',
      hitch: 'figureEight',
      stemMm: 4,
      supportMm: 6,
      slackMm: 8,
    })
    diary.write(addDays(made, 9), 'tie.checked', { v: 1, tieId })
  }
  diary.note(`${year}-07-15`, 'Flowered on the old stalks again; none cut.')
}
