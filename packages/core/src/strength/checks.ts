import type { UnknownPart } from '../design/index.ts'
import { CoreError } from '../errors/index.ts'
import { kindOf } from '../frame/index.ts'
import type { CheckCode } from '../frame/index.ts'
import { check, coverage, verdicts } from './check.ts'
import type { Check, CheckContext, CheckUnit, Missing, SourceKey } from './check.ts'
import { wireChecks } from './check-wires.ts'
import { fixingChecks } from './check-eyes.ts'
import { coverChecks } from './check-cover.ts'
import { rowChecks } from './check-rows.ts'
import { groundChecks, overheadChecks } from './check-overhead.ts'
import { fenceChecks } from './check-fence.ts'
import { floorChecks, legChecks, tubChecks, windingChecks } from './check-standing.ts'

const parts = [
  wireChecks,
  fixingChecks,
  fenceChecks,
  rowChecks,
  coverChecks,
  groundChecks,
  overheadChecks,
  legChecks,
  tubChecks,
  floorChecks,
  windingChecks,
]

/**
 * A check that refuses its input answers nothing, and what must be checked is then among what cannot be told.
 */
function answersOf(part: (context: CheckContext) => Check[], context: CheckContext): Check[] {
  try {
    return part(context)
  } catch (error) {
    if (error instanceof CoreError) return []
    throw error
  }
}

/**
 * Everything that has to hold in this frame, what does not first and the weakest of each first. What the kind
 * must have checked and no check answered for stands among them as one that cannot be told: nothing vanishes.
 */
export function checkFrame(context: CheckContext): Check[] {
  const answered = parts.flatMap((part) => answersOf(part, context))
  const codes = new Set(answered.map((one) => one.code))
  const { frame, design, fixing } = context
  // A few nodes without a wire between them have nothing to be checked yet.
  const isStrung = frame.runs.some((run) => run.lengthM > 0)
  const required = kindOf(design.pattern)
    .checks(design.pattern)
    .filter((code) => isStrung || !OF_WIRES.has(code))
    // What is stuck on has no shank that could bend.
    .filter((code) => code !== 'eye-bending' || !fixing.stick)
  const untold = required.filter((code) => !codes.has(code)).map(unanswered)
  const cover = (one: Check) => coverage(one) ?? 0
  const seen = [...answered, ...untold].map((one) => asSeen(one, design.unknown))
  return seen.sort((a, b) => verdicts.indexOf(a.verdict) - verdicts.indexOf(b.verdict) || cover(a) - cover(b))
}

const OF_WIRES: ReadonlySet<CheckCode> = new Set([
  'wire-pull',
  'wire-sag',
  'strainer-travel',
  'fixing-pull',
  'eye-bending',
])

/** What of a frame each check goes by. */
const GOES_BY: Readonly<Record<CheckCode, readonly UnknownPart[]>> = {
  'wire-pull': ['wire', 'pull'],
  'wire-sag': ['wire', 'pull'],
  'strainer-travel': ['wire', 'pull'],
  'fixing-pull': ['wire', 'pull', 'fixings'],
  'fence-nails': ['wire', 'pull'],
  'fence-rails': [],
  'fence-posts': [],
  winding: [],
  'anchor-pull': ['wire', 'pull', 'anchors'],
  'tie-pull': ['wire', 'pull'],
  'arm-bending': ['wire', 'pull', 'posts'],
  'guy-pull': ['wire', 'pull'],
  'eye-bending': ['wire', 'pull', 'fixings'],
  'end-pressed': ['wire', 'pull', 'posts', 'depth'],
  'brace-notch': ['wire', 'pull', 'posts'],
  'post-buckling': ['posts'],
  'post-bending': ['posts'],
  'post-uplift': ['depth'],
  'beam-deflection': ['posts'],
  'rafter-sideways': ['wire', 'pull', 'posts'],
  'end-sideways': ['wire', 'pull', 'posts', 'depth'],
  'end-bending': ['wire', 'pull', 'posts'],
  'end-foot': ['wire', 'pull', 'posts', 'depth'],
  'end-uplift': ['wire', 'pull', 'posts', 'depth'],
  'brace-foot': ['wire', 'pull', 'posts'],
  'post-sideways': ['posts', 'depth'],
  'post-frost': ['depth'],
  'post-bearing': ['depth'],
  'beam-bending': ['posts'],
  'cover-uplift': ['anchors'],
  'leg-bending': ['posts'],
  'tub-tips': [],
  'floor-tips': [],
  'floor-slides': [],
}

/** A check of a frame that was there already cannot be told where it goes by what nobody knows of it. */
function asSeen(one: Check, unknown: readonly UnknownPart[]): Check {
  if (!GOES_BY[one.code].some((part) => unknown.includes(part))) return one
  return { ...one, need: null, holding: null, verdict: 'untold', missing: 'as-seen', advice: {} }
}

/** What a check is in, goes by and most likely misses, for one that nothing could be computed of. */
const UNANSWERED: Readonly<Record<CheckCode, readonly [CheckUnit, SourceKey, Missing]>> = {
  'wire-pull': ['N', 'irvine', 'wire'],
  'wire-sag': ['m', 'irvine', 'wire'],
  'strainer-travel': ['m', 'statics', 'wire'],
  'fixing-pull': ['N', 'plug-approval', 'wire'],
  'fence-nails': ['N', 'nds-12-nails', 'fence'],
  'fence-rails': ['Nm', 'statics', 'fence'],
  'fence-posts': ['N', 'ibc-1807', 'fence'],
  winding: ['none', 'flora', 'figure'],
  'anchor-pull': ['N', 'perko', 'screw'],
  'tie-pull': ['N', 'statics', 'wire'],
  'arm-bending': ['Nm', 'statics', 'wire'],
  'guy-pull': ['N', 'statics', 'wire'],
  'eye-bending': ['Nm', 'statics', 'wire'],
  'end-pressed': ['N', 'ibc-1806', 'wire'],
  'brace-notch': ['N', 'statics', 'wire'],
  'post-buckling': ['N', 'euler', 'stock'],
  'post-bending': ['Nm', 'statics', 'stock'],
  'post-uplift': ['N', 'en-1991-canopy', 'stock'],
  'beam-deflection': ['m', 'statics', 'stock'],
  'rafter-sideways': ['Nm', 'statics', 'wire'],
  'end-sideways': ['N', 'ibc-1807', 'wire'],
  'end-bending': ['Nm', 'statics', 'wire'],
  'end-foot': ['N', 'ibc-1807', 'wire'],
  'end-uplift': ['N', 'statics', 'wire'],
  'brace-foot': ['N', 'ibc-1806', 'wire'],
  'post-sideways': ['N', 'ibc-1807', 'stock'],
  'post-frost': ['m', 'ibc-1806', 'figure'],
  'post-bearing': ['N', 'ibc-1806', 'stock'],
  'beam-bending': ['Nm', 'statics', 'stock'],
  'cover-uplift': ['N', 'wind-pressure', 'screw'],
  'leg-bending': ['Nm', 'wind-pressure', 'stock'],
  'tub-tips': ['m/s', 'statics', 'figure'],
  'floor-tips': ['m/s', 'statics', 'figure'],
  'floor-slides': ['N', 'statics', 'figure'],
}

function unanswered(code: CheckCode): Check {
  const [unit, source, missing] = UNANSWERED[code]
  return check({ code, subject: '', need: null, holding: null, unit, source, missing, assumptions: [] })
}
