import { mkdirSync, writeFileSync } from 'node:fs'
import { chromium } from '@playwright/test'
import { freeWay } from '@klados/core/wood'
import { grewBody } from '../packages/core/test/bodies.ts'
import config from './playwright.config.ts'
import { readDevice } from './device.ts'
import { apiOf, haveEntries, haveFrame, havePlant, haveWall, signUp } from './people.ts'

/**
 * Writes down what this release leaves behind, for every later one to bring up: a garden's file, and a device with its
 * copy of the garden, its outbox and its drafts. Run on a release before its stored shapes change.
 */
const folder = process.env.FROZEN!
mkdirSync(folder, { recursive: true })
const browser = await chromium.launch(config.use!.launchOptions)
const context = await browser.newContext({
  baseURL: process.env.BASE_URL!,
  locale: 'en-GB',
  serviceWorkers: 'block',
})
// What the runner of this script puts into functions, and a page does not have.
await context.addInitScript('globalThis.__name = (one) => one')
const page = await context.newPage()
const { garden } = await signUp(page)
const api = apiOf(garden)
const wall = await haveWall(page, garden)
const plant = await havePlant(page, garden, wall, { name: 'Old pear' })
await haveEntries(page, garden, wall, plant, [
  { kind: 'note.written', at: '2026-02-10', body: { v: 1, text: 'Buds still tight.' } },
  {
    kind: 'piece.grew',
    at: '2026-02-11',
    body: grewBody('0195a000-0000-7000-8000-00000000aa01', {
      path: [
        { xM: 1, yM: 0 },
        { xM: 1, yM: 1 },
      ],
      seasonsOld: 3,
      baseMm: 20,
    }),
  },
  {
    kind: 'piece.grew',
    at: '2026-02-11',
    body: {
      v: 3,
      pieceId: '0195a000-0000-7000-8000-00000000aa02',
      parent: { on: 'piece', pieceId: '0195a000-0000-7000-8000-00000000aa01', alongM: 0.8 },
      way: freeWay([
        { xM: 1, yM: 0.8 },
        { xM: 1.5, yM: 0.8 },
      ]),
      seasonsOld: 1,
      baseMm: 8,
      tipMm: null,
      buds: 6,
      side: 'right',
      role: null,
      isTypical: true,
    },
  },
  {
    kind: 'choice.made',
    at: '2026-02-12',
    body: {
      v: 2,
      choiceId: '0195a000-0000-7000-8000-00000000cc01',
      system: 'level-tiers',
      question: 'leader',
      as: 'plan',
      decided: [
        {
          pieceId: '0195a000-0000-7000-8000-00000000aa02',
          letter: 'A',
          deed: 'lay',
          cutM: null,
          aboveBuds: null,
          way: freeWay([
            { xM: 1, yM: 0.8 },
            { xM: 1.5, yM: 0.9 },
          ]),
          wire: 1,
          towards: 'right',
          isOwn: false,
          reason: '',
          proposed: null,
          judgements: null,
        },
      ],
      followUps: null,
      buds: 6,
      budsMin: 0,
      budsMax: 100,
      bareM: 0,
      isProven: true,
      ties: 2,
      minutes: 5,
    },
  },
])
await haveFrame(page, garden, wall, {}, 'tiers')
// In the open: a row with tied-back ends, and a cover.
const field = { kind: 'row', surface: 'open', widthM: 48, firstForkM: 0 }
for (const kind of ['row', 'net'] as const)
  await haveFrame(
    page,
    garden,
    await haveWall(page, garden, { ...field, name: `Field ${kind}` }),
    field,
    kind,
  )
const picture = Buffer.from(
  await page.evaluate(async () => {
    const canvas = document.createElement('canvas')
    canvas.width = 60
    canvas.height = 40
    canvas.getContext('2d')!.fillRect(0, 0, 30, 40)
    const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'))
    return [...new Uint8Array(await blob!.arrayBuffer())]
  }),
)
const photo = { name: 'wall.png', mimeType: 'image/png', buffer: picture }
await page.goto(`${garden}/places/${wall}/wood`)
await page.getByLabel('Add a photo', { exact: true }).setInputFiles(photo)
await page.getByText('Buds still tight.').waitFor()
await page.waitForTimeout(3000)
const file = await (await page.request.get(`${api}/export`)).text()

await context.route('**/api/**', (route) => route.abort())
await page.getByLabel('A note').fill('Written without a signal')
await page.getByRole('button', { name: 'Save the note' }).click()
await page.getByLabel('Add a photo', { exact: true }).setInputFiles(photo)
await page.waitForTimeout(1500)
await page.getByRole('link', { name: 'Frame', exact: true }).click()
await page.getByLabel('Name of the frame').fill('Saved without a signal')
await page.getByRole('button', { name: 'Save', exact: true }).click()
await page.getByText('Kept on this device; it is saved').waitFor()
await page.getByLabel('Name of the frame').fill('Drawn and not saved')
await page.waitForTimeout(3000)

const [, , gardenId] = garden.split('/')
const { account } = (await page.evaluate(async () => {
  const open = indexedDB.open('klados-copy')
  await new Promise((resolve) => (open.onsuccess = resolve))
  const answers = open.result.transaction('answers').objectStore('answers').getAll()
  await new Promise((resolve) => (answers.onsuccess = resolve))
  return (answers.result as { data: { account?: object } }[]).find(({ data }) => data.account)!.data
})) as { account: { id: string } }
const device = await readDevice(page)
writeFileSync(`${folder}/garden.json`, file)
writeFileSync(`${folder}/device.json`, `${JSON.stringify(device, null, 1)}\n`)
writeFileSync(
  `${folder}/ids.json`,
  `${JSON.stringify({ accountId: account.id, gardenId, placeId: wall, plantId: plant }, null, 1)}\n`,
)
await browser.close()
