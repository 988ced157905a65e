import { openDB, type IDBPDatabase } from 'idb';
import type { Diagnosis } from '@true-ledger/core/diagnosis';
import type { OutboxItem } from './outboxState.js';
import type { QueuedFile } from '../capture/queueState.js';

let db: Promise<IDBPDatabase> | null = null;

function open(): Promise<IDBPDatabase> {
  db ??= openDB('true-ledger', 2, {
    upgrade(base, from) {
      if (from < 1) base.createObjectStore('outbox', { keyPath: 'draft.id' });
      if (from < 2) base.createObjectStore('files', { keyPath: 'id' });
    },
  });
  return db;
}

/** How much is kept, without reading it. */
export async function keptCount(kind: 'outbox' | 'files'): Promise<number> {
  return (await open()).count(kind);
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

export interface StoredFile {
  readonly id: string;
  readonly item: QueuedFile;
  readonly blob: Blob;
}

/** Keeps pictures and clips until the server has them. `put` rejects when the browser has no room left. */
export const fileStore = {
  async put(file: StoredFile): Promise<void> {
    await (await open()).put('files', file);
  },
  async blob(id: string): Promise<Blob | null> {
    return ((await (await open()).get('files', id)) as StoredFile | undefined)?.blob ?? null;
  },
  /** Writes what is known of a file again, its bytes untouched. */
  async update(item: QueuedFile): Promise<void> {
    const base = await open();
    const held = (await base.get('files', item.id)) as StoredFile | undefined;
    if (held) await base.put('files', { ...held, item });
  },
  async remove(id: string): Promise<void> {
    await (await open()).delete('files', id);
  },
  async all(): Promise<QueuedFile[]> {
    const base = await open();
    const items: QueuedFile[] = [];
    for (let cursor = await base.transaction('files').store.openCursor(); cursor; cursor = await cursor.continue())
      items.push((cursor.value as StoredFile).item);
    return items.sort((a, b) => a.order - b.order);
  },
};

/** The differential of a case as it was last computed. */
export interface KeptAnswer {
  readonly caseId: string;
  /** Head of the ledger it was computed from. */
  readonly head: string;
  /** The program that computed it: another may weigh otherwise, or keep another shape. */
  readonly program: string;
  readonly diagnosis: Diagnosis;
}

/** Cases whose last answer is kept. */
const ANSWERS = 30;

let answersDb: Promise<IDBPDatabase> | null = null;

/** Apart from what must not be lost: a page of an earlier version that is still open would hold up a new version of that. */
function openAnswers(): Promise<IDBPDatabase> {
  answersDb ??= openDB('true-ledger-answers', 1, {
    upgrade(base) {
      base.createObjectStore('answers', { keyPath: 'caseId' });
    },
  });
  return answersDb;
}

/** Keeps the last answer of each case, so that it stands before it is computed anew. A browser that refuses storage only computes. */
export const answerStore = {
  async get(caseId: string, program: string): Promise<KeptAnswer | null> {
    const held = (await (await openAnswers()).get('answers', caseId)) as KeptAnswer | undefined;
    return held?.program === program ? held : null;
  },
  async put(answer: KeptAnswer): Promise<void> {
    const base = await openAnswers();
    const others = (await base.getAllKeys('answers')).filter((key) => key !== answer.caseId);
    const tx = base.transaction('answers', 'readwrite');
    for (const key of others.slice(0, Math.max(0, others.length - ANSWERS + 1))) void tx.store.delete(key);
    void tx.store.put(answer);
    await tx.done;
  },
  async clear(): Promise<void> {
    await (await openAnswers()).clear('answers');
  },
};
