import { describe, expect, it } from 'vitest'
import { pieceOf } from '../../test/wood.ts'
import { budsOf, roleOf } from './index.ts'
import type { Piece } from './index.ts'

const tree = (...pieces: Piece[]) => new Map(pieces.map((piece) => [piece.id, piece]))
const on = (pieceId: string) => ({ on: 'piece', pieceId, alongM: 0.5 }) as const

describe('the role of a piece', () => {
  const trunk = pieceOf({ id: 'trunk', seasonsThen: 5 })
  const arm = pieceOf({ id: 'arm', parent: on('trunk'), seasonsThen: 3 })
  const shoot = pieceOf({ id: 'shoot', parent: on('arm') })
  const pieces = tree(trunk, arm, shoot)
  const role = (piece: Piece, day: string) => roleOf(piece, pieces, day, 'north')

  it('follows from where it begins and how old it is: this summer’s shoot is next winter’s cane', () => {
    expect(role(trunk, '2026-08-01')).toBe('trunk')
    expect(role(arm, '2026-08-01')).toBe('arm')
    expect(role(shoot, '2026-08-01')).toBe('shoot')
    expect(role(shoot, '2026-12-01')).toBe('cane')
    expect(roleOf(shoot, pieces, '2026-12-01', 'south')).toBe('shoot')
  })

  it('never becomes a trunk where the kind makes none', () => {
    const old = pieceOf({ id: 'old', seasonsThen: 4 })
    expect(roleOf(old, tree(old), '2026-08-01', 'north', 'erect-canes')).toBe('cane')
    expect(roleOf(old, tree(old), '2026-08-01', 'north', 'node-rooter')).toBe('bine')
    expect(roleOf(arm, pieces, '2026-08-01', 'north', 'erect-canes')).toBe('lateral')
  })

  it('is a spur once it is cut to a few buds, or short', () => {
    const cut = (aboveBuds: number | null, alongM: number) =>
      role(pieceOf({ ...shoot, cuts: [{ on: '2026-12-10', reason: '', alongM, aboveBuds }] }), '2027-01-01')
    expect(cut(2, 0.3)).toBe('spur')
    expect(cut(10, 0.8)).toBe('cane')
    expect(cut(null, 0.08)).toBe('spur')
  })

  it('is what its grower calls it, but a shoot is called one for its summer only', () => {
    expect(role(pieceOf({ ...arm, calledRole: 'rib' }), '2026-08-01')).toBe('rib')
    expect(role(pieceOf({ ...shoot, calledRole: 'shoot' }), '2026-08-01')).toBe('shoot')
    expect(role(pieceOf({ ...shoot, calledRole: 'shoot' }), '2026-12-01')).toBe('cane')
  })

  it('is a sucker’s below the graft and out of the ground, whatever its age', () => {
    for (const from of ['below-graft', 'ground'] as const)
      expect(role(pieceOf({ parent: { on: from }, seasonsThen: 2 }), '2026-08-01')).toBe('sucker')
  })
})

describe('buds', () => {
  it('are those that were counted, else one to each internode, and it is said which', () => {
    expect(budsOf({ buds: 9 }, 2, 0.08)).toEqual({ buds: 9, is: 'counted' })
    expect(budsOf({ buds: null }, 1.3, 0.08)).toEqual({ buds: 16, is: 'reckoned' })
    expect(budsOf({ buds: null }, 0.05, 0.08)).toEqual({ buds: 0, is: 'reckoned' })
  })
})
