import { levelId } from '@klados/core/frame'
import type { FrameBody } from '@klados/contract'
import { describe, expect, it } from 'vitest'
import { changed, draftsReducer, dropped, rebased, redone, settled, undone } from './drafts.ts'

const body = (name: string): FrameBody => ({
  placeId: 'p',
  name,
  stage: 'idea',
  design: {
    pattern: { kind: 'tiers', levels: [{ id: levelId('t0'), heightM: 0.5 }], maxSupportSpacingM: 2 },
    moveToleranceM: 0.04,
    dragged: {},
    wireId: 'stainless-2',
    tensionN: 150,
    wireEnding: null,
    strainers: 1,
    endWrapM: 0.15,
    handlingLengthM: 12,
    endsAt: 'any',
    rolls: [{ lengthM: 25, price: 14 }],
    fixingId: 'eye-100',
    snap: 'none',
    ids: {},
    light: null,
    setC: 12,
    plantKindId: null,
    repeat: 1,
    standOffM: null,
    plantOffM: null,
    feetBallastKg: 0,
    unknown: [],
    boughtPrice: null,
  },
})
const start = { frameId: 'f', basedOn: 3, body: body('stored') }
const change = (name: string, isContinued = false) => changed({ draft: start, body: body(name), isContinued })
const run = (...actions: Parameters<typeof draftsReducer>[1][]) => actions.reduce(draftsReducer, {})

describe('a frame draft', () => {
  it('goes back step by step to what was stored, and forth again', () => {
    const done = run(change('a'), change('b'))
    const back = [undone('f'), undone('f'), undone('f')].reduce(draftsReducer, done)
    expect(back.f!.body.name).toBe('stored')
    const forth = [redone('f'), redone('f'), redone('f')].reduce(draftsReducer, back)
    expect(forth.f!.body.name).toBe('b')
  })

  it('takes a run of keystrokes as one step', () => {
    const typed = run(change('s'), change('so', true), change('sou', true))
    expect(draftsReducer(typed, undone('f')).f!.body.name).toBe('stored')
  })

  it('forgets what could be redone once something new is done', () => {
    const branched = run(change('a'), undone('f'), change('b'))
    expect(draftsReducer(branched, redone('f')).f!.body.name).toBe('b')
  })

  it('keeps the version it is based on until it is told of another', () => {
    expect(run(change('a')).f!.basedOn).toBe(3)
    expect(run(change('a'), rebased({ frameId: 'f', basedOn: 5 })).f).toMatchObject({
      basedOn: 5,
      body: { name: 'a' },
    })
    expect(run(change('a'), dropped('f'))).toEqual({})
  })

  it('is done when what waited is what it still is, and goes on from it otherwise', () => {
    const arrived = settled({ frameId: 'f', version: 4, savedBody: body('a') })
    expect(run(change('a'), arrived)).toEqual({})
    expect(run(change('a'), change('b'), arrived).f).toMatchObject({ basedOn: 4, body: { name: 'b' } })
  })
})
