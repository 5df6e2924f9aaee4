import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { WAITING, documentKey, entryKey, photoKey } from './items.ts'
import type { DocumentItem, EntryItem, Item, ItemState, PhotoItem } from './items.ts'
import { nextSend, readyPhotos } from './rules.ts'
import type { Occasion } from './rules.ts'

const occasion: Occasion = { accountId: 'me', asked: new Set(), mostEntries: 100, mostBytes: 800_000 }
const common = { gardenId: 'g', accountId: 'me', accountName: 'Me', state: WAITING }
const refused: ItemState = { is: 'refused', code: 'request/malformed', message: '' }
const held: ItemState = { is: 'held', code: 'garden/full', message: '' }

const entry = (id: string, rest: object = {}, state: ItemState = WAITING): EntryItem => ({
  ...common,
  kind: 'entry',
  key: entryKey(id),
  state,
  entry: {
    id,
    placeId: 'p',
    plantId: null,
    supersedes: null,
    kind: 'note.written',
    body: { v: 1, text: '' },
    ...rest,
  } as never,
})
const document = (
  id: string,
  saveId: string,
  body: object = {},
  rest: Partial<DocumentItem> = {},
): DocumentItem => ({
  ...common,
  kind: 'document',
  key: documentKey(id, 'me'),
  area: 'plants',
  documentId: id,
  saves: [{ saveId, basedOn: 0, isRemoved: false, note: '', body }],
  isTried: false,
  ...rest,
})
const photo = (fileId: string, state: ItemState = WAITING): PhotoItem => ({
  ...common,
  kind: 'photo',
  key: photoKey(fileId),
  state,
  fileId,
  content: null as never,
})
/** What goes next: the keys of one request. */
const next = (items: readonly Item[], rest: Partial<Occasion> = {}): string[] | null => {
  const send = nextSend(items, { ...occasion, ...rest })
  if (!send) return null
  return send.kind === 'entries' ? send.items.map(({ key }) => key) : [send.item.key]
}
const keys = (...ids: string[]) => ids.map(entryKey)

describe('the next request', () => {
  it('has entries in the order in which they were written, whatever order they lie in', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(['a', 'b', 'c', 'd', 'e'], { minLength: 1 }), (ids) => {
        expect(next(ids.map((id) => entry(id)))).toEqual(keys(...[...ids].sort()))
      }),
    )
  })

  it('has no photo, which goes beside, and nothing of what is in the tray', () => {
    expect(next([photo('f')])).toBeNull()
    expect(
      readyPhotos([photo('f'), photo('g', refused), entry('a')], occasion).map(({ key }) => key),
    ).toEqual([photoKey('f')])
    expect(next([entry('a', {}, refused), entry('b')])).toEqual(keys('b'))
  })

  it('asks about what is held once an occasion', () => {
    expect(next([entry('a', {}, held)])).toEqual(keys('a'))
    expect(next([entry('a', {}, held)], { asked: new Set(keys('a')) })).toBeNull()
  })

  it('has documents before the entries that name them, the first that was saved first', () => {
    const all = [entry('a', { plantId: 'd2' }), document('d2', 's2'), document('d1', 's1')]
    expect(next(all)).toEqual([documentKey('d1', 'me')])
    expect(next(all.slice(0, 2))).toEqual([documentKey('d2', 'me')])
    expect(next(all.slice(0, 1))).toEqual(keys('a'))
  })

  it.each([
    ['its place', { placeId: 'd' }],
    ['its plant', { plantId: 'd' }],
    ['its frame', { body: { frameId: 'd' } }],
  ])(
    'has no entry whose %s was refused while it was new; one that the server has keeps nobody',
    (_, rest) => {
      const lost = document('d', 's', {}, { key: 'aside s', state: refused })
      expect(next([lost, entry('a', rest), entry('b')])).toEqual(keys('b'))
      const kept = document(
        'd',
        's',
        {},
        {
          key: 'aside s',
          state: refused,
          saves: [{ saveId: 's', basedOn: 3, isRemoved: false, note: '', body: {} }],
        },
      )
      expect(next([kept, entry('a', rest)])).toEqual(keys('a'))
      // Saved again since, it goes first and the entry after it.
      expect(next([lost, document('d', 's9'), entry('a', rest)])).toEqual([documentKey('d', 'me')])
    },
  )

  it('waits for the photo that an entry or a place shows, and for that alone', () => {
    const shows = entry('a', { body: { fileId: 'f' } })
    expect(next([photo('f'), shows, entry('b')])).toEqual(keys('b'))
    expect(next([photo('f', refused), shows])).toBeNull()
    expect(next([photo('other'), shows])).toEqual(keys('a'))
    const place = document('d', 's', { photo: { fileId: 'f' } })
    expect(next([photo('f'), place])).toBeNull()
    expect(next([photo('other'), place])).toEqual([place.key])
    const within = document('d', 's', { placeId: 'q' })
    expect(next([within, document('q', 's2', {}, { state: refused })])).toBeNull()
  })

  it('has what takes the place of another after it, in one request; not at all while that one is refused', () => {
    const later = entry('b', { supersedes: 'a' })
    expect(next([later, entry('a')])).toEqual(keys('a', 'b'))
    expect(next([later, entry('a', {}, refused)])).toBeNull()
  })

  it('is of one garden and one account, within its number and bytes, and never empty for their sake', () => {
    const other = { ...entry('b'), gardenId: 'h' }
    expect(next([entry('a'), other, entry('c')])).toEqual(keys('a', 'c'))
    expect(next([{ ...entry('a'), accountId: 'you' }])).toBeNull()
    const many = ['a', 'b', 'c'].map((id) => entry(id))
    expect(next(many, { mostEntries: 2 })).toEqual(keys('a', 'b'))
    expect(next(many, { mostBytes: 1 })).toEqual(keys('a'))
  })
})
