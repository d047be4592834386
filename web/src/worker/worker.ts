// Lets a page open where there is no connection: the program itself, and the answers it was last given.
import { clientsClaim } from 'workbox-core';
import { ExpirationPlugin } from 'workbox-expiration';
import { matchPrecache, precacheAndRoute } from 'workbox-precaching';
import { NavigationRoute, registerRoute, setCatchHandler } from 'workbox-routing';
import { NetworkFirst, NetworkOnly } from 'workbox-strategies';

import { keptAnswer, worthKeeping } from './kept';

declare const self: ServiceWorkerGlobalScope;
declare const __FILES__: { url: string; revision: string | null }[];

const DAYS_KEPT = 30;
const MOST_KEPT = 400;
const PATIENCE_S = 8; // a weak signal that does not answer by then counts as none

precacheAndRoute(__FILES__);
// the page itself comes from the server whenever it is there, so that a new version is never hidden by an old one
registerRoute(
  new NavigationRoute(new NetworkOnly({ networkTimeoutSeconds: PATIENCE_S }), { denylist: [/^\/api\//] }),
);
registerRoute(
  // what happens meanwhile is followed live, and kept by nobody
  ({ url, sameOrigin }) => sameOrigin && url.pathname.startsWith('/api/') && url.pathname !== '/api/follow',
  new NetworkFirst({
    cacheName: 'answers',
    networkTimeoutSeconds: PATIENCE_S,
    plugins: [
      new ExpirationPlugin({ maxEntries: MOST_KEPT, maxAgeSeconds: DAYS_KEPT * 86_400 }),
      {
        cacheWillUpdate: async ({ response }) => (worthKeeping(response) ? response : null),
        cachedResponseWillBeUsed: async ({ cachedResponse }) =>
          cachedResponse ? keptAnswer(cachedResponse) : null,
      },
    ],
  }),
);
setCatchHandler(async ({ request }) =>
  request.mode === 'navigate' ? ((await matchPrecache('/index.html')) ?? Response.error()) : Response.error(),
);

// an alarm reaches a browser that asked for it with no page open; touched, it opens where it leads
self.addEventListener('push', (event) => {
  const told = event.data?.json() as { title: string; text: string; link: string } | undefined;
  if (told)
    event.waitUntil(self.registration.showNotification(told.title, { body: told.text, data: told.link }));
});
self.addEventListener('notificationclick', (event) => {
  event.notification.close();
  event.waitUntil(self.clients.openWindow(String(event.notification.data)));
});

void self.skipWaiting();
clientsClaim();
