import { findStock } from '@klados/core/catalogue'
import type { Frame, Member, Pattern, PatternOfKind } from '@klados/core/frame'
import type { SheetItem, SheetSection } from '../documents/sheet-content.ts'
import { listPlain } from '../i18n/language.ts'
import type { SheetInput } from './sheet-input.ts'

/** Where the parts go that stand on other parts of the frame and not on the wall or the ground. */
export function onOtherParts(input: SheetInput): SheetSection[] {
  const { t, plan, body } = input
  const { frame } = plan
  const { pattern } = body.design
  if (!frame) return []
  if (pattern.kind === 'fan') return ribs(input, frame)
  const items =
    pattern.kind === 'overhead'
      ? roof(input, frame, pattern)
      : pattern.kind === 'column'
        ? columnHoles(input, pattern)
        : crosspieces(input, frame, pattern)
  return items.length === 0
    ? []
    : [{ kind: 'list', title: t('sheet.onParts'), groups: [{ title: null, items }] }]
}

/** Distances from the viewing end, nearest first, each once. */
function alongText({ units, place }: SheetInput, xsM: readonly number[]): string {
  const along = xsM.map((xM) => (place.body.viewingEnd === 'left' ? xM : place.body.widthM - xM))
  const each = [...new Set(along.map((m) => Math.round(m * 1000) / 1000))].sort((a, b) => a - b)
  return listPlain(each.map((m) => units.length(m, 'short')))
}

/** Rafters along the beams, wires across the rafters and up the back, and what fastens them where they cross. */
function roof(input: SheetInput, frame: Frame, pattern: PatternOfKind<'overhead'>): SheetItem[] {
  const { t, units } = input
  const rafters = frame.members.filter(({ role }) => role === 'rafter')
  const roofWires = frame.nodes.filter(({ at, joint }) => joint === 'end' && at.yM > pattern.headroomM)
  const acrossM = [...new Set(roofWires.map(({ at }) => Math.round(at.zM * 1000) / 1000))].sort(
    (a, b) => a - b,
  )
  const backM = (frame.axes['back-wire']?.positionsM ?? []).map((m) => units.length(m, 'short'))
  return [
    {
      lead: t('sheet.rafters'),
      text: alongText(
        input,
        rafters.map(({ path }) => path[0]!.xM),
      ),
    },
    {
      lead: t('sheet.crossings'),
      text: t('sheet.crossingsAt', {
        count: 2 * rafters.length,
        over: units.length(pattern.overhangM, 'short'),
      }),
    },
    {
      lead: t('sheet.roofWires'),
      text: t('sheet.roofWiresAt', { places: listPlain(acrossM.map((m) => units.length(m, 'short'))) }),
    },
    ...(backM.length === 0 ? [] : [{ lead: t('sheet.backWires'), text: listPlain(backM) }]),
  ]
}

/** Where crosspieces are lashed: along the hoops that they join, or level between legs. */
function crosspieces({ t, units }: SheetInput, frame: Frame, pattern: Pattern): SheetItem[] {
  const rungs = frame.members.filter(({ role }) => role === 'rung')
  if (rungs.length === 0) return []
  const lead = t('sheet.crosspieces')
  if (pattern.kind === 'arch') {
    const overM = 2 * pattern.heightM + (Math.PI / 2 - 1) * pattern.spanM
    const apart = units.length(overM / (rungs.length + 1), 'fine')
    return [{ lead, text: t('sheet.rungsAlong', { count: rungs.length, apart }) }]
  }
  const soilM = frame.members.find(({ foot }) => foot)?.foot?.yM ?? 0
  const heights = [...new Set(rungs.map(({ path }) => Math.round((path[0]!.yM - soilM) * 1000) / 1000))]
  const places = listPlain(heights.sort((a, b) => a - b).map((m) => units.length(m, 'short')))
  return [{ lead, text: t('sheet.rungsAt', { places }) }]
}

/** A hole wider than its bar by so much takes it without a hammer, metres. */
const CLEARANCE_M = 0.002

function columnHoles({ t, catalogue, units }: SheetInput, pattern: PatternOfKind<'column'>): SheetItem[] {
  const { section } = findStock(catalogue, pattern.barStockId) ?? {}
  if (!section) return []
  const barM =
    (section.shape === 'rectangle' ? Math.hypot(section.widthMm, section.depthMm) : section.diameterMm) / 1000
  const text = t('sheet.holesAcross', { across: units.length(barM + CLEARANCE_M, 'fine') })
  return [{ lead: t('sheet.holes'), text }]
}

/** Each rib of a fan: how it leans, how long it is, where along it each wire is lashed. */
function ribs(input: SheetInput, frame: Frame): SheetSection[] {
  const { t, units, place } = input
  const members = frame.members.filter(({ role }) => role === 'rib')
  if (members.length === 0) return []
  const lashed = frame.nodes.filter(({ joint }) => joint === 'lashing')
  const foot = members[0]!.path[0]!
  const away = (member: Member) => {
    const tip = member.path.at(-1)!
    return Math.atan2(tip.yM - foot.yM, tip.xM - foot.xM)
  }
  const rows = [...members]
    .sort((a, b) => away(b) - away(a))
    .map((member, i) => {
      const angle = away(member)
      const on = lashed.flatMap(({ at }) => {
        const isOn = Math.abs(Math.atan2(at.yM - foot.yM, at.xM - foot.xM) - angle) < ON_RIB
        return isOn ? [Math.hypot(at.xM - foot.xM, at.yM - foot.yM)] : []
      })
      const degrees = Math.round((Math.min(angle, Math.PI - angle) * 180) / Math.PI)
      const side = degrees === 90 ? t('sheet.upright') : t(Math.cos(angle) < 0 ? 'place.left' : 'place.right')
      return [
        String(i + 1),
        t('sheet.degrees', { degrees }),
        side,
        units.cut(member.cutLengthM, 'saw'),
        listPlain(on.sort((a, b) => a - b).map((m) => units.length(m, 'short'))) || '–',
      ]
    })
  const header = (['rib', 'fromLevel', 'ribSide', 'cut', 'lashAt'] as const).map((key) => t(`sheet.${key}`))
  const along = alongText({ ...input, place }, [foot.xM])
  const intro = t('sheet.ribsIntro', { along, height: units.length(foot.yM, 'short') })
  return [{ kind: 'table', title: t('sheet.ribs'), intro, header, rows }]
}
/** Two ribs are further apart than this, radians. */
const ON_RIB = 1e-4
