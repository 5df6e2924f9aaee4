import type { FastifyBaseLogger, FastifyInstance, RawReplyDefaultExpression, RawRequestDefaultExpression, RawServerDefault } from 'fastify' // prettier-ignore
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import type { Pool } from 'pg'

export interface AppOptions {
  readonly pool: Pool
  readonly hasDemo: boolean
  /** Folder of the built web app; without one only the API is served. */
  readonly webRoot?: string
  readonly signInsPerMinute: number
  readonly requestsPerMinute: number
  readonly logLevel: 'warn' | 'info' | 'silent'
}

export type App = FastifyInstance<RawServerDefault, RawRequestDefaultExpression, RawReplyDefaultExpression, FastifyBaseLogger, ZodTypeProvider> // prettier-ignore
/** One area of the server: registers its routes. */
export type Area = (app: App, options: AppOptions) => Promise<void>
