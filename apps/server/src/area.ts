import type {
  FastifyBaseLogger,
  FastifyInstance,
  RawReplyDefaultExpression,
  RawRequestDefaultExpression,
  RawServerDefault,
} from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import type { Pool } from 'pg'
import type { GuessLimit } from './accounts/guesses.ts'
import type { Announcements } from './database/announcements.ts'
import type { Held } from './held.ts'
import type { LineLimits } from './line-watch.ts'
import type { Folding } from './standing/folding.ts'
import type { Limit, Throttle } from './throttle.ts'

/** How much one account, one address and one garden may ask for. */
export interface Limits {
  readonly signIns: Limit
  readonly signUps: Limit
  readonly demoVisits: Limit
  /** Wrong passwords and codes, from one address at one account. */
  readonly guesses: GuessLimit
  readonly requests: Limit
  readonly photos: Limit
  readonly imports: Limit
  readonly gardens: number
  /**
   * Of all gardens that one account has made: bodies of documents and entries with their history, and photos.
   */
  readonly bytes: number
  readonly lines: LineLimits
}

export interface AppOptions {
  /** For gardens: under the role that sees one garden at a time. */
  readonly pool: Pool
  /** For accounts and sessions: under the role that sees no garden. */
  readonly accounts: Pool
  /** Where imports connect from their own thread. */
  readonly databaseUrl: string
  /** Gardens that this release has to fold anew. */
  readonly toFold?: readonly string[]
  readonly hasDemo: boolean
  /** Folder of the built web app; without one only the API is served. */
  readonly webRoot?: string
  readonly limits: Limits
  /** Addresses or networks of proxies whose word on the caller's address and protocol is taken. */
  readonly trustedProxies: readonly string[]
  readonly logLevel: 'warn' | 'info' | 'silent'
  /** To be served over TLS by this process itself. */
  readonly tls?: { readonly cert: Buffer; readonly key: Buffer }
}

/** What the areas share beside their options. */
export interface Shared extends AppOptions {
  readonly announcements: Announcements
  readonly folding: Folding
  readonly held: Held
  readonly throttle: Throttle
}

export type App = FastifyInstance<
  RawServerDefault,
  RawRequestDefaultExpression,
  RawReplyDefaultExpression,
  FastifyBaseLogger,
  ZodTypeProvider
>
/** One area of the server: registers its routes. */
export type Area = (app: App, shared: Shared) => Promise<void>
