import { randomUUID } from 'node:crypto';
import { get } from 'node:http';
import type { AddressInfo } from 'node:net';
import { emptyCase, verifyChain, type LedgerEntry } from '@true-ledger/core/ledger';
import { foldEntries } from '@true-ledger/core/entries';
import pg from 'pg';
import { LedgerService } from '../src/ledger/ledger.service.js';
import { draft, FOUR, newCase, startBench, type Bench } from './harness.js';

let bench: Bench;
let caseId: string;
beforeAll(async () => {
  bench = await startBench();
  caseId = await newCase(bench.people.builder);
});
afterAll(() => bench.close());

const append = (drafts: object[], who: 'builder' | 'second' = 'builder', id = caseId) =>
  bench.people[who].post(`/api/cases/${id}/entries`).send({ entries: drafts });
const entries = async (id = caseId): Promise<LedgerEntry[]> =>
  (await bench.people.reader.get(`/api/cases/${id}/entries`).expect(200)).body as LedgerEntry[];

describe('opening a case', () => {
  it('gives it a number and its first entries', async () => {
    const list = await entries();
    expect(list.map((e) => e.kind)).toEqual(['case-opened', 'layout-set', 'intake-set']);
    expect((list[0]!.body as { number: string }).number).toMatch(/^\d{4}-\d{3}$/);
    expect(verifyChain(list).ok).toBe(true);
  });
  it('is safe to repeat', async () => {
    const id = randomUUID();
    const body = { id, title: 'Twice', reference: '', layout: FOUR };
    await bench.people.builder.post('/api/cases').send(body).expect(201);
    await bench.people.builder.post('/api/cases').send(body).expect(201);
    expect(await entries(id)).toHaveLength(2);
  });
  it.each([
    ['a firing order of the wrong length', { firingOrder: [1, 3, 4] }, /names 3 cylinders, the engine has 4/],
    ['five mains on a single', { arrangement: 'single', cylinders: 1, firingOrder: [1], throwAnglesDeg: [0] }, /5 mains do not fit/],
  ])('refuses %s with a sentence', async (_, change, words) => {
    const answer = await bench.people.builder
      .post('/api/cases')
      .send({ id: randomUUID(), title: 'x', reference: '', layout: { ...FOUR, ...change } })
      .expect(400);
    expect(answer.body).toMatchObject({ code: 'layout-contradiction' });
    expect(answer.body.sentence).toMatch(words);
  });
});

describe('appending', () => {
  it('records once, however often it is sent', async () => {
    const d = draft('state-set', 'bore.1', { state: 'sound' });
    const first = await append([d]).expect(201);
    const again = await append([d]).expect(201);
    expect(again.body.entries[0]).toEqual(first.body.entries[0]);
    expect((await entries()).filter((e) => e.id === d.id)).toHaveLength(1);
  });
  it('tells the second of two people who write one field, and keeps the first', async () => {
    const one = draft('intake-set', null, { field: 'complaint', value: 'knock' });
    await append([one]).expect(201);
    const late = await append([draft('intake-set', null, { field: 'complaint', value: 'seized' })], 'second').expect(409);
    expect(late.body).toMatchObject({
      code: 'entry-conflict',
      conflict: { slot: 'intake:complaint', current: { entry: one.id, author: { name: 'The builder' } } },
    });
    await append([draft('intake-set', null, { field: 'complaint', value: 'seized' }, one.id)], 'second').expect(201);
  });
  it.each([
    ['a second opening', draft('case-opened', null, { number: 'X', title: 'x' }), 'entry-kind', /its number stays/],
    [
      'a picture that was never sent',
      draft('photo-added', 'bore.1', {
        sha256: 'a'.repeat(64),
        name: 'x.jpg',
        mime: 'image/jpeg',
        bytes: 1,
        width: 1,
        height: 1,
        takenAt: null,
        standIn: false,
      }),
      'entry-kind',
      /holds no such picture/,
    ],
    ['text that cannot be kept', draft('remark', 'bore.1', { remark: 'r', text: 'a\u0000b' }), 'request', /cannot be kept/],
    ['half a character', draft('remark', 'bore.1', { remark: 'r', text: 'a\ud800' }), 'request', /cannot be kept/],
  ])('refuses %s', async (_, entry, code, words) => {
    const before = (await entries()).length;
    const answer = await append([entry]).expect(400);
    expect(answer.body.code).toBe(code);
    expect(answer.body.sentence).toMatch(words);
    expect(await entries()).toHaveLength(before);
  });
  it('takes all of a batch or nothing', async () => {
    const before = (await entries()).length;
    const answer = await append([
      draft('state-set', 'bore.2', { state: 'sound' }),
      draft('state-set', 'bore.99', { state: 'sound' }),
    ]).expect(400);
    expect(answer.body.code).toBe('entry-station');
    expect(await entries()).toHaveLength(before);
  });
  it('lets many people write different fields at once, without a gap in the chain', async () => {
    const id = await newCase(bench.people.builder);
    const stations = (await bench.people.builder.get(`/api/cases/${id}`)).body.state.groups;
    expect(Object.keys(stations)).toEqual(['']);
    const drafts = [1, 2, 3, 4].flatMap((n) =>
      ['bore.N', 'rod.N', 'piston.N.crown', 'rings.N.pack', 'crank.pin.N'].map((s) =>
        draft('state-set', s.replace('N', String(n)), { state: 'sound' }),
      ),
    );
    const answers = await Promise.all(drafts.map((d, i) => append([d], i % 2 ? 'builder' : 'second', id)));
    expect(answers.map((a) => a.status)).toEqual(drafts.map(() => 201));
    const list = await entries(id);
    expect(list).toHaveLength(3 + drafts.length);
    expect(verifyChain(list).ok).toBe(true);
  });
  it('gives everyone the state that the entries fold to', async () => {
    const state = (await bench.people.reader.get(`/api/cases/${caseId}`)).body.state;
    expect(state).toEqual(JSON.parse(JSON.stringify(foldEntries(emptyCase(caseId), await entries()))));
  });
  it('takes back by superseding', async () => {
    const d = draft('grade-confirmed', 'bore.3', { grade: 3, proposed: null, reason: '', book: '1' });
    await append([d]).expect(201);
    await append([draft('retracted', 'bore.3', { target: d.id, slot: 'grade', reason: 'taken back' })]).expect(201);
    await append([draft('retracted', 'bore.3', { target: d.id, slot: 'grade', reason: 'taken back' })]).expect(409);
    const list = await entries();
    expect(list.at(-1)).toMatchObject({ kind: 'retracted', supersedes: d.id });
    expect(list.some((e) => e.id === d.id)).toBe(true);
  });
  it.each([
    ['no entries', { entries: [] }],
    ['an unknown kind', { entries: [{ ...draft('remark', null, {}), kind: 'poem' }] }],
    ['an id that is none', { entries: [{ ...draft('remark', null, {}), id: '1' }] }],
    ['a body that is none', { entries: [{ ...draft('remark', null, {}), body: 'text' }] }],
  ])('refuses %s in one shape', async (_, body) => {
    const answer = await bench.people.builder.post(`/api/cases/${caseId}/entries`).send(body).expect(400);
    expect(Object.keys(answer.body).sort()).toEqual(expect.arrayContaining(['code', 'sentence']));
  });
  it('keeps HTML in every text field as text', async () => {
    const html = '<img src=x onerror=alert(1)><b>bold</b>';
    await append([
      draft('remark', 'bore.4', { remark: randomUUID(), text: html }),
      draft('history-line', null, { line: randomUUID(), text: html, feature: null, reliability: 'told', date: null }),
      draft('report-set', null, { field: 'conclusion', value: html }),
    ]).expect(201);
    expect((await entries()).filter((e) => JSON.stringify(e.body).includes('onerror'))).toHaveLength(3);
  });
  it('answers a wrong address in the same shape', async () => {
    expect((await bench.people.builder.get(`/api/cases/${randomUUID()}`).expect(404)).body.code).toBe('not-found');
    expect((await bench.people.builder.get('/api/nothing').expect(404)).body.code).toBe('not-found');
    expect(
      (await bench.people.builder.post('/api/cases').set('Content-Type', 'application/json').send('{"a":').expect(400)).body.code,
    ).toBe('request');
  });
});

describe('the kept state', () => {
  it('can be rebuilt from the entries and is the same', async () => {
    const answer = await bench.people.owner.post(`/api/cases/${caseId}/rebuild`).expect(201);
    expect(answer.body.same).toBe(true);
    await bench.people.builder.post(`/api/cases/${caseId}/rebuild`).expect(403);
  });
  it('survives many entries with its snapshot behind', async () => {
    const ledger = bench.app.get(LedgerService);
    const id = await newCase(bench.people.builder);
    let basedOn: string | null = null;
    for (let k = 0; k < 60; k++) {
      const d = draft('intake-set', null, { field: 'complaintWords', value: `version ${k}` }, basedOn);
      await ledger.append(id, [d], { id: randomUUID(), name: 'Loop' });
      basedOn = d.id;
    }
    expect(await ledger.state(id)).toEqual(foldEntries(emptyCase(id), await entries(id)));
  });
  it('lets nobody edit or delete an entry in the database, only empty a body, which shows', async () => {
    const client = new pg.Client({ connectionString: bench.url });
    await client.connect();
    const [last] = (await client.query(`SELECT id FROM entries WHERE kind = 'remark' LIMIT 1`)).rows as Array<{ id: string }>;
    await expect(client.query(`UPDATE entries SET "authorName" = 'Nobody' WHERE id = $1`, [last!.id])).rejects.toThrow('never edited');
    await expect(client.query(`UPDATE entries SET body = '{"text":"x"}' WHERE id = $1`, [last!.id])).rejects.toThrow('never edited');
    await expect(client.query(`DELETE FROM entries WHERE id = $1`, [last!.id])).rejects.toThrow('never deleted');
    await client.query(`UPDATE entries SET body = NULL WHERE id = $1`, [last!.id]);
    await client.end();
    expect(verifyChain(await entries())).toMatchObject({
      ok: false,
      broken: { id: last!.id, reason: 'its content is gone and no redaction says why' },
    });
  });
});

describe('live', () => {
  it('tells an open page that the case has grown', async () => {
    const { port } = bench.app.getHttpServer().address() as AddressInfo;
    const cookie = (await bench.people.reader.get('/api/me').expect(200)).request.cookies as unknown as string;
    const heard = new Promise<string>((resolve, reject) => {
      const stream = get({ port, host: '127.0.0.1', path: `/api/events?case=${caseId}`, headers: { cookie } }, (response) => {
        response.on('data', (data: Buffer) => {
          if (!data.toString().includes('"seq"')) return;
          resolve(data.toString());
          stream.destroy();
        });
      });
      stream.on('error', (e) => ((e as { code?: string }).code === 'ECONNRESET' ? undefined : reject(e)));
      setTimeout(() => void append([draft('remark', null, { remark: randomUUID(), text: 'hello' })]).then(() => undefined), 300);
    });
    expect(await heard).toContain(caseId);
  });
});
