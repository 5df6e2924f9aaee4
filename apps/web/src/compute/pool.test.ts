import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { createPool } from './pool.ts'

class FakeThread {
  isEnded = false
  terminate = () => {
    this.isEnded = true
  }
}
const settled = () => new Promise((resolve) => setTimeout(resolve))

describe('a pool of threads', () => {
  it('keeps a thread for what comes next, and ends that of what is called off', async () => {
    const threads: FakeThread[] = []
    const pool = createPool(2, () => {
      const thread = new FakeThread()
      threads.push(thread)
      return thread
    })
    const at: FakeThread[] = []
    const quick = (thread: FakeThread) => {
      at.push(thread)
      return Promise.resolve(at.length)
    }
    expect(await pool.run(quick).done).toBe(1)
    expect(await pool.run(quick).done).toBe(2)
    expect(threads).toHaveLength(1)
    const long = pool.run(() => new Promise(() => undefined))
    long.stop()
    long.stop()
    expect(threads[0]!.isEnded).toBe(true)
    expect(await pool.run(quick).done).toBe(3)
    expect(threads).toHaveLength(2)
    await expect(pool.run(() => Promise.reject(new Error('broken'))).done).rejects.toThrow('broken')
    expect(threads[1]!.isEnded).toBe(true)
  })

  it('does all that is not called off, in its order, with no more threads at once than it may have', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 1, max: 3 }),
        fc.array(fc.record({ isStopped: fc.boolean(), isBroken: fc.boolean() }), { maxLength: 12 }),
        async (most, asked) => {
          let alive = 0
          const pool = createPool(most, () => {
            alive++
            expect(alive).toBeLessThanOrEqual(most)
            let isEnded = false
            return {
              terminate: () => {
                expect(isEnded).toBe(false)
                isEnded = true
                alive--
              },
            }
          })
          const begun: number[] = []
          const finished: number[] = []
          const failed: number[] = []
          const jobs = asked.map(({ isBroken }, n) => {
            const job = pool.run(async () => {
              begun.push(n)
              await settled()
              if (isBroken) throw new Error(String(n))
            })
            job.done.then(
              () => finished.push(n),
              () => failed.push(n),
            )
            return job
          })
          for (const [n, { isStopped }] of asked.entries()) if (isStopped) jobs[n]!.stop()
          for (let k = 0; k <= asked.length + 1; k++) await settled()
          const left = asked.flatMap(({ isStopped, isBroken }, n) => (isStopped ? [] : [{ n, isBroken }]))
          expect([...finished].sort((a, b) => a - b)).toEqual(
            left.filter((one) => !one.isBroken).map(({ n }) => n),
          )
          expect([...failed].sort((a, b) => a - b)).toEqual(
            left.filter((one) => one.isBroken).map(({ n }) => n),
          )
          expect(begun).toEqual([...begun].sort((a, b) => a - b))
        },
      ),
    )
  })
})
