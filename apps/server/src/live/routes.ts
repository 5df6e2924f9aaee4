import { API_HEADER, API_VERSION } from '@klados/contract'
import type { FastifyRequest } from 'fastify'
import { caller } from '../access.ts'
import { findSession } from '../accounts/queries.ts'
import { SESSION_COOKIE, hashToken } from '../accounts/session.ts'
import type { Area, Shared } from '../area.ts'
import type { News } from '../database/announcements.ts'
import { inGarden } from '../database/transaction.ts'
import { AppError } from '../errors.ts'
import { countSaves } from '../documents/queries.ts'
import { findRole } from '../gardens/queries.ts'
import { isGone, whenGone } from '../gone.ts'
import { lastNumber } from '../journal/queries.ts'

/** Proxies cut a line on which nothing is said for a minute. */
const BEAT_MS = 25_000
/** A browser holds one; these are many browsers. */
const MOST_OF_ACCOUNT = 20

const wantsEvents = (request: FastifyRequest) =>
  (request.headers.accept ?? '').split(',').some((one) => one.trim().startsWith('text/event-stream'))

/** A stream of what a garden gains, as server-sent events: numbers only, for the page to ask after. */
export const liveRoutes: Area = async (app, shared) => {
  const { pool, announcements, held } = shared
  const open = new Set<() => void>()
  const ofAccount = new Map<string, number>()
  const count = (accountId: string, by: 1 | -1) => {
    const now = (ofAccount.get(accountId) ?? 0) + by
    if (now > 0) ofAccount.set(accountId, now)
    else ofAccount.delete(accountId)
  }
  held.watch('streams', () => open.size + ofAccount.size)
  app.addHook('preClose', async () => open.forEach((end) => end()))

  app.get(
    '/api/gardens/:gardenId/events',
    { config: { access: 'viewer' }, compress: false },
    async (request, reply) => {
      if (!wantsEvents(request))
        throw new AppError('request/not-acceptable', 'This is a stream of events; ask for text/event-stream')
      const { gardenId, accountId } = caller(request)
      if ((ofAccount.get(accountId) ?? 0) >= MOST_OF_ACCOUNT)
        throw new AppError('request/too-many', 'So many windows listen already; ask now and then instead')
      const { raw } = reply
      const write = (event: string, data: object) =>
        raw.write(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`)
      // Heard from before the head is read, so that nothing falls between the two.
      let isBegun = false
      const early: News[] = []
      const say = (news: News) => {
        if (!isBegun) return void early.push(news)
        if (news === 'anything') write('again', {})
        else if (news === 'documents') write('documents', {})
        else write('entries', { to: news.entriesTo })
      }
      const end = () => raw.end()
      const beat = setInterval(() => {
        if (!isBegun) return
        raw.write(': \n\n')
        // Whoever is signed out or no member any more hears no further.
        void isStillIn(shared, request, gardenId).then((isIn) => {
          if (!isIn) end()
        })
      }, BEAT_MS)
      const deafen = announcements.hear(gardenId, say)
      count(accountId, 1)
      open.add(end)
      // Whatever it ends by: refused below, the window gone, the server told to stop.
      whenGone(reply, () => {
        clearInterval(beat)
        deafen()
        open.delete(end)
        count(accountId, -1)
      })
      const [head, saves] = await inGarden(pool, gardenId, async (client) => [
        await lastNumber(client, gardenId),
        await countSaves(client, gardenId),
      ])
      reply.hijack()
      if (isGone(reply) || raw.writableEnded) return
      raw.writeHead(200, {
        'content-type': 'text/event-stream',
        'cache-control': 'no-store',
        'x-accel-buffering': 'no',
        [API_HEADER]: API_VERSION,
      })
      isBegun = true
      write('saves', { count: saves })
      write('entries', { to: head })
      for (const news of early) say(news)
    },
  )
}

async function isStillIn(
  { pool, accounts }: Shared,
  request: FastifyRequest,
  gardenId: string,
): Promise<boolean> {
  const token = request.cookies[SESSION_COOKIE]
  try {
    const signedIn = token ? await findSession(accounts, hashToken(token)) : null
    return signedIn !== null && (await findRole(pool, gardenId, signedIn.accountId)) !== null
  } catch {
    // The database is away for a moment: nothing is told then, and it is asked again at the next beat.
    return true
  }
}
