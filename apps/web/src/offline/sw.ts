import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching'
import type { PrecacheEntry } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'

/** Every file of this build; put in by the script that bundles this one. */
declare const __FILES__: readonly PrecacheEntry[]
declare const self: {
  skipWaiting: () => Promise<void>
  addEventListener: (
    type: 'message',
    on: (event: { readonly data?: { readonly type?: string } }) => void,
  ) => void
}

// The pages and all that they are made of come from this device; what is asked of the API never does.
precacheAndRoute([...__FILES__])
cleanupOutdatedCaches()
registerRoute(new NavigationRoute(createHandlerBoundToURL('/index.html'), { denylist: [/^\/api\//] }))
self.addEventListener('message', ({ data }) => {
  if (data?.type === 'SKIP_WAITING') void self.skipWaiting()
})
