import { describe, expect, it } from 'vitest'
import { createLane } from './lane.ts'

describe('a lane', () => {
  it('goes through long lists one after the other, in order', async () => {
    const lane = createLane()
    const seen: string[] = []
    const list = (name: string) =>
      lane.map(
        Array.from({ length: 50 }, (_, i) => i),
        (i) => (seen.push(name), i * 2),
      )
    const [a, b] = await Promise.all([list('a'), list('b')])
    expect(a).toEqual(Array.from({ length: 50 }, (_, i) => i * 2))
    expect(b).toEqual(a)
    expect(seen.join('')).toBe('a'.repeat(50) + 'b'.repeat(50))
  })

  it('does a few at once, without waiting, and goes on after a list that failed', async () => {
    const lane = createLane()
    const long = Array.from({ length: 30 }, (_, i) => i)
    const failing = lane.map(long, (i) => {
      if (i === 25) throw new Error('odd')
      return i
    })
    expect(await lane.map([1, 2], (i) => i + 1)).toEqual([2, 3])
    await expect(failing).rejects.toThrow('odd')
    expect(await lane.map(long, (i) => i)).toEqual(long)
  })
})
