import type { Page } from '@playwright/test'

let count = 0
export const PASSWORD = 'loose ties hold longest'
export const newEmail = () => `grower.${process.pid}.${Date.now()}.${++count}@example.org`

/** Signs somebody new up through the API, in this page's own session, and opens their empty garden. */
export async function signUp(page: Page): Promise<{ email: string; garden: string }> {
  const email = newEmail()
  const reply = await page.request.post('/api/accounts', {
    data: { name: 'Test grower', email, password: PASSWORD, gardenName: 'Back yard' },
  })
  if (!reply.ok()) throw new Error(await reply.text())
  await page.goto('/')
  await page.waitForURL(/\/places$/)
  return { email, garden: new URL(page.url()).pathname.replace(/\/places$/, '') }
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

export async function openDemo(page: Page): Promise<string> {
  await page.goto('/sign-in')
  await page.getByRole('button', { name: 'Walk through the demo garden' }).click()
  await page.waitForURL(/\/places$/)
  await page.getByRole('heading', { name: 'Lane fence' }).waitFor()
  return new URL(page.url()).pathname.replace(/\/places$/, '')
}

/** Saves a wall through the API, for tests that begin at the bench. */
export async function haveWall(page: Page, garden: string, rest: object = {}): Promise<string> {
  const id = crypto.randomUUID()
  const body = {
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
    ...rest,
  }
  const reply = await page.request.put(`/api${garden.replace('/g/', '/gardens/')}/places/${id}`, {
    data: { saveId: crypto.randomUUID(), basedOn: 0, body },
  })
  if (!reply.ok()) throw new Error(await reply.text())
  await page.reload()
  return id
}

/** Designs and saves a frame of the kind named, as a new user would. */
export async function haveFrame(page: Page, garden: string, placeId: string, kind: string): Promise<void> {
  await page.goto(`${garden}/places/${placeId}/frame`)
  await page.getByRole('button', { name: `Begin: ${kind}` }).click()
  const saved = page.waitForResponse(
    (reply) => reply.request().method() === 'PUT' && reply.url().includes('/frames/'),
  )
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  if (!(await saved).ok()) throw new Error(await (await saved).text())
}

/** A wall with level wires, saved by hand as a new user would. */
export async function haveTiers(page: Page, garden: string, rest: object): Promise<string> {
  const place = await haveWall(page, garden, rest)
  await haveFrame(page, garden, place, 'Level tiers')
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

/** Stands a plant through the API. */
export async function havePlant(page: Page, garden: string, placeId: string, rest: object): Promise<string> {
  const id = crypto.randomUUID()
  const body = {
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
  }
  const reply = await page.request.put(`/api${garden.replace('/g/', '/gardens/')}/plants/${id}`, {
    data: { saveId: crypto.randomUUID(), basedOn: 0, body },
  })
  if (!reply.ok()) throw new Error(await reply.text())
  return id
}

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
  const reply = await page.request.post(`/api${garden.replace('/g/', '/gardens/')}/entries`, { data })
  const said = await reply.text()
  if (!reply.ok() || said.includes('"refused"') || said.includes('"held"')) throw new Error(said)
}
