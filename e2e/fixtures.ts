import { test as base } from '@playwright/test'
import type { BrowserContext } from '@playwright/test'

/**
 * Tests of one worker share a browser profile that is emptied before each: what was loaded of the application stays in its
 * cache, and to load that anew takes as long as many a test. `isApart` gives a test a profile of its own, for what cannot
 * be taken back, such as another clock.
 */
export const test = base.extend<{ isApart: boolean }, { shared: BrowserContext }>({
  isApart: [false, { option: true }],
  shared: [
    async ({ browser }, use, { project }) => {
      const { baseURL, viewport, locale, serviceWorkers } = project.use
      const context = await browser.newContext({ baseURL, viewport, locale, serviceWorkers })
      await use(context)
      await context.close()
    },
    { scope: 'worker' },
  ],
  context: async ({ isApart, shared, browser, baseURL }, use) => {
    if (isApart) {
      const own = await browser.newContext()
      await use(own)
      return own.close()
    }
    await empty(shared, baseURL!)
    await use(shared)
    await shared.unrouteAll({ behavior: 'ignoreErrors' })
    await shared.setOffline(false)
    for (const page of shared.pages()) await page.close()
  },
})
export { expect } from '@playwright/test'

/** All that pages put by, but for what was loaded. */
async function empty(context: BrowserContext, origin: string): Promise<void> {
  await context.clearCookies()
  const page = await context.newPage()
  const session = await context.newCDPSession(page)
  await session.send('Storage.clearDataForOrigin', {
    origin,
    storageTypes: 'local_storage,indexeddb,cache_storage,service_workers',
  })
  await page.close()
}
