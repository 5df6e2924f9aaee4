import { findStock, stockWidthM } from '../catalogue/index.ts'
import type { UnknownPart } from '../design/index.ts'
import { groundUnder } from '../frame/index.ts'
import type { EndAssembly, Frame, LineId, Pattern } from '../frame/index.ts'
import { embedment, findSoil, heldEnd, lineEnd } from '../ground/index.ts'
import type { HeldEnd, WirePull } from '../ground/index.ts'
import { tensionToday } from '../loads/index.ts'
import type { WireLine } from '../loads/index.ts'
import { CODE_MARGIN } from './check.ts'
import type { CheckContext } from './check.ts'

export type TiedBack = Extract<EndAssembly, { kind: 'tied-back' }>
export const radians = (degrees: number) => (degrees * Math.PI) / 180

const inWorstHour = (line: WireLine) => line.worst.tensionN

/** What pulls at an end: every wire along the row at its height above the ground. */
export function pullsAtEnd(
  { frame, lines }: Pick<CheckContext, 'frame' | 'lines'>,
  tensionN: (line: WireLine) => number = inWorstHour,
): WirePull[] {
  const pullOf = new Map<LineId, number>(
    lines.flatMap((line) => line.ids.map((id) => [id, tensionN(line)] as const)),
  )
  const seen = new Set<LineId>()
  return frame.runs.flatMap(({ line, from }) => {
    if (line.role === 'tie-back' || seen.has(line.id)) return []
    seen.add(line.id)
    const { at } = frame.nodes[from]!
    return [{ heightM: at.yM - groundUnder(frame, at.xM), tensionN: pullOf.get(line.id) ?? Number.NaN }]
  })
}

export const heldBy = (end: Exclude<EndAssembly, { kind: 'free' }>, pulls: readonly WirePull[]): HeldEnd =>
  heldEnd(pulls, {
    kind: end.kind === 'tied-back' ? 'tie-back' : 'strut',
    attachHeightM: end.attachHeightM,
    angleFromGroundRad: radians(end.angleDeg),
  })

/** What pulls and presses at the end of a row, all wires in their worst hour; newtons and metres. */
export interface RowEnd {
  readonly totalN: number
  /** Height above the ground at which all of it may be thought to pull. */
  readonly atM: number
  /** Along the tie or the brace; `null` where the post stands by itself. */
  readonly heldN: number | null
  /** Strands of each tie, and what each bears once the wires are set; `null` where nothing is tied back. */
  readonly ties: { readonly strands: number; readonly setN: number } | null
  /** On the post at its foot: downward positive; a brace lifts it. */
  readonly downN: number
  /** How deep the post would have to stand for it, from the better to the worse end of the soil. */
  readonly depthM: readonly [number, number]
}

/** The pull at a row's end and what comes of it; `null` for what is no row, or pulls nobody knows how hard. */
export function rowEnd(context: CheckContext): RowEnd | null {
  const { design, site, catalogue } = context
  const { pattern } = design
  const stock = pattern.kind === 'row' && findStock(catalogue, pattern.endStockId)
  if (pattern.kind !== 'row' || !stock) return null
  const pulls = pullsAtEnd(context)
  const isTold = pulls.length > 0 && !pulls.some(({ tensionN }) => Number.isNaN(tensionN))
  const total = isTold ? lineEnd(pulls) : null
  if (!total || total.totalWireTensionN <= 0 || design.unknown.some((one) => PULLS.has(one))) return null
  const held = pattern.end.kind === 'free' ? null : heldBy(pattern.end, pulls)
  const setN = strandPullN(context.frame, pattern, context.lines, design.setC)
  const soil = findSoil(site.conditions.soil)
  const atM = total.momentAtGroundNm / total.totalWireTensionN
  const levelN = held ? Math.abs(held.horizontalReactionAtFootN) : total.totalWireTensionN
  const depthM = (end: 0 | 1) =>
    embedment({
      lateralLoadN: Math.max(1e-6, held ? levelN / CODE_MARGIN : levelN),
      loadHeightM: held ? 0 : atM,
      postWidthM: stockWidthM(stock),
      soilFactor: held ? 2 : 1,
      bearing: { paPerM: soil.lateralBearingPaPerM[end] },
    }).depthM
  return {
    totalN: total.totalWireTensionN,
    atM,
    heldN: held?.memberForceN ?? null,
    ties: setN !== null && pattern.end.kind === 'tied-back' ? { strands: pattern.end.strands, setN } : null,
    downN: held?.verticalReactionAtFootN ?? 0,
    depthM: [depthM(1), depthM(0)],
  }
}
/**
 * What each strand of a row's ties bears, newtons, while its bare wires pull as they do at a temperature: statics of the
 * hinged post. `null` where nothing is tied back or the wires' pull is not known.
 */
export function strandPullN(
  frame: Frame,
  pattern: Pattern,
  lines: readonly WireLine[],
  temperatureC: number,
): number | null {
  if (pattern.kind !== 'row' || pattern.end.kind !== 'tied-back') return null
  const pulls = pullsAtEnd({ frame, lines }, (line) => tensionToday(line, temperatureC))
  if (pulls.length === 0 || pulls.some((pull) => Number.isNaN(pull.tensionN))) return null
  return heldBy(pattern.end, pulls).memberForceN / pattern.end.strands
}

/** A meter errs by a few parts in a hundred, a post that leans a little changes what its tie bears by as much again. */
const FAR_OFF = 0.3
/** Whether a tie reads so far from what statics gives that something holds or gives where it should not. */
export const isTieFarOff = (readN: number, expectedN: number): boolean =>
  Math.abs(readN - expectedN) > FAR_OFF * expectedN

/** A row's ties that run from a post to a screw, not from screw to screw, and the post of each. */
export function tieLines({ runs, nodes }: Pick<Frame, 'runs' | 'nodes'>): ReadonlyMap<LineId, string> {
  const posts = runs.flatMap(({ line, from, to }) => {
    const [anchor, post] = [nodes[from]!, nodes[to]!]
    return line.role === 'tie-back' && anchor.at.yM !== post.at.yM ? [[line.id, post.label] as const] : []
  })
  return new Map(posts)
}

const PULLS: ReadonlySet<UnknownPart> = new Set(['wire', 'pull'])
