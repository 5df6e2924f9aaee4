import { requirePositive, requireRange, requireWhole } from '../errors/index.ts'

/** String wound round stakes at the corners of a regular polygon, rising evenly. Metres. */
export interface Winding {
  readonly stakes: number
  readonly circleRadiusM: number
  readonly startHeightM: number
  readonly endHeightM: number
  readonly wrapsPerContact: number
  readonly stakeDiameterM: number
  readonly knotAllowanceM: number
  /** A knot at both ends, and at every so many-th stake; 0 for the ends alone. */
  readonly knotEvery: number
}

export interface WoundString {
  readonly turns: number
  readonly chords: number
  readonly contacts: number
  readonly chordLengthM: number
  readonly wrapLengthM: number
  readonly knots: number
  readonly totalLengthM: number
}

/** Distance between neighbouring stakes, 2R sin(π/n). Throws `core/*`. */
export function stakeSpacingM(stakes: number, circleRadiusM: number): number {
  return (
    2 *
    requirePositive('circleRadiusM', circleRadiusM, 1e3) *
    Math.sin(Math.PI / requireWhole('stakes', stakes, 2, 1000))
  )
}

/**
 * Length of string for a number of turns: straight chords between stake axes, √(c² + (rise/N)²) each for N =
 * turns × stakes chords, π d for each wrap round a stake, and an allowance for each knot. Two stakes count as
 * a polygon of two sides. `turns` must make a whole number of chords, at least one.
 */
export function woundString(winding: Winding, turns: number): WoundString {
  const c = checkWinding(winding)
  return ofChords(
    winding,
    c,
    requireWhole(
      'chords',
      Math.round(requirePositive('turns', turns) * winding.stakes * 1e6) / 1e6,
      1,
      100_000,
    ),
  )
}

/**
 * The most chords, and so turns, whose string is no longer than `targetLengthM` with both heights kept;
 * `null` when not even one fits.
 */
export function turnsForLength(winding: Winding, targetLengthM: number): WoundString | null {
  const c = checkWinding(winding)
  const target = requirePositive('targetLengthM', targetLengthM) + 1e-9
  // The length rises with every chord, so the last that fits is found by halving.
  if (ofChords(winding, c, 1).totalLengthM > target) return null
  let fits = 1
  let tooMany = 2
  while (tooMany < 1e6 && ofChords(winding, c, tooMany).totalLengthM <= target) {
    fits = tooMany
    tooMany *= 2
  }
  while (tooMany - fits > 1) {
    const middle = Math.floor((fits + tooMany) / 2)
    if (ofChords(winding, c, middle).totalLengthM <= target) fits = middle
    else tooMany = middle
  }
  return ofChords(winding, c, fits)
}

function checkWinding(winding: Winding): number {
  const stakes = requireWhole('stakes', winding.stakes, 2, 60)
  requireRange('wrapsPerContact', winding.wrapsPerContact, 0, 20)
  requireRange('stakeDiameterM', winding.stakeDiameterM, 0, 1)
  requireRange('knotAllowanceM', winding.knotAllowanceM, 0, 10)
  requireWhole('knotEvery', winding.knotEvery, 0, 100_000)
  requireRange('startHeightM', winding.startHeightM, -100, 100)
  requireRange('endHeightM', winding.endHeightM, -100, 100)
  return stakeSpacingM(stakes, requirePositive('circleRadiusM', winding.circleRadiusM, 100))
}

function ofChords(w: Winding, spacingM: number, chords: number): WoundString {
  const contacts = chords + 1
  const chordLengthM = Math.hypot(spacingM, (w.endHeightM - w.startHeightM) / chords)
  const wrapLengthM = contacts * w.wrapsPerContact * Math.PI * w.stakeDiameterM
  const knots = knotCount(chords, w.knotEvery)
  return {
    turns: chords / w.stakes,
    chords,
    contacts,
    chordLengthM,
    wrapLengthM,
    knots,
    totalLengthM: chords * chordLengthM + wrapLengthM + knots * w.knotAllowanceM,
  }
}

/** Both ends, and every contact whose number is a multiple of `every`; the ends are counted once. */
function knotCount(chords: number, every: number): number {
  if (every === 0) return 2
  return Math.floor(chords / every) + 1 + (chords % every === 0 ? 0 : 1)
}

/** True where contact `i` of a winding with so many chords has a knot. */
export function hasKnot(i: number, chords: number, every: number): boolean {
  return i === 0 || i === chords || (every > 0 && i % every === 0)
}
