import { CacheableResponsePlugin, ExpirationPlugin, NetworkFirst, Serwist, type PrecacheEntry } from 'serwist';
import { KNOWN_CACHE } from './app/knownCache.js';

declare const self: { readonly __SW_MANIFEST: PrecacheEntry[] };

/** What was fetched of cases while there was a line; asked of the server first, from here only when it does not answer. */
const KNOWN = ['me', 'cases', 'gauges', 'sheets', 'stand-ins', 'prices', 'policy', 'grade-books', 'references', 'network', 'shop'];

/** A session that was ended, here or elsewhere, leaves nothing behind: the server's word that nobody is signed in clears what was kept. */
const forgetWhenRefused = {
  fetchDidSucceed: async ({ response }: { response: Response }): Promise<Response> => {
    if (response.status === 401) await caches.delete(KNOWN_CACHE);
    return response;
  },
};

new Serwist({
  precacheEntries: self.__SW_MANIFEST,
  precacheOptions: {
    cleanupOutdatedCaches: true,
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/api\//, /^\/authority\.crt/],
  },
  // A new version waits until the hand takes it.
  skipWaiting: false,
  clientsClaim: false,
  runtimeCaching: [
    {
      matcher: new RegExp(
        `/api/(?:${KNOWN.join('|')})(?:/[0-9a-f-]{36})?(?:/page\\?[^/]*|/entries\\?after=\\d+|/photos/[0-9a-f]{64}/(?:thumb|work))?$`,
      ),
      handler: new NetworkFirst({
        cacheName: KNOWN_CACHE,
        plugins: [
          forgetWhenRefused,
          new CacheableResponsePlugin({ statuses: [200] }),
          new ExpirationPlugin({ maxEntries: 600, maxAgeSeconds: 14 * 86_400 }),
        ],
      }),
    },
  ],
}).addEventListeners();
