import { test as base } from '@playwright/test'
import type { BrowserContext, CDPSession, Page } from '@playwright/test'

interface Shared {
  readonly context: BrowserContext
  /** A page that shows no more than a picture: while it is open, the process stays in which pages of the site are shown. */
  readonly kept: Page
  readonly storage: CDPSession
}

/**
 * Tests of one worker share a browser profile that is emptied before each: what was loaded of the application stays in its
 * cache, and to load that anew takes as long as many a test. `isApart` gives a test a profile of its own, for what cannot
 * be taken back, such as another clock.
 */
export const test = base.extend<{ isApart: boolean }, { shared: Shared }>({
  isApart: [false, { option: true }],
  shared: [
    async ({ browser }, use, { project }) => {
      const { baseURL, viewport, locale, serviceWorkers } = project.use
      const context = await browser.newContext({ baseURL, viewport, locale, serviceWorkers })
      await askForAll(context)
      const kept = await context.newPage()
      await kept.goto('/favicon.svg')
      await use({ context, kept, storage: await context.newCDPSession(kept) })
      await context.close()
    },
    { scope: 'worker' },
  ],
  context: async ({ isApart, shared, browser, baseURL }, use) => {
    if (isApart) {
      const own = await browser.newContext()
      await askForAll(own)
      await use(own)
      return own.close()
    }
    const { context, kept } = shared
    await empty(shared, baseURL!)
    await use(context)
    await context.unrouteAll({ behavior: 'ignoreErrors' })
    await context.setOffline(false)
    for (const page of context.pages()) if (page !== kept) await page.close()
  },
})
export { expect } from '@playwright/test'

/** Forms lie open, so that a test types what it is about; that they are short for whoever begins has a test of its own. */
const askForAll = (context: BrowserContext) =>
  context.addInitScript(() => {
    if (location.protocol.startsWith('http')) localStorage['klados.all-figures'] ??= 'yes'
  })

/** All that pages put by, but for what was loaded. */
async function empty({ context, storage }: Shared, origin: string): Promise<void> {
  await context.clearCookies()
  await storage.send('Storage.clearDataForOrigin', {
    origin,
    storageTypes: 'local_storage,indexeddb,cache_storage,service_workers',
  })
}
