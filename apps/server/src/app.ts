import { existsSync } from 'node:fs'
import compress from '@fastify/compress'
import cookie from '@fastify/cookie'
import helmet from '@fastify/helmet'
import rateLimit from '@fastify/rate-limit'
import serveStatic from '@fastify/static'
import swagger from '@fastify/swagger'
import Fastify from 'fastify'
import type { FastifyInstance } from 'fastify'
import { jsonSchemaTransform, serializerCompiler, validatorCompiler } from 'fastify-type-provider-zod'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import { useAccess } from './access.ts'
import { accountRoutes } from './accounts/routes.ts'
import { documentRoutes } from './documents/routes.ts'
import type { App, AppOptions } from './area.ts'
import { AppError, useErrorShape } from './errors.ts'
import { exchangeRoutes } from './exchange/routes.ts'
import { fileRoutes } from './files/routes.ts'
import { gardenRoutes } from './gardens/routes.ts'
import { journalRoutes } from './journal/routes.ts'

const BODY_LIMIT_BYTES = 1024 * 1024

/** The whole server, not listening yet. The caller owns the pool. */
export async function buildApp(options: AppOptions): Promise<App> {
  const app: App = Fastify({
    logger: options.logLevel === 'silent' ? false : { level: options.logLevel },
    bodyLimit: BODY_LIMIT_BYTES,
    routerOptions: { maxParamLength: 200 },
  }).withTypeProvider<ZodTypeProvider>()
  app.setValidatorCompiler(validatorCompiler)
  app.setSerializerCompiler(serializerCompiler)
  useErrorShape(app as unknown as FastifyInstance)
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
    // Served as plain HTTP on the grower's own machine: a browser told to insist on HTTPS would lock them out.
    strictTransportSecurity: false,
  })
  await app.register(cookie)
  await app.register(compress)
  await app.register(rateLimit, { max: options.requestsPerMinute, timeWindow: '1 minute' })
  await app.register(swagger, {
    openapi: { info: { title: 'Klados', version: '1' } },
    transform: jsonSchemaTransform,
  })
  // Pages and assets are for anyone and come first: the rule of access holds for every route registered after it.
  if (options.webRoot && existsSync(options.webRoot)) await serveWeb(app, options.webRoot)
  useSameOrigin(app)
  useAccess(app as unknown as FastifyInstance, options.pool)

  app.get('/api/health', { config: { access: 'public', rateLimit: false } }, async () => {
    await options.pool.query('select 1')
    return { ok: true }
  })
  app.get('/api/openapi.json', { config: { access: 'public' } }, () => app.swagger())
  for (const area of [accountRoutes, gardenRoutes, documentRoutes, journalRoutes, fileRoutes, exchangeRoutes])
    await area(app, options)
  return app
}

/** Writes must come from our own pages: the cookie alone is not enough to speak for somebody. */
function useSameOrigin(app: App): void {
  app.addHook('onRequest', async (request) => {
    if (['GET', 'HEAD', 'OPTIONS'].includes(request.method)) return
    const { origin } = request.headers
    const site = request.headers['sec-fetch-site']
    const isOwn = origin === undefined ? site === undefined || site === 'same-origin' || site === 'none' : hostOf(origin) === request.headers.host // prettier-ignore
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
    web.addHook('onRoute', (route) => {
      route.config = { rateLimit: false, ...route.config }
    })
    await web.register(serveStatic, {
      root: webRoot,
      wildcard: false,
      // Else it would write its own cache-control over the one set below.
      cacheControl: false,
      // Assets carry a hash of their content in their names; the page itself is asked for anew each time.
      setHeaders: (reply, path) => {
        void reply.setHeader('cache-control', path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache') // prettier-ignore
      },
    })
    // Deep links are the web app's own affair: any page path gets the page.
    web.get('/*', (request, reply) => {
      if (request.url.startsWith('/api/')) throw new AppError('route/not-found', `There is nothing at ${request.url.slice(0, 200)}`) // prettier-ignore
      return reply.sendFile('index.html')
    })
  })
}
