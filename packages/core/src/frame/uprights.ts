import type { Frame } from './frame.ts'
import type { Member } from './layout.ts'
import type { MemberRole } from './parts.ts'

/** What stands in the ground or in a pot, as it is set: those alike together. */
export interface Uprights {
  readonly role: MemberRole
  readonly stockId: string
  /** Their names on the drawing and in the mark-out, in order. */
  readonly labels: readonly string[]
  /** How many; more than there are names where they have none. */
  readonly count: number
  /** How high each reaches over the ground or soil at its foot, metres. */
  readonly aboveM: number
  readonly buriedM: number
  /** Off the upright, degrees; a hoop stands upright. */
  readonly leanDeg: number
  /** Of one piece, and of how many each is joined. */
  readonly cutLengthM: number
  readonly pieces: number
}

/** Posts, stakes, legs, hoops and braces of a frame: each that has a foot, once. */
export function uprightsOf(frame: Frame): Uprights[] {
  const groups = new Map<string, Uprights & { labels: string[]; count: number }>()
  for (const member of frame.members) {
    const { role, stockId, foot, label, buriedM, cutLengthM, pieces } = member
    if (!foot) continue
    const aboveM = member.path.reduce((top, at) => Math.max(top, at.yM), -Infinity) - foot.yM
    const leanDeg = leanOf(member)
    const mm = [aboveM, buriedM, cutLengthM].map((m) => Math.round(m * 1000))
    const key = [role, stockId, ...mm, pieces, Math.round(leanDeg)].join(' ')
    const group = groups.get(key) ?? {
      role,
      stockId,
      labels: [],
      count: 0,
      aboveM,
      buriedM,
      leanDeg,
      cutLengthM,
      pieces,
    }
    groups.set(key, group)
    group.count++
    if (label !== null) group.labels.push(label)
  }
  return [...groups.values()]
}

function leanOf({ role, path }: Member): number {
  if (role === 'hoop') return 0
  const [from, to] = [path[0]!, path.at(-1)!]
  const outM = Math.hypot(to.xM - from.xM, to.zM - from.zM)
  return (Math.atan2(outM, Math.abs(to.yM - from.yM)) * 180) / Math.PI
}
