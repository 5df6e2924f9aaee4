import { USUAL_PLANT_OFF_M } from './design.ts'
import type { FrameDesign, WireChoice } from './design.ts'
import { findFixing, findWire, holdsBy } from '../catalogue/index.ts'
import type { Catalogue, Fixing, Surface } from '../catalogue/index.ts'
import { CoreError } from '../errors/index.ts'
import { frameKinds, frameOptions, makeFrame } from '../frame/index.ts'
import type { Fields, Pattern, PatternKind, StartPlace } from '../frame/index.ts'
import { NEWTONS_PER_LBF } from '../units/index.ts'
import type { UnitSystem } from '../units/index.ts'
import { potOf, withPot } from './pot.ts'
import { inInches, markBelow, nearestMark, onInchMark } from './in-inches.ts'

/** The kinds of frame that are offered at a place, the most usual there first. */
export function kindsFor({ kind }: Pick<StartPlace, 'kind'>): readonly PatternKind[] {
  const rank = (of: PatternKind) =>
    frameKinds[of].places[kind as keyof (typeof frameKinds)[typeof of]['places']]
  return (Object.keys(frameKinds) as PatternKind[])
    .filter((of) => rank(of) !== undefined)
    .sort((a, b) => rank(a)! - rank(b)!)
}

/**
 * The pattern that a new frame begins with here; with its lengths on the marks of the tape where that is one in
 * inches, unless it could then not be laid out.
 */
export function startPattern(
  place: StartPlace,
  kind: PatternKind,
  system: UnitSystem,
  catalogue: Catalogue,
): Pattern {
  const pattern: Pattern = frameKinds[kind].start(place)
  if (system === 'metric') return pattern
  const site = { ...place, viewingEnd: 'left', avoid: [] } as const
  const options = frameOptions({ moveToleranceM: 0, dragged: {}, snap: 'none', ids: {} }, catalogue)
  const canBeLaid = (of: Pattern) => {
    try {
      makeFrame(site, of, options)
      return true
    } catch (error) {
      if (error instanceof CoreError) return false
      throw error
    }
  }
  const onMarks = [nearestMark, markBelow].map((toMark) => {
    const marked = inInches(frameKinds[kind].fields as Fields, { ...pattern }, toMark) as unknown as Pattern
    // A tub stands there already: what was measured of it stays what the tape said.
    const isMeasured = potOf(pattern)?.widthM === place.widthM
    return isMeasured ? withPot(marked, { ...potOf(marked)!, widthM: place.widthM }) : marked
  })
  return onMarks.find(canBeLaid) ?? pattern
}

/** Share of what a hook holds out of doors that its wire is set to: leaf and frost ask for the rest. */
const TAUT_SHARE = 0.3

/** The strongest hook that sticks to a surface that is not drilled, and what a wire on it is set to, newtons. */
function strongestHook(
  { fixings }: Catalogue,
  surface: Surface | undefined,
): { readonly fixing: Fixing; readonly tautN: number } | undefined {
  if (surface === undefined || surface === 'open' || holdsBy(surface) !== 'unknown') return undefined
  const [fixing] = fixings
    .filter(({ stick }) => stick?.surfaces.includes(surface))
    .sort((a, b) => b.stick!.ratedN - a.stick!.ratedN)
  if (!fixing?.stick) return undefined
  return {
    fixing,
    tautN: Math.max(1, Math.round(TAUT_SHARE * fixing.stick.ratedN * fixing.stick.outdoorShare)),
  }
}

/** Who sets wires in pounds begins with a whole number of them. */
const onPounds = (newtons: number) => Math.max(1, Math.round(newtons / NEWTONS_PER_LBF)) * NEWTONS_PER_LBF

/** A garden's own catalogue may lack what frames usually start with. */
const stoutest = ({ fixings }: Catalogue): Fixing =>
  fixings.reduce((a, b) => (b.threadMm > a.threadMm ? b : a))

/** Where a new frame begins: ordinary practice at this place, to be changed from there. */
export function startDesign(
  place: StartPlace,
  kind: PatternKind,
  catalogue: Catalogue,
  system: UnitSystem = 'metric',
): FrameDesign {
  const length = (m: number) => (system === 'metric' ? m : onInchMark(m, nearestMark))
  const choice = (id: string): WireChoice => {
    const wire = findWire(catalogue, id) ?? catalogue.wires[0]!
    const tensionN = system === 'metric' ? wire.usualTensionN : onPounds(wire.usualTensionN)
    return { wireId: wire.id, tensionN, rolls: wire.rolls.map((roll) => ({ ...roll })) }
  }
  const { startWith, traits } = frameKinds[kind]
  // Boards alone hold little: where the rails are known, fixings go into them.
  const rails = place.kind === 'fence' && traits.stands === 'on-face' ? (place.levels ?? null) : null
  // What is not drilled has a hook stuck on it, and a wire that is no more than taut.
  const hook = traits.stands === 'on-face' ? strongestHook(catalogue, place.surface) : undefined
  const main = choice(startWith.wireId)
  return {
    pattern: startPattern(place, kind, system, catalogue),
    moveToleranceM: rails ? rails.stepM / 2 + 0.01 : length(startWith.moveToleranceM),
    dragged: {},
    snap: rails ? 'levels' : 'none',
    ids: {},
    ...main,
    ...(hook ? { tensionN: Math.min(main.tensionN, hook.tautN) } : {}),
    light: startWith.lightWireId === null ? null : choice(startWith.lightWireId),
    endWrapM: length(startWith.endWrapM),
    wireEnding: startWith.wireEnding,
    strainers: 1,
    handlingLengthM: length(startWith.handlingLengthM),
    endsAt: 'any',
    fixingId: hook?.fixing.id ?? (findFixing(catalogue, startWith.fixingId) ?? stoutest(catalogue)).id,
    standOffM: null,
    setC: 12,
    plantKindId: null,
    plantOffM: traits.stands === 'on-face' ? length(USUAL_PLANT_OFF_M) : null,
    repeat: 1,
    feetBallastKg: 0,
    unknown: [],
    boughtPrice: null,
  }
}
