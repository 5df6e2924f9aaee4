import { standardCatalogue } from '@klados/core/catalogue'
import { startDesign } from '@klados/core/design'
import type { PatternKind, StartPlace } from '@klados/core/frame'
import type { Page } from '@playwright/test'

let count = 0
export const PASSWORD = 'loose ties hold longest'
/** Where the API of a garden is, by where its screens are. */
export const apiOf = (garden: string): string => `/api${garden.replace('/g/', '/gardens/')}`
export const newEmail = () => `grower.${process.pid}.${Date.now()}.${++count}@example.org`

/** Signs somebody new up through the API, in this page's own session; shows no page yet. */
export async function signUp(page: Page): Promise<{ email: string; garden: string }> {
  const email = newEmail()
  const reply = await page.request.post('/api/accounts', {
    data: { name: 'Test grower', email, password: PASSWORD, gardenName: 'Back yard' },
  })
  if (!reply.ok()) throw new Error(await reply.text())
  return { email, garden: await ownGarden(page) }
}

/** Where the screens of the garden are that whoever is signed in here has. */
async function ownGarden(page: Page): Promise<string> {
  const session = (await (await page.request.get('/api/session')).json()) as {
    memberships: { gardenId: string }[]
  }
  return `/g/${session.memberships[0]!.gardenId}`
}

/** Invites whoever is signed in at `guest` into the garden of `page`, and has them accept. */
export async function join(
  page: Page,
  guest: Page,
  garden: string,
  role: 'viewer' | 'grower',
): Promise<void> {
  const { account } = (await (await guest.request.get('/api/session')).json()) as {
    account: { email: string }
  }
  const gardenId = garden.replace('/g/', '')
  const data = { email: account.email, role }
  for (const reply of [
    await page.request.post(`/api/gardens/${gardenId}/members`, { data }),
    await guest.request.post('/api/invitations/accept', { data: { gardenId } }),
  ])
    if (!reply.ok()) throw new Error(await reply.text())
}

/** Signs in to the demo garden through the API; shows no page yet. */
export async function enterDemo(page: Page): Promise<string> {
  const reply = await page.request.post('/api/session/demo')
  if (!reply.ok()) throw new Error(await reply.text())
  return ownGarden(page)
}

/** Shows the places of the demo garden. */
export async function openDemo(page: Page): Promise<string> {
  const garden = await enterDemo(page)
  await page.goto(`${garden}/places`)
  await page.getByRole('heading', { name: 'Lane fence' }).waitFor()
  return garden
}

const yardWall = {
  name: 'Yard wall',
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
  photo: null,
  conditions: {
    soil: 'loam',
    frostDepthM: 0.5,
    coldestC: -15,
    hottestC: 35,
    windMPerS: 22,
    snowPa: 0,
    iceMm: 0,
  },
}

const saveNew = async (page: Page, garden: string, area: string, body: object): Promise<string> => {
  const id = crypto.randomUUID()
  const reply = await page.request.put(`${apiOf(garden)}/${area}/${id}`, {
    data: { saveId: crypto.randomUUID(), basedOn: 0, body },
  })
  if (!reply.ok()) throw new Error(await reply.text())
  return id
}

/** Saves a wall through the API. */
export const haveWall = (page: Page, garden: string, rest: object = {}): Promise<string> =>
  saveNew(page, garden, 'places', { ...yardWall, ...rest })

/** Saves a frame through the API, as one begins there. */
export function haveFrame(
  page: Page,
  garden: string,
  placeId: string,
  place: object,
  kind: PatternKind,
): Promise<string> {
  const design = startDesign({ ...yardWall, ...place } as StartPlace, kind, standardCatalogue)
  return saveNew(page, garden, 'frames', { placeId, name: 'Level tiers', stage: 'idea', design })
}

/** A wall with level wires. */
export async function haveTiers(page: Page, garden: string, rest: object): Promise<string> {
  const place = await haveWall(page, garden, rest)
  await haveFrame(page, garden, place, rest, 'tiers')
  return place
}

/** A day of the last winter that is over: the bench is opened on it, whatever the day of the test is. */
export function winterDay(): string {
  const now = new Date()
  const passed = now.toISOString().slice(5, 10) > '02-10'
  return `${now.getUTCFullYear() - (passed ? 0 : 1)}-02-05`
}

/** An id of the journal: ordered by time, as its entries are. */
export function journalId(atMs = Date.now()): string {
  const time = atMs.toString(16).padStart(12, '0')
  return `${time.slice(0, 8)}-${time.slice(8)}-7${crypto.randomUUID().slice(15)}`
}

/** Adds a plant through the API. */
export const havePlant = (page: Page, garden: string, placeId: string, rest: object): Promise<string> =>
  saveNew(page, garden, 'plants', {
    placeId,
    name: 'Plant',
    kindId: 'pear',
    xM: 1,
    startNodeId: null,
    plantedOn: '2020-01-01',
    system: null,
    rootstock: '',
    graftHeightM: null,
    motherId: null,
    formPlanted: null,
    leads: [],
    budGoal: null,
    ended: null,
    ...rest,
  })

let lastWritten = 0

/** Writes entries about a plant through the API. */
export async function haveEntries(
  page: Page,
  garden: string,
  placeId: string,
  plantId: string,
  entries: readonly { readonly kind: string; readonly at: string; readonly body: object }[],
): Promise<void> {
  // Later than everything written before: within a day the journal goes by its ids.
  const start = Math.max(lastWritten + 1, Date.now() - entries.length)
  lastWritten = start + entries.length
  const data = {
    entries: entries.map((entry, i) => ({
      ...entry,
      id: journalId(start + i),
      placeId,
      plantId,
      recordedAt: new Date(start + i).toISOString(),
      supersedes: null,
    })),
  }
  const reply = await page.request.post(`${apiOf(garden)}/entries`, { data })
  const said = await reply.text()
  if (!reply.ok() || said.includes('"refused"') || said.includes('"held"')) throw new Error(said)
}
