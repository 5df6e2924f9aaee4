import { freeWay } from '../wood/index.ts'
import { describe, expect, it } from 'vitest'
import { woodDone } from './index.ts'
import type { WoodDone } from './index.ts'

type Decided = Parameters<typeof woodDone>[0]['decided'][number]
type FollowUp = NonNullable<Parameters<typeof woodDone>[0]['followUps']>[number]

/** A tree of four: `arm` on `trunk`, `cane` on `arm`, `shoot` soft on `arm`; each a metre long. */
const PARENT: Readonly<Record<string, string>> = { arm: 'trunk', cane: 'arm', shoot: 'arm' }
const context = {
  lengthM: (id: string) => (id === 'trunk' || id in PARENT ? 1 : null),
  isSoft: (id: string) => id === 'shoot',
  reasonOf: (id: string) => `why ${id}`,
  isOn: (id: string, under: string) => {
    for (let at = PARENT[id]; at !== undefined; at = PARENT[at]) if (at === under) return true
    return false
  },
}
const path = [
  { xM: 0, yM: 0 },
  { xM: 1, yM: 0 },
]
const decided = (pieceId: string, deed: string, rest: object = {}) =>
  ({ pieceId, deed, cutM: null, aboveBuds: null, path: null, ...rest }) as unknown as Decided
const done = (all: readonly Decided[], followUps: readonly FollowUp[] | null = null): WoodDone[] =>
  woodDone({ decided: [...all], followUps: followUps && [...followUps] }, context)
const told = (all: readonly WoodDone[]) =>
  all.map(({ kind, body }) => [kind, body.pieceId, 'reason' in body ? body.reason : ''])

describe('what is written of the wood when a choice is carried out', () => {
  it('is that wood is cut off and soft shoots are rubbed out, each with its reason', () => {
    expect(told(done([decided('cane', 'off'), decided('shoot', 'off')]))).toEqual([
      ['piece.removed', 'cane', 'why cane'],
      ['piece.rubbed-out', 'shoot', 'why shoot'],
    ])
  })

  it('is once for wood with all that sits on it, and nothing for what is gone already', () => {
    expect(told(done([decided('cane', 'off'), decided('arm', 'off'), decided('other', 'off')]))).toEqual([
      ['piece.removed', 'arm', 'why arm'],
    ])
    expect(told(done([decided('cane', 'spur', { cutM: 0.3 }), decided('arm', 'off')]))).toEqual([
      ['piece.removed', 'arm', 'why arm'],
    ])
  })

  it('is a cut where something is cut away, above its buds, and none where all or nothing stays', () => {
    const cut = (deed: string, cutM: number | null) => done([decided('cane', deed, { cutM, aboveBuds: 2 })])
    expect(cut('spur', 0.4)).toEqual([
      { kind: 'piece.cut', body: { v: 1, pieceId: 'cane', alongM: 0.4, aboveBuds: 2, reason: 'why cane' } },
    ])
    for (const none of [null, 0, 1, 1.5]) expect(cut('spur', none)).toEqual([])
    expect(cut('off', 0.4).map(({ kind }) => kind)).toEqual(['piece.removed'])
  })

  it('is led along its line, lowered to the level, or left where it stands', () => {
    const led = (deed: string) => done([decided('cane', deed, { path })])
    expect(led('lay')).toEqual([{ kind: 'piece.laid', body: { v: 2, pieceId: 'cane', way: freeWay(path) } }])
    expect(led('lower')).toEqual([
      { kind: 'piece.lowered', body: { v: 2, pieceId: 'cane', way: freeWay(path), angleDeg: 90 } },
    ])
    expect(led('keep')).toEqual([])
    expect(led('off').map(({ kind }) => kind)).toEqual(['piece.removed'])
  })

  it('takes what follows for other wood with it: first what comes off, then cuts, then what is laid', () => {
    const follow = {
      pieceId: 'arm',
      deed: 'cut',
      cutM: 0.5,
      aboveBuds: null,
      path: null,
      why: 'old-cane',
    } as FollowUp
    const all = done([decided('cane', 'lay', { cutM: 0.8, path }), decided('shoot', 'off')], [follow])
    expect(told(all)).toEqual([
      ['piece.rubbed-out', 'shoot', 'why shoot'],
      ['piece.cut', 'cane', 'why cane'],
      ['piece.cut', 'arm', 'why arm'],
      ['piece.laid', 'cane', ''],
    ])
  })
})
