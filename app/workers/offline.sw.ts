import { clientsClaim } from 'workbox-core';
import {
  type PrecacheEntry,
  cleanupOutdatedCaches,
  createHandlerBoundToURL,
  precacheAndRoute,
} from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';

/** Every file of the build, put in place of this name when it is built: `scripts/offline.mjs`. */
declare const PALAZZO_FILES: PrecacheEntry[];
declare const self: EventTarget & { skipWaiting: () => Promise<void> };

// Taken when the user says so, never in the middle of a walk; the first one at once.
self.addEventListener('message', (e) => {
  if ((e as MessageEvent<{ type?: string } | null>).data?.type === 'SKIP_WAITING') void self.skipWaiting();
});
clientsClaim();
precacheAndRoute(PALAZZO_FILES);
cleanupOutdatedCaches();
registerRoute(new NavigationRoute(createHandlerBoundToURL('/index.html')));
