import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { createGate } from './gate.ts'

const begin = () => {
  const time = { now: 0 }
  return { time, gate: createGate(() => time.now) }
}

describe('the gate', () => {
  it('lets everything through until the server says later, then nothing until that is over, then one', () => {
    const { time, gate } = begin()
    expect([gate.enter(), gate.enter()]).toEqual([true, true])
    gate.later(7)
    gate.later(7)
    expect([gate.enter(), gate.waitMs()]).toEqual([false, 7000])
    time.now = 7001
    expect([gate.enter(), gate.enter()]).toEqual([true, false])
    gate.passed()
    expect([gate.enter(), gate.enter()]).toEqual([true, true])
  })

  it('waits longer each time, whatever the server asks for at the least', () => {
    const { time, gate } = begin()
    const waits = []
    for (let n = 0; n < 6; n++) {
      gate.enter()
      gate.later(1)
      waits.push(gate.waitMs())
      time.now += gate.waitMs()
    }
    expect(waits).toEqual([5000, 10_000, 20_000, 40_000, 60_000, 60_000])
  })

  it('is asked again by another when one had no answer', () => {
    const { time, gate } = begin()
    gate.later(null)
    time.now = 5000
    expect(gate.enter()).toBe(true)
    gate.lost()
    expect(gate.enter()).toBe(true)
  })

  it('of a window that asks ten times a second lets at most ten of them out in forty seconds of "later"', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 0, max: 30 }), (atOnce, afterS) => {
        const { time, gate } = begin()
        let out = 0
        for (; time.now < 40_000; time.now += 100) {
          const going = Array.from({ length: atOnce }, () => gate.enter()).filter(Boolean).length
          out += going
          for (let n = 0; n < going; n++) gate.later(afterS)
        }
        expect(out).toBeLessThanOrEqual(10)
      }),
    )
  })
})
