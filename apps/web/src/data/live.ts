import { api } from './api.ts'
import { readOn } from './journal.ts'
import type { AppStore } from './store.ts'

/** What a garden has gained, as the stream or another window tells it. */
type News = { readonly gardenId: string } & (
  { readonly what: 'entries'; readonly to: number } | { readonly what: 'documents' | 'again' }
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
    if (news.gardenId !== gardenId || status === 'reading') return
    if (news.what === 'again' || (news.what === 'entries' && news.to > last)) void store.dispatch(readOn())
    if (news.what === 'entries') return
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
    let wasCut = false
    const open = () => {
      stream = new EventSource(`/api/gardens/${gardenId}/events`)
      stream.addEventListener('entries', ({ data }: MessageEvent<string>) => {
        clearInterval(asking)
        asking = undefined
        tell({ gardenId, what: 'entries', to: (JSON.parse(data) as { to: number }).to })
        // Entries go by their number; what was saved while the line was cut has none.
        if (wasCut) tell({ gardenId, what: 'documents' })
        wasCut = false
      })
      for (const what of ['documents', 'again'] as const)
        stream.addEventListener(what, () => tell({ gardenId, what }))
      stream.addEventListener('error', () => {
        wasCut = true
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
