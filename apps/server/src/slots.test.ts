import { EventEmitter } from 'node:events'
import type { FastifyReply } from 'fastify'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createSlots } from './slots.ts'

class Raw extends EventEmitter {
  closed = false
  destroyed = false
  close() {
    this.closed = true
    this.emit('close')
  }
}
const caller = () => {
  const raw = new Raw()
  return { reply: { raw } as unknown as FastifyReply, leave: () => raw.close() }
}
beforeEach(() => vi.useFakeTimers())
afterEach(() => vi.useRealTimers())

const limits = { inAll: 3, ofOne: 2, waitMs: 1000 }

describe('a turn', () => {
  it('goes back when the caller is gone, when it is ended, and once for both', async () => {
    const slots = createSlots(limits)
    const [one, two] = [caller(), caller()]
    const turn = await slots.take(one.reply, 'a')
    await slots.take(two.reply, 'a')
    expect(slots.held()).toBe(2)
    turn.end()
    one.leave()
    expect(slots.held()).toBe(1)
    two.leave()
    expect(slots.held()).toBe(0)
  })

  it('in which work is done lasts as long as the work, whether anybody waits for it or not', async () => {
    const slots = createSlots(limits)
    const one = caller()
    let finish: (value: number) => void = () => undefined
    const done = slots.run(one.reply, 'a', () => new Promise<number>((resolve) => (finish = resolve)))
    await vi.advanceTimersByTimeAsync(0)
    one.leave()
    expect(slots.held()).toBe(1)
    finish(7)
    expect(await done).toBe(7)
    expect(slots.held()).toBe(0)
    await expect(slots.run(caller().reply, 'a', () => Promise.reject(new Error('no')))).rejects.toThrow('no')
    expect(slots.held()).toBe(0)
  })

  it('is not taken for somebody who is gone already', async () => {
    const slots = createSlots(limits)
    const one = caller()
    one.leave()
    await expect(slots.take(one.reply, 'a')).rejects.toMatchObject({ code: 'server/busy' })
    expect(slots.held()).toBe(0)
  })

  it('is waited for, and given up when it does not come, or the caller goes', async () => {
    const slots = createSlots(limits)
    const [one, two] = [caller(), caller()]
    const turns = [await slots.take(one.reply, 'a'), await slots.take(two.reply, 'a')]
    const got: string[] = []
    const wait = (name: string, who = caller()) => {
      void slots.take(who.reply, 'a').then(
        () => got.push(name),
        () => got.push(`${name} busy`),
      )
      return who
    }
    wait('third')
    const gone = wait('gone')
    gone.leave()
    await vi.advanceTimersByTimeAsync(500)
    expect(got).toEqual(['gone busy'])
    turns[0]!.end()
    await vi.advanceTimersByTimeAsync(0)
    expect(got).toEqual(['gone busy', 'third'])
    wait('late')
    await vi.advanceTimersByTimeAsync(1001)
    expect(got.at(-1)).toBe('late busy')
    expect(slots.held()).toBe(2)
  })

  it('is nobody’s to shut: one account has its share, and the next turn is theirs who have the fewest', async () => {
    const slots = createSlots(limits)
    const turns = [await slots.take(caller().reply, 'a'), await slots.take(caller().reply, 'a')]
    const got: string[] = []
    const ask = (account: string, name: string) =>
      void slots.take(caller().reply, account).then(
        () => got.push(name),
        () => undefined,
      )
    ask('a', 'a3')
    ask('a', 'a4')
    // Not behind those who wait for a share that they have used up.
    ask('b', 'b1')
    await vi.advanceTimersByTimeAsync(0)
    expect(got).toEqual(['b1'])
    ask('b', 'b2')
    ask('c', 'c1')
    turns[0]!.end()
    await vi.advanceTimersByTimeAsync(0)
    expect(got).toEqual(['b1', 'c1'])
  })
})
