import 'fake-indexeddb/auto'
import type { StoredEntry } from '@klados/contract'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { createCopyStore } from './copy-store.ts'

let stores = 0
const fresh = () => createCopyStore(`copy-${++stores}`)
const entry = (seq: number): StoredEntry =>
  ({ seq, id: `entry-${seq}`, kind: 'note.written', body: { v: 1, text: String(seq) } }) as StoredEntry
const page = (from: number, to: number) => Array.from({ length: to - from }, (_, i) => entry(from + 1 + i))

describe('the copy on this device', () => {
  it('gives back answers by account and path, and nothing of what was never heard', async () => {
    const copy = fresh()
    await copy.keepAnswer('anna', '/gardens/g/places', 'g', [{ id: 'p' }])
    await copy.keepAnswer('ben', '/gardens/g/places', 'g', [])
    expect(await copy.answers('anna', ['/gardens/g/places', '/gardens/g/plants'])).toEqual([
      [{ id: 'p' }],
      undefined,
    ])
    expect(await copy.answers('ben', ['/gardens/g/places'])).toEqual([[]])
  })

  it('keeps the journal in its order and without gaps, whatever pages come, twice or out of turn', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 30 }), fc.integer({ min: 1, max: 12 })), {
          maxLength: 12,
        }),
        async (pages) => {
          const copy = fresh()
          for (const [after, count] of pages)
            await copy.keepEntries('anna', 'g', after, page(after, after + count))
          const kept = (await copy.entries('anna', 'g')).map(({ seq }) => seq)
          expect(kept).toEqual(kept.map((_, i) => i + 1))
        },
      ),
      { numRuns: 60 },
    )
  })

  it('keeps gardens and accounts apart, and drops one without the other', async () => {
    const copy = fresh()
    for (const account of ['anna', 'ben'])
      for (const garden of ['g', 'h']) {
        await copy.keepEntries(account, garden, 0, page(0, 3))
        await copy.keepAnswer(account, `/gardens/${garden}`, garden, garden)
      }
    await copy.keepAnswer('anna', '/session', null, 'session')
    await copy.dropGarden('anna', 'g')
    expect(await copy.entries('anna', 'g')).toEqual([])
    expect(await copy.entries('anna', 'h')).toHaveLength(3)
    expect(await copy.entries('ben', 'g')).toHaveLength(3)
    expect(await copy.answers('anna', ['/gardens/g', '/gardens/h', '/session'])).toEqual([
      undefined,
      'h',
      'session',
    ])
    await copy.dropAccount('anna')
    expect(await copy.entries('anna', 'h')).toEqual([])
    expect(await copy.answers('anna', ['/session'])).toEqual([undefined])
    expect(await copy.answers('ben', ['/gardens/g'])).toEqual(['g'])
    await copy.dropAccount(null)
    expect(await copy.entries('ben', 'g')).toEqual([])
  })
})
