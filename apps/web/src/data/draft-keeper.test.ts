import { describe, expect, it } from 'vitest'
import { createDraftKeeper } from './draft-keeper.ts'
import type { DraftStorage } from './draft-keeper.ts'

/** A browser's storage, shared by its windows; `isFull` makes it refuse as a full one does. */
function browser() {
  const values = new Map<string, string>()
  const state = { isFull: false, writes: 0 }
  const storage: DraftStorage = {
    getItem: (key) => values.get(key) ?? null,
    setItem: (key, value) => {
      if (state.isFull) throw new DOMException('full', 'QuotaExceededError')
      state.writes++
      values.set(key, value)
    },
    removeItem: (key) => void values.delete(key),
    keys: () => [...values.keys()],
  }
  const open = (account = 'rowan') => {
    const told = { overlaps: [] as unknown[][], full: 0 }
    let timer: (() => void) | null = null
    const keeper = createDraftKeeper(storage, account, {
      setTimer: (work) => {
        timer = work
        return () => (timer = null)
      },
      onOverlap: (...args) => void told.overlaps.push(args),
      onFull: () => told.full++,
    })
    return { keeper, told, pause: () => timer?.() }
  }
  return { values, state, open }
}

describe('a draft', () => {
  it('is written after a pause and not at each key, and at once when the page goes', () => {
    const { state, open } = browser()
    const { keeper, pause } = open()
    for (const text of ['s', 'so', 'sou']) keeper.write('frame', 'f', { text })
    expect(state.writes).toBe(0)
    pause()
    expect(state.writes).toBe(1)
    keeper.write('frame', 'f', { text: 'south' })
    keeper.flush()
    expect(open().keeper.read('frame', 'f')).toEqual({ text: 'south' })
  })

  it('is its account’s own', () => {
    const { open } = browser()
    const { keeper } = open('rowan')
    keeper.write('frame', 'f', 1)
    keeper.flush()
    expect(open('isla').keeper.readAll('frame')).toEqual({})
    expect(open('rowan').keeper.readAll('frame')).toEqual({ f: 1 })
  })

  it('is not written over what another window wrote meanwhile: both are told of', () => {
    const { open } = browser()
    const [one, two] = [open(), open()]
    one.keeper.read('frame', 'f')
    two.keeper.read('frame', 'f')
    one.keeper.write('frame', 'f', 'one')
    one.keeper.flush()
    two.keeper.write('frame', 'f', 'two')
    two.keeper.flush()
    expect(two.told.overlaps).toEqual([['frame', 'f', 'two', 'one']])
    expect(open().keeper.read('frame', 'f')).toBe('one')
  })

  it('written in the same moment as another’s, unseen by either, is kept by the window that lost', () => {
    const { open, values } = browser()
    const [one, two] = [open(), open()]
    one.keeper.write('frame', 'f', 'before')
    one.keeper.flush()
    const [key] = [...values.keys()] as [string]
    two.keeper.hear(key)
    const seenByBoth = values.get(key)!
    one.keeper.write('frame', 'f', 'one')
    one.keeper.flush()
    values.set(key, seenByBoth) // the second window’s own process has not heard of it yet
    two.keeper.write('frame', 'f', 'two')
    two.keeper.flush()
    one.keeper.hear(key)
    two.keeper.hear(key)
    expect(one.told.overlaps).toEqual([['frame', 'f', 'one', 'two']])
    expect(two.told.overlaps).toEqual([])
  })

  it('that another window went on with by several writings is no overlap', () => {
    const { open, values } = browser()
    const [one, two] = [open(), open()]
    one.keeper.write('frame', 'f', 'one')
    one.keeper.flush()
    const [key] = [...values.keys()] as [string]
    two.keeper.hear(key)
    for (const value of ['two', 'three', 'four']) {
      two.keeper.write('frame', 'f', value)
      two.keeper.flush()
    }
    expect(one.keeper.hear(key)).toEqual({ kind: 'frame', id: 'f', value: 'four' })
    expect(one.told.overlaps).toEqual([])
  })

  it('of another window is followed once it is heard, unless something is being typed here', () => {
    const { open, values } = browser()
    const [one, two] = [open(), open()]
    one.keeper.write('frame', 'f', 'one')
    one.keeper.flush()
    const [key] = [...values.keys()]
    expect(two.keeper.hear(key!)).toEqual({ kind: 'frame', id: 'f', value: 'one' })
    two.keeper.write('frame', 'f', 'two, after one')
    two.keeper.flush()
    expect(two.told.overlaps).toEqual([])
    one.keeper.write('frame', 'f', 'being typed')
    expect(one.keeper.hear(key!)).toBeNull()
    one.keeper.flush()
    expect(one.told.overlaps).toHaveLength(1)
  })

  it('is forgotten when it is saved, but not what another window has made of it since', () => {
    const { open } = browser()
    const [one, two] = [open(), open()]
    one.keeper.write('frame', 'f', 'one')
    one.keeper.flush()
    two.keeper.read('frame', 'f')
    two.keeper.write('frame', 'f', 'gone on with')
    two.keeper.flush()
    one.keeper.forget('frame', 'f')
    expect(open().keeper.read('frame', 'f')).toBe('gone on with')
    two.keeper.forget('frame', 'f')
    expect(open().keeper.read('frame', 'f')).toBeUndefined()
  })

  it('that finds no room is told, and stays where it is', () => {
    const { state, open } = browser()
    const { keeper, told } = open()
    keeper.write('place', 'p', 1)
    keeper.flush()
    state.isFull = true
    keeper.write('place', 'p', 2)
    keeper.flush()
    expect(told.full).toBe(1)
    expect(open().keeper.read('place', 'p')).toBe(1)
  })

  it('that is damaged is as good as none', () => {
    const { values, open } = browser()
    const { keeper } = open()
    keeper.write('frame', 'f', 1)
    keeper.flush()
    for (const key of values.keys()) values.set(key, '{"mark":')
    expect(open().keeper.read('frame', 'f')).toBeUndefined()
    expect(open().keeper.readAll('frame')).toEqual({})
  })
})
