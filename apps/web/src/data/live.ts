import { api } from './api.ts'
import { AREAS } from './copy/paths.ts'
import { readOn } from './read-journal.ts'
import type { AppStore } from './store.ts'

/** What a garden has gained, as the stream or another window tells it. */
type News = { readonly gardenId: string } & (
  | { readonly what: 'entries'; readonly to: number }
  | { readonly what: 'saves'; readonly count: number }
  | { readonly what: 'documents' | 'again' }
)

/** Where there is no stream the server is asked instead, as long as somebody looks. */
const ASK_EVERY_MS = 30_000
/** Documents are asked for once for whatever is saved within so long. */
const TOGETHER_MS = 300

/**
 * Hears what others write while somebody looks. One window of a browser holds the stream of a garden and tells the
 * others; the next takes over when it goes or is hidden.
 */
export function watchLive(store: AppStore): void {
  const channel = 'BroadcastChannel' in globalThis ? new BroadcastChannel('klados-live') : null
  let documents: ReturnType<typeof setTimeout> | undefined
  const hear = (news: News) => {
    const { gardenId, last, status } = store.getState().journal
    if (news.gardenId !== gardenId) return
    const isMore = news.what === 'again' || (news.what === 'entries' && news.to > last)
    if (isMore && status !== 'reading') void store.dispatch(readOn())
    if (news.what === 'entries') return
    if (news.what === 'saves') return void whenRead(store, gardenId, (saves) => saves !== news.count && ask())
    ask()
  }
  const ask = () => {
    documents ??= setTimeout(() => {
      documents = undefined
      store.dispatch(api.util.invalidateTags(['Garden', 'Place', 'Frame', 'Plant', 'Stores']))
    }, TOGETHER_MS)
  }
  const tell = (news: News) => {
    hear(news)
    channel?.postMessage(news)
  }
  if (channel) channel.onmessage = ({ data }: MessageEvent<News>) => hear(data)

  let held: { readonly gardenId: string; readonly letGo: () => void } | null = null
  const look = () => {
    const { gardenId, status } = store.getState().journal
    const wanted = document.visibilityState === 'visible' && status !== 'empty' ? gardenId : null
    if (wanted === (held?.gardenId ?? null)) return
    held?.letGo()
    held = wanted === null ? null : { gardenId: wanted, letGo: hold(wanted, tell) }
  }
  store.subscribe(look)
  document.addEventListener('visibilitychange', look)
  look()
}

const DOCUMENTS = AREAS.filter((area) => area !== 'garden')
/** A server that does not read its documents out in so many tries is asked again when it is back. */
const TRIES = 60

/** Tells how many saves the documents that were read here have come to, once all of them are read. */
function whenRead(store: AppStore, gardenId: string, then: (saves: number) => void, tries = TRIES): void {
  const state = store.getState()
  const read = DOCUMENTS.map((area) => api.endpoints[area as 'places'].select(gardenId)(state))
  if (read.every(({ isSuccess }) => isSuccess))
    then(read.reduce((sum, { data }) => sum + data!.reduce((all, { version }) => all + version, 0), 0))
  else if (tries > 0 && state.journal.gardenId === gardenId)
    setTimeout(() => whenRead(store, gardenId, then, tries - 1), TOGETHER_MS)
}

/** Holds a garden's stream while no other window does; until the answer is called. */
function hold(gardenId: string, tell: (news: News) => void): () => void {
  const end = new AbortController()
  const { signal } = end
  const listen = () => listenUntil(signal, gardenId, tell)
  // Without locks each window has a stream of its own.
  if (!('locks' in navigator)) void listen()
  else void navigator.locks.request(`klados-live ${gardenId}`, { signal }, listen).catch(() => undefined)
  return () => end.abort()
}

function listenUntil(signal: AbortSignal, gardenId: string, tell: (news: News) => void): Promise<void> {
  return new Promise((resolve) => {
    let stream: EventSource | null = null
    let asking: ReturnType<typeof setInterval> | undefined
    const open = () => {
      stream = new EventSource(`/api/gardens/${gardenId}/events`)
      stream.addEventListener('entries', ({ data }: MessageEvent<string>) => {
        clearInterval(asking)
        asking = undefined
        tell({ gardenId, what: 'entries', to: (JSON.parse(data) as { to: number }).to })
      })
      // What was saved before the line stood, or while it was cut, nobody has told.
      stream.addEventListener('saves', ({ data }: MessageEvent<string>) =>
        tell({ gardenId, what: 'saves', count: (JSON.parse(data) as { count: number }).count }),
      )
      for (const what of ['documents', 'again'] as const)
        stream.addEventListener(what, () => tell({ gardenId, what }))
      stream.addEventListener('error', () => {
        asking ??= setInterval(() => {
          tell({ gardenId, what: 'again' })
          // The browser tries again by itself, unless it was refused: then once in a while.
          if (stream?.readyState === EventSource.CLOSED) open()
        }, ASK_EVERY_MS)
      })
    }
    open()
    signal.addEventListener('abort', () => {
      clearInterval(asking)
      stream?.close()
      resolve()
    })
  })
}
