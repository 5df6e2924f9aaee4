import { standardCatalogue } from '@klados/core/catalogue'
import { potOf, startDesign, withPot } from '@klados/core/design'
import type { FrameDesign } from '@klados/core/design'
import { frameKinds, placeKinds } from '@klados/core/frame'
import type { PatternKind, PlaceKind } from '@klados/core/frame'
import { planFrame } from '@klados/core/plan'
import { countedOnBy } from '@klados/core/strength'
import type { UnitSystem } from '@klados/core/units'
import type { Place } from '@klados/contract'
import i18next from 'i18next'
import type { TextKey } from '../i18n/texts.ts'
import { beforeAll, describe, expect, it } from 'vitest'
import type { SheetContent, SheetItem, SheetSection } from '../documents/sheet-content.ts'
import en from '../i18n/en.json'
import { sampleWall } from '../sample/sample-wall.ts'
import { UNITS } from '../ui/units.tsx'
import { linesInWords } from './line-words.ts'
import { namesIn } from './names.ts'
import { sheetContent } from './sheet-content.ts'
import { STANDS_UNDER } from './sheet-counted.ts'

const catalogue = standardCatalogue
/** All of it, in the order in which it is read. */
const allOf = (sheet: SheetContent) => [...sheet.first, ...sheet.sections]
const kinds = Object.keys(frameKinds) as PatternKind[]
const homeOf = (kind: PatternKind): PlaceKind =>
  placeKinds.find((place) => place in frameKinds[kind].places) as PlaceKind

beforeAll(async () => {
  await i18next.init({
    lng: 'en',
    resources: { en: { translation: en } },
    interpolation: { escapeValue: false },
  })
})

/** The sheet of what a grower begins with in a kind of frame. */
function sheetOf(
  kind: PatternKind,
  system: UnitSystem,
  face?: 'brick' | 'boards',
  change: (begun: FrameDesign) => Partial<FrameDesign> = () => ({}),
  riseM = 0,
) {
  const placeKind = homeOf(kind)
  const isPot = placeKind === 'bench' || placeKind === 'tub'
  const widthM = isPot ? 0.6 : 8
  const begun = startDesign({ kind: placeKind, widthM, usableHeightM: 2.2, firstForkM: 0 }, kind, catalogue)
  const design = { ...begun, ...change(begun) }
  const site = { ...sampleWall, widthM, usableHeightM: 2.2, firstForkM: 0 }
  const surface = face ?? (placeKind === 'wall' ? ('brick' as const) : ('open' as const))
  const measures = { ...site, surface, avoid: [], name: 'Here', kind: placeKind, facingDeg: 180, riseM }
  const place: Place = {
    id: 'here',
    version: 1,
    isRemoved: false,
    note: '',
    savedAt: '',
    savedBy: '',
    body: { ...measures, uprights: null, levels: null, fence: null, photo: null },
  }
  const plan = planFrame(place.body, design)
  const units = UNITS[system]
  const { t } = i18next
  const sheet = sheetContent({
    t,
    units,
    names: namesIn(t, units),
    catalogue,
    place,
    body: { placeId: 'here', name: 'Frame', stage: 'chosen', design },
    plan,
    currency: 'EUR',
    version: 2,
    isDraft: true,
  })
  return { plan, sheet }
}

const words = (section: SheetSection): string[] => [
  section.title,
  ...(section.intro ? [section.intro] : []),
  ...(section.kind === 'table'
    ? [section.header, ...section.rows].flat()
    : section.groups.flatMap((group) => [
        group.title ?? '',
        ...group.items.flatMap(({ lead, text }) => [lead, text]),
      ])),
]
const itemsOf = (section: SheetSection | undefined): SheetItem[] =>
  section?.kind === 'list' ? section.groups.flatMap(({ items }) => items) : []
const rowsOf = (section: SheetSection | undefined) => (section?.kind === 'table' ? section.rows : [])

it.each(kinds)('the sheet of %s says everything that its checks count on', (kind) => {
  // Each with what makes it count: ballast, a slab, a cover that comes off.
  const full = (begun: FrameDesign): Partial<FrameDesign> => {
    const pot = potOf(begun.pattern)
    return pot ? { pattern: withPot(begun.pattern, { ...pot, ballastKg: 20 }) } : {}
  }
  for (const system of ['metric', 'imperial'] as const) {
    const { plan, sheet } = sheetOf(kind, system, undefined, full)
    const titles = allOf(sheet).map(({ title }) => title)
    const leads = allOf(sheet).flatMap((section) => itemsOf(section).map(({ lead }) => lead))
    for (const thing of countedOnBy(plan.checks)) {
      if (thing in STANDS_UNDER) {
        const key = STANDS_UNDER[thing as keyof typeof STANDS_UNDER]
        expect(titles, `${kind} ${thing}`).toContain(i18next.t(key))
      } else if (thing !== 'feet-ballast') {
        expect(leads, `${kind} ${thing}`).toContain(i18next.t(`counted.on.${thing as 'ballast'}`))
      }
    }
    for (const { why } of plan.unchecked.parts)
      expect(allOf(sheet).flatMap(words).join(' ')).toContain(i18next.t(`unchecked.why.${why}`))
  }
})

it('says how to drill the face that there is: no plug in wood, none left out in masonry', () => {
  const drill = (kind: PatternKind, surface: 'brick' | 'boards') => {
    const { sheet } = sheetOf(kind, 'metric', surface)
    const steps = itemsOf(allOf(sheet).find(({ title }) => title === i18next.t('slip.cautions')))
    return steps.find(({ lead }) => lead === i18next.t('step.drill'))!.text
  }
  expect(drill('tiers', 'brick')).toContain('plug')
  expect(drill('tiers', 'boards')).not.toContain('plug')
  expect(drill('tiers', 'boards')).toContain('pilot')
})

it('the sheet of a row says of every piece which wire it is and how high up the posts', () => {
  const { plan, sheet } = sheetOf('row', 'metric')
  const { pattern } = startDesign(
    { kind: 'row', widthM: 8, usableHeightM: 2.2, firstForkM: 0 },
    'row',
    catalogue,
  )
  if (pattern.kind !== 'row') throw new Error('not a row')
  const order = itemsOf(allOf(sheet).find(({ title }) => title === i18next.t('sheet.order')))
  const said = order.map(({ text }) => text).join('; ')
  for (const { heightM } of pattern.levels)
    expect(said).toContain(`${UNITS.metric.length(heightM, 'short')} up the posts`)
  for (const name of linesInWords(i18next.t, plan.frame!).values()) expect(said).toContain(name)
})

it('the sheet of a row says the height of every level wire, on a slope with leaning ends too', () => {
  for (const riseM of [0, 0.8, -0.8]) {
    const { plan, sheet } = sheetOf('row', 'metric', undefined, () => ({}), riseM)
    const rows = rowsOf(allOf(sheet).find(({ title }) => title === i18next.t('sheet.wires')))
    const { pattern } = startDesign(
      { kind: 'row', widthM: 8, usableHeightM: 2.2, firstForkM: 0 },
      'row',
      catalogue,
    )
    if (pattern.kind !== 'row') throw new Error('not a row')
    const said = rows.map(([, height]) => height)
    for (const { heightM } of pattern.levels)
      expect(said, `${riseM}`).toContain(UNITS.metric.length(heightM, 'short'))
    expect(plan.lines.length).toBeGreaterThan(0)
  }
})

describe.each(kinds)('the sheet of %s', (kind) => {
  const section = (sections: readonly SheetSection[], key: TextKey) =>
    sections.find(({ title }) => title.startsWith(i18next.t(key)))

  it('says every mark, every check, every thing to buy, every step’s caution once', () => {
    const { plan, sheet } = sheetOf(kind, 'metric')
    expect(plan.problems).toEqual([])
    const { sections } = sheet
    expect(rowsOf(section(sections, 'slip.markOut')).map(([label]) => label)).toEqual(
      plan.markOut!.rows.map(({ label }) => label),
    )
    expect(itemsOf(section(sections, 'check.title'))).toHaveLength(plan.checks.length + plan.warnings.length)
    expect(rowsOf(section(sections, 'sheet.materials'))).toHaveLength(plan.takeOff!.items.length + 1)
    expect(itemsOf(section(sections, 'slip.cautions'))).toHaveLength(plan.takeOff!.steps.length)
  })

  it('cuts and strings each piece of wire, and saws each length, exactly once', () => {
    const { plan, sheet } = sheetOf(kind, 'metric')
    const pieces = plan.wires.reduce((n, { stringing }) => n + (stringing?.pieces.length ?? 0), 0)
    const order = itemsOf(section(allOf(sheet), 'sheet.order'))
    const strung = order.flatMap(({ lead }) => lead.match(/\b[A-Z]{1,2}\b/g) ?? [])
    expect(strung).toHaveLength(pieces)
    const cuts = itemsOf(section(allOf(sheet), 'sheet.cutList'))
    const lettersCut = cuts.flatMap(({ text }) => text.match(/[A-Z]+(?= \d)/g) ?? [])
    expect(lettersCut).toHaveLength(pieces)
    const sawList = itemsOf(section(allOf(sheet), 'sheet.sawList'))
    const sawn = plan.stock.map(({ lengthsM }) => lengthsM.length)
    const said = sawList.map(({ text }) =>
      [...text.matchAll(/(\d+) × /g)].reduce((sum, [, n]) => sum + Number(n), 0),
    )
    expect(said).toEqual(sawn)
  })

  it('says of each upright how it stands and is cut, of each strained wire how high and how hard, of each eye how it is set', () => {
    const { plan, sheet } = sheetOf(kind, 'metric')
    const frame = plan.frame!
    const counted = (text: string) => Number(/\((\d+)\)$/.exec(text)?.[1] ?? text.split(', ').length)
    const sum = (rows: readonly (readonly string[])[]) => rows.reduce((n, [which]) => n + counted(which!), 0)
    const stands = frame.members.filter(({ foot }) => foot !== null)
    const uprights = rowsOf(section(allOf(sheet), 'sheet.uprights'))
    expect(sum(uprights)).toBe(stands.length)
    for (const { buriedM, cutLengthM } of stands) {
      const [inGround, cut] = [UNITS.metric.length(buriedM, 'short'), UNITS.metric.cut(cutLengthM, 'saw')]
      expect(uprights.some((row) => row[2] === (buriedM > 0 ? inGround : '–') && row[4] === cut)).toBe(true)
    }
    const wires = rowsOf(section(allOf(sheet), 'sheet.wires'))
    expect(wires).toHaveLength(plan.lines.length)
    for (const row of wires) expect(row.slice(-4).every((pull) => /^\d+ N$/.test(pull))).toBe(true)
    const eyes = frame.nodes.filter(({ joint }) => joint === 'eye').length
    const set = itemsOf(section(allOf(sheet), 'sheet.fixings'))
    expect(set).toHaveLength(eyes > 0 ? 1 : 0)
    for (const { lead, text } of set) {
      expect(lead).toMatch(new RegExp(`^${eyes} × `))
      expect(text).toContain(`bit ${plan.takeOff!.drill!.bitMm} mm`)
      expect(text).toContain(`stands ${UNITS.metric.length(plan.fixing!.standOffM, 'short')} off`)
    }
  })

  it('checks across only between marks that it has', () => {
    const { plan } = sheetOf(kind, 'metric')
    const at = new Map(plan.markOut!.rows.map((row) => [row.label, row]))
    for (const { from, to, lengthM } of plan.markOut!.diagonals) {
      const [a, b] = [at.get(from)!, at.get(to)!]
      const across = Math.hypot(a.alongM - b.alongM, a.heightM - b.heightM, a.outM - b.outM)
      expect(lengthM).toBeCloseTo(across, 6)
    }
    expect(new Set(plan.markOut!.rows.map(({ label }) => label)).size).toBe(plan.markOut!.rows.length)
  })

  it('has all that its kind is built from, and nothing that it is not', () => {
    const { plan, sheet } = sheetOf(kind, 'metric')
    const parts = new Set<string>(frameKinds[kind].sheet)
    expect(parts.has('stringing')).toBe(plan.wires.length > 0)
    expect(parts.has('members')).toBe(plan.stock.length > 0)
    expect(parts.has('anchors')).toBe(plan.frame!.anchors.length > 0)
    const told = itemsOf(section(allOf(sheet), 'sheet.figures')).map(({ lead }) => lead)
    expect(new Set(told).size).toBe(told.length)
    const own = plan.frame!.figures.map(({ key }) => i18next.t(`figure.${key}`))
    expect(told.filter((lead) => own.includes(lead as never))).toHaveLength(own.length)
    expect(told.includes(i18next.t('sheet.plantsOff'))).toBe(plan.frame!.traits.stands === 'on-face')
    expect(told.includes(i18next.t('slip.endPull'))).toBe(plan.end !== null)
    expect(told.includes(i18next.t('sheet.rim'))).toBe(kind === 'spiral')
    expect(itemsOf(section(allOf(sheet), 'slip.anchors'))).toHaveLength(plan.frame!.anchors.length)
  })

  it('warns before anything is marked, says it is not the kept version, and leaves no word untold', () => {
    for (const system of ['metric', 'imperial'] as const) {
      const { sheet } = sheetOf(kind, system)
      const titles = allOf(sheet).map(({ title }) => title)
      expect(new Set(titles).size).toBe(titles.length)
      const at = (key: TextKey) => titles.indexOf(i18next.t(key))
      expect(at('slip.cautions')).toBeGreaterThanOrEqual(0)
      for (const later of (['slip.markOut', 'sheet.cutList', 'sheet.order'] as const).map(at))
        if (later >= 0) expect(at('slip.cautions')).toBeLessThan(later)
      expect(sheet.subtitle).toContain(i18next.t('sheet.draft'))
      expect(sheet.paper).toBe(system === 'metric' ? 'A4' : 'LETTER')
      for (const said of allOf(sheet).flatMap(words))
        expect(said).not.toMatch(/^[a-z]\w*\.[a-z]|\{\{|undefined|NaN/)
      // A sheet in feet and inches gives no length in metres, nor the other way about.
      const all = allOf(sheet).flatMap(words).join('\n')
      if (system === 'imperial') expect(all).not.toMatch(/\d (m|m²|cm|l|kg|N|kN|Nm)(?!\w)/)
      else expect(all).not.toMatch(/\d(' |"| lb| sq ft)/)
    }
  })
})

describe('a sheet of what does not hold', () => {
  it('begins with what does not, in words, above its drawings; one of what holds does not', () => {
    const at = (postBuriedM: number) =>
      sheetOf('row', 'metric', undefined, ({ pattern }) => ({
        pattern: { ...pattern, postBuriedM } as typeof pattern,
      })).sheet
    expect(at(0.9).first).toEqual([])
    const [first] = at(0.3).first
    expect(first!.title).toContain('not hold')
    expect(words(first!).join(' ')).toContain('Wind on the posts')
  })
})
