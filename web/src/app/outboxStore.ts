import { openDB, type IDBPDatabase } from 'idb';
import type { OutboxItem } from './outbox.js';

let db: Promise<IDBPDatabase> | null = null;

function open(): Promise<IDBPDatabase> {
  db ??= openDB('true-ledger', 1, {
    upgrade(base) {
      base.createObjectStore('outbox', { keyPath: 'draft.id' });
    },
  });
  return db;
}

/** Keeps unsent entries across a reload; a browser that refuses storage only loses this safety, not the work on screen. */
export const outboxStore = {
  async put(items: readonly OutboxItem[]): Promise<void> {
    const tx = (await open()).transaction('outbox', 'readwrite');
    for (const item of items) void tx.store.put(item);
    await tx.done;
  },
  async remove(ids: readonly string[]): Promise<void> {
    const tx = (await open()).transaction('outbox', 'readwrite');
    for (const id of ids) void tx.store.delete(id);
    await tx.done;
  },
  async all(): Promise<OutboxItem[]> {
    return ((await (await open()).getAll('outbox')) as OutboxItem[]).sort((a, b) => a.order - b.order);
  },
};
