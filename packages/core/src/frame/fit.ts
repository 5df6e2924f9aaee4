import { CoreError } from '../errors/index.ts'
import { makeFrame } from './frame.ts'
import type { FrameOptions } from './frame-options.ts'
import type { Frame } from './frame.ts'
import { kindOf } from './kinds/index.ts'
import type { Pattern } from './kinds/index.ts'
import type { Site } from './site.ts'

/** One way to lay a pattern into the length there is, with what tells it from the others. */
export interface FitProposal {
  readonly pattern: Pattern
  /** Size of a cell or bay as proposed, and how far that is from what was asked for, as a share. */
  readonly sizeM: number
  readonly offShare: number
  readonly count: number
  readonly isHalfAtEnd: boolean
  readonly remainderM: number
  /** Fixings or posts, metres of wire, and how far things move off spots in total. */
  readonly fixings: number
  readonly wireM: number
  readonly movedM: number
  readonly blocked: number
}

/** A remainder of a whole cell weighs as much as a cell that is so far from the wanted size. */
const REMAINDER_WEIGHT = 0.35
const BLOCKED_WEIGHT = 0.5
const MOVED_WEIGHT = 0.02

/**
 * The few best layouts of a pattern for the length of the place: whole numbers of cells, with and without a
 * half at the end, within `toleranceShare` of the wanted size, and the wanted size itself with what it leaves
 * over. Ordered by how far they are from the wish: size, remainder, nodes that find no place, and movement
 * together. Patterns without a size that can give (free nodes, pots) have none.
 */
export function fitLayouts(
  site: Site,
  pattern: Pattern,
  options: FrameOptions,
  toleranceShare = 0.25,
): FitProposal[] {
  const wishes = kindOf(pattern).fit?.(site, pattern, toleranceShare) ?? []
  const proposals = wishes.flatMap((wish): FitProposal[] => {
    const frame = tryFrame(site, wish.pattern, options)
    return frame ? [{ ...wish, ...measured(frame) }] : []
  })
  const badness = (p: FitProposal) =>
    p.offShare +
    (REMAINDER_WEIGHT * p.remainderM) / p.sizeM +
    BLOCKED_WEIGHT * p.blocked +
    (MOVED_WEIGHT * p.movedM) / p.sizeM
  return proposals.sort((a, b) => badness(a) - badness(b)).slice(0, 5)
}

function tryFrame(site: Site, pattern: Pattern, options: FrameOptions): Frame | null {
  try {
    return makeFrame(site, pattern, options)
  } catch (error) {
    if (error instanceof CoreError) return null
    throw error
  }
}

function measured(
  frame: Frame,
): Pick<FitProposal, 'remainderM' | 'fixings' | 'wireM' | 'movedM' | 'blocked' | 'isHalfAtEnd'> {
  const eyes = frame.nodes.filter((node) => node.joint === 'eye')
  const posts = frame.members.filter((member) => member.foot !== null && member.label !== null)
  return {
    isHalfAtEnd: (frame.cells?.half ?? 0) > 0,
    remainderM: frame.cells?.remainderM ?? 0,
    fixings: eyes.length || posts.length,
    wireM: frame.runs.reduce((sum, run) => sum + run.lengthM + run.wrapM, 0),
    movedM:
      eyes.reduce((sum, node) => sum + node.movedM, 0) +
      frame.shifts.reduce((sum, shift) => sum + shift.movedM, 0),
    blocked: frame.findings.length,
  }
}
