import type { Habit } from '../kinds/index.ts'
import type { CalendarDate, Hemisphere } from '../season/index.ts'
import { pieceAge } from './thickening.ts'
import type { Piece, PieceRole } from './wood.ts'

/** Wood of one season cut to so few buds is a spur. */
const SPUR_BUDS = 3
/** Shorter than this without counted buds, metres, it is one too: a hand's breadth. */
const SPUR_M = 0.12

/** What comes from the base of habits that make no trunk, however old it grows. */
const STEMS_OF: Readonly<Partial<Record<Habit, PieceRole>>> = {
  'erect-canes': 'cane',
  'trailing-canes': 'cane',
  'yearly-bine': 'bine',
  'lasting-vine': 'bine',
  'node-rooter': 'bine',
}

/** What old wood on an arm is, where it is no spur. */
const ON_ARM_OF: Readonly<Partial<Record<Habit, PieceRole>>> = { 'overhead-twiner': 'lateral' }

/**
 * What a piece is on a day: what its grower calls it, or what follows from where it begins and how many
 * seasons it has behind it. A shoot is called one for the summer that made it and no longer: the same wood is
 * next winter's cane.
 */
export function roleOf(
  piece: Piece,
  pieces: ReadonlyMap<string, Piece>,
  on: CalendarDate,
  hemisphere: Hemisphere,
  habit?: Habit,
): PieceRole {
  const age = pieceAge(piece, on, hemisphere)
  const { calledRole } = piece
  if (calledRole !== null && !(calledRole === 'shoot' && age > 0)) return calledRole
  const { parent } = piece
  if (parent.on === 'below-graft' || parent.on === 'ground') return 'sucker'
  if (age === 0) return 'shoot'
  const stem = habit && STEMS_OF[habit]
  if (stem) return parent.on === 'crown' ? stem : 'lateral'
  if (parent.on === 'crown') return age >= 2 ? 'trunk' : 'cane'
  const under = pieces.get(parent.pieceId)
  const isFromMain = under === undefined || under.parent.on !== 'piece'
  if (age >= 2) return isFromMain ? 'arm' : ((habit && ON_ARM_OF[habit]) ?? 'spur')
  if (isSpur(piece)) return 'spur'
  return isFromMain || isArm(under, pieces, on, hemisphere) ? 'cane' : 'lateral'
}

function isSpur(piece: Piece): boolean {
  const last = piece.cuts.at(-1)
  if (!last) return false
  return last.aboveBuds === null ? last.alongM <= SPUR_M : last.aboveBuds <= SPUR_BUDS
}

function isArm(
  piece: Piece,
  pieces: ReadonlyMap<string, Piece>,
  on: CalendarDate,
  hemisphere: Hemisphere,
): boolean {
  return roleOf(piece, pieces, on, hemisphere) === 'arm'
}

/** Buds on a piece: as counted, or as many as its length has room for. */
export interface BudCount {
  readonly buds: number
  readonly is: 'counted' | 'reckoned'
}

/** A bud at every internode from the first one on; the base's own, which seldom breaks, is not one. */
export function budsOf(piece: Pick<Piece, 'buds'>, lengthM: number, internodeM: number): BudCount {
  if (piece.buds !== null) return { buds: piece.buds, is: 'counted' }
  return { buds: Math.floor(lengthM / internodeM + 1e-9), is: 'reckoned' }
}
