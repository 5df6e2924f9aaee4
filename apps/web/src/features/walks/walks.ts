/** Short walks through the demo garden, each of four steps. */
export const WALKS = {
  row: ['open', 'verdict', 'change', 'sheet'],
  cut: ['open', 'ask', 'why', 'otherwise'],
  tie: ['list', 'open', 'look', 'record'],
} as const
export type WalkId = keyof typeof WALKS
export const walkIds = Object.keys(WALKS) as WalkId[]

/** What the step is about: parts of the screens bear it as `data-walk`, and are marked while it is the step's turn. */
type Mark = 'verdict' | 'figures' | 'question' | 'tie'

/** How one sees that a step was done. The rest are read, and gone on from by a press. */
interface Step {
  readonly mark?: Mark
  readonly isDone?: (at: Location) => boolean
}

const isThere = (token: string) => document.querySelector(`[data-walk~="${token}"]`) !== null
const isAt = (end: RegExp) => (at: Location) => end.test(at.pathname)

const STEPS: { readonly [id in WalkId]: Readonly<Record<(typeof WALKS)[id][number], Step>> } = {
  row: {
    open: { isDone: isAt(/\/frame(\/[^/]+)?$/) },
    verdict: { mark: 'verdict' },
    change: { mark: 'figures', isDone: () => isThere('changed') },
    sheet: { mark: 'verdict', isDone: isAt(/\/sheet$/) },
  },
  cut: {
    open: { isDone: (at) => /\/wood$/.test(at.pathname) && new URLSearchParams(at.search).has('on') },
    ask: { isDone: () => isThere('question') },
    why: { mark: 'question', isDone: () => isThere('opened') },
    otherwise: { mark: 'question', isDone: () => isThere('otherwise') },
  },
  tie: {
    list: { isDone: isAt(/\/round$/) },
    open: { isDone: (at) => /\/wood$/.test(at.pathname) && new URLSearchParams(at.search).has('tie') },
    look: { mark: 'tie' },
    record: { mark: 'tie', isDone: () => isThere('recorded') },
  },
}

export const stepOf = (id: WalkId, n: number): Step | undefined =>
  (STEPS[id] as Readonly<Record<string, Step>>)[WALKS[id][n] ?? '']

export interface Walking {
  readonly id: WalkId
  /** From 0; the number of steps when all are done. */
  readonly step: number
}

/** A walk outlives the screens that it leads through, in this window; one that was ended is not proposed again here. */
const WALKING = 'klados.walk'
const ENDED = 'klados.walks-ended'
const listeners = new Set<() => void>()
const tell = () => listeners.forEach((one) => one())

export function onWalking(listener: () => void): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

let last: { readonly text: string | null; readonly walking: Walking | null } = { text: null, walking: null }
/** The same object as long as nothing has changed. */
export function walkingNow(): Walking | null {
  const text = sessionStorage.getItem(WALKING)
  if (text !== last.text) last = { text, walking: read(text) }
  return last.walking
}
function read(text: string | null): Walking | null {
  const [id, step] = (text ?? '').split(' ')
  const found = walkIds.find((one) => one === id)
  return found ? { id: found, step: Number(step) || 0 } : null
}

export function setWalking(walking: Walking | null): void {
  if (walking) sessionStorage.setItem(WALKING, `${walking.id} ${walking.step}`)
  else sessionStorage.removeItem(WALKING)
  tell()
}

export const endedWalks = (): string => localStorage.getItem(ENDED) ?? ''
export const isEnded = (id: WalkId, ended = endedWalks()): boolean => ended.split(' ').includes(id)

/** Over, at its end or before it. */
export function endWalk(id: WalkId): void {
  if (!isEnded(id)) localStorage.setItem(ENDED, `${endedWalks()} ${id}`.trim())
  setWalking(null)
}
