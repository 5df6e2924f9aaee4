import 'fake-indexeddb/auto'
import fc from 'fast-check'
import { v7 as uuidv7 } from 'uuid'
import { afterEach, describe, expect, it } from 'vitest'
import { meaningOf, verdictsIn } from './answers.ts'
import type { Reply } from './answers.ts'
import { createClock } from './clock.ts'
import { asideKey, documentKey, entryKey } from './items.ts'
import type { Item } from './items.ts'
import { createOutboxStore, moveEarlierOutbox } from './outbox-store.ts'
import type { OutboxStore } from './outbox-store.ts'
import type { Send } from './rules.ts'
import { fakeServer, note, openWindow, ours, refusal, rest, save } from './testing.ts'
import type { Window } from './testing.ts'
import { openDB } from 'idb'
import { runs, within } from '../../../../../packages/core/test/runs.ts'

let names = 0
const freshStore = () => createOutboxStore(`sync-test-${++names}`)
const open: Window[] = []
afterEach(() => {
  for (const one of open.splice(0)) one.sync.stop()
})
/** A window on an outbox of its own, with a server that can be told what to answer next. */
function desk(store: OutboxStore = freshStore(), server = fakeServer()) {
  const script: (Reply | ((send: Send) => Reply))[] = []
  const sends: Send[] = []
  const transmit = (send: Send): Reply => {
    sends.push(send)
    const next = script.shift()
    return typeof next === 'function' ? next(send) : (next ?? server.respond(send))
  }
  const window = openWindow(store, transmit)
  open.push(window)
  return {
    ...window,
    store,
    server,
    script,
    sends,
    answer: (...replies: typeof script) => void script.push(...replies),
  }
}
const states = (items: readonly Item[]) =>
  items.map(({ state }) => ('code' in state ? `${state.is} ${state.code}` : state.is))

describe('what an answer means', () => {
  const cases: [string, Reply, string][] = [
    ['no answer, or a success that does not carry our mark', { kind: 'none' }, 'away'],
    ['success', ours(200), 'taken'],
    ['no content', ours(204, null), 'taken'],
    ['a session that is over', refusal(401, 'session/required'), 'signed-out'],
    ['a slow request', ours(408), 'later'],
    ['too many', refusal(429, 'request/too-many'), 'later'],
    ['a server that fails', refusal(500, 'server/failed'), 'later'],
    ['a bad gateway of ours', ours(502), 'later'],
    ['a database that is away', refusal(503, 'server/unavailable'), 'later'],
    ['a right that was withdrawn', refusal(403, 'garden/not-allowed'), 'held'],
    ['an allowance that is used up', refusal(403, 'garden/full'), 'held'],
    ['a garden that one is out of', refusal(404, 'garden/not-found'), 'held'],
    ['a place that has not arrived', refusal(422, 'document/unknown-place'), 'held'],
    ['a photo that has not arrived', refusal(422, 'document/unknown-file'), 'held'],
    ['too much at once', refusal(413, 'request/too-large'), 'too-much'],
    ['a malformed request', refusal(400, 'request/malformed'), 'too-much'],
    [
      'a newer version',
      refusal(409, 'document/version-conflict', { current: { version: 4, savedBy: 'Isla' } }),
      'clashed',
    ],
    ['a picture that is none', refusal(422, 'file/not-an-image'), 'refused'],
  ]
  it.each(cases)('%s', (_, reply, meaning) => {
    expect(meaningOf(reply).is).toBe(meaning)
  })

  it('counts answers to a batch only when there is one for each', () => {
    expect(verdictsIn({ answers: [{ answer: 'taken' }] }, 2)).toBeNull()
    expect(verdictsIn('<html>Welcome to our guests</html>', 1)).toBeNull()
    expect(verdictsIn({ answers: [{ answer: 'perhaps' }] }, 1)).toBeNull()
    expect(verdictsIn({ answers: [{ answer: 'taken' }] }, 1)).toHaveLength(1)
  })
})

describe('entries', () => {
  it('are kept before they are sent, sent in the order of writing, and leave when the server has them', async () => {
    const { desk: at, store, server, shown, taken } = desk()
    const entries = [note('a'), note('b'), note('c')]
    await at.addEntries('g', [entries[2]!, entries[0]!, entries[1]!])
    expect((await store.all()).length + taken.length).toBeGreaterThanOrEqual(3)
    await rest()
    expect([...server.entries.keys()]).toEqual(entries.map((one) => one.id))
    expect(shown()).toEqual([])
    expect(await store.all()).toEqual([])
  })

  it('each have an answer of their own: one that is refused stays in the tray and keeps nobody back', async () => {
    const { desk: at, server, shown } = desk()
    await at.addEntries('g', [note('a'), note('bad'), note('c')])
    await rest()
    expect(server.entries.size).toBe(2)
    expect(states(shown())).toEqual(['refused request/malformed'])
    await at.addEntries('g', [note('d')])
    await rest()
    expect(server.entries.size).toBe(3)
    expect(shown()).toHaveLength(1)
  })

  it.each([
    ['no answer', { kind: 'none' } as Reply],
    ['a failing server', refusal(500, 'server/failed')],
    ['a busy server', refusal(429, 'request/too-many')],
    ['a success of somebody else’s', ours(200, '<html>Sign in to the guest network</html>')],
  ])('wait through %s and are sent by themselves later', async (_, reply) => {
    const { desk: at, answer, server, shown, runTimer, timerMs, sends } = desk()
    answer(reply, reply, reply)
    await at.addEntries('g', [note('a')])
    await rest()
    expect(states(shown())).toEqual(['waiting'])
    const waits = []
    for (let i = 0; i < 3; i++) {
      waits.push(timerMs()!)
      await runTimer()
    }
    expect(waits).toEqual([1000, 2000, 4000])
    expect(server.entries.size).toBe(1)
    expect(sends).toHaveLength(4)
    expect(shown()).toEqual([])
  })

  it('that are written while it waits are tried at once, and make the wait for none longer', async () => {
    const { desk: at, answer, timerMs, runTimer, sync, sends } = desk()
    answer(...Array.from({ length: 12 }, (): Reply => ({ kind: 'none' })))
    for (let i = 0; i < 10; i++) {
      await at.addEntries('g', [note(`n${i}`)])
      await rest()
    }
    expect(sends).toHaveLength(10)
    expect(timerMs()).toBe(1000)
    await runTimer()
    expect(timerMs()).toBe(2000)
    // A connection that comes back begins anew, should it break at once.
    sync.wake()
    await rest()
    expect(timerMs()).toBe(1000)
  })

  it('wait as long as a busy server asks, whatever is written meanwhile', async () => {
    const { desk: at, answer, sends, timerMs } = desk()
    answer(ours(429, {}, 30))
    await at.addEntries('g', [note('a')])
    await rest()
    expect(timerMs()).toBe(30_000)
    await at.addEntries('g', [note('b')])
    await rest()
    expect(sends).toHaveLength(1)
  })

  it('wait for a session, and go when there is one', async () => {
    const { desk: at, answer, sync, server, shown, timerMs } = desk()
    answer(refusal(401, 'session/required'))
    await at.addEntries('g', [note('a')])
    await rest()
    expect(states(shown())).toEqual(['waiting'])
    expect(timerMs()).toBeNull()
    sync.wake()
    await rest()
    expect(server.entries.size).toBe(1)
  })

  it('are held, with the reason, where a right was withdrawn, and asked about again at the next occasion', async () => {
    const { desk: at, answer, sync, server, shown, sends } = desk()
    answer(refusal(403, 'garden/not-allowed'))
    await at.addEntries('g', [note('a'), note('b')])
    await rest()
    expect(states(shown())).toEqual(['held garden/not-allowed', 'held garden/not-allowed'])
    expect(sends).toHaveLength(1)
    sync.wake()
    await rest()
    expect(server.entries.size).toBe(2)
  })

  it('that are too much at once go in halves; one that is too much by itself is refused, alone', async () => {
    const { desk: at, server, shown, script } = desk()
    const large = note('large')
    const isTooMuch = (send: Send) =>
      send.kind === 'entries' &&
      (send.items.length > 2 || send.items.some(({ entry }) => entry.id === large.id))
    script.push(
      ...Array.from(
        { length: 40 },
        () => (send: Send) => (isTooMuch(send) ? refusal(413, 'request/too-large') : server.respond(send)),
      ),
    )
    await at.addEntries('g', [note('a'), note('b'), note('c'), large, note('d'), note('e')])
    await rest()
    expect(server.entries.size).toBe(5)
    expect(states(shown())).toEqual(['refused request/too-large'])
  })

  it('are sent once more when their answer was lost, and the server has them once', async () => {
    const { desk: at, server, script, shown, runTimer } = desk()
    script.push((send) => {
      server.respond(send)
      return { kind: 'none' }
    })
    await at.addEntries('g', [note('a')])
    await rest()
    await runTimer()
    expect(server.entries.size).toBe(1)
    expect(server.state.appends).toEqual([1, 1])
    expect(shown()).toEqual([])
  })
})

describe('an entry that speaks of something which waits itself', () => {
  it('goes after it: photo, place, plant, entry', async () => {
    const { desk: at, server, sends, answer, script, sync } = desk()
    server.state.knowsPlaces = false
    const [placeId, plantId, fileId] = [uuidv7(), uuidv7(), uuidv7()]
    answer({ kind: 'none' }, { kind: 'none' }, { kind: 'none' }, { kind: 'none' })
    await at.addEntries('g', [note('tied', { placeId, plantId })])
    void at.addSave(save(plantId, 0, { placeId }, 'plants'))
    void at.addSave(save(placeId, 0, { name: 'Wall', photo: { fileId } }, 'places'))
    await at.addPhoto('g', fileId, new Blob(['x']))
    await rest()
    sends.length = 0
    script.length = 0
    sync.wake()
    await rest()
    expect(sends.slice(-4).map((send) => (send.kind === 'document' ? send.item.area : send.kind))).toEqual([
      'photo',
      'places',
      'plants',
      'entries',
    ])
    expect(server.entries.size).toBe(1)
  })

  it('goes after the photo that it shows, and not at all where that was refused', async () => {
    const { desk: at, sends, server, shown, answer, script, sync } = desk()
    const shows = (fileId: string) =>
      note('seen', { kind: 'photo.taken', body: { v: 1, fileId, pieceIds: null, note: '' } })
    const [fileId, refused] = [uuidv7(), uuidv7()]
    answer({ kind: 'none' }, { kind: 'none' })
    await at.addEntries('g', [shows(fileId)])
    await at.addPhoto('g', fileId, new Blob(['x']))
    await rest()
    sends.length = 0
    script.length = 0
    sync.wake()
    await rest()
    expect(sends.map(({ kind }) => kind)).toEqual(['photo', 'entries'])
    expect(server.entries.size).toBe(1)
    script.push(refusal(422, 'file/too-many-pixels'))
    await at.addPhoto('g', refused, new Blob(['y']))
    await rest()
    await at.addEntries('g', [shows(refused)])
    await rest()
    expect(server.entries.size).toBe(1)
    expect(states(shown()).sort()).toEqual(['held sync/needs-refused', 'refused file/too-many-pixels'])
  })

  it.each([
    ['the plant that it is of', 'plants', (id: string) => ({ plantId: id })],
    ['the frame that it was seen on', 'frames', (id: string) => ({ body: { v: 1, frameId: id } })],
  ] as const)('is held with %s', async (_, area, about) => {
    const { desk: at, server, shown, script } = desk()
    const id = uuidv7()
    script.push(refusal(422, 'document/odd'))
    void at.addSave(save(id, 0, { name: 'odd' }, area))
    await rest()
    await at.addEntries('g', [note('of another'), note('of it', about(id) as object)])
    await rest()
    expect(server.entries.size).toBe(1)
    expect(states(shown()).sort()).toEqual(['held sync/needs-refused', 'refused document/odd'])
  })

  it('goes all the same where what was refused is stored already, in an earlier version', async () => {
    const { desk: at, server, script } = desk()
    const plantId = uuidv7()
    void at.addSave(save(plantId, 0, { name: 'Vine' }, 'plants'))
    await rest()
    script.push(refusal(422, 'document/odd'))
    void at.addSave(save(plantId, 1, { name: 'odd' }, 'plants'))
    await rest()
    await at.addEntries('g', [note('of it', { plantId })])
    await rest()
    expect(server.entries.size).toBe(1)
  })

  it('that takes another’s place is held while that one lies in the tray', async () => {
    const { desk: at, server, shown } = desk()
    const first = note('bad')
    await at.addEntries('g', [first])
    await rest()
    await at.addEntries('g', [note('instead', { supersedes: first.id })])
    await rest()
    expect(server.entries.size).toBe(0)
    expect(states(shown()).sort()).toEqual(['held sync/needs-refused', 'refused request/malformed'])
  })

  it('is held when that is refused, and goes when it is saved at last', async () => {
    const { desk: at, server, shown, script } = desk()
    server.state.knowsPlaces = false
    const placeId = uuidv7()
    script.push(refusal(422, 'document/odd'))
    void at.addSave(save(placeId, 0, { name: 'Wall' }, 'places'))
    await at.addEntries('g', [note('tied', { placeId })])
    await rest()
    expect(states(shown()).sort()).toEqual(['held sync/needs-refused', 'refused document/odd'])
    const aside = shown().find((item) => item.kind === 'document')!
    await at.tryAgain(aside.key)
    await rest()
    expect(server.versions.get(placeId)?.version).toBe(1)
    expect(server.entries.size).toBe(1)
    expect(shown()).toEqual([])
  })
})

describe('saves of documents', () => {
  it('live by the same rules: kept first, through a server that is away, until it has them', async () => {
    const { desk: at, store, answer, server, runTimer } = desk()
    answer({ kind: 'none' })
    const { outcome } = await at.addSave(save('f', 0, { name: 'one' }))
    expect(outcome).toBe('waiting')
    expect(await store.all()).toHaveLength(1)
    await runTimer()
    expect(server.versions.get('f')).toEqual({ version: 1, body: { name: 'one' } })
  })

  it('that were not sent yet make way for the newer; one that was may be stored, and the next builds on it', async () => {
    const { desk: at, server, script, sync, shown } = desk()
    script.push((send) => {
      server.respond(send)
      return { kind: 'none' }
    })
    await at.addSave(save('f', 0, { name: 'sent, answer lost' }))
    script.push({ kind: 'none' }, { kind: 'none' })
    await at.addSave(save('f', 0, { name: 'typed in the dark' }))
    await at.addSave(save('f', 0, { name: 'typed again' }))
    sync.wake()
    await rest()
    expect(server.versions.get('f')).toEqual({ version: 2, body: { name: 'typed again' } })
    expect(shown()).toEqual([])
  })

  it('that meet a newer version lie in the tray with what was typed since, and can be saved over it or let go', async () => {
    const { desk: at, server, shown } = desk()
    server.versions.set('f', { version: 3, body: { name: 'theirs' } })
    const { outcome } = await at.addSave(save('f', 2, { name: 'mine' }))
    expect(outcome).toBe('clashed')
    expect(states(shown())).toEqual(['clashed'])
    await at.addSave(save('f', 3, { name: 'another change of theirs' }))
    await rest()
    expect(shown()).toHaveLength(1)
    const [aside] = shown()
    expect(aside!.key.startsWith(asideKey(''))).toBe(true)
    server.versions.set('f', { version: 3, body: {} })
    await at.saveOver(aside!.key)
    await rest()
    expect(server.versions.get('f')?.body).toEqual({ name: 'mine' })
    expect(shown()).toEqual([])
  })

  it('that are refused stay in the tray until they are let go', async () => {
    const { desk: at, answer, shown, store } = desk()
    answer(refusal(422, 'document/odd'))
    expect((await at.addSave(save('f', 0, { name: 'odd' }))).outcome).toBe('refused')
    expect(states(shown())).toEqual(['refused document/odd'])
    await at.letGo(shown()[0]!.key)
    expect(await store.all()).toEqual([])
  })

  it('keep what is saved while one is in flight', async () => {
    const server = fakeServer()
    const script: Reply[] = []
    let release: (reply: Reply) => void = () => undefined
    const store = freshStore()
    const slow = openWindow(store, (send) => {
      const next = script.shift()
      if (next) return new Promise<Reply>((resolve) => (release = () => resolve(server.respond(send))))
      return server.respond(send)
    })
    open.push(slow)
    script.push({ kind: 'none' })
    const first = slow.desk.addSave(save('f', 0, { name: 'first' }))
    await rest()
    const second = slow.desk.addSave(save('f', 0, { name: 'typed meanwhile' }))
    await rest()
    release({ kind: 'none' })
    expect((await first).outcome).toBe('saved')
    expect((await second).outcome).toBe('saved')
    expect(server.versions.get('f')).toEqual({ version: 2, body: { name: 'typed meanwhile' } })
    expect(slow.shown()).toEqual([])
  })
})

describe('what was refused', () => {
  it('is mended under a new id, written down as something else, or let go, and nothing else takes it away', async () => {
    const { desk: at, server, shown, sync } = desk()
    const wrong = note('bad')
    await at.addEntries('g', [wrong])
    await rest()
    for (let i = 0; i < 3; i++) {
      sync.wake()
      await rest()
    }
    expect(shown()).toHaveLength(1)
    await at.mend(
      [entryKey(wrong.id)],
      (entry) => ({ ...entry, body: { v: 1, text: 'good' } }) as typeof entry,
    )
    await rest()
    expect([...server.entries.values()].map((entry) => entry.body)).toEqual([{ v: 1, text: 'good' }])
    expect(server.entries.has(wrong.id)).toBe(false)
    expect(shown()).toEqual([])
  })
})

describe('a reload', () => {
  it('finds everything that was kept, in whatever state, and sends what can be sent', async () => {
    const store = freshStore()
    const before = desk(store)
    before.answer({ kind: 'none' }, { kind: 'none' })
    await before.desk.addEntries('g', [note('a'), note('b')])
    void before.desk.addSave(save('f', 0, { name: 'one' }))
    await rest()
    before.sync.stop()
    const after = desk(store)
    await after.sync.start()
    await rest()
    expect(after.server.entries.size).toBe(2)
    expect(after.server.versions.size).toBe(1)
    expect(await store.all()).toEqual([])
  })

  it('takes over what the release before left', async () => {
    const db = await openDB('klados-outbox', 1, {
      upgrade: (fresh) => {
        fresh.createObjectStore('entries')
        fresh.createObjectStore('saves')
      },
    })
    const entry = note('of before')
    await db.put('entries', { gardenId: 'g', entry }, entry.id)
    await db.put(
      'saves',
      {
        documentId: 'f',
        path: '/gardens/g/frames/f',
        save: { saveId: uuidv7(), basedOn: 0, isRemoved: false, note: '', body: {} },
      },
      'f',
    )
    db.close()
    const store = freshStore()
    expect(await moveEarlierOutbox(store)).toBe(2)
    expect(await moveEarlierOutbox(store)).toBe(0)
    const items = await store.all()
    expect(items.map(({ key, accountId, gardenId }) => [key, accountId, gardenId]).sort()).toEqual([
      [documentKey('f', null), null, 'g'],
      [entryKey(entry.id), null, 'g'],
    ])
  })
})

describe('what is let go in the moment in which it is written', () => {
  it('does not come back when the disk has caught up', async () => {
    const store = freshStore()
    const slow: OutboxStore = {
      ...store,
      put: async (items) => {
        await new Promise((resolve) => setTimeout(resolve, 5))
        await store.put(items)
      },
    }
    const { desk: at, shown, server, answer } = desk(slow)
    answer({ kind: 'none' })
    const entry = note('slip')
    void at.addEntries('g', [entry])
    await at.letGo(entryKey(entry.id))
    await rest()
    expect(shown()).toEqual([])
    expect(await store.all()).toEqual([])
    expect(server.entries.size).toBe(0)
  })
})

describe('accounts on one device', () => {
  it('send only what is their own', async () => {
    const store = freshStore()
    const server = fakeServer()
    let account: string | null = 'rowan'
    const window = openWindow(store, server.respond, { account: () => account })
    open.push(window)
    account = null
    await store.put([
      {
        kind: 'entry',
        key: 'entry x',
        gardenId: 'g',
        accountId: 'rowan',
        accountName: 'Rowan',
        state: { is: 'waiting' },
        entry: note('rowan’s'),
      },
    ])
    account = 'isla'
    await window.desk.addEntries('g', [note('isla’s')])
    await rest()
    expect([...server.entries.values()].map((entry) => entry.body)).toEqual([{ v: 1, text: 'isla’s' }])
    account = 'rowan'
    window.sync.wake()
    await rest()
    expect(server.entries.size).toBe(2)
  })

  it('send what is given over to them, which was nobody’s before', async () => {
    const store = freshStore()
    const server = fakeServer()
    const entry = note('nobody’s')
    const left = { kind: 'entry', key: entryKey(entry.id), gardenId: 'g', entry } as const
    await store.put([{ ...left, accountId: null, accountName: '', state: { is: 'waiting' } }])
    const window = openWindow(store, server.respond, { account: () => 'isla' })
    open.push(window)
    await rest()
    expect(server.entries.size).toBe(0)
    await window.sync.change(left.key, (before) => ({ ...before, accountId: 'isla' }))
    await rest()
    expect([...server.entries.keys()]).toEqual([entry.id])
    expect(window.shown()).toEqual([])
  })
})

describe('two who save the same document on one device', () => {
  it('each have their own save, under their own name', async () => {
    const store = freshStore()
    const server = fakeServer()
    let account = 'rowan'
    let isAway = true
    const window = openWindow(store, (send) => (isAway ? { kind: 'none' } : server.respond(send)), {
      account: () => account,
    })
    open.push(window)
    await window.desk.addSave(save('f', 0, { by: 'rowan' }))
    account = 'isla'
    isAway = false
    expect((await window.desk.addSave(save('f', 0, { by: 'isla' }))).outcome).toBe('saved')
    expect(server.versions.get('f')?.body).toEqual({ by: 'isla' })
    account = 'rowan'
    window.sync.wake()
    await rest()
    expect(states(window.shown())).toEqual(['clashed'])
    expect(server.versions.get('f')?.body).toEqual({ by: 'isla' })
  })
})

describe('a save of which the answer was lost', () => {
  it('and that is then held keeps its place: the next is based on what it may have made', async () => {
    const store = freshStore()
    const server = fakeServer()
    const script = ['lost', '500', '403']
    const window = openWindow(store, (send) => {
      const next = script.shift()
      if (next === '403') return refusal(403, 'garden/not-allowed')
      if (next === '500') return ours(500)
      const reply = server.respond(send)
      return next === 'lost' ? { kind: 'none' } : reply
    })
    open.push(window)
    void window.desk.addSave(save('f', 0, { n: 1 }))
    await rest()
    for (let i = 0; i < 2; i++) await window.runTimer()
    void window.desk.addSave(save('f', 0, { n: 2 }))
    await rest()
    for (let i = 0; i < 4; i++) {
      window.clock.now += 100_000
      window.sync.wake()
      await rest()
    }
    expect(server.versions.get('f')?.body).toEqual({ n: 2 })
    expect(window.shown()).toEqual([])
  })
})

describe('two windows', () => {
  it('share one outbox: each sends what both wrote, nothing twice at once, and both see it go', async () => {
    const store = freshStore()
    const server = fakeServer()
    const windows: Window[] = []
    let inFlight = 0
    let most = 0
    const transmit = async (send: Send) => {
      most = Math.max(most, ++inFlight)
      await new Promise((resolve) => setTimeout(resolve, 3))
      inFlight--
      return server.respond(send)
    }
    for (const holder of ['one', 'two'])
      windows.push(openWindow(store, transmit, { holder, others: () => windows }))
    open.push(...windows)
    await Promise.all(
      windows.flatMap((window, w) => [0, 1, 2].map((i) => window.desk.addEntries('g', [note(`${w}${i}`)]))),
    )
    for (let i = 0; i < 6; i++) {
      await rest()
      for (const window of windows) await window.runTimer()
    }
    expect(server.entries.size).toBe(6)
    expect(most).toBe(1)
    for (const window of windows) expect(window.shown()).toEqual([])
  })

  it('take over from one that died in the middle, once its lease is over', async () => {
    const store = freshStore()
    const server = fakeServer()
    expect(await store.lease('dead', 1_000_000, 1_090_000)).toBe(true)
    const window = openWindow(store, server.respond)
    open.push(window)
    await window.desk.addEntries('g', [note('a')])
    await rest()
    expect(server.entries.size).toBe(0)
    for (let i = 0; i < 95; i++) if (server.entries.size === 0) await window.runTimer()
    expect(server.entries.size).toBe(1)
  })
})

describe('a disk that is full', () => {
  it('is told, and what is written is sent from memory as long as the window lives', async () => {
    const store = freshStore()
    const full: OutboxStore = {
      ...store,
      put: () => Promise.reject(new DOMException('full', 'QuotaExceededError')),
      update: () => Promise.reject(new DOMException('full', 'QuotaExceededError')),
    }
    const { desk: at, server, storageFailures, answer, shown, runTimer } = desk(full)
    answer({ kind: 'none' })
    await at.addEntries('g', [note('a')])
    await rest()
    expect(storageFailures()).toBeGreaterThan(0)
    expect(shown()).toHaveLength(1)
    await runTimer()
    await at.addSave(save('f', 0, { name: 'one' }))
    await rest()
    expect([server.entries.size, server.versions.size]).toEqual([1, 1])
    expect(shown()).toEqual([])
  })
})

describe('whatever the server and the browser do', () => {
  it(
    'everything that was written is there once in the end, in order, or lies in the tray',
    async () => {
      const replyArb = fc.constantFrom(
        'ok',
        'ok',
        'lost',
        'none',
        'portal',
        '500',
        '429',
        '401',
        '403',
        '413',
      )
      const stepArb = fc.oneof(
        {
          weight: 4,
          arbitrary: fc.record({
            do: fc.constant('write' as const),
            n: fc.integer({ min: 1, max: 4 }),
            bad: fc.boolean(),
          }),
        },
        {
          weight: 2,
          arbitrary: fc.record({ do: fc.constant('save' as const), id: fc.constantFrom('f', 'g') }),
        },
        { weight: 2, arbitrary: fc.record({ do: fc.constant('reload' as const) }) },
        { weight: 2, arbitrary: fc.record({ do: fc.constant('wait' as const) }) },
      )
      await fc.assert(
        fc.asyncProperty(
          fc.array(stepArb, { minLength: 1, maxLength: 12 }),
          fc.array(replyArb, { maxLength: 30 }),
          async (steps, replies) => {
            const store = freshStore()
            const server = fakeServer()
            const script = [...replies]
            const transmit = (send: Send): Reply => {
              const next = script.shift() ?? 'ok'
              if (next === 'none') return { kind: 'none' }
              if (next === 'portal') return ours(200, '<html>')
              if (next === '413')
                return send.kind === 'entries' && send.items.length > 1 ? ours(413) : server.respond(send)
              if (next === '403') return refusal(403, 'garden/not-allowed')
              if (next === '401') return refusal(401, 'session/required')
              if (next === '429' || next === '500') return ours(Number(next))
              const reply = server.respond(send)
              return next === 'lost' ? { kind: 'none' } : reply
            }
            let window = openWindow(store, transmit)
            const written: string[] = []
            const refused: string[] = []
            const saved = new Map<string, number>()
            for (const step of steps) {
              if (step.do === 'write') {
                const entries = Array.from({ length: step.n }, (_, i) =>
                  note(step.bad && i === 0 ? 'bad' : 'good'),
                )
                await window.desk.addEntries('g', entries)
                for (const entry of entries)
                  (entry.kind === 'note.written' && entry.body.text === 'bad' ? refused : written).push(
                    entry.id,
                  )
              } else if (step.do === 'save') {
                const n = (saved.get(step.id) ?? 0) + 1
                saved.set(step.id, n)
                void window.desk.addSave(save(step.id, server.versions.get(step.id)?.version ?? 0, { n }))
                await rest()
              } else if (step.do === 'reload') {
                window.sync.stop()
                await rest()
                window = openWindow(store, transmit)
                await window.sync.start()
              } else await window.runTimer()
            }
            script.length = 0
            for (let i = 0; i < 6; i++) {
              window.clock.now += 100_000
              window.sync.wake()
              await rest()
            }
            window.sync.stop()
            expect([...server.entries.keys()].sort()).toEqual(written)
            for (const [id, n] of saved) expect(server.versions.get(id)?.body).toEqual({ n })
            const left = await store.all()
            expect(left.flatMap((item) => (item.kind === 'entry' ? [item.entry.id] : [])).sort()).toEqual(
              refused,
            )
            expect(states(left).every((state) => state === 'refused request/malformed')).toBe(true)
          },
        ),
        { numRuns: runs(25) },
      )
    },
    within(60_000),
  )
})

describe('ids', () => {
  const at = (msecs: number, seen: string | null = null) => {
    const time = { now: msecs }
    let kept = seen
    const clock = createClock({ read: () => kept, write: (id) => void (kept = id) }, () => time.now)
    return { clock, time, kept: () => kept }
  }
  const NOW = 1_760_000_000_000
  const HOUR = 3_600_000

  it('rise, however many are made in one instant and however the clock jumps back', () => {
    const { clock, time } = at(NOW)
    const made = Array.from({ length: 500 }, (_, i) => {
      time.now = NOW - (i % 7) * HOUR
      return clock.makeId()
    })
    expect([...made].sort()).toEqual(made)
    expect(new Set(made).size).toBe(500)
  })

  it('sort after everything that was seen, where this clock is behind the one there', () => {
    const { clock } = at(NOW)
    const theirs = Array.from({ length: 5 }, (_, i) => uuidv7({ msecs: NOW + HOUR, seq: 4_294_967_290 + i }))
    for (const id of theirs) {
      clock.see(id)
      expect(clock.makeId() > id).toBe(true)
    }
    expect(clock.makeId() > theirs.at(-1)!).toBe(true)
  })

  it('go on from what was seen before a reload, and tell the time again once it is past that', () => {
    const seen = uuidv7({ msecs: NOW + HOUR, seq: 7 })
    const { clock, time } = at(NOW, seen)
    expect(clock.makeId() > seen).toBe(true)
    time.now = NOW + 2 * HOUR
    const later = clock.makeId()
    expect(Number.parseInt(later.replaceAll('-', '').slice(0, 12), 16)).toBe(NOW + 2 * HOUR)
  })

  it('do not drag the error of a clock that was days ahead along once it has been set right', () => {
    const { clock, time } = at(NOW + 100 * 24 * HOUR)
    clock.makeId()
    time.now = NOW
    expect(Number.parseInt(clock.makeId().replaceAll('-', '').slice(0, 12), 16)).toBe(NOW)
  })

  it('of another window that its clock had days ahead do not drag this one along either; the server’s word does', () => {
    const { clock, time } = at(NOW + 100 * 24 * HOUR)
    clock.meet(uuidv7({ msecs: NOW + 100 * 24 * HOUR + 5, seq: 0 }))
    expect(clock.makeId() > uuidv7({ msecs: NOW + 100 * 24 * HOUR + 5, seq: 0 })).toBe(true)
    time.now = NOW
    expect(Number.parseInt(clock.makeId().replaceAll('-', '').slice(0, 12), 16)).toBe(NOW)
    const theirs = uuidv7({ msecs: NOW + 10 * 24 * HOUR, seq: 0 })
    clock.see(theirs)
    expect(clock.makeId() > theirs).toBe(true)
  })

  it('that were seen are kept when they are greater, and no others', () => {
    const id = (msecs: number, seq = 0) => uuidv7({ msecs, seq })
    const written: string[] = []
    const clock = createClock({ read: () => null, write: (one) => void written.push(one) }, () => NOW)
    const [low, high] = [id(NOW - HOUR), id(NOW - 1)]
    for (const one of [low, high, low, high]) clock.see(one)
    expect(written).toEqual([low, high])
    // Of one instant the later in its count; of an earlier one nothing is learnt.
    const met = id(NOW + 5, 9)
    clock.meet(met)
    clock.meet(id(NOW + 5, 3))
    clock.meet(id(NOW + 4, 50))
    const made = clock.makeId()
    expect(made > met).toBe(true)
    expect(made < id(NOW + 5, 12)).toBe(true)
    clock.meet(id(NOW + 5, 40))
    expect(clock.makeId() > id(NOW + 5, 40)).toBe(true)
  })

  it('that are no instants are not taken for any', () => {
    const { clock, kept } = at(NOW)
    clock.see('ffffffff-ffff-4fff-8fff-ffffffffffff')
    expect(kept()).toBeNull()
  })
})
