import { CoreError } from '../errors/index.ts'
import { makeFrame } from './frame.ts'
import type { FrameOptions } from './frame-options.ts'
import type { Frame } from './frame.ts'
import { fewestParts } from './layout.ts'
import type { Pattern } from './pattern.ts'
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

/** Counts on either side of the one that comes nearest to the wanted size. */
const COUNTS_EITHER_SIDE = 3
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
  const wishes = wishesFor(site, pattern, toleranceShare)
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

type Wish = Pick<FitProposal, 'pattern' | 'sizeM' | 'offShare' | 'count' | 'isHalfAtEnd'>

function wishesFor(site: Site, pattern: Pattern, toleranceShare: number): Wish[] {
  const widthM = site.widthM
  const near = (
    wantedM: number,
    make: (sizeM: number, count: number) => Pattern,
    halves: readonly number[],
  ): Wish[] => {
    if (!(wantedM > 0) || !Number.isFinite(widthM / wantedM)) return []
    const middle = Math.round(widthM / wantedM)
    const counts = Array.from(
      { length: 2 * COUNTS_EITHER_SIDE + 1 },
      (_, i) => middle - COUNTS_EITHER_SIDE + i,
    )
    return counts
      .filter((count) => count >= 1)
      .flatMap((count) => halves.map((half) => ({ count, half, sizeM: widthM / (count + half) })))
      .map(({ count, half, sizeM }) => ({
        pattern: make(sizeM, count),
        sizeM,
        offShare: Math.abs(sizeM / wantedM - 1),
        count,
        isHalfAtEnd: half > 0,
      }))
      .filter((wish) => wish.offShare <= toleranceShare)
  }
  switch (pattern.kind) {
    case 'diamonds': {
      const wantedM =
        pattern.cell.by === 'width'
          ? pattern.cell.widthM
          : widthM / (pattern.cell.count + (pattern.cell.halfAtEnd ? 0.5 : 0))
      const exact: Wish = {
        pattern: { ...pattern, cell: { by: 'width', widthM: wantedM } },
        sizeM: wantedM,
        offShare: 0,
        count: Math.floor(widthM / wantedM + 1e-6),
        isHalfAtEnd: false,
      }
      return [
        exact,
        ...near(wantedM, (_, count) => ({ ...pattern, cell: { by: 'count', count, halfAtEnd: false } }), [0]),
        ...near(
          wantedM,
          (_, count) => ({ ...pattern, cell: { by: 'count', count, halfAtEnd: true } }),
          [0.5],
        ),
      ]
    }
    case 'zigzag':
      return near(pattern.strokeWidthM, (strokeWidthM) => ({ ...pattern, strokeWidthM }), [0])
    case 'triangles':
      return near(pattern.baseM, (baseM) => ({ ...pattern, baseM }), [0])
    case 'grid':
      return near(
        widthM / Math.max(1, pattern.verticals - 1),
        (_, count) => ({ ...pattern, verticals: count + 1 }),
        [0],
      )
    case 'tiers':
    case 'fan':
      return near(
        widthM / fewestParts(widthM, pattern.maxSupportSpacingM),
        (maxSupportSpacingM) => ({ ...pattern, maxSupportSpacingM }),
        [0],
      )
    case 'row':
      return near(
        widthM / fewestParts(widthM, pattern.maxPostSpacingM),
        (maxPostSpacingM) => ({ ...pattern, maxPostSpacingM }),
        [0],
      )
    case 'overhead':
      return near(widthM / fewestParts(widthM, pattern.maxBayM), (maxBayM) => ({ ...pattern, maxBayM }), [0])
    case 'net':
      return near(
        widthM / fewestParts(widthM, pattern.maxSpacingAlongM),
        (maxSpacingAlongM) => ({ ...pattern, maxSpacingAlongM }),
        [0],
      )
    default:
      return []
  }
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
