import { describe, expect, it } from 'vitest'
import { benchAfter, benchAtFirst } from './bench-state.ts'
import type { BenchEvent, BenchState } from './bench-state.ts'

const after = (...events: readonly BenchEvent[]): BenchState =>
  events.reduce(benchAfter, benchAtFirst(null, null))
const at = (xM: number) => ({ xM, yM: 1 })

describe('the bench', () => {
  it('opens at what was asked for', () => {
    expect(benchAtFirst('t', 'p')).toMatchObject({ chosen: { kind: 'tie', id: 't' }, plantId: 'p' })
  })

  it('looks at the whole plant when one chooses, and keeps what was pointed at otherwise', () => {
    const pointed = { do: 'point', at: { kind: 'wood', id: 'w' }, under: null } as const
    expect(after(pointed, { do: 'read', reading: 'choose', plantId: 'p' }).chosen).toEqual({
      kind: 'foot',
      id: 'p',
    })
    expect(after(pointed, { do: 'read', reading: 'do', plantId: 'p' }).chosen).toEqual({
      kind: 'wood',
      id: 'w',
    })
    expect(after(pointed, { do: 'go-to', plantId: 'q' })).toMatchObject({ chosen: null, plantId: 'q' })
  })

  it('forgets what was expected when it is read otherwise', () => {
    const expected = after({ do: 'expect', paths: [[at(0), at(1)]] })
    expect(expected.expected).toHaveLength(1)
    expect(benchAfter(expected, { do: 'read', reading: 'do', plantId: null }).expected).toEqual([])
  })

  it('sets points one by one or at one go, and takes the last back', () => {
    const drawn = after(
      { do: 'take', tool: 'draw' },
      { do: 'stroke', at: at(0) },
      { do: 'end-stroke', points: null },
      { do: 'set-point', point: at(0) },
      { do: 'stroke', at: at(0) },
      { do: 'stroke', at: at(0.5) },
      { do: 'end-stroke', points: [at(0.5), at(1)] },
    ).hand
    expect(drawn).toMatchObject({ points: [at(0), at(0.5), at(1)], stroke: null, strokes: 1 })
    const back = after(
      { do: 'take', tool: 'draw' },
      { do: 'set-point', point: at(0) },
      { do: 'take-point-back' },
    )
    expect(back.hand.points).toEqual([])
  })

  it('lays down what is in the hand when something else is taken up, but not how often it drew', () => {
    const { hand } = after(
      { do: 'take', tool: 'draw' },
      { do: 'end-stroke', points: [at(0), at(1)] },
      { do: 'take', tool: 'stand' },
    )
    expect(hand).toEqual({ tool: 'stand', points: [], stroke: null, hover: null, standAtM: null, strokes: 1 })
  })

  it('lets a plant stand and empties the hand that stood it, and no other that was taken up since', () => {
    const standing = after({ do: 'take', tool: 'stand' }, { do: 'stand-at', atM: 2 })
    expect(benchAfter(standing, { do: 'stood', hand: standing.hand }).hand.tool).toBe('choose')
    const next = benchAfter(standing, { do: 'take', tool: 'stand' })
    expect(benchAfter(next, { do: 'stood', hand: standing.hand })).toBe(next)
  })

  it('breaks off a stroke when one looks from elsewhere, and keeps the points', () => {
    const { hand, look } = after(
      { do: 'take', tool: 'draw' },
      { do: 'set-point', point: at(0) },
      { do: 'stroke', at: at(1) },
      { do: 'look', from: 'plan' },
    )
    expect(look).toBe('plan')
    expect(hand).toMatchObject({ points: [at(0)], stroke: null, hover: null })
  })

  it('asks again until it is answered', () => {
    const again = after({ do: 'ask', question: 'canes' }, { do: 'ask-again', plantId: 'p' })
    expect(again).toMatchObject({ asked: 'canes', againId: 'p' })
    expect(benchAfter(again, { do: 'answered' }).againId).toBeNull()
  })
})
