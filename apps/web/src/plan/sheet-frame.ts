import { findStock, holdsBy } from '@klados/core/catalogue'
import { groundAt, stakeSpacingM, uprightsOf } from '@klados/core/frame'
import type { Frame, PatternOfKind } from '@klados/core/frame'
import { strainDue, tensionToday } from '@klados/core/loads'
import type { WireLine } from '@klados/core/loads'
import type { FramePlan } from '@klados/core/plan'
import { BRICK_MM, eyeDepth } from '@klados/core/strength'
import { formatDate, todayHere } from '../data/dates.ts'
import { listPlain } from '../i18n/language.ts'
import type { SheetItem, SheetSection } from '../documents/sheet-content.ts'
import { linesInWords } from './line-words.ts'
import type { SheetInput } from './sheet-input.ts'

/** Whether anything in it is strained: string is only held taut. */
export const isStrained = (plan: FramePlan): boolean => plan.lines.length > 0

/** Names in a row told from the first to the last. */
const NAMED_SINGLY = 3

function labelsText({ t }: SheetInput, labels: readonly string[]): string {
  if (labels.length <= NAMED_SINGLY) return listPlain(labels)
  return t('sheet.labels', { from: labels[0], to: labels.at(-1), count: labels.length })
}

/** What stands in the ground or the pot, and how it is set and cut: those alike once. */
export function uprights(input: SheetInput): SheetSection[] {
  const { t, units, names, catalogue, plan } = input
  const groups = plan.frame ? uprightsOf(plan.frame) : []
  if (groups.length === 0) return []
  const rows = groups.map(({ labels, count, stockId, aboveM, buriedM, leanDeg, cutLengthM, pieces }) => {
    const stock = findStock(catalogue, stockId)
    const degrees = Math.round(leanDeg)
    return [
      labels.length > 0 ? labelsText(input, labels) : `(${count})`,
      units.length(aboveM, 'short'),
      buriedM > 0 ? units.length(buriedM, 'short') : '–',
      degrees === 0 ? t('sheet.upright') : t('sheet.degrees', { degrees }),
      pieces === 1 ? units.cut(cutLengthM, 'saw') : `${pieces} × ${units.cut(cutLengthM, 'saw')}`,
      stock ? names.stock(stock) : stockId,
    ]
  })
  const header = (['which', 'above', 'inGround', 'lean', 'cut', 'ofWhat'] as const).map((key) =>
    t(`sheet.${key}`),
  )
  return [{ kind: 'table', title: t('sheet.uprights'), header, rows }]
}

/** Warmths for which the pull to set is given: a cool morning to a hot day, degrees Celsius. */
const TABLED_C = [5, 15, 25, 35] as const

/** Every wire with its height, and the pull to set on a cool and on a warm day. */
export function wires(input: SheetInput): SheetSection[] {
  const { t, units, names, place, plan } = input
  const { frame, lines } = plan
  if (!frame || lines.length === 0) return []
  const lineName = linesInWords(t, frame)
  const rows = lines.map((line) => [
    labelsText(
      input,
      line.ids.map((id) => lineName.get(id) ?? ''),
    ),
    listPlain(heightsOf(frame, line, (xM) => groundAt(place.body, xM)).map((m) => units.length(m, 'short'))),
    names.wire(line.wire),
    ...TABLED_C.map((warmC) => units.force(tensionToday(line, warmC))),
  ])
  const header = [
    t('sheet.wire'),
    t('sheet.heights'),
    t('sheet.ofWhat'),
    ...TABLED_C.map((warmC) => t('sheet.setAt', { temperature: units.temperature(warmC) })),
  ]
  const isTold = rows.some((row) => row[1] !== '')
  const without = (row: readonly string[]) => (isTold ? row : row.filter((_, i) => i !== 1))
  return [
    {
      kind: 'table',
      title: t('sheet.wires'),
      intro: t('sheet.wiresIntro'),
      header: without(header),
      rows: rows.map(without),
    },
  ]
}

/** Heights above the ground of the level ones among alike lines, each once; slanting ones are marked node by node. */
function heightsOf(frame: Frame, line: WireLine, ground: (xM: number) => number): number[] {
  const ids = new Set(line.ids)
  const byLine = new Map<string, number[]>()
  for (const run of frame.runs) {
    if (!ids.has(run.line.id) || run.line.role === 'tie-back') continue
    const heights = [run.from, run.to].map((n) => {
      const { ideal } = frame.nodes[n]!
      return ideal.yM - ground(ideal.xM)
    })
    byLine.set(run.line.id, [...(byLine.get(run.line.id) ?? []), ...heights])
  }
  const level = [...byLine.values()].flatMap((heights) => {
    const inOrder = [...heights].sort((a, b) => a - b)
    const middle =
      (inOrder[Math.floor((inOrder.length - 1) / 2)]! + inOrder[Math.floor(inOrder.length / 2)]!) / 2
    const near = heights.filter((m) => Math.abs(m - middle) < SAME_HEIGHT_M)
    // Its ends may come lower or higher, where end posts lean over ground that rises: it is level all the same.
    return near.length >= heights.length * MOSTLY ? [Math.round(middle * 1000) / 1000] : []
  })
  return [...new Set(level)].sort((a, b) => a - b)
}
const SAME_HEIGHT_M = 0.03
const MOSTLY = 0.5

/** How ties are made and what they read once the wires are strained: they are pulled taut, not set to a tension. */
function tiesOf({ t, units, plan }: SheetInput): SheetItem[] {
  const ties = plan.end?.ties ?? null
  if (ties === null) return []
  const text = t('slip.tieStrandsAt', { count: ties.strands, pull: units.force(ties.setN) })
  return [{ lead: t('slip.tieStrands'), text }]
}

/** What is neither marked nor bought: how far off plants stand, what an end bears, where stakes go round a rim. */
export function standing(input: SheetInput): SheetItem[] {
  const { t, units, body, plan } = input
  const { plantOffM, pattern } = body.design
  const off =
    plan.frame?.traits.stands === 'on-face' && plantOffM !== null
      ? [{ lead: t('sheet.plantsOff'), text: units.length(plantOffM, 'short') }]
      : []
  const end = plan.end
    ? [
        {
          lead: t('slip.endPull'),
          text: t('slip.endPullAt', {
            pull: units.force(plan.end.totalN),
            height: units.length(plan.end.atM, 'short'),
          }),
        },
        ...(plan.end.heldN === null ? [] : [{ lead: t('slip.endHeld'), text: units.force(plan.end.heldN) }]),
        ...tiesOf(input),
        ...(Math.abs(plan.end.downN) < 1
          ? []
          : [
              {
                lead: t(plan.end.downN > 0 ? 'slip.endDown' : 'slip.endUp'),
                text: units.force(Math.abs(plan.end.downN)),
              },
            ]),
      ]
    : []
  return [...off, ...end, ...strainAgain(input), ...(pattern.kind === 'spiral' ? rim(input, pattern) : [])]
}

/** When its wires want straining again, were they set today: the soonest of them. */
function strainAgain({ t, place, body, plan }: SheetInput): SheetItem[] {
  const { setC } = body.design
  const on = todayHere()
  const { hottestC } = place.body.conditions
  const dues = plan.lines.flatMap((line) => {
    const set = { on, what: 'set', tensionN: line.setTensionN, temperatureC: setC } as const
    return strainDue(line, [set], { loads: plan.loads, hottestC }) ?? []
  })
  const soonest = dues.map(({ dueOn }) => dueOn).sort()[0]
  if (soonest === undefined) return []
  return [{ lead: t('sheet.strainAgain'), text: t('sheet.strainAgainBy', { date: formatDate(soonest) }) }]
}

/** Stakes in a pot: how far in from the rim, and from each to the next, straight across. */
function rim(
  { t, units }: SheetInput,
  { pot, stakes, circleRadiusM, winding }: PatternOfKind<'spiral'>,
): SheetItem[] {
  const short = (m: number) => units.length(m, 'short')
  const apartM = stakeSpacingM(stakes, circleRadiusM)
  const round = t('sheet.rimRound', { count: stakes, apart: short(apartM), radius: short(circleRadiusM) })
  const inM = pot ? pot.widthM / 2 - circleRadiusM : null
  const fromRim = inM === null ? '' : ` ${t('sheet.rimIn', { distance: short(Math.max(0, inM)) })}`
  const order = t('sheet.rimOrder', { direction: t(`option.winding.${winding}`) })
  return [{ lead: t('sheet.rim'), text: `${round}${fromRim} ${order}` }]
}

/** Dust that stays at the bottom of a hole in masonry, metres. */
const DUST_M = 0.005

/** How each eye is set: what is drilled, how deep, how far it stands off; those that go in alike together. */
export function fixings({ t, units, names, place, body, plan }: SheetInput): SheetSection[] {
  const { frame, fixing, takeOff } = plan
  const eyes = frame?.nodes.filter(({ joint }) => joint === 'eye') ?? []
  if (!fixing || !takeOff?.drill || eyes.length === 0) return []
  const { plugMm, bitMm } = takeOff.drill
  const isMasonry = holdsBy(place.body.surface) === 'plug'
  const alike = new Map<string, { readonly inM: number; readonly standOffM: number; count: number }>()
  for (const node of eyes) {
    const { inMm, standOffM } = eyeDepth(place.body, body.design, fixing, node)
    const inM = (inMm ?? fixing.lengthMm - standOffM * 1000) / 1000
    const key = `${inM.toFixed(4)} ${standOffM.toFixed(4)}`
    const known = alike.get(key)
    if (known) known.count++
    else alike.set(key, { inM, standOffM, count: 1 })
  }
  const items = [...alike.values()].map(({ inM, standOffM, count }) => ({
    lead: t('sheet.fixingLead', { count: count * plan.repeat, what: names.fixing(fixing) }),
    text: t(isMasonry ? 'sheet.fixingMasonry' : 'sheet.fixingWood', {
      bit: bitMm,
      plug: plugMm ?? '',
      hole: units.length(inM + (isMasonry ? DUST_M : 0), 'short'),
      standOff: units.length(standOffM, 'short'),
      most: units.length(BRICK_MM / 1000 + DUST_M, 'short'),
    }),
  }))
  return [{ kind: 'list', title: t('sheet.fixings'), groups: [{ title: null, items }] }]
}
