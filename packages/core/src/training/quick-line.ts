import { parseLength } from '../units/index.ts'
import type { UnitSystem } from '../units/index.ts'
import type { Bends, Fault, Health, SeenLight, Side } from '../wood/index.ts'

/** A stem as it is called out at the plant: thickness, length, buds, then what else there is to say. */
export interface QuickStem {
  readonly baseMm: number
  /** At the far end, where that was measured too: `10-8`. */
  readonly tipMm: number | null
  readonly lengthM: number
  readonly buds: number | null
  /** Metres along what it sits on, where that was said. */
  readonly alongM: number | null
  readonly side: Side | null
  readonly bends: Bends | null
  readonly light: SeenLight | null
  readonly fault: Fault | null
  readonly health: Health | null
  readonly isBelowGraft: boolean
  /** Seasons that it has behind it, where that was said: `3y`. */
  readonly seasonsOld: number | null
}

export type QuickFailure =
  | { readonly reason: 'empty' | 'no-thickness' | 'no-length' }
  | { readonly reason: 'unknown-word' | 'too-long' | 'too-thick' | 'not-a-count'; readonly word: string }
export type QuickLine =
  | { readonly ok: true; readonly stem: QuickStem }
  | ({ readonly ok: false } & QuickFailure)

/** Longest piece, thickest base and most buds that are taken for real. */
const MOST_M = 20
const MOST_MM = 300
const MOST_BUDS = 400

/** What may be said of a stem behind its figures; by which words, the reader's language says. */
export const quickSigns = [
  ...(['left', 'right', 'front', 'wall', 'stiff', 'pliable', 'lit', 'shaded', 'crossing', 'weak'] as const),
  ...(['woven', 'sick', 'dead', 'doubtful', 'graft'] as const),
] as const
export type QuickSign = (typeof quickSigns)[number]
const MEANS: Readonly<Record<QuickSign, Partial<QuickStem>>> = {
  left: { side: 'left' },
  right: { side: 'right' },
  front: { side: 'front' },
  wall: { side: 'back' },
  stiff: { bends: 'stiff' },
  pliable: { bends: 'pliable' },
  lit: { light: 'well-lit' },
  shaded: { light: 'shaded' },
  crossing: { fault: 'crossing' },
  weak: { fault: 'weak' },
  woven: { fault: 'woven' },
  sick: { health: 'sick' },
  dead: { health: 'dead' },
  doubtful: { health: 'doubtful' },
  graft: { isBelowGraft: true },
}

/**
 * Reads a line such as `9 120 14 lit @7`: thickness in mm (`10-8` where it tapers), length in cm, buds; in inches and feet where those are the
 * person's. `@` says how far along what it sits on. `words`, in small letters, stand in any order behind the figures. Of a stem that was drawn
 * the length is known, `drawnM`: it may be left out, or a dash stands for it.
 */
export function readQuickLine(
  text: string,
  system: UnitSystem,
  words: ReadonlyMap<string, QuickSign>,
  drawnM: number | null = null,
): QuickLine {
  const parts = text.trim().toLowerCase().split(/\s+/).filter(Boolean)
  if (parts.length === 0) return { ok: false, reason: 'empty' }
  const figures: string[] = []
  let said: Partial<QuickStem> = {}
  for (const part of parts) {
    const sign = words.get(part)
    if (sign) said = { ...said, ...MEANS[sign] }
    else if (/^\d{1,2}y$/.test(part)) said = { ...said, seasonsOld: Number.parseInt(part, 10) }
    else if (part.startsWith('@')) {
      const at = parseLength(part.slice(1), system === 'metric' ? 'cm' : 'in')
      if (!at.ok) return { ok: false, reason: 'unknown-word', word: part }
      said = { ...said, alongM: at.value }
    } else if (figures.length < 3) figures.push(part)
    else return { ok: false, reason: 'unknown-word', word: part }
  }
  const [thick, long, count] = figures
  if (thick === undefined) return { ok: false, reason: 'no-thickness' }
  const [base, tip, more] = thick
    .split('-')
    .map((part) => parseLength(part, system === 'metric' ? 'mm' : 'in'))
  if (!base!.ok || more || (tip && !tip.ok)) return { ok: false, reason: 'unknown-word', word: thick }
  const isStem = base!.value > 0 && base!.value * 1000 <= MOST_MM
  const isTaper = !tip || (tip.value > 0 && tip.value <= base!.value)
  if (!isStem || !isTaper) return { ok: false, reason: 'too-thick', word: thick }
  if (long === undefined && drawnM === null) return { ok: false, reason: 'no-length' }
  const isAsDrawn = drawnM !== null && (long === undefined || long === '-')
  const length = isAsDrawn
    ? ({ ok: true, value: drawnM } as const)
    : parseLength(long!, system === 'metric' ? 'cm' : 'in')
  if (!length.ok) return { ok: false, reason: 'unknown-word', word: long! }
  if (length.value <= 0 || length.value > MOST_M) return { ok: false, reason: 'too-long', word: long ?? '' }
  if (count !== undefined && !/^\d{1,3}$/.test(count))
    return { ok: false, reason: 'not-a-count', word: count }
  const buds = count === undefined ? null : Number(count)
  if (buds !== null && buds > MOST_BUDS) return { ok: false, reason: 'not-a-count', word: count! }
  return {
    ok: true,
    stem: {
      alongM: null,
      side: null,
      bends: null,
      light: null,
      fault: null,
      health: null,
      isBelowGraft: false,
      seasonsOld: null,
      ...said,
      baseMm: inMm(base!.value),
      tipMm: tip ? inMm(tip.value) : null,
      lengthM: length.value,
      buds,
    },
  }
}

/** Millimetres, to the thousandth. */
const inMm = (metres: number): number => Math.round(metres * 1e6) / 1000
