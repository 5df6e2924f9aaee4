import 'fake-indexeddb/auto'
import { v7 as uuidv7 } from 'uuid'
import { describe, expect, it } from 'vitest'
import type { Reply } from './answers.ts'
import { createOutboxStore } from './outbox-store.ts'
import type { OutboxStore } from './outbox-store.ts'
import { photoKey } from './items.ts'
import type { Item } from './items.ts'
import type { Send } from './rules.ts'
import { PLACE, fakeServer, note, openWindow, ours, refusal, rest, save } from './testing.ts'
import { waitsFor, writtenAt } from './waits.ts'

let n = 0
const freshStore = () => createOutboxStore(`lanes-${n++}`)
const picture = () => new Blob([new Uint8Array(100)], { type: 'image/jpeg' })
const photoNote = (fileId: string) =>
  note('', { kind: 'photo.taken', body: { v: 1, fileId, text: '' } } as never)

/** A window whose photos are answered by `ofPhoto`, and all else by a server. */
function withPhotos(
  ofPhoto: (send: Extract<Send, { kind: 'photo' }>) => Reply | Promise<Reply>,
  store = freshStore(),
) {
  const server = fakeServer()
  const sends: string[] = []
  const window = openWindow(store, (send) => {
    sends.push(send.kind)
    return send.kind === 'photo' ? ofPhoto(send) : server.respond(send)
  })
  return { ...window, server, sends }
}

describe('a photo that does not get through', () => {
  it.each<readonly [string, Reply]>([
    ['told that there were too many', refusal(429, 'request/too-many')],
    ['told that the server is busy', refusal(503, 'server/busy')],
    ['told of a failure', refusal(500, 'server/failed')],
    ['without an answer', { kind: 'none' }],
  ])('%s delays itself and what shows it, and nothing else', async (_, reply) => {
    const { desk, server, shown } = withPhotos(() => reply)
    const fileId = uuidv7()
    await desk.addPhoto('g', fileId, picture())
    await desk.addEntries('g', [photoNote(fileId), note('beside it')])
    await desk.addSave(save('plant', 0, { placeId: PLACE }, 'plants'))
    await rest()
    expect([...server.entries.values()].map(({ kind }) => kind)).toEqual(['note.written'])
    expect(server.versions.has('plant')).toBe(true)
    expect(
      shown()
        .map(({ kind }) => kind)
        .sort(),
    ).toEqual(['entry', 'photo'])
  })

  it('that is slow holds up nothing that is written meanwhile, and what shows it goes when it is there', async () => {
    let arrive: (reply: Reply) => void = () => undefined
    const { desk, server, shown } = withPhotos(() => new Promise<Reply>((resolve) => (arrive = resolve)))
    const fileId = uuidv7()
    await desk.addPhoto('g', fileId, picture())
    await rest()
    await desk.addEntries('g', [photoNote(fileId), note('one')])
    await rest()
    const { outcome } = await desk.addSave(save('f', 0, { name: 'saved meanwhile' }))
    expect(outcome).toBe('saved')
    await desk.addEntries('g', [note('two')])
    await rest()
    expect(server.entries.size).toBe(2)
    arrive(ours(200, { id: fileId }))
    await rest()
    expect(server.entries.size).toBe(3)
    expect(shown()).toEqual([])
  })

  it('lets the next photo pass, and is tried again after what it was asked to wait', async () => {
    const jammed = uuidv7()
    let isJammed = true
    const { desk, shown, clock, sync, sends } = withPhotos(({ item }) =>
      item.fileId === jammed && isJammed ? refusal(503, 'server/busy') : ours(200, { id: item.fileId }),
    )
    await desk.addPhoto('g', jammed, picture())
    await desk.addPhoto('g', uuidv7(), picture())
    await rest()
    expect(shown().map(({ key }) => key)).toEqual([photoKey(jammed)])
    isJammed = false
    const before = sends.length
    sync.wake()
    await rest()
    expect(sends).toHaveLength(before)
    clock.now += 60_000
    sync.wake()
    await rest()
    expect(shown()).toEqual([])
  })
})

describe('a server that has asked for a moment', () => {
  it('has it, however often the window is looked at, and whatever is written', async () => {
    let sends = 0
    const window = openWindow(freshStore(), () => {
      sends++
      return { ...refusal(503, 'server/busy'), retryAfterS: 20 } as Reply
    })
    await window.desk.addEntries('g', [note('a')])
    await rest()
    for (let look = 0; look < 40; look++) {
      window.clock.now += 900
      window.sync.wake()
      await window.desk.addEntries('g', [note(`n${look}`)])
      await rest()
    }
    // Of thirty-six seconds: at once, after twenty, and no more.
    expect(sends).toBe(2)
  })
})

describe('a disk that fails', () => {
  const broken = (store: OutboxStore, what: Partial<OutboxStore>): OutboxStore => ({ ...store, ...what })
  const fails = () => Promise.reject(new DOMException('full', 'QuotaExceededError'))

  it('that can be read no more loses nothing of what it had told', async () => {
    const store = freshStore()
    let isBroken = false
    let isAway = true
    const server = fakeServer()
    const window = openWindow(broken(store, { all: () => (isBroken ? fails() : store.all()) }), (send) =>
      isAway ? { kind: 'none' } : server.respond(send),
    )
    await window.desk.addEntries('g', [note('a'), note('b')])
    await rest()
    isBroken = true
    await window.desk.addEntries('g', [note('c')])
    await rest()
    expect(window.shown()).toHaveLength(3)
    isAway = false
    window.sync.wake()
    await rest()
    expect(server.entries.size).toBe(3)
    expect(window.shown()).toEqual([])
  })

  it('that lets nothing go is not sent from again and again', async () => {
    const store = freshStore()
    const server = fakeServer()
    let sends = 0
    const window = openWindow(broken(store, { remove: fails }), (send) => {
      sends++
      return server.respond(send)
    })
    await window.desk.addEntries('g', [note('a')])
    await rest()
    window.sync.wake()
    await rest()
    expect([sends, server.entries.size, window.shown().length]).toEqual([1, 1, 0])
  })

  it('and that forbids even the lease leaves the window sending from memory', async () => {
    const server = fakeServer()
    const store = broken(freshStore(), {
      all: fails,
      put: fails,
      update: fails,
      remove: fails,
      lease: fails,
      release: fails,
    })
    const window = openWindow(store, server.respond)
    await window.desk.addEntries('g', [note('a')])
    expect((await window.desk.addSave(save('f', 0, { name: 'one' }))).outcome).toBe('saved')
    await rest()
    expect([server.entries.size, server.versions.size, window.shown().length]).toEqual([1, 1, 0])
  })
})

describe('what is said of something that waits', () => {
  const fileId = uuidv7()
  const items = [
    { kind: 'photo', key: photoKey(fileId), fileId, content: picture(), accountId: 'me' },
    { kind: 'entry', key: 'entry 1', entry: photoNote(fileId), accountId: 'me' },
    { kind: 'entry', key: 'entry 2', entry: note('beside'), accountId: 'me' },
  ] as unknown as Item[]
  const calm = { canSend: true, isAway: false, isBusy: false, lanes: { againAt: null, photos: {} } }
  const [photo, shows, beside] = items as [Item, Item, Item]
  it('is what keeps it', () => {
    const sending = {
      ...calm,
      lanes: { againAt: null, photos: { [photo.key]: { sentBytes: 40, againAt: null } } },
    }
    expect(waitsFor(photo, items, sending)).toEqual({ is: 'sending', sentBytes: 40, ofBytes: 100 })
    expect(waitsFor(shows, items, sending)).toEqual({ is: 'photo' })
    expect(waitsFor(beside, items, sending)).toEqual({ is: 'turn' })
    expect(waitsFor(beside, items, { ...calm, isBusy: true })).toEqual({ is: 'server' })
    expect(waitsFor(photo, items, { ...calm, isBusy: true })).toEqual({ is: 'turn' })
    expect(waitsFor(shows, items, { ...calm, isAway: true })).toEqual({ is: 'line' })
    expect(waitsFor(photo, items, { ...calm, canSend: false })).toEqual({ is: 'session' })
    const again = { ...calm, lanes: { againAt: 7, photos: { [photo.key]: { sentBytes: 0, againAt: 9 } } } }
    expect(waitsFor(beside, items, again)).toEqual({ is: 'again', at: 7 })
    expect(waitsFor(photo, items, again)).toEqual({ is: 'again', at: 9 })
  })

  it('and since when it was written, where its id tells', () => {
    expect(Math.abs(writtenAt(photo)! - Date.now())).toBeLessThan(60_000)
    expect(writtenAt({ ...photo, fileId: crypto.randomUUID() } as Item)).toBeNull()
  })
})

describe('entries of a clock that was days ahead', () => {
  it('are mended together: in their order, and what takes another back takes back the mended one', async () => {
    const server = fakeServer()
    let isLate = true
    const window = openWindow(freshStore(), (send) =>
      isLate && send.kind === 'entries'
        ? ours(200, {
            answers: send.items.map(() => ({ answer: 'refused', code: 'journal/too-late', message: 'late' })),
          })
        : server.respond(send),
    )
    const [a, b] = [note('first'), note('second')]
    const undo = note('', { kind: 'entry.withdrawn', supersedes: b.id, body: { v: 1 } } as never)
    await window.desk.addEntries('g', [a, b, undo])
    await rest()
    expect(window.shown()).toHaveLength(3)
    isLate = false
    const keys = window.shown().map(({ key }) => key)
    await window.desk.mend(keys, (entry) => ({ ...entry, at: '2026-02-20' }))
    await rest()
    const stored = [...server.entries.values()]
    expect(stored.map(({ kind, at }) => [kind, at])).toEqual([
      ['note.written', '2026-02-20'],
      ['note.written', '2026-02-20'],
      ['entry.withdrawn', '2026-02-20'],
    ])
    expect(stored[2]!.supersedes).toBe(stored[1]!.id)
    expect(window.shown()).toEqual([])
  })
})
