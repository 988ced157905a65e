import type { Me } from '@true-ledger/contract';
import { keptCount } from './localStore.js';
import { store } from './store.js';

/** Goes on when the code that sends cannot be fetched now. */
const AGAIN_MS = 5000;

async function when(kind: 'outbox' | 'files', go: () => Promise<void>): Promise<void> {
  if ((await keptCount(kind).catch(() => 0)) === 0) return;
  await go().catch(() => setTimeout(() => void when(kind, go), AGAIN_MS));
}

/** Sends entries kept from before a reload. What sends is fetched only when there is something: the first page waits for none of it. */
export function restoreEntries(): void {
  void when('outbox', async () => {
    const { restoreOutbox } = await import('./outbox.js');
    await store.dispatch(restoreOutbox());
  });
}

/** The same for pictures and clips, once it is known who is signed in. */
export function restoreUploads(me: Me): void {
  void when('files', async () => {
    const { restoreFiles } = await import('../capture/queue.js');
    await store.dispatch(restoreFiles(me));
  });
}
