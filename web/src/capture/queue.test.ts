import type { Me } from '@true-ledger/contract';
import { engineTemplate } from '@true-ledger/core/engine';
import { emptyCase, type EntryDraft } from '@true-ledger/core/ledger';
import { foldEntries } from '@true-ledger/core/entries';
import type { QueuedFile } from './queueState.js';

// Pictures on their way: kept in the browser until the server has them, sent one after the other, and set aside instead of filed wrongly.
const held = new Map<string, { item: QueuedFile; blob: Blob }>();
let room = true;
jest.mock('../app/live.js', () => ({ hear: () => () => undefined }));
jest.mock('../app/localStore.js', () => ({
  outboxStore: { put: () => Promise.resolve(), remove: () => Promise.resolve(), all: () => Promise.resolve([]) },
  fileStore: {
    put: (f: { id: string; item: QueuedFile; blob: Blob }) => {
      if (!room) return Promise.reject(new Error('QuotaExceededError'));
      held.set(f.id, f);
      return Promise.resolve();
    },
    blob: (id: string) => Promise.resolve(held.get(id)?.blob ?? null),
    update: (item: QueuedFile) => {
      const f = held.get(item.id);
      if (f) held.set(item.id, { ...f, item });
      return Promise.resolve();
    },
    remove: (id: string) => {
      held.delete(id);
      return Promise.resolve();
    },
    all: () => Promise.resolve([...held.values()].map((f) => f.item).sort((a, b) => a.order - b.order)),
  },
}));
let tag: QueuedFile['tag'] = { kind: 'none' };
const looked: Array<{ picture: boolean; placed: boolean }> = [];
jest.mock('../workers/filing.js', () => ({
  filing: () => ({
    prepare: (_: Blob, how: { picture: boolean; placed: boolean }, told: (share: number) => void) => {
      looked.push(how);
      told(0.25);
      return Promise.resolve({ sha256: 'ab'.repeat(32), tag });
    },
  }),
}));

const sent: Array<{ url: string; station: string; name: string }> = [];
let answer: () => 'away' | { status: number; body: unknown } = () => ({ status: 201, body: { already: false } });
class FakeRequest {
  responseType = '';
  status = 0;
  response: unknown = null;
  readonly upload: { onprogress: ((e: { lengthComputable: boolean; loaded: number; total: number }) => void) | null } = {
    onprogress: null,
  };
  onload: () => void = () => undefined;
  onerror: () => void = () => undefined;
  onabort: () => void = () => undefined;
  private url = '';
  open(_: string, url: string): void {
    this.url = url;
  }
  abort(): void {
    this.onabort();
  }
  send(form: FormData): void {
    this.upload.onprogress?.({ lengthComputable: true, loaded: 1, total: 2 });
    const now = answer();
    if (now === 'away') return this.onerror();
    sent.push({ url: this.url, station: form.get('station') as string, name: (form.get('file') as File).name });
    this.status = now.status;
    this.response = now.body;
    this.onload();
  }
}
Object.assign(global, { XMLHttpRequest: FakeRequest, navigator: {} });

import { api } from '../app/api.js';
import { store } from '../app/store.js';
import { addFiles, dropFiles, restoreFiles, settle, type NewFile } from './queue.js';

const ME = { account: { role: 'builder' }, author: { id: 'mara', name: 'Mara' } } as unknown as Me;
const files = (caseId: string): readonly QueuedFile[] => store.getState().uploads.files.filter((f) => f.caseId === caseId);
const photo = (name: string, station: string | null, bytes = 10): NewFile => ({
  blob: new Blob([new Uint8Array(bytes)], { type: 'image/jpeg' }),
  name,
  station,
  kind: 'photo',
});
let count = 0;
async function open(): Promise<string> {
  const id = `case-${++count}`;
  const layout: EntryDraft = {
    id: `l${count}`,
    kind: 'layout-set',
    station: null,
    basedOn: null,
    body: { layout: engineTemplate('inline-4-petrol')!.layout },
  } as never;
  const state = foldEntries(emptyCase(id), [{ ...layout, author: ME.author, time: '2026-03-02T08:00:00.000Z', seq: 1, hash: '1' }]);
  await store.dispatch(api.util.upsertQueryData('getCase', id, { id, state }));
  return id;
}
const wait = async (): Promise<void> => {
  for (let k = 0; k < 60; k++) await jest.advanceTimersByTimeAsync(0);
};

beforeEach(() => {
  jest.useFakeTimers();
  held.clear();
  sent.length = 0;
  room = true;
  tag = { kind: 'none' };
  answer = () => ({ status: 201, body: { already: false } });
});
afterEach(() => jest.useRealTimers());

describe('pictures for a place', () => {
  it('are searched for a tag on a small copy only; where the tag is to say the place, to the end', async () => {
    const c = await open();
    looked.length = 0;
    const clip: NewFile = { ...photo('k.webm', 'bore.1'), kind: 'clip' };
    await store.dispatch(addFiles(c, [photo('a.jpg', 'bore.1'), photo('b.jpg', null), clip], ME));
    await wait();
    expect(looked).toEqual([
      { picture: true, placed: true },
      { picture: true, placed: false },
      { picture: false, placed: true },
    ]);
    expect(files(c).map((f) => f.looked)).toEqual([null, null, null]);
  });
  it('go one after the other in the order they were taken, and are then held no longer', async () => {
    const c = await open();
    await store.dispatch(addFiles(c, [photo('a.jpg', 'bore.1'), photo('b.jpg', 'bore.2'), photo('c.jpg', 'bore.1')], ME));
    expect(held.size).toBeGreaterThan(0);
    await wait();
    expect(sent.map((s) => [s.name, s.station])).toEqual([
      ['a.jpg', 'bore.1'],
      ['b.jpg', 'bore.2'],
      ['c.jpg', 'bore.1'],
    ]);
    expect(files(c).map((f) => [f.status, f.share])).toEqual([
      ['done', 1],
      ['done', 1],
      ['done', 1],
    ]);
    expect(held.size).toBe(0);
  });
  it('that are too large are refused at once by their size, and the others go', async () => {
    const c = await open();
    const large = { size: 60 * 1024 * 1024, type: 'image/jpeg' } as Blob;
    await store.dispatch(addFiles(c, [{ ...photo('large.jpg', 'bore.1'), blob: large }, photo('small.jpg', 'bore.1')], ME));
    await wait();
    expect(files(c)[0]).toMatchObject({ status: 'refused', problem: { code: 'file-too-large' } });
    expect(sent.map((s) => s.name)).toEqual(['small.jpg']);
  });
  it('wait while the server is away and go by themselves when it is back', async () => {
    const c = await open();
    answer = () => 'away';
    await store.dispatch(addFiles(c, [photo('a.jpg', 'bore.1'), photo('b.jpg', 'bore.2')], ME));
    await wait();
    expect(store.getState().uploads.away).toBe(true);
    expect(files(c).map((f) => f.status)).toEqual(['waiting', 'waiting']);
    expect(held.size).toBe(2);
    answer = () => ({ status: 201, body: { already: false } });
    await jest.advanceTimersByTimeAsync(20_000);
    await wait();
    expect(files(c).map((f) => f.status)).toEqual(['done', 'done']);
    expect(store.getState().uploads.away).toBe(false);
  });
  it('a browser without room keeps in the page alone, says so, and sends', async () => {
    const c = await open();
    room = false;
    answer = () => 'away';
    await store.dispatch(addFiles(c, [photo('a.jpg', 'bore.1')], ME));
    await wait();
    expect(files(c)[0]!.kept).toBe(false);
    answer = () => ({ status: 201, body: { already: true } });
    await jest.advanceTimersByTimeAsync(20_000);
    await wait();
    expect(files(c)[0]!.status).toBe('already');
  });
  it('what the server refuses keeps its sentence, and goes again when asked', async () => {
    const c = await open();
    const problem = { code: 'not-a-picture', sentence: 'The file is not a picture.' };
    answer = () => ({ status: 400, body: problem });
    await store.dispatch(addFiles(c, [photo('a.jpg', 'bore.1')], ME));
    await wait();
    expect(files(c)[0]).toMatchObject({ status: 'refused', problem });
    answer = () => ({ status: 201, body: { already: false } });
    store.dispatch(settle(files(c)[0]!.id, ME));
    await wait();
    expect(files(c)[0]).toMatchObject({ status: 'done', problem: null });
  });
  it('a reader sends nothing', async () => {
    const c = await open();
    await store.dispatch(addFiles(c, [photo('a.jpg', 'bore.1')], { ...ME, account: { ...ME.account, role: 'reader' } }));
    await wait();
    expect(sent).toEqual([]);
    store.dispatch(dropFiles(files(c).map((f) => f.id)));
    expect(held.size).toBe(0);
  });
});

describe('pictures whose tag is to say the place', () => {
  const found = (caseId: string, station: string): QueuedFile['tag'] =>
    ({ kind: 'tag', caseId, station, corners: [], gains: null }) as never;
  it('are filed by it', async () => {
    const c = await open();
    tag = found(c, 'bore.2');
    await store.dispatch(addFiles(c, [photo('a.jpg', null)], ME));
    await wait();
    expect(sent[0]!.station).toBe('bore.2');
  });
  it.each<[string, () => QueuedFile['tag'], string | null, string]>([
    ['no tag was found', () => ({ kind: 'none' }), null, 'tag-none'],
    ['the code is another', () => ({ kind: 'foreign' }) as never, null, 'tag-foreign'],
    ['the tag is of another case', () => found('elsewhere', 'bore.1'), null, 'tag-other-case'],
    ['the engine has no such place', () => found(`case-${count}`, 'bore.99'), null, 'tag-no-place'],
    ['it contradicts what was chosen', () => found(`case-${count}`, 'bore.2'), 'bore.1', 'tag-contradicts'],
  ])('are set aside when %s, until a hand says where they belong', async (_, make, station, code) => {
    const c = await open();
    tag = make();
    await store.dispatch(addFiles(c, [photo('a.jpg', station)], ME));
    await wait();
    expect(sent).toEqual([]);
    expect(files(c)[0]).toMatchObject({ status: 'tray', problem: { code } });
    expect(held.size).toBe(1);
    store.dispatch(settle(files(c)[0]!.id, ME, 'bore.3'));
    await wait();
    expect(sent.map((s) => s.station)).toEqual(['bore.3']);
    expect(held.size).toBe(0);
  });
});

describe('after a reload', () => {
  it('what was on its way starts again from the browser’s store', async () => {
    const c = await open();
    answer = () => 'away';
    await store.dispatch(addFiles(c, [photo('a.jpg', 'bore.1')], ME));
    await wait();
    const [f] = [...held.values()];
    held.set(f!.item.id, { ...f!, item: { ...f!.item, status: 'sending', share: 0.4 } });
    store.dispatch({ type: 'uploads/dropped', payload: [f!.item.id] });
    answer = () => ({ status: 201, body: { already: false } });
    await store.dispatch(restoreFiles(ME));
    await jest.advanceTimersByTimeAsync(20_000);
    await wait();
    expect(files(c)[0]).toMatchObject({ name: 'a.jpg', status: 'done' });
  });
  it('a file the browser has lost is told so, and the rest go', async () => {
    const c = await open();
    answer = () => 'away';
    await store.dispatch(addFiles(c, [photo('lost.jpg', 'bore.1'), photo('b.jpg', 'bore.2')], ME));
    await wait();
    held.delete(files(c)[0]!.id);
    answer = () => ({ status: 201, body: { already: false } });
    await jest.advanceTimersByTimeAsync(20_000);
    await wait();
    expect(files(c).map((f) => [f.status, f.problem?.code ?? null])).toEqual([
      ['refused', 'bytes-gone'],
      ['done', null],
    ]);
  });
});
