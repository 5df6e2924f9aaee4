import pg from 'pg'

/** What a garden has gained: entries up to a number, or documents. After a break in the line, anything. */
export type News = { readonly entriesTo: number } | 'documents' | 'anything'
type Hearer = (news: News) => void

export interface Announcements {
  /** Tells every server on this database, this one too, a moment later and for many writes at once. */
  readonly announce: (gardenId: string, news: News) => void
  /** Hears of a garden until the answer is called. */
  readonly hear: (gardenId: string, hearer: Hearer) => () => void
  readonly close: () => Promise<void>
}

const CHANNEL = 'klados_news'
/** Writes of one garden within so long are told of once. */
const TOGETHER_MS = 40
const FIRST_AGAIN_MS = 500
const LONGEST_AGAIN_MS = 15_000
/** What is told of documents has no number, nor has what may be anything. */
const DOCUMENTS = 0
const ANYTHING = -1
const numberOf = (news: News) =>
  news === 'documents' ? DOCUMENTS : news === 'anything' ? ANYTHING : news.entriesTo
const newsOf = (number: number): News =>
  number === DOCUMENTS ? 'documents' : number === ANYTHING ? 'anything' : { entriesTo: number }

/**
 * News between servers by LISTEN and NOTIFY: garden and number only, for whoever hears of it to ask for itself. One
 * connection of its own listens, from the first hearer on.
 */
export function createAnnouncements(databaseUrl: string, pool: pg.Pool): Announcements {
  const hearers = new Map<string, Set<Hearer>>()
  const waiting = new Map<string, number>()
  let client: pg.Client | null = null
  let again: NodeJS.Timeout | undefined
  let tries = 0
  let isClosed = false

  const tell = (gardenId: string, news: News) => hearers.get(gardenId)?.forEach((hearer) => hearer(news))

  const listen = async () => {
    const mine = new pg.Client({ connectionString: databaseUrl, keepAlive: true })
    client = mine
    const lost = () => {
      if (client !== mine || isClosed) return
      client = null
      void mine.end().catch(() => undefined)
      again = setTimeout(() => void listen(), Math.min(LONGEST_AGAIN_MS, FIRST_AGAIN_MS * 2 ** tries++))
      again.unref()
    }
    mine.on('error', lost)
    mine.on('end', lost)
    mine.on('notification', ({ payload = '' }) => {
      const [gardenId = '', number] = payload.split(' ')
      tell(gardenId, newsOf(Number(number)))
    })
    try {
      await mine.connect()
      await mine.query(`listen ${CHANNEL}`)
    } catch {
      return lost()
    }
    // What was told before the line stood, the first time too, is not told again.
    for (const gardenId of hearers.keys()) tell(gardenId, 'anything')
    tries = 0
  }

  const send = (key: string) => {
    const number = waiting.get(key)
    waiting.delete(key)
    const [gardenId] = key.split(' ')
    // Whoever misses it reads it when they next ask: nobody's write fails for it.
    if (number !== undefined && !isClosed)
      void pool.query(`select pg_notify($1, $2)`, [CHANNEL, `${gardenId} ${number}`]).catch(() => undefined)
  }

  return {
    announce: (gardenId, news) => {
      const number = numberOf(news)
      const key = `${gardenId} ${Math.min(1, number)}`
      const before = waiting.get(key)
      waiting.set(key, Math.max(before ?? number, number))
      if (before === undefined) setTimeout(send, TOGETHER_MS, key)
    },
    hear: (gardenId, hearer) => {
      if (client === null && again === undefined && !isClosed) void listen()
      const all = hearers.get(gardenId) ?? new Set()
      hearers.set(gardenId, all.add(hearer))
      return () => {
        all.delete(hearer)
        if (all.size === 0 && hearers.get(gardenId) === all) hearers.delete(gardenId)
      }
    },
    close: async () => {
      isClosed = true
      clearTimeout(again)
      await client?.end().catch(() => undefined)
    },
  }
}
