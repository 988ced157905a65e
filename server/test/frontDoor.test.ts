import { randomUUID } from 'node:crypto';
import { get } from 'node:http';
import type { AddressInfo } from 'node:net';
import { STAGES } from '@true-ledger/contract';
import { sha256Hex } from '@true-ledger/core/kit';
import request from 'supertest';
import { WebSocket } from 'ws';
import { draft, newCase, PASSWORD, shellJpeg, startBench, type Bench } from './harness.js';

let bench: Bench;
let caseId: string;
let picture: Buffer;
beforeAll(async () => {
  bench = await startBench();
  caseId = await newCase(bench.people.builder);
  picture = await shellJpeg(11);
});
afterAll(() => bench.close());

const append = (entries: object[], who: 'builder' | 'owner' = 'builder'): request.Test =>
  bench.people[who].post(`/api/cases/${caseId}/entries`).send({ entries });
const file = (station: string, entryId: string, bytes = picture, id = caseId): request.Test =>
  bench.people.builder.post(`/api/cases/${id}/photos`).field({ entryId, station, standIn: 'yes' }).attach('file', bytes, 'a.jpg');
const bytesOf = async (path: string, who: 'reader' | 'builder' = 'reader'): Promise<Buffer> =>
  (await bench.people[who].get(path).buffer(true).expect(200)).body as Buffer;

describe('a picture that is blurred', () => {
  it('is blurred wherever it is filed, in every case, and no cache keeps it for good', async () => {
    const sha = sha256Hex(picture);
    const second = await newCase(bench.people.builder);
    await file('rod.1.shell.upper', randomUUID()).expect(201);
    await file('rod.2.shell.upper', randomUUID()).expect(201);
    await file('rod.3.shell.upper', randomUUID(), picture, second).expect(201);
    const at = (id: string): string => `/api/cases/${id}/photos/${sha}/work`;
    const plain = await bytesOf(at(caseId));
    expect((await bytesOf(at(caseId), 'builder')).equals(plain)).toBe(true);
    // Nothing hidden at the one place, a face at the other.
    await append([draft('blur-set', 'rod.1.shell.upper', { sha256: sha, regions: [] })]).expect(201);
    await append([draft('blur-set', 'rod.2.shell.upper', { sha256: sha, regions: [{ x: 0.5, y: 0.5, r: 0.2 }] })]).expect(201);
    for (const id of [caseId, second]) expect((await bytesOf(at(id))).equals(plain)).toBe(false);
    const answer = await bench.people.reader.get(at(second)).expect(200);
    expect(answer.headers['cache-control']).toBe('private, no-cache');
    await bench.people.reader.get(at(second)).set('If-None-Match', answer.headers['etag']!).expect(304);
    await append([draft('blur-set', 'rod.3.shell.upper', { sha256: sha, regions: [{ x: 0.1, y: 0.1, r: 0.1 }] })]).expect(201);
    await bench.people.reader.get(at(second)).set('If-None-Match', answer.headers['etag']!).expect(200);
    const reference = { id: randomUUID(), name: 'As it should be', note: '', caseId, station: 'rod.1.shell.upper', sha256: sha };
    await bench.people.builder.post('/api/references').send(reference).expect(201);
    expect((await bytesOf(`/api/references/${reference.id}/picture`)).equals(plain)).toBe(false);
  });
});

describe('a file', () => {
  it('under the id of an entry that is something else is not kept', async () => {
    const other = await shellJpeg(12);
    const remark = draft('remark', null, { remark: 'r', text: 'x' });
    await append([remark]).expect(201);
    expect((await file('bore.1', remark.id, other)).body).toMatchObject({ code: 'entry-id', field: 'entryId' });
    await bench.people.builder.get(`/api/cases/${caseId}/photos/${sha256Hex(other)}/work`).expect(404);
  });
  it('that is struck is gone from the parts held beside others, and from links to what was signed with it', async () => {
    const own = await newCase(bench.people.builder);
    const bytes = await shellJpeg(13);
    const entryId = randomUUID();
    await file('rod.1.shell.upper', entryId, bytes, own).expect(201);
    const reference = { id: randomUUID(), name: 'Another', note: '', caseId: own, station: 'rod.1.shell.upper', sha256: sha256Hex(bytes) };
    await bench.people.builder.post('/api/references').send(reference).expect(201);
    const { head } = (await bench.people.builder.get(`/api/cases/${own}`)).body.state as { head: string };
    const asked = { id: randomUUID(), head, reason: '', acceptFlags: true };
    const signed = await bench.people.builder.post(`/api/cases/${own}/account/sign`).send(asked).expect(201);
    // The answer was lost and it is asked again: one signature.
    expect((await bench.people.builder.post(`/api/cases/${own}/account/sign`).send(asked).expect(201)).body).toEqual(signed.body);
    const share = { id: randomUUID(), version: 1, days: 3, note: '' };
    const lost = (await bench.people.builder.post(`/api/cases/${own}/shares`).send(share).expect(201)).body.path as string;
    const path = (await bench.people.builder.post(`/api/cases/${own}/shares`).send(share).expect(201)).body.path as string;
    expect((await bench.people.builder.get(`/api/cases/${own}/shares`)).body).toHaveLength(1);
    const outside = (p: string): request.Test => request(bench.app.getHttpServer()).get(`/api${p}`);
    await outside(lost).expect(404);
    await outside(path).expect(200);
    await bench.people.owner.post(`/api/cases/${own}/redactions`).send({ entry: entryId, reason: 'shows a person' }).expect(201);
    await bench.people.reader.get(`/api/references/${reference.id}/picture`).expect(404);
    await outside(path).expect(404);
  });
});

describe('what a person has open', () => {
  it('ends when the account is changed or the session is revoked: event stream and gauges', async () => {
    const { port } = bench.app.getHttpServer().address() as AddressInfo;
    const made = await bench.people.owner
      .post('/api/accounts')
      .send({ name: 'Gone Soon', signIn: 'gone', password: PASSWORD, role: 'builder' })
      .expect(201);
    const open = async (): Promise<{ ended: Promise<number>; closed: Promise<number>; agent: request.Agent }> => {
      const agent = request.agent(bench.app.getHttpServer());
      const answer = await agent.post('/api/sign-in').send({ signIn: 'gone', password: PASSWORD }).expect(201);
      const cookie = answer.headers['set-cookie']![0]!.split(';')[0]!;
      const ended = new Promise<number>((done, fail) => {
        get({ host: '127.0.0.1', port, path: '/api/events', headers: { Cookie: cookie } }, (stream) => {
          stream.resume();
          stream.on('end', () => done(stream.statusCode ?? 0));
        }).on('error', fail);
      });
      const socket = new WebSocket(`ws://127.0.0.1:${port}/api/gauges/live`, {
        headers: { Cookie: cookie, Origin: `http://127.0.0.1:${port}` },
      });
      const closed = new Promise<number>((done) => socket.on('close', done));
      await new Promise((done) => socket.on('open', done));
      await new Promise((done) => setTimeout(done, 300));
      return { ended, closed, agent };
    };
    const reader = await open();
    await bench.people.owner.patch(`/api/accounts/${made.body.id}`).send({ role: 'reader' }).expect(200);
    expect([await reader.ended, await reader.closed]).toEqual([200, 4401]);
    const revoked = await open();
    const own = ((await revoked.agent.get('/api/sessions')).body as { id: string; current: boolean }[]).find((s) => s.current)!;
    await revoked.agent.delete(`/api/sessions/${own.id}`).expect(200);
    expect([await revoked.ended, await revoked.closed]).toEqual([200, 4401]);
    const inactive = await open();
    await bench.people.owner.patch(`/api/accounts/${made.body.id}`).send({ active: false }).expect(200);
    expect([await inactive.ended, await inactive.closed]).toEqual([200, 4401]);
  });
  it('thirty presses at once on one gauge leave room for others', async () => {
    const gauge = {
      id: 'press',
      name: 'Press',
      kind: 'outside-micrometer',
      resolutionMm: 0.001,
      expandedUncertaintyMm: 0.003,
      repeatabilityMm: 0.001,
      masterMm: 50,
    };
    await bench.people.builder.put('/api/gauges').send(gauge).expect(200);
    await bench.people.builder.put('/api/stand-ins/press').send({ biasMm: 0, noise: 0, driftMm: 0, stuck: false, silent: false });
    const presses = Array.from({ length: 30 }, () =>
      bench.people.builder.post('/api/stand-ins/press').send({ type: 'press', gauge: 'press', at: 'master' }),
    );
    const others = Array.from({ length: 10 }, () => bench.people.reader.get('/api/cases'));
    const answers = await Promise.all([...presses, ...others]);
    expect(answers.filter((a) => a.status >= 300).map((a) => [a.status, a.body as unknown])).toEqual([]);
  });
});

describe('the shelf', () => {
  it('comes in pages, found by all words looked for, signs of the database among them', async () => {
    await newCase(bench.people.builder);
    const page = async (query: object, who: 'builder' | 'reader' = 'reader'): Promise<{ total: number; cases: { id: string }[] }> =>
      (await bench.people[who].get('/api/cases/page').query(query).expect(200)).body as never;
    const all = await page({});
    expect(all.total).toBeGreaterThan(2);
    const seen = new Set<string>();
    for (let n = 0; n * 2 < all.total; n++) for (const c of (await page({ page: n, size: 2 })).cases) seen.add(c.id);
    expect(seen).toEqual(new Set(all.cases.map((c) => c.id)));
    expect((await page({ words: 'slipway WINCH' })).total).toBe(all.total);
    expect((await page({ words: 'slipway nothing' })).total).toBe(0);
    for (const words of ['%', '_', "'", '\\']) expect((await page({ words })).total).toBe(0);
    expect((await bench.people.reader.get('/api/cases/page').query({ page: '-1' })).status).toBe(400);
    const byStage = await Promise.all(STAGES.map((stage) => page({ stage })));
    expect(byStage.reduce((n, p) => n + p.total, 0)).toBe(all.total);
    expect((await page({ stage: "Document' OR 1=1" })).total).toBe(0);
    for (const waits of ['client', "client' OR 1=1", '"]']) expect((await page({ waits })).total).toBe(0);
    expect((await page({ mine: 'yes' })).total).toBe(0);
    for (const order of ['written', 'number', 'examined', 'dropped']) expect((await page({ order })).total).toBe(all.total);
  });
});
