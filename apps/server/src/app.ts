import { existsSync } from 'node:fs'
import type { Duplex } from 'node:stream'
import { constants } from 'node:zlib'
import compress from '@fastify/compress'
import cookie from '@fastify/cookie'
import helmet from '@fastify/helmet'
import serveStatic from '@fastify/static'
import swagger from '@fastify/swagger'
import Fastify from 'fastify'
import type { FastifyInstance, FastifyReply } from 'fastify'
import { jsonSchemaTransform, serializerCompiler, validatorCompiler } from 'fastify-type-provider-zod'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import { useAccess } from './access.ts'
import { accountRoutes } from './accounts/routes.ts'
import { demoRoutes } from './demo/routes.ts'
import { documentRoutes } from './documents/routes.ts'
import type { App, AppOptions, Shared } from './area.ts'
import { ACCOUNT_HEADER, API_HEADER, API_VERSION, errorStatus } from '@klados/contract'
import { forgetTurns } from './accounts/queries.ts'
import { AppError, describeError, useErrorShape } from './errors.ts'
import { useShallowJson } from './json-body.ts'
import { createAnnouncements } from './database/announcements.ts'
import { createThrottle } from './throttle.ts'
import { exchangeRoutes } from './exchange/routes.ts'
import { expirePieces } from './files/pieces.ts'
import { fileRoutes } from './files/routes.ts'
import { gardenRoutes } from './gardens/routes.ts'
import { createHeld } from './held.ts'
import type { Held } from './held.ts'
import { watchLines } from './line-watch.ts'
import { liveRoutes } from './live/routes.ts'
import { journalRoutes } from './journal/routes.ts'
import { inSlices } from './outgoing.ts'
import { createFolding } from './standing/folding.ts'
import { standingRoutes } from './standing/routes.ts'

declare module 'fastify' {
  interface FastifyInstance {
    /** What is held for callers just now. */
    held: Held
  }
}

const BODY_LIMIT_BYTES = 1024 * 1024
/** The longest file over the slowest line that is no trickle; what trickles is ended long before, see `watchLines`. */
const REQUEST_MS = 2 * 3_600_000
const FORGET_TURNS_MS = 3_600_000
const LONG_BYTES = 256 * 1024

/**
 * Fastify types a server over TLS as another kind; nothing of ours asks which it is.
 */
const tlsOf = ({ tls }: AppOptions): object => (tls ? { https: { cert: tls.cert, key: tls.key } } : {})

/** The whole server, not listening yet. The caller owns the pools. */
export async function buildApp(options: AppOptions): Promise<App> {
  const announcements = createAnnouncements(options.databaseUrl, options.pool)
  const folding = createFolding(options.pool, options.databaseUrl)
  const held = createHeld()
  const shared: Shared = {
    ...options,
    throttle: createThrottle(options.accounts),
    announcements,
    folding,
    held,
  }
  const app: App = Fastify({
    ...tlsOf(options),
    logger: options.logLevel === 'silent' ? false : { level: options.logLevel },
    bodyLimit: BODY_LIMIT_BYTES,
    requestTimeout: REQUEST_MS,
    trustProxy: options.trustedProxies.length > 0 ? [...options.trustedProxies] : false,
    routerOptions: { maxParamLength: 200 },
    // An address that cannot be decoded never comes to a route: refused in the same shape all the same.
    frameworkErrors: (error, _request, reply) => {
      const { code, body } = describeError(error)
      void (reply as FastifyReply).status(errorStatus[code]).header(API_HEADER, API_VERSION).send(body)
    },
    clientErrorHandler: answerBrokenRequest,
  }).withTypeProvider<ZodTypeProvider>()
  app.setValidatorCompiler(validatorCompiler)
  app.setSerializerCompiler(serializerCompiler)
  app.decorate('held', held)
  watchLines(app, options.limits.lines)
  useErrorShape(app as unknown as FastifyInstance)
  useShallowJson(app as unknown as FastifyInstance)
  await app.register(helmet, {
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        workerSrc: ["'self'", 'blob:'],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    // Served as plain HTTP on the grower's own machine: a browser told to insist on HTTPS would lock them
    // out.
    strictTransportSecurity: false,
  })
  await app.register(cookie)
  // Pressed lightly: answers are made for one reader each, and a tenth less on the line is not worth five times the work.
  await app.register(compress, { brotliOptions: { params: { [constants.BROTLI_PARAM_QUALITY]: 1 } } })
  useSlices(app)
  await app.register(swagger, {
    openapi: { info: { title: 'Klados', version: '1' } },
    transform: jsonSchemaTransform,
  })
  // Pages and assets are for anyone and come first: the rule of access holds for every route registered after
  // it.
  if (options.webRoot && existsSync(options.webRoot)) await serveWeb(app, options.webRoot)
  useSameOrigin(app)
  useOwnMark(app)
  useAccess(app as unknown as FastifyInstance, shared)

  app.get('/api/health', { config: { access: 'public', isUncounted: true } }, async () => {
    await options.pool.query('select 1')
    return { ok: true }
  })
  app.get('/api/openapi.json', { config: { access: 'public' } }, () => app.swagger())
  for (const area of [
    accountRoutes,
    demoRoutes,
    gardenRoutes,
    documentRoutes,
    journalRoutes,
    fileRoutes,
    exchangeRoutes,
    liveRoutes,
    standingRoutes,
  ])
    await area(app, shared)
  // Whoever asks first after a release would wait for thirty years to be read.
  app.addHook('onListen', () => void folding.renew(options.toFold ?? []))
  const forgetting = setInterval(
    () =>
      void Promise.all([forgetTurns(options.accounts), expirePieces(options.pool)]).catch(() => undefined),
    FORGET_TURNS_MS,
  )
  forgetting.unref()
  app.addHook('onClose', async () => {
    clearInterval(forgetting)
    await announcements.close()
    await folding.close()
  })
  return app
}

/**
 * A request that is no HTTP, or whose head is too large, has no reply to hang hooks on: the same shape, by
 * hand.
 */
function answerBrokenRequest(error: Error & { code?: string }, socket: Duplex): void {
  if (error.code === 'ECONNRESET' || !socket.writable) return void socket.destroy()
  const [status, reason] =
    error.code === 'HPE_HEADER_OVERFLOW'
      ? [431, 'Request Header Fields Too Large']
      : error.code === 'ERR_HTTP_REQUEST_TIMEOUT'
        ? [408, 'Request Timeout']
        : [400, 'Bad Request']
  const body = JSON.stringify({
    error: { code: 'request/malformed', message: 'The request could not be read' },
  })
  socket.end(
    `HTTP/1.1 ${status} ${reason}\r\ncontent-type: application/json\r\n${API_HEADER}: ${API_VERSION}\r\ncontent-length: ${body.length}\r\nconnection: close\r\n\r\n${body}`,
  )
}

/** What is long goes out in slices: what is written at once shows nothing of how far a slow reader has come. */
function useSlices(app: App): void {
  app.addHook('onSend', async (_, __, payload) => {
    const isLong = (typeof payload === 'string' || Buffer.isBuffer(payload)) && payload.length > LONG_BYTES
    return isLong ? inSlices(Buffer.from(payload as string)) : payload
  })
}

/**
 * Every answer of the API says that it is ours, and that nobody on the way may keep it unless it says so
 * itself.
 */
function useOwnMark(app: App): void {
  app.addHook('onSend', async (request, reply) => {
    if (!request.url.startsWith('/api/')) return
    void reply.header(API_HEADER, API_VERSION)
    if (request.signedIn) void reply.header(ACCOUNT_HEADER, request.signedIn.accountId)
    if (!reply.hasHeader('cache-control')) void reply.header('cache-control', 'no-store')
  })
}

/** Writes must come from our own pages: the cookie alone is not enough to speak for somebody. */
function useSameOrigin(app: App): void {
  app.addHook('onRequest', async (request) => {
    if (['GET', 'HEAD', 'OPTIONS'].includes(request.method)) return
    const { origin } = request.headers
    const site = request.headers['sec-fetch-site']
    const isOwn =
      origin === undefined
        ? site === undefined || site === 'same-origin' || site === 'none'
        : hostOf(origin) === request.host
    if (!isOwn) throw new AppError('request/foreign-origin', 'This request came from another site')
  })
}

function hostOf(origin: string): string | null {
  try {
    return new URL(origin).host
  } catch {
    return null
  }
}

async function serveWeb(app: App, webRoot: string): Promise<void> {
  await app.register(async (web) => {
    await web.register(serveStatic, {
      root: webRoot,
      wildcard: false,
      // What the build has laid beside them, where the browser takes it.
      preCompressed: true,
      // Else it would write its own cache-control over the one set below.
      cacheControl: false,
      // Assets carry a hash of their content in their names; the page itself is asked for anew each time.
      setHeaders: (reply, path) => {
        void reply.setHeader(
          'cache-control',
          path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache',
        )
      },
    })
    // Deep links are the web app's own affair: any page path gets the page. A missing asset does not, or a
    // script tag would be handed HTML, and caches would keep it.
    web.get('/*', (request, reply) => {
      const [path = ''] = request.url.split('?')
      if (path.startsWith('/api/') || path.startsWith('/assets/') || /\.[a-z0-9]{2,5}$/i.test(path))
        throw new AppError('route/not-found', `There is nothing at ${path.slice(0, 200)}`)
      return reply.sendFile('index.html')
    })
  })
}
