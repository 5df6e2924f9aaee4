import { describe, expect, it } from 'vitest'
import { withUnsent } from './documents.ts'
import type { DocumentItem, DocumentSave } from './sync/items.ts'

const stored = (id: string, name: string, version = 2) => ({
  id,
  version,
  isRemoved: false,
  note: '',
  savedAt: '2026-03-01T00:00:00Z',
  savedBy: 'Isla',
  body: { name },
})
const save = (name: string, rest: Partial<DocumentSave> = {}): DocumentSave => ({
  saveId: 's',
  basedOn: 2,
  isRemoved: false,
  note: '',
  body: { name },
  ...rest,
})
const unsent = (documentId: string, ...saves: [DocumentSave, DocumentSave?]): DocumentItem => ({
  kind: 'document',
  key: documentId,
  gardenId: 'g',
  accountId: 'me',
  accountName: 'Rowan',
  area: 'places',
  documentId,
  isTried: false,
  state: { is: 'waiting' },
  saves,
})

describe('documents as this device knows them', () => {
  it('are those of the server, with what was saved here last in their place and under their version still', () => {
    const shown = withUnsent([stored('a', 'A'), stored('b', 'B')], [unsent('b', save('once'), save('again'))])
    expect(shown).toEqual([stored('a', 'A'), { ...stored('b', 'B'), body: { name: 'again' } }])
  })

  it('have those that the server does not know yet behind them, as version 0 of their writer', () => {
    const shown = withUnsent([stored('a', 'A')], [unsent('new', save('N', { basedOn: 0 }))])
    expect(shown[1]).toMatchObject({ id: 'new', version: 0, savedBy: 'Rowan', body: { name: 'N' } })
  })

  it('are gone where they were removed here', () => {
    expect(withUnsent([stored('a', 'A')], [unsent('a', save('A', { isRemoved: true }))])[0]!.isRemoved).toBe(
      true,
    )
  })
})
