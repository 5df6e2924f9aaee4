import { standardCatalogue } from '@klados/core/catalogue'
import { startDesign } from '@klados/core/design'
import type { FrameDesign } from '@klados/core/design'
import { levelId } from '@klados/core/frame'
import type { PatternKind, PlaceKind } from '@klados/core/frame'
import { planFrame } from '@klados/core/plan'
import type { Place, PlaceBody } from '@klados/contract'
import i18next from 'i18next'
import { beforeAll, expect, it } from 'vitest'
import en from '../i18n/en.json'
import { sampleWall } from '../sample/sample-wall.ts'
import { UNITS } from '../ui/units.tsx'
import { namesIn } from './names.ts'
import { sheetContent } from './sheet-content.ts'

/**
 * What stands on paper, in feet and inches, against what a hand with a tape comes to: page and PDF set the same words.
 */
const FT = 0.3048
const IN = 0.0254

beforeAll(async () => {
  const resources = { en: { translation: en } }
  await i18next.init({ lng: 'en', resources, interpolation: { escapeValue: false } })
})

function sheetText(
  home: PlaceKind,
  kind: PatternKind,
  measures: Partial<PlaceBody> & { readonly widthM: number; readonly usableHeightM: number },
  typed: object,
  rest: Partial<FrameDesign> = {},
): string {
  const body: PlaceBody = {
    ...sampleWall,
    ...{ name: 'Here', kind: home, facingDeg: 180, avoid: [], riseM: 0, firstForkM: 0, surface: 'open' },
    ...{ uprights: null, levels: null, fence: null, photo: null },
    ...measures,
  }
  const begun = startDesign({ ...body, kind: home }, kind, standardCatalogue, 'imperial')
  const design = { ...begun, ...rest, pattern: { ...begun.pattern, ...typed } as FrameDesign['pattern'] }
  const place: Place = { id: 'p', version: 1, isRemoved: false, note: '', savedAt: '', savedBy: '', body }
  const plan = planFrame(body, design)
  expect(plan.problems).toEqual([])
  const { t } = i18next
  const units = UNITS.imperial
  const sheet = sheetContent({
    ...{ t, units, names: namesIn(t, units), catalogue: standardCatalogue, place, plan },
    body: { placeId: 'p', name: 'Frame', stage: 'chosen', design },
    ...{ currency: 'USD', version: 1, isDraft: false },
  })
  return [...sheet.first, ...sheet.sections]
    .flatMap((section) => [
      section.title,
      section.intro ?? '',
      ...(section.kind === 'table'
        ? section.rows.map((row) => row.join(' | '))
        : section.groups.flatMap(({ items }) => items.map(({ lead, text }) => `${lead}: ${text}`))),
    ])
    .join('\n')
}

const expectAll = (text: string, figures: readonly string[]) => {
  for (const figure of figures) expect(text).toContain(figure)
}

it('a row of 160 ft, posts 20 ft apart, says on paper what a tape says', () => {
  const level = (id: string, inches: number, form: 'single' | 'pair') => ({
    ...{ id: levelId(id), heightM: inches * IN, form, spreadM: 0, liftM: 0 },
    role: form === 'single' ? 'carrying' : 'foliage',
  })
  const end = { kind: 'tied-back', attachHeightM: 5 * FT, angleDeg: 45, screwId: 'screw-eye-1600' }
  const text = sheetText(
    'row',
    'row',
    { widthM: 160 * FT, usableHeightM: 6 * FT },
    {
      ...{ maxPostSpacingM: 20 * FT, postHeightM: 6 * FT, postBuriedM: 30 * IN, endBuriedM: 3 * FT },
      ...{ endLeanDeg: 0, endSlabM: 12 * IN, waterHeightM: 18 * IN },
      ...{
        levels: [level('a', 36, 'single'), level('b', 52, 'pair')],
        end: { ...end, inLine: 1, strands: 2 },
      },
    },
  )
  expectAll(text, [
    // Nine posts every 20 ft, the last at 160 ft; ends of 9 ft, the others of 8 ft 6.
    `P5 | 80' 0"`,
    `P9 | 160' 0"`,
    `P1, P9 | 6' 0" | 3' 0" | upright | 9' 0"`,
    `P2 to P8 (7) | 6' 0" | 2' 6" | upright | 8' 6"`,
    // Screws 5 ft out at 45°, in the line of the tie.
    'A1 | 5\' 0" before it',
    `45° from level ground`,
    `A slab or flat stone 1' 0" by 1' 0"`,
    // The bearing wire and both ties of the one, the pair and the water wire of the other: three pieces each.
    '2.5 mm: in pressed sleeves, 6 ends',
    '2 mm: in pressed sleeves, 6 ends',
    `Span between posts: 20' 0"`,
    `Out from the post: 5' 0"`,
    `2 wires for each`,
  ])
})

it('a net over 60 by 90 ft says on paper what a tape says', () => {
  const text = sheetText(
    'row',
    'net',
    { widthM: 90 * FT, usableHeightM: 8 * FT },
    {
      ...{ depthM: 60 * FT, heightM: 7 * FT, maxSpacingAlongM: 15 * FT, maxSpacingAcrossM: 15 * FT },
      ...{ anchorOutM: 10 * FT, postBuriedM: 3 * FT, panelWidthM: 15 * FT, dropM: 7 * FT },
    },
  )
  expectAll(text, [
    `P2 | 15' 0"`,
    // Diagonals of the grid: √(60² + 90²) = 108.17 ft.
    `108' 2"`,
    // 20 posts of the edge in holes of a foot less a quarter inch, 3 ft deep.
    '20 holes 11 13/16" wide and 3\' 0" deep',
    // Five seams of 74 ft, two edges of 60, four corners of 7.
    `Seams to clip: 518' 0"`,
    'The cover comes off before the first snow',
    'clipped, 24 ends',
    // Anchors 10 ft out and 7 ft down: 35° from level.
    '35° from level ground',
    'Net',
    `10' 0" |`,
  ])
})

it('a fan of seven ribs over 140° says on paper what a tape says', () => {
  const wall = { widthM: 14 * FT, usableHeightM: 7 * FT, firstForkM: 18 * IN, surface: 'brick' } as const
  const text = sheetText('wall', 'fan', wall, {
    ...{ ribs: 7, spreadDeg: 140, ribReachM: 6 * FT, wireStepM: 12 * IN },
  })
  expectAll(text, [
    // From level 90 − 70, − 46 2/3, − 23 1/3, 0.
    '1 | 20° | the left',
    '2 | 43°',
    '3 | 67°',
    '4 | 90° | upright',
    `| 6' 0" |`,
    // The upright one is lashed at every foot; the next at a foot over the cosine of 23 1/3°: 13 1/16 in.
    `1' 0", 2' 0", 3' 0", 4' 0", 5' 0", 6' 0"`,
    `1' 1 1/16"`,
    `Ribs start 1' 6" above the soil, where the tree stands: 7' 0" along the wall.`,
    'into bricks, not joints',
    // 10 mm eyes of 130 mm, 5 cm of them out: 8 cm in, and 5 mm for the dust.
    'hole 3 3/8" deep',
  ])
})

it('a pergola of 20 by 8 ft says on paper what a tape says', () => {
  const text = sheetText(
    'bed',
    'overhead',
    { widthM: 20 * FT, usableHeightM: 8 * FT },
    {
      ...{ depthM: 8 * FT, headroomM: 7.5 * FT, maxBayM: 7 * FT, postBuriedM: 30 * IN, overhangM: 12 * IN },
      ...{ maxRafterSpacingM: 30 * IN, wireSpacingM: 20 * IN, backWires: 0, beamStockId: 'beam-75x200' },
    },
  )
  expectAll(text, [
    // Posts every 6 ft 8; nine rafters every 2 ft 6; six wires every 19.2 in.
    `F2 | 6' 8"`,
    `Rafters along the beams: 0", 2' 6", 5' 0", 7' 6", 10' 0", 12' 6", 15' 0", 17' 6", 20' 0"`,
    `Rafter on beam: 18 crossings`,
    `rafters stand 1' 0" over the beams`,
    `Wires across the rafters: 0", 1' 7 3/16", 3' 2 3/8", 4' 9 5/8", 6' 4 13/16", 8' 0"`,
    `7' 6" | 2' 6" | upright | 10' 0"`,
    '9 × 10\' 0"',
    `Headroom: 7' 6"`,
    // √(20² + 8²) = 21.54 ft.
    `21' 6 1/2"`,
    '8 holes',
  ])
})

it('an arch and a half-barrel say on paper what a tape says', () => {
  const arch = sheetText(
    'bed',
    'arch',
    { widthM: 6 * FT, usableHeightM: 8 * FT },
    {
      ...{ spanM: 4 * FT, heightM: 7.5 * FT, depthM: 4 * FT, hoops: 3, buriedM: 12 * IN },
      ...{ rungStepM: 12 * IN, pot: null },
    },
  )
  // 13 ft of legs and feet, 2π over the top: 19.283 ft, up to the sixteenth.
  expectAll(arch, [`Length of a hoop: 19' 3 7/16"`, `3 × 19' 3 7/16"`, `17 × 4' 0"`])
  const pot = {
    shape: 'round',
    widthM: 24 * IN,
    heightM: 16 * IN,
    ballastKg: 20,
    drainageM: 0,
    hasCharcoal: false,
    isThere: false,
  }
  const barrel = sheetText(
    'tub',
    'spiral',
    { widthM: 24 * IN, usableHeightM: 6 * FT },
    {
      ...{ stakes: 5, circleRadiusM: 10 * IN, heightM: 5 * FT, buriedM: 10 * IN, startHeightM: 10 * IN, pot },
    },
  )
  expectAll(barrel, [
    // Two inches in from the rim, 2 · 10 · sin 36° from one to the next; stakes of 5 ft and 10 in.
    '2" in from the rim',
    '11 3/4" straight from one to the next',
    `5' 10"`,
    '44 lb of stones or slabs on the bottom of the pot',
  ])
})

it('an arch on a terrace has its hoops sawn to one length, wherever the sheet says it', () => {
  // Two legs of 60 − 24 in and half a circle of 24 in: 147.398 in, up to the next sixteenth.
  const text = sheetText(
    'terrace',
    'arch',
    { widthM: 48 * IN, usableHeightM: 60 * IN },
    { spanM: 48 * IN, heightM: 60 * IN, depthM: 36 * IN, hoops: 3, buriedM: 0, pot: null },
  )
  expectAll(text, [`upright | 12' 3 7/16" |`, `3 × 12' 3 7/16"`, 'apart along the hoops'])
  expect(text).not.toContain(`12' 3 3/8"`)
})

it('string round a barrel is one piece off its ball, and an obelisk says how high its crosspieces go', () => {
  const pot = {
    shape: 'round',
    heightM: 16 * IN,
    ballastKg: 0,
    drainageM: 0,
    hasCharcoal: false,
    isThere: false,
  }
  const barrel = sheetText(
    'tub',
    'spiral',
    { widthM: 24 * IN, usableHeightM: 6 * FT },
    {
      ...{ stakes: 5, circleRadiusM: 10 * IN, heightM: 60 * IN, buriedM: 10 * IN, startHeightM: 10 * IN },
      ...{ turns: 4, wrapsPerContact: 1, knotEvery: 0, knotAllowanceM: 4 * IN, top: 'ring' },
      pot: { ...pot, widthM: 24 * IN },
    },
    { wireId: 'jute-4' },
  )
  expectAll(barrel, [
    // Fifty inches in twenty steps, from ten inches up to the top at sixty.
    `start at S1, 10" above the soil; 4 turns`,
    `2 1/2" higher at each stake; end at S1, 5' 0" above the soil`,
    'Mark out: tape, pencil.',
  ])
  expect(barrel).not.toContain('Piece B')
  const obelisk = sheetText(
    'tub',
    'obelisk',
    { widthM: 20 * IN, usableHeightM: 5 * FT, setting: 'indoors' },
    {
      ...{
        form: 'obelisk',
        legs: 4,
        baseM: 12 * IN,
        topM: 6 * IN,
        heightM: 48 * IN,
        buriedM: 10 * IN,
        rungs: 3,
      },
      pot: { ...pot, widthM: 20 * IN },
    },
  )
  // Three between soil and tip, a foot apart.
  expectAll(obelisk, [
    `Crosspieces: 1' 0", 2' 0", 3' 0" above the soil, lashed to each leg`,
    'dry soil holds least.',
  ])
  expect(obelisk).not.toContain('gale')
})
