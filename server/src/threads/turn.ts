import { setImmediate } from 'node:timers/promises';

/** How long work may hold the event loop before others get their turn, ms. */
const HOLD_MS = 15;

/** Lets others have their turn within work that cannot leave the main thread: call it between steps, it waits only when the turn was long. */
export function turns(): () => Promise<void> {
  let since = performance.now();
  return async () => {
    if (performance.now() - since < HOLD_MS) return;
    await setImmediate();
    since = performance.now();
  };
}
