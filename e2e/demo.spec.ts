import { expect, test } from './fixtures.ts'
import type { Page } from '@playwright/test'
import { PASSWORD, newEmail, openDemo, signUp } from './people.ts'

const strip = (page: Page) => page.getByText(/, \d of 4:/)
const begin = (page: Page, walk: string) => page.getByRole('button', { name: walk, exact: true }).click()

test('a walk past a row goes on by what is done, ends, and does not come back', async ({ page }) => {
  await openDemo(page)
  await begin(page, 'See a row')
  await expect(strip(page)).toHaveText('See a row, 1 of 4:')
  await page.getByRole('link', { name: /^Open the frame of/ }).click()
  await expect(strip(page)).toHaveText('See a row, 2 of 4:')
  await page.getByRole('button', { name: 'Next', exact: true }).click()
  await expect(strip(page)).toHaveText('See a row, 3 of 4:')
  const spacing = page.getByLabel('Largest post spacing')
  if (!(await spacing.isVisible())) await page.getByRole('button', { name: 'Ask for every figure' }).click()
  await spacing.fill('4.2 m')
  await spacing.blur()
  await expect(strip(page)).toHaveText('See a row, 4 of 4:')
  await page.getByRole('link', { name: 'Open the sheet to print' }).click()
  await expect(page.getByText('That was the tour.', { exact: false })).toBeVisible()
  await page.getByRole('link', { name: 'Places', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Check a tie', exact: true })).toBeVisible()
  await expect(page.getByText('That was the tour.', { exact: false })).toHaveCount(0)
  await page.reload()
  await expect(page.getByRole('button', { name: 'Check a tie', exact: true })).toBeVisible()
  await expect(page.getByRole('button', { name: 'See a row', exact: true })).toHaveCount(0)
})

test('a walk to a cut shows what speaks for a cane and what another choice costs', async ({ page }) => {
  await openDemo(page)
  await begin(page, 'Choose a cut')
  await page.getByRole('link', { name: /^Open .+ on / }).click()
  await expect(strip(page)).toHaveText('Choose a cut, 2 of 4:')
  await expect(page.getByText(/^As it was on/)).toBeVisible()
  await page.keyboard.press('2')
  await expect(strip(page)).toHaveText('Choose a cut, 3 of 4:')
  await page.keyboard.press('b')
  await expect(strip(page)).toHaveText('Choose a cut, 4 of 4:')
  await page.keyboard.press('2')
  await expect(page.getByText('That was the tour.', { exact: false })).toBeVisible()
})

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 } })

  test('a walk to a tie ends with what was done at it; the copy is kept by signing up', async ({ page }) => {
    await page.setViewportSize({ width: 390, height: 844 })
    await page.goto('/sign-in')
    await page.getByRole('button', { name: 'Look around the demo garden' }).click()
    await begin(page, 'Check a tie')
    await page.getByRole('link', { name: 'Open the list' }).click()
    await expect(strip(page)).toHaveText('Check a tie, 2 of 4:')
    await page.getByRole('link', { name: 'Open the first tie' }).click()
    await expect(strip(page)).toHaveText('Check a tie, 3 of 4:')
    await page.getByRole('button', { name: 'Next', exact: true }).click()
    await page.getByRole('button', { name: 'Loosened', exact: true }).click()
    await expect(page.getByText('That was the tour.', { exact: false })).toBeVisible()
    await page.getByRole('button', { name: 'Close', exact: true }).click()

    await page.getByRole('link', { name: 'Places', exact: true }).click()
    const garden = new URL(page.url()).pathname
    await page.getByRole('link', { name: 'Create an account and keep it' }).click()
    await expect(page.getByLabel('Keep the demo garden', { exact: false })).toBeChecked()
    await page.getByLabel('Your name').fill('Wren')
    await page.getByLabel('Name of your garden').fill('Behind the shed')
    await page.getByLabel('E-mail address').fill(newEmail())
    await page.getByLabel('Password').fill(PASSWORD)
    await page.getByRole('button', { name: 'Create an account' }).click()
    await expect(page.getByRole('heading', { name: 'Lane fence' })).toBeVisible()
    expect(new URL(page.url()).pathname).toBe(garden)
    await expect(page.getByText('Behind the shed')).toBeVisible()
    await expect(page.getByText('is your own copy', { exact: false })).toHaveCount(0)
  })
})

test('from one’s own garden the demo is a press away, and stands beside it until it is kept', async ({
  page,
}) => {
  const { garden } = await signUp(page)
  await page.goto(`${garden}/places`)
  await page.locator('summary').first().click()
  await page.getByRole('button', { name: 'Short tours of the demo garden' }).click()
  await expect(page.getByRole('heading', { name: 'Lane fence' })).toBeVisible()
  await page.getByRole('button', { name: 'Keep this garden' }).click()
  await expect(page.getByText('is your own copy', { exact: false })).toHaveCount(0)
  await page.locator('summary').first().click()
  await expect(page.getByRole('link', { name: 'Back yard' })).toBeVisible()
})
