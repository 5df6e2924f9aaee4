import { heightOn, levelWires } from '../../level-wires.ts'
import type { Wire } from '../../level-wires.ts'
import { barsToKeep, lettered } from '../../judge.ts'
import { option, questionOf } from '../../options.ts'
import type { PlantView, Stem } from '../../plant.ts'
import type { Judgement, Option, Question } from '../../question.ts'
import { reachesM } from '../../along.ts'
import { speaksAgainst, speaksFor, remark } from './says.ts'

/** A tip of which nobody has measured the thickness has this share of its base's. */
const TIP_SHARE = 0.6
/** Shorter than this, wood that is thick enough is not worth keeping as a trunk to be. */
const LEAST_TRUNK_M = 0.3
const START_AGAIN_BUDS = 3
/** Buds led to both sides from the top of a new trunk. */
const LED_BUDS = 2

/** Thickness at a place along a stem, evenly from base to tip. */
export function thicknessAtMm(stem: Stem, alongM: number): number {
  const tipMm = stem.piece.tipMm ?? stem.baseMm * TIP_SHARE
  const share = stem.lengthM > 0 ? Math.min(1, Math.max(0, alongM / stem.lengthM)) : 0
  return stem.baseMm + (tipMm - stem.baseMm) * share
}

/** The wire at which a young vine's trunk is to end: the lowest that carries. */
export const headWire = (view: PlantView): Wire | null => levelWires(view)[0] ?? null

/**
 * The trunk of a vine that has none yet, after a summer: cut through a node a hand above its wire where it is thick
 * there, back to where it is, or to three buds to start again.
 */
export function youngVineQuestion(view: PlantView, wire: Wire): Question | null {
  const stems = view.stems
    .filter((stem) => stem.age === 1 && stem.parent === null && stem.piece.cuts.length === 0)
    .sort((a, b) => b.lengthM - a.lengthM)
  if (stems.length === 0) return null
  const judged = lettered(stems.map((stem) => ({ stem, judgements: judge(stem, view, wire) })))
  const candidates = judged.map(({ stem, letter, judgements }) => ({
    pieceId: stem.id,
    letter,
    judgements,
    options: optionsOf(stem, view, wire),
  }))
  const kept = candidates.flatMap(({ pieceId, options }) =>
    options.filter(({ deed }) => deed === 'cut').map(({ id }) => [pieceId, id] as const),
  )
  return questionOf({
    code: 'young-vine',
    candidates,
    rules: kept.length > 0 ? [{ code: 'one-leader', options: kept, min: 0, max: 1 }] : [],
    buds: { aim: LED_BUDS, min: 0, max: 1000, costPerBud: 0 },
    remarks: (chosen) =>
      candidates.flatMap(({ pieceId }) => {
        const one = chosen.get(pieceId)
        if (one?.id === 'through-node')
          return [remark('lead-each-way', { pieceId, n: one.aboveBuds, figure: one.cutM, unit: 'm' })]
        return one?.id === 'three-buds' ? [remark('start-again', { pieceId })] : []
      }),
  })
}

function judge(stem: Stem, view: PlantView, wire: Wire): Judgement[] {
  const found = barsToKeep(stem)
  const atWireM = reachesM(stem, heightOn(wire.path, stem.base.xM))
  if (atWireM === null) found.push(speaksAgainst('did-not-reach', 0, stem.tip.yM, 'm'))
  else {
    const mm = thicknessAtMm(stem, atWireM)
    found.push(
      mm >= view.settings.pencilMm[0]
        ? speaksFor('thick-at-wire', 0, mm, 'mm')
        : speaksAgainst('thin-at-wire', 0, mm, 'mm'),
    )
  }
  return found
}

function optionsOf(stem: Stem, view: PlantView, wire: Wire): Option[] {
  const { settings } = view
  if (barsToKeep(stem).length > 0) return [option('off', 'off', { cutM: 0, aboveBuds: 0 })]
  const pencilMm = settings.pencilMm[0]
  const atWireM = reachesM(stem, heightOn(wire.path, stem.base.xM))
  const node = nodeAbove(stem, wire, settings.handM)
  const isThick = atWireM !== null && thicknessAtMm(stem, atWireM) >= pencilMm
  const thickM = lastThickM(stem, pencilMm)
  const backBuds = Math.floor(thickM / stem.internodeM + 1e-6)
  const threeM = Math.min(stem.lengthM, (START_AGAIN_BUDS + 0.5) * stem.internodeM)
  const through =
    node === null
      ? []
      : [
          option('through-node', 'cut', {
            cost: 0,
            buds: LED_BUDS,
            cutM: node * stem.internodeM,
            // The node that is cut through has no bud any more.
            aboveBuds: node - 1,
            isOnlyAsked: !isThick,
          }),
        ]
  const back = option('back-to-thick', 'cut', {
    cost: 1,
    buds: LED_BUDS,
    cutM: Math.min(stem.lengthM, Math.max(backBuds * stem.internodeM, 0.01)),
    aboveBuds: backBuds,
    isOnlyAsked: thickM < LEAST_TRUNK_M,
  })
  const again = option('three-buds', 'cut', {
    cost: 2,
    buds: START_AGAIN_BUDS,
    cutM: threeM,
    aboveBuds: Math.min(START_AGAIN_BUDS, Math.max(1, stem.buds)),
  })
  return [...through, back, again, option('off', 'off', { cost: 5, cutM: 0, aboveBuds: 0 })]
}

/** The node nearest to a hand above the wire, by number from below; `null` where it did not grow so far. */
function nodeAbove(stem: Stem, wire: Wire, handM: number): number | null {
  const atM = reachesM(stem, heightOn(wire.path, stem.base.xM))
  if (atM === null) return null
  const first = Math.floor(atM / stem.internodeM + 1e-6) + 1
  const last = Math.floor(stem.lengthM / stem.internodeM + 1e-6)
  if (last < first) return null
  const wished = Math.round((atM + handM) / stem.internodeM)
  return Math.min(last, Math.max(first, wished))
}

function lastThickM(stem: Stem, mm: number): number {
  const STEP_M = 0.01
  let alongM = 0
  while (alongM + STEP_M <= stem.lengthM && thicknessAtMm(stem, alongM + STEP_M) >= mm) alongM += STEP_M
  return thicknessAtMm(stem, 0) >= mm ? alongM : 0
}
