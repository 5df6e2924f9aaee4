import type { Item } from './items.ts'
import type { OutboxStore } from './outbox-store.ts'

/** What the outbox holds, as this window knows it: on the disk, or in its memory where the disk fails. */
export interface KeptItems {
  readonly items: () => readonly Item[]
  /** Reads anew, and answers all. */
  readonly read: () => Promise<readonly Item[]>
  /** Reads anew, and tells what has changed. */
  readonly show: () => Promise<void>
  /** Seen at once; resolves when it is on the disk, or known not to be. */
  readonly add: (news: readonly Item[]) => Promise<void>
  readonly keep: (news: readonly Item[]) => Promise<void>
  readonly drop: (keys: readonly string[]) => Promise<void>
  readonly update: (key: string, change: (before: Item | undefined) => Item | undefined) => Promise<void>
  /** One that its writer has let go meanwhile does not come back. */
  readonly replace: (news: readonly Item[]) => Promise<void>
  readonly tellStorage: () => void
}

interface Told {
  readonly onItems: (items: readonly Item[]) => void
  /** Told with how many things the disk would not keep. */
  readonly onStorage: (unkept: number) => void
}

/** What an entry says is never another under its key: the same object for as long as it waits for the same writer. */
const asKnown = (known: Item | undefined, item: Item): Item =>
  known?.kind === 'entry' &&
  known.state.is === 'waiting' &&
  item.state.is === 'waiting' &&
  known.accountId === item.accountId
    ? known
    : item

export function createKeptItems(store: OutboxStore, told: Told): KeptItems {
  /** What the disk would not take: in this window alone until it is sent. */
  const unkept = new Map<string, Item>()
  /** What the disk would not let go of: done with all the same. */
  const gone = new Set<string>()
  let items: readonly Item[] = []
  const tellStorage = () => told.onStorage(unkept.size)

  const read = async (): Promise<readonly Item[]> => {
    // A disk that cannot be read has not lost what it told before.
    const kept = await store.all().catch(() => {
      tellStorage()
      return items
    })
    const known = new Map(items.map((item) => [item.key, item]))
    items = [
      ...kept.flatMap((item) =>
        unkept.has(item.key) || gone.has(item.key) ? [] : [asKnown(known.get(item.key), item)],
      ),
      ...unkept.values(),
    ]
    return items
  }
  let shown: readonly Item[] | null = null
  const tell = () => {
    // What comes back from the disk as it went there is no news: a screen is drawn again for none.
    const isSame = shown?.length === items.length && shown.every((item, i) => item === items[i])
    shown = items
    if (!isSame) told.onItems(items)
  }
  const show = async () => {
    await read()
    tell()
  }
  /** Over when everything that was handed in is on the disk, or known not to be. */
  let keeping: Promise<unknown> = Promise.resolve()
  const keep = (news: readonly Item[]): Promise<void> => {
    // Seen at once; until the disk has it, it is here.
    for (const item of news) unkept.set(item.key, item)
    const kept = store.put(news).then(
      () => news.forEach(({ key }) => unkept.delete(key)),
      // A full or forbidden disk: told, and kept here as long as this window is open.
      () => tellStorage(),
    )
    keeping = Promise.all([keeping, kept])
    return kept
  }
  const drop = async (keys: readonly string[]) => {
    const wasUnkept = unkept.size
    for (const key of keys) unkept.delete(key)
    // Also where the disk cannot be read any more, and what it told last is all that is known of it.
    items = items.filter(({ key }) => !keys.includes(key))
    await store.remove(keys).catch(() => {
      for (const key of keys) gone.add(key)
      tellStorage()
    })
    if (unkept.size !== wasUnkept) tellStorage()
  }
  const update = async (key: string, change: (before: Item | undefined) => Item | undefined) => {
    // Or the disk would be given the old one after the new.
    await keeping
    const held = unkept.get(key)
    if (!held && !gone.has(key)) {
      try {
        return await store.update(key, change)
      } catch {
        // Then it is changed here.
      }
    }
    const after = change(held ?? items.find((item) => item.key === key))
    unkept.delete(key)
    gone.add(key)
    if (after) unkept.set(after.key, after)
    tellStorage()
  }
  const replace = async (news: readonly Item[]) => {
    for (const item of news) await update(item.key, (before) => before && item)
  }
  return {
    items: () => items,
    read,
    show,
    add: async (news) => {
      const kept = keep(news)
      items = [...items, ...news]
      tell()
      await kept
      await show()
    },
    keep,
    drop,
    update,
    replace,
    tellStorage,
  }
}
