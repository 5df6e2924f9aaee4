import { endingOf } from '@klados/core/catalogue'
import { potOf } from '@klados/core/design'
import { isPost } from '@klados/core/frame'
import { FOOT_M } from '@klados/core/ground'
import { potsUnder } from '@klados/core/loads'
import { countedOnBy } from '@klados/core/strength'
import type { CountedOn, NotComputed } from '@klados/core/strength'
import type { TFunction } from '../i18n/texts.ts'
import { listPlain } from '../i18n/language.ts'
import type { SheetItem, SheetSection } from '../documents/sheet-content.ts'
import type { Units } from '../ui/units.tsx'
import type { SheetInput } from './sheet-input.ts'

/** What is counted on and stands in a part of the sheet of its own, by that part's heading. */
export const STANDS_UNDER = {
  tension: 'sheet.wires',
  'tie-strands': 'sheet.figures',
  depth: 'sheet.uprights',
  anchors: 'slip.anchors',
  fixings: 'sheet.fixings',
  lengths: 'sheet.sawList',
} as const satisfies Partial<Record<CountedOn, string>>

type SaidHere = Exclude<CountedOn, keyof typeof STANDS_UNDER>

/** What the checks count on that would otherwise stand nowhere: `null` where this frame has none of it. */
const SAID: Readonly<Record<SaidHere, (input: SheetInput) => string | readonly string[] | null>> = {
  'wire-ending': ({ t, names, body, plan }) => {
    const strained = plan.wires.filter(({ wire }) => plan.lines.some((line) => line.wire.id === wire.id))
    const each = strained.map(({ wire, stringing }) =>
      t('counted.endings', {
        wire: names.wire(wire),
        ending: t(`wireEnding.${endingOf(wire, body.design.wireEnding)}`),
        count: 2 * (stringing?.pieces.length ?? 0),
      }),
    )
    return each
  },
  'marked-fittings': ({ t, units, plan }) => markedWords(t, units, plan.unchecked),
  slab: ({ t, units, body: { design } }) =>
    design.pattern.kind === 'row' && design.pattern.endSlabM > 0
      ? t('counted.slab', { side: units.length(design.pattern.endSlabM, 'short') })
      : null,
  concrete: ({ t, units, plan: { frame } }) => {
    const feet = (frame?.members ?? []).filter(({ role, buriedM }) => isPost(role) && buriedM > 0)
    const deepM = feet.reduce((most, { buriedM }) => Math.max(most, buriedM), 0)
    if (feet.length === 0) return null
    const litres = (Math.PI / 4) * FOOT_M ** 2 * deepM * 1000
    return t('counted.concrete', {
      count: feet.length,
      across: units.length(FOOT_M, 'short'),
      depth: units.length(deepM, 'short'),
      volume: units.volume(litres, 'up'),
    })
  },
  ballast: ({ t, units, body: { design }, plan: { frame } }) => {
    const pot = potOf(design.pattern)
    if (!pot || !frame || pot.ballastKg === 0) return null
    return t('counted.ballast', { mass: units.mass(pot.ballastKg), count: potsUnder(frame) })
  },
  soil: ({ t, units, place, plan: { frame } }) => {
    const fills = (frame?.fills ?? []).filter(({ good }) => good === 'soil')
    const litres = fills.reduce((sum, fill) => sum + fill.litres, 0)
    const hasWind = place.body.setting === 'open' || place.body.setting === 'terrace'
    return litres > 0
      ? t(hasWind ? 'counted.soil' : 'counted.soilIndoors', { volume: units.volume(litres, 'up') })
      : null
  },
  'feet-ballast': ({ t, units, body: { design } }) =>
    design.feetBallastKg > 0 ? t('counted.feetBallast', { mass: units.mass(design.feetBallastKg) }) : null,
  cover: ({ t, body: { design } }) =>
    design.pattern.kind === 'net' && design.pattern.offInWinter ? t('counted.coverOff') : null,
}

/** What fittings have to be marked for; `null` where nothing is strained. */
export function markedWords(t: TFunction, units: Units, { parts, markedN }: NotComputed): string | null {
  if (markedN === null) return null
  const hasAnchors = parts.some(({ part }) => part === 'anchor-eye')
  return t(hasAnchors ? 'counted.markedAnchors' : 'counted.marked', { force: units.force(markedN) })
}

/** What the checks count on, so that whoever builds it builds what was checked. */
export function counted(input: SheetInput): SheetSection[] {
  const { t, plan } = input
  const items = countedOnBy(plan.checks).flatMap((one): SheetItem[] => {
    if (one in STANDS_UNDER) return []
    const lead = t(`counted.on.${one as SaidHere}`)
    return [SAID[one as SaidHere](input) ?? []].flat().map((text) => ({ lead, text }))
  })
  return items.length === 0
    ? []
    : [{ kind: 'list', title: t('counted.title'), groups: [{ title: null, items }] }]
}

/** What bears force and is not computed: the parts with one reason together. */
export function uncheckedWords(t: TFunction, { parts }: NotComputed): SheetItem[] {
  const reasons = [...new Set(parts.map(({ why }) => why))]
  return reasons.map((reason) => ({
    lead: listPlain(parts.flatMap(({ part, why }) => (why === reason ? [t(`unchecked.part.${part}`)] : []))),
    text: t(`unchecked.why.${reason}`),
  }))
}

export function unchecked({ t, plan }: SheetInput): SheetSection[] {
  const items = uncheckedWords(t, plan.unchecked)
  return items.length === 0
    ? []
    : [{ kind: 'list', title: t('unchecked.title'), groups: [{ title: null, items }] }]
}
