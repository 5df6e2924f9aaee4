import { distance3M } from '../geometry/index.ts'
import type { Point3, Round } from '../geometry/index.ts'
import type { Frame } from './frame.ts'
import type { Member } from './layout.ts'
import type { MemberId, MemberRole } from './parts.ts'

/** Something that stands round an upright axis, and the pole in its middle where there is one. */
export interface RoundFrame {
  readonly round: Round
  readonly memberId: MemberId | null
}

/** In the middle of what they hold, and thick enough to lead wood round. */
const POLES: ReadonlySet<MemberRole> = new Set(['core', 'column'])
/** Stand round a middle: three and more of them. */
const AROUND: ReadonlySet<MemberRole> = new Set(['leg', 'stake'])
const LEAST_AROUND = 3
/** What stands nearly in one line goes round nothing: its depth is less than this share of its width. */
const FLAT_SHARE = 0.25
const LEAST_RADIUS_M = 0.02

/** The axis that a frame stands round; `null` for what is flat, long, or a roof. Radii in metres. */
export function roundOf(frame: Frame, stockWidthM: (stockId: string) => number): RoundFrame | null {
  const poles = frame.members.filter(({ role }) => POLES.has(role))
  const around = frame.members.filter(({ role }) => AROUND.has(role))
  if (poles.length === 1) {
    const [pole] = poles as [Member]
    const foot = pole.path[0]!
    const radiusM = Math.max(LEAST_RADIUS_M, stockWidthM(pole.stockId) / 2, sleeveM(frame, pole) / 2)
    return { round: { xM: foot.xM, zM: foot.zM, radiusM }, memberId: pole.id }
  }
  if (around.length < LEAST_AROUND) return null
  const feet = around.map(({ path }) => path[0]!)
  const [wideM, deepM] = [spread(feet.map(({ xM }) => xM)), spread(feet.map(({ zM }) => zM))]
  if (Math.min(wideM, deepM) < FLAT_SHARE * Math.max(wideM, deepM)) return null
  const middle = { xM: mean(feet.map(({ xM }) => xM)), yM: 0, zM: mean(feet.map(({ zM }) => zM)) }
  const radiusM = mean(around.flatMap(({ path }) => path.map((p) => distance3M({ ...p, yM: 0 }, middle))))
  return radiusM < LEAST_RADIUS_M ? null : { round: { ...at(middle), radiusM }, memberId: null }
}

/** How wide what is round a pole's core is: mesh, wrapping, modules; 0 for a pole that is bare. */
function sleeveM({ sheets, units }: Frame, { role }: Member): number {
  if (role !== 'core') return 0
  const sleeves = [...sheets, ...units.filter(({ good }) => good === 'pole-module')]
  return Math.max(0, ...sleeves.map(({ outline }) => spread(outline.map(({ xM }) => xM))))
}

const at = ({ xM, zM }: Point3) => ({ xM, zM })
const mean = (values: readonly number[]): number =>
  values.reduce((sum, value) => sum + value, 0) / values.length
const spread = (values: readonly number[]): number => Math.max(...values) - Math.min(...values)
