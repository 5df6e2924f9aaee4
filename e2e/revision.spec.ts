import { expect, test } from './fixtures.ts'
import { apiOf, enterDemo } from './people.ts'
import type { Page } from '@playwright/test'

const shot = async (page: Page, name: string) => {
  if (process.env.LOOK) await page.screenshot({ path: `${process.env.LOOK}/${name}.png` })
}

async function placeOf(page: Page, garden: string, name: string): Promise<string> {
  const reply = await page.request.get(`${apiOf(garden)}/places`)
  const places = (await reply.json()) as { id: string; body: { name: string } }[]
  return `${garden}/places/${places.find((place) => place.body.name.startsWith(name))!.id}`
}

test('a tier added and another lowered: which ties sit elsewhere is said before, and kept until settled', async ({
  page,
}) => {
  const garden = await enterDemo(page)
  const wall = await placeOf(page, garden, 'South wall')
  await page.goto(`${wall}/frame`)
  await page.getByRole('button', { name: 'Add a tier', exact: true }).click()
  await page.getByLabel('Tier 6', { exact: true }).fill('2.14 m')
  // A tier above the others takes nothing from anything that is tied.
  await expect(page.getByText(/will sit elsewhere/)).toHaveCount(0)
  await page.getByLabel('Tier 3', { exact: true }).fill('1.13 m')
  const said = page.getByText(/^\d+ ties will sit elsewhere:$/)
  await expect(said).toBeVisible()
  const count = Number((await said.textContent())!.split(' ')[0])
  expect(count).toBeGreaterThan(3)
  await expect(page.getByText(`${count} × carrying wire 3: its wire is now 12 cm lower`)).toBeVisible()
  await shot(page, 'before-saving')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText(/^Revision \d+,/)).toBeVisible()

  // In sight on the frame, on the wood bench and on the round, for whoever opens them.
  const waiting = `Since their frame was revised, ${count} ties no longer sit on their wires.`
  await expect(page.getByText(waiting)).toBeVisible()
  await shot(page, 'frame-after')
  await page.goto(`${garden}/round`)
  await expect(page.getByText(waiting)).toBeVisible()
  await page.setViewportSize({ width: 390, height: 844 })
  await shot(page, 'round-phone')
  await page.setViewportSize({ width: 1280, height: 800 })
  await page.goto(`${wall}/wood`)
  await expect(page.getByText(waiting)).toBeVisible()
  await shot(page, 'wood-after')

  // One comes off, one arm is led down to its wire, and that is undone and done again.
  await page.getByRole('button', { name: 'Taken off' }).first().click()
  await expect(page.getByText(`${count - 1} ties no longer sit`)).toBeVisible()
  for (;;) {
    const led = page.getByRole('button', { name: 'Moved to the wire', exact: true })
    if ((await led.count()) === 0) break
    await led.first().click()
  }
  await expect(page.getByRole('heading', { name: 'Ties to settle' })).toHaveCount(0)
  await shot(page, 'wood-settled')
  await page.getByRole('button', { name: /^Undo Wood moved/ }).click()
  await expect(page.getByRole('heading', { name: 'Ties to settle' })).toBeVisible()
  await page.getByRole('button', { name: 'Moved to the wire', exact: true }).first().click()
  await page.goto(`${garden}/round`)
  await expect(page.getByRole('heading', { name: 'Ties to settle' })).toHaveCount(0)
})

test('a row whose bays change keeps its logs by the posts that stay, and says which are lost', async ({
  page,
}) => {
  const garden = await enterDemo(page)
  const block = await placeOf(page, garden, 'Trial block')
  await page.goto(`${block}/frame`)
  const bays = page.getByLabel('Largest post spacing')
  await bays.fill('8 m')
  await expect(page.getByText(/What is recorded about these parts will be lost: P\d/)).toBeVisible()
  await shot(page, 'row-respaced')
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(page.getByText(/What is recorded about these parts will be lost/)).toHaveCount(0)
})
