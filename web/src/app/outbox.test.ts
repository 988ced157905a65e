import type { ApiError } from '@true-ledger/contract';
import { currentVersion, emptyCase, type Author, type EntryDraft, type LedgerEntry } from '@true-ledger/core/ledger';
import { slotOf } from '@true-ledger/core/entries';
import type { OutboxItem } from './outboxState.js';

// What is unsent in a browser: kept, sent in order, and never lost when a server refuses, is away or was quicker.
const kept = new Map<string, OutboxItem>();
jest.mock('./live.js', () => ({ hear: () => () => undefined }));
jest.mock('./localStore.js', () => ({
  outboxStore: {
    put: (items: readonly OutboxItem[]) => {
      for (const i of items) kept.set(i.draft.id, i);
      return Promise.resolve();
    },
    remove: (ids: readonly string[]) => {
      for (const id of ids) kept.delete(id);
      return Promise.resolve();
    },
    all: () => Promise.resolve([...kept.values()].sort((a, b) => a.order - b.order)),
  },
  fileStore: {},
}));

const MARA: Author = { id: 'mara', name: 'Mara' };
/** A server that numbers what it takes; `refuse` says what it will not take just now, null is away. */
const server = {
  ledger: new Map<string, LedgerEntry[]>(),
  posts: [] as string[][],
  refuse: (_: readonly EntryDraft[]): ApiError | 'away' | null => null,
};

global.Request = class extends Request {
  constructor(input: string | URL | Request, init?: RequestInit) {
    super(typeof input === 'string' ? new URL(input, 'http://shop.test') : input, init);
  }
};
global.fetch = async (input) => {
  const request = input as Request;
  const caseId = request.url.split('/')[5]!;
  const answer = (status: number, body: unknown): Response =>
    new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });
  const own = server.ledger.get(caseId) ?? [];
  if (request.method === 'GET') return answer(200, []);
  const { entries } = (await request.json()) as { entries: EntryDraft[] };
  const refused = server.refuse(entries);
  if (refused === 'away') throw new TypeError('fetch failed');
  if (refused) return answer(409, refused);
  server.posts.push(entries.map((e) => e.id));
  const taken = entries.map((e, k): LedgerEntry => ({
    id: e.id,
    caseId,
    seq: own.length + k + 1,
    kind: e.kind,
    station: e.station,
    author: MARA,
    time: '2026-03-02T08:00:00.000Z',
    supersedes: e.basedOn,
    body: e.body,
    salt: '',
    bodyHash: '',
    prev: '',
    hash: String(own.length + k + 1),
  }));
  server.ledger.set(caseId, [...own, ...taken]);
  return answer(201, { entries: taken });
};

import { api } from './api.js';
import { record, redo, resolveConflict, restoreOutbox, undo } from './outbox.js';
import { outboxActions, type Observation } from './outboxState.js';
import { selectCaseState } from './selectors.js';
import { store } from './store.js';

const graded = (station: string, grade: 0 | 1 | 2 | 3 | 4): Observation =>
  ({
    kind: 'state-set',
    station,
    body: grade === 0 ? { state: 'sound' } : { state: 'graded', grade },
  }) as Observation;
const items = (caseId: string): readonly OutboxItem[] => store.getState().outbox.items.filter((i) => i.caseId === caseId);
const settle = async (): Promise<void> => {
  for (let k = 0; k < 40; k++) await jest.advanceTimersByTimeAsync(0);
};
let count = 0;
/** A case the page holds. */
async function open(): Promise<string> {
  const id = `case-${++count}`;
  await store.dispatch(api.util.upsertQueryData('getCase', id, { id, state: emptyCase(id) }));
  return id;
}
const holds = (caseId: string, station: string): unknown => {
  const state = selectCaseState(store.getState(), caseId)!;
  return currentVersion(state, station, slotOf('state-set', { state: 'sound' }))?.body;
};

beforeEach(() => {
  jest.useFakeTimers();
  kept.clear();
  server.posts = [];
  server.refuse = () => null;
});
afterEach(() => jest.useRealTimers());

describe('what is written', () => {
  it('is shown at once, kept in the browser, sent, and then kept no longer', async () => {
    const c = await open();
    store.dispatch(record(c, MARA, [graded('bore.1', 0)]));
    expect(holds(c, 'bore.1')).toEqual({ state: 'sound' });
    expect(kept.size).toBe(1);
    expect(items(c)[0]!.status).toBe('waiting');
    await settle();
    expect(items(c)).toEqual([]);
    expect(kept.size).toBe(0);
    expect(server.ledger.get(c)).toHaveLength(1);
    expect(holds(c, 'bore.1')).toEqual({ state: 'sound' });
  });
  it('goes in order, a hundred at a time', async () => {
    const c = await open();
    store.dispatch(
      record(
        c,
        MARA,
        Array.from({ length: 250 }, (_, k) => graded(`rod.${k}.shell.upper`, 1)),
      ),
    );
    const ids = items(c).map((i) => i.draft.id);
    await settle();
    expect(server.posts.map((p) => p.length)).toEqual([100, 100, 50]);
    expect(server.posts.flat()).toEqual(ids);
  });
  it('rests on what the field held, also inside one act', async () => {
    const c = await open();
    store.dispatch(record(c, MARA, [graded('bore.1', 1), graded('bore.1', 2), graded('bore.2', 1)]));
    const [first, second, other] = items(c);
    expect(first!.draft.basedOn).toBeNull();
    expect(second!.draft.basedOn).toBe(first!.draft.id);
    expect(other!.draft.basedOn).toBeNull();
    await settle();
    store.dispatch(record(c, MARA, [graded('bore.1', 3)]));
    expect(items(c)[0]!.draft.basedOn).toBe(second!.draft.id);
    await settle();
  });
});

describe('a server that is away', () => {
  it('gets it later by itself, and nothing is lost meanwhile', async () => {
    const c = await open();
    server.refuse = () => 'away';
    store.dispatch(record(c, MARA, [graded('bore.1', 2), graded('bore.2', 2)]));
    await settle();
    expect(store.getState().outbox.link).toBe('down');
    expect(items(c).map((i) => i.status)).toEqual(['waiting', 'waiting']);
    expect(kept.size).toBe(2);
    expect(holds(c, 'bore.2')).toEqual({ state: 'graded', grade: 2 });
    server.refuse = () => null;
    await jest.advanceTimersByTimeAsync(20_000);
    await settle();
    expect(items(c)).toEqual([]);
    expect(store.getState().outbox.link).toBe('up');
    expect(server.ledger.get(c)).toHaveLength(2);
  });
  it('a hand that was signed out is told so, and keeps what it wrote', async () => {
    const c = await open();
    server.refuse = () => ({ code: 'signed-out', sentence: 'Sign in again.' });
    store.dispatch(record(c, MARA, [graded('bore.1', 2)]));
    await settle();
    expect(store.getState().outbox.link).toBe('signed-out');
    expect(items(c)[0]!.status).toBe('waiting');
    server.refuse = () => null;
    await jest.advanceTimersByTimeAsync(20_000);
    await settle();
    expect(items(c)).toEqual([]);
  });
  it('after a reload what was kept is sent, in its order and once', async () => {
    const c = await open();
    server.refuse = () => 'away';
    store.dispatch(record(c, MARA, [graded('bore.1', 1)]));
    store.dispatch(record(c, MARA, [graded('bore.2', 1)]));
    await settle();
    const ids = [...kept.keys()];
    // The page is new: what it finds is what the browser kept.
    store.dispatch(outboxActions.restored([...kept.values()]));
    server.refuse = () => null;
    await store.dispatch(restoreOutbox());
    await jest.advanceTimersByTimeAsync(20_000);
    await settle();
    expect(server.ledger.get(c)!.map((e) => e.id)).toEqual(ids);
  });
});

describe('a server that refuses', () => {
  it('one of many: the others go, only that one is held back, with the sentence', async () => {
    const c = await open();
    const problem: ApiError = { code: 'entry-station', sentence: 'This engine has no such place.' };
    server.refuse = (entries) => (entries.some((e) => e.station === 'bore.99') ? problem : null);
    store.dispatch(record(c, MARA, [graded('bore.1', 1), graded('bore.99', 1), graded('bore.2', 1)]));
    await settle();
    expect(server.ledger.get(c)!.map((e) => e.station)).toEqual(['bore.1', 'bore.2']);
    expect(items(c)).toHaveLength(1);
    expect(items(c)[0]).toMatchObject({ status: 'refused', problem, draft: { station: 'bore.99' } });
    expect(kept.size).toBe(1);
    // What was refused is not shown as if it stood.
    expect(holds(c, 'bore.99')).toBeUndefined();
  });
  it.each(['mine', 'theirs'] as const)('because another wrote first: %s is kept', async (keep) => {
    const c = await open();
    server.refuse = (entries) =>
      entries.some((e) => e.basedOn === null) ? { code: 'entry-conflict', sentence: 'Teo wrote this field meanwhile.' } : null;
    store.dispatch(record(c, MARA, [graded('bore.1', 3)]));
    await settle();
    const [item] = items(c);
    expect(item!.status).toBe('conflict');
    server.refuse = () => null;
    store.dispatch(resolveConflict(c, item!.draft.id, keep));
    await settle();
    expect(items(c)).toEqual([]);
    expect(kept.size).toBe(0);
    const taken = server.ledger.get(c) ?? [];
    expect(taken).toHaveLength(keep === 'mine' ? 1 : 0);
    // Written again it is another entry: the one that lost stays lost.
    if (keep === 'mine') expect(taken[0]!.id).not.toBe(item!.draft.id);
  });
});

describe('taking back', () => {
  it('writes a retraction, and the same observation again when it is wanted after all', async () => {
    const c = await open();
    store.dispatch(record(c, MARA, [graded('bore.1', 2)]));
    await settle();
    const [first] = server.ledger.get(c)!;
    expect(store.dispatch(undo(c, MARA))).toBe('retracted');
    await settle();
    const [, back] = server.ledger.get(c)!;
    expect(back).toMatchObject({ kind: 'retracted', body: { target: first!.id } });
    expect(holds(c, 'bore.1')).toBeUndefined();
    expect(store.dispatch(redo(c, MARA))).toBe(true);
    await settle();
    expect(holds(c, 'bore.1')).toEqual({ state: 'graded', grade: 2 });
    expect(server.ledger.get(c)).toHaveLength(3);
    expect(store.dispatch(redo(c, MARA))).toBe(false);
  });
  it('leaves alone what another has written over since', async () => {
    const c = await open();
    store.dispatch(record(c, MARA, [graded('bore.1', 2)]));
    await settle();
    const held = api.endpoints.getCase.select(c)(store.getState()).data!;
    const slot = slotOf('state-set', { state: 'sound' });
    const theirs = { ...held.state.groups['bore.1']![slot]!.at(-1)!, entry: 'theirs', body: { state: 'sound' as const } };
    await store.dispatch(
      api.util.upsertQueryData('getCase', c, { ...held, state: { ...held.state, groups: { 'bore.1': { [slot]: [theirs] } } } }),
    );
    expect(store.dispatch(undo(c, MARA))).toBeNull();
    await settle();
    expect(server.ledger.get(c)).toHaveLength(1);
    expect(holds(c, 'bore.1')).toEqual({ state: 'sound' });
  });
  it('of one case is nothing to another', async () => {
    const [one, other] = [await open(), await open()];
    store.dispatch(record(one, MARA, [graded('bore.1', 2)]));
    await settle();
    expect(store.dispatch(undo(other, MARA))).toBeNull();
    expect(server.ledger.get(one)).toHaveLength(1);
  });
});
