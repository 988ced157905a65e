/** Where the service worker keeps what was fetched of cases. */
export const KNOWN_CACHE = 'known';
