import { answerStore } from './localStore.js';

/** Where the service worker keeps what was fetched of cases. */
export const KNOWN_CACHE = 'known';

/** Forgets what was kept of cases, when somebody signs out. */
export async function forgetKnown(): Promise<void> {
  await answerStore.clear().catch(() => undefined);
  if (typeof caches !== 'undefined') await caches.delete(KNOWN_CACHE).catch(() => false);
}
