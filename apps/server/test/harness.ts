import { usualConditions } from '@klados/core/design'
import { fileURLToPath } from 'node:url'
import type { Session } from '@klados/contract'
import pg from 'pg'
import { v7 as uuidv7 } from 'uuid'
import { inject } from 'vitest'
import { migrate } from '../src/database/migrate.ts'
import { buildApp } from '../src/app.ts'
import type { App } from '../src/area.ts'
import { createAccountsPool, createAppPool } from '../src/database/pool.ts'
import type { AppOptions, Limits } from '../src/area.ts'
import { noLimits } from '../src/limits.ts'

export interface Harness {
  readonly app: App
  readonly pool: pg.Pool
  readonly accounts: pg.Pool
  /** What the app was built with, to build another like it on the same database. */
  readonly options: AppOptions
  readonly ownerUrl: string
  readonly close: () => Promise<void>
}

const at = (url: string, database: string) =>
  Object.assign(new URL(url), { pathname: `/${database}` }).toString()

interface Urls {
  readonly ownerUrl: string
  /** Of the web login. */
  readonly databaseUrl: string
}

/** A migrated database of its own in the cluster that all tests share. */
async function freshDatabase(): Promise<Urls> {
  const name = `t_${uuidv7().replaceAll('-', '')}`
  const admin = new pg.Client({ connectionString: inject('adminUrl') })
  await admin.connect()
  await admin.query(`create database ${name} template ${inject('template')}`)
  await admin.end()
  return { ownerUrl: at(inject('adminUrl'), name), databaseUrl: at(inject('webLogin'), name) }
}

/** An app on a fresh, migrated database, serving under the web login as in real life. */
export async function startHarness(
  options: { hasDemo?: boolean; limits?: Partial<Limits>; trustedProxies?: string[]; urls?: Urls } = {},
): Promise<Harness> {
  const { ownerUrl, databaseUrl } = options.urls ?? (await freshDatabase())
  // A database that a test brings along may be empty yet.
  if (options.urls) await migrate(ownerUrl, fileURLToPath(new URL('../migrations', import.meta.url)))
  const pool = createAppPool(databaseUrl)
  const accounts = createAccountsPool(databaseUrl)
  const appOptions: AppOptions = {
    pool,
    accounts,
    databaseUrl,
    hasDemo: options.hasDemo ?? false,
    limits: { ...noLimits, ...options.limits },
    trustedProxies: options.trustedProxies ?? [],
    logLevel: 'silent',
  }
  const app = await buildApp(appOptions)
  await app.ready()
  return {
    app,
    pool,
    accounts,
    options: appOptions,
    ownerUrl,
    close: async () => {
      await app.close()
      await Promise.all([pool.end(), accounts.end()])
    },
  }
}

export interface Person {
  readonly accountId: string
  readonly email: string
  readonly gardenId: string
  readonly cookie: string
}

let people = 0

/** Signs somebody up with a garden of their own. */
export async function signUp(app: App): Promise<Person> {
  const email = `grower${++people}.${process.pid}@example.org`
  const reply = await app.inject({
    method: 'POST',
    url: '/api/accounts',
    payload: { name: 'Grower', email, password: 'tie it loosely', gardenName: 'Home' },
  })
  if (reply.statusCode !== 201) throw new Error(`sign-up failed: ${reply.body}`)
  const cookie = cookieOf(reply.headers['set-cookie'])
  const session = (await app.inject({ url: '/api/session', headers: { cookie } })).json<Session>()
  return { accountId: session.account!.id, email, gardenId: session.memberships[0]!.gardenId, cookie }
}

export function cookieOf(header: string | string[] | undefined): string {
  return String(Array.isArray(header) ? header[0] : header).split(';')[0]!
}

export async function addMember(
  app: App,
  owner: Person,
  member: Person,
  role: 'viewer' | 'grower' | 'owner',
): Promise<void> {
  await invite(app, owner, member, role)
  const reply = await app.inject({
    method: 'POST',
    url: '/api/invitations/accept',
    headers: { cookie: member.cookie },
    payload: { gardenId: owner.gardenId },
  })
  if (reply.statusCode !== 204) throw new Error(`joining failed: ${reply.body}`)
}

/** Invites somebody, and answers the link's token. */
export async function invite(
  app: App,
  owner: Person,
  { email }: { readonly email: string },
  role: 'viewer' | 'grower' | 'owner',
): Promise<string> {
  const reply = await app.inject({
    method: 'POST',
    url: `/api/gardens/${owner.gardenId}/members`,
    headers: { cookie: owner.cookie },
    payload: { email, role },
  })
  if (reply.statusCode !== 201) throw new Error(`inviting failed: ${reply.body}`)
  return reply.json<{ path: string }>().path.split('.')[1]!
}

export const wallBody = {
  name: 'South wall',
  kind: 'wall',
  widthM: 9.2,
  usableHeightM: 1.65,
  firstForkM: 0.3,
  facingDeg: 180,
  surface: 'brick',
  viewingEnd: 'left',
  avoid: [],
  riseM: 0,
  uprights: null,
  levels: null,
  fence: null,
  conditions: usualConditions,
  photo: null,
}

/** Two level wires, as a client saves them. */
export const tiersDesign = {
  pattern: {
    kind: 'tiers',
    levels: [
      { id: 't0', heightM: 0.5 },
      { id: 't1', heightM: 1 },
    ],
    maxSupportSpacingM: 2,
  },
  moveToleranceM: 0.05,
  dragged: {},
  ids: {},
  snap: 'none',
  wireId: 'stainless-2',
  tensionN: 150,
  rolls: [{ lengthM: 25, price: 14 }],
  light: null,
  endWrapM: 0.15,
  handlingLengthM: 20,
  fixingId: 'eye-100',
  setC: 12,
  plantKindId: 'pear',
  repeat: 1,
  standOffM: null,
  plantOffM: null,
  feetBallastKg: 0,
  unknown: [],
  boughtPrice: null,
}

export async function savePlace(app: App, person: Person, placeId: string = uuidv7()): Promise<string> {
  const reply = await app.inject({
    method: 'PUT',
    url: `/api/gardens/${person.gardenId}/places/${placeId}`,
    headers: { cookie: person.cookie },
    payload: { saveId: uuidv7(), basedOn: 0, body: wallBody },
  })
  if (reply.statusCode !== 200) throw new Error(`saving a place failed: ${reply.body}`)
  return placeId
}

export async function savePlant(app: App, person: Person, placeId: string): Promise<string> {
  const plantId = uuidv7()
  const reply = await app.inject({
    method: 'PUT',
    url: `/api/gardens/${person.gardenId}/plants/${plantId}`,
    headers: { cookie: person.cookie },
    payload: { saveId: uuidv7(), basedOn: 0, body: plantBody(placeId) },
  })
  if (reply.statusCode !== 200) throw new Error(`saving a plant failed: ${reply.body}`)
  return plantId
}

/** A pear as its grower writes it down. */
export const plantBody = (placeId: string) => ({
  placeId,
  name: 'Pear',
  kindId: 'pear',
  xM: 1,
  startNodeId: null,
  plantedOn: '2024-11-20',
  system: null,
  rootstock: '',
  graftHeightM: null,
  motherId: null,
  formPlanted: null,
  leads: [],
  budGoal: null,
  ended: null,
})

export function noteEntry(placeId: string, rest: Record<string, unknown> = {}) {
  return {
    id: uuidv7(),
    placeId,
    plantId: null,
    kind: 'note.written',
    at: '2026-03-01',
    recordedAt: '2026-03-01T12:00:00.000Z',
    supersedes: null,
    body: { v: 1, text: 'Buds moving.' },
    ...rest,
  }
}
