import { randomUUID } from 'node:crypto';
import type { ReadingBatch, ReferencePart } from '@true-ledger/contract';
import { sha256Hex } from '@true-ledger/core/kit';
import { GRADE_BOOK, type GradeRule } from '@true-ledger/core/damage';
import pg from 'pg';
import sharp from 'sharp';
import { draft, freshDatabase, newCase, shellJpeg, startBench, type Bench } from './harness.js';

let bench: Bench;
let caseId: string;
let jpeg: Buffer;
const STATION = 'rod.1.shell.upper';

beforeAll(async () => {
  bench = await startBench();
  caseId = await newCase(bench.people.builder);
  jpeg = await shellJpeg(4, [{ kind: 'wipe', arc: 95, halfDeg: 28, amount: 0.95 }]);
});
afterAll(() => bench.close());

const send = (bytes: Buffer, station: string, id = caseId, people = bench.people.builder) =>
  people
    .post(`/api/cases/${id}/photos`)
    .field('entryId', randomUUID())
    .field('station', station)
    .attach('file', bytes, 'face.jpg')
    .expect(201);
const at = (id: string): string => `/api/cases/${id}/readings-of-pictures`;
async function finished(of: Bench, id: string): Promise<ReadingBatch> {
  for (let k = 0; k < 240; k++) {
    const { body } = await of.people.reader.get(at(id)).expect(200);
    if (!(body as ReadingBatch).running) return body as ReadingBatch;
    await new Promise((done) => setTimeout(done, 250));
  }
  throw new Error('the pictures were not read in a minute');
}

describe('all pictures of a case', () => {
  it('are read on the server, in the name of who asked, and the readings stand in the ledger', async () => {
    await bench.people.builder.post(at(caseId)).send({ again: false }).expect(400);
    await send(jpeg, STATION);
    await send(
      await sharp({ create: { width: 640, height: 480, channels: 3, background: '#6f8a76' } })
        .jpeg()
        .toBuffer(),
      'rod.2.shell.upper',
    );
    await send(jpeg, 'crank.pin.1');
    await bench.people.reader.post(at(caseId)).send({ again: false }).expect(403);
    const started = (await bench.people.builder.post(at(caseId)).send({ again: false }).expect(201)).body as ReadingBatch;
    // A journal without corners is not among them.
    expect(started.pictures.map((p) => p.station).sort()).toEqual([STATION, 'rod.2.shell.upper']);
    await bench.people.second.post(at(caseId)).send({ again: false }).expect(409);
    const done = await finished(bench, caseId);
    expect(done.by).toBe('The builder');
    expect(done.pictures.find((p) => p.station === STATION)).toMatchObject({ status: 'read', note: '' });
    const refused = done.pictures.find((p) => p.station === 'rod.2.shell.upper')!;
    expect(refused.status).toBe('refused');
    expect(refused.note).toMatch(/No half shell was found/);
    const entries = (await bench.people.reader.get(`/api/cases/${caseId}/entries`)).body as Array<{
      kind: string;
      station: string;
      author: { name: string };
      body: { shares: { lining: number[] } };
    }>;
    const read = entries.find((e) => e.kind === 'surface-read')!;
    expect(read).toMatchObject({ station: STATION, author: { name: 'The builder' } });
    expect(Math.max(...read.body.shares.lining)).toBeGreaterThan(60);
    expect(entries.some((e) => e.kind === 'corners-set' && e.station === STATION)).toBe(true);
    // What was read is not read again unless asked to.
    // Two who press at once start one.
    const both = await Promise.all([bench.people.builder, bench.people.second].map((who) => who.post(at(caseId)).send({ again: true })));
    expect(both.map((a) => a.status).sort()).toEqual([201, 409]);
    const again = both.find((a) => a.status === 201)!;
    expect((again.body as ReadingBatch).pictures).toHaveLength(2);
    await bench.people.builder.delete(at(caseId)).expect(200);
    const stopped = await finished(bench, caseId);
    expect(stopped.pictures.every((p) => ['read', 'refused', 'stopped'].includes(p.status))).toBe(true);
  });

  it('go on after the server that read them was killed in the middle', async () => {
    const url = await freshDatabase();
    const first = await startBench({ databaseUrl: url });
    const id = await newCase(first.people.builder);
    await send(jpeg, STATION, id, first.people.builder);
    await first.people.builder.post(at(id)).send({ again: false }).expect(201);
    await first.close();
    // As a killed one leaves it: taken up, and no sign of life since.
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    await client.query(`UPDATE reading_items SET status = 'reading', taken = now() - interval '1 minute'`);
    await client.query(`UPDATE pgboss.job SET state = 'failed' WHERE name = 'read-picture'`);
    await client.end();
    const second = await startBenchAgain(url);
    try {
      const done = await finished(second, id);
      expect(done.pictures.map((p) => p.status)).toEqual(['read']);
    } finally {
      await second.close();
    }
  });
});

/** The same database with another server process; the people are there already. */
async function startBenchAgain(url: string): Promise<Bench> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query('DELETE FROM sessions; DELETE FROM accounts;');
  await client.end();
  return startBench({ databaseUrl: url });
}

describe('the grade book of the shop', () => {
  const stricter: GradeRule[] = GRADE_BOOK.rules.map((r) =>
    r.on.kind === 'area' && r.on.class === 'lining' && r.grade === 3 ? { ...r, above: 5 } : r,
  );
  it('is kept in versions by the owner; an edit of an old one is refused', async () => {
    expect((await bench.people.reader.get('/api/grade-books').expect(200)).body).toMatchObject([{ book: { version: '1' } }]);
    await bench.people.builder.post('/api/grade-books').send({ basedOn: '1', rules: stricter, note: 'Stricter on lining' }).expect(403);
    const kept = await bench.people.owner
      .post('/api/grade-books')
      .send({ basedOn: '1', rules: stricter, note: 'Stricter on lining' })
      .expect(201);
    expect(kept.body[0]).toMatchObject({ book: { version: 'shop 1' }, note: 'Stricter on lining', by: 'The owner' });
    const late = await bench.people.owner.post('/api/grade-books').send({ basedOn: '1', rules: stricter, note: 'Again' }).expect(409);
    expect(late.body.sentence).toMatch(/"shop 1" meanwhile/);
  });
  it('refuses thresholds that contradict each other', async () => {
    const upside = stricter.map((r) => (r.on.kind === 'area' && r.on.class === 'lining' && r.grade === 2 ? { ...r, above: 60 } : r));
    const answer = await bench.people.owner
      .post('/api/grade-books')
      .send({ basedOn: 'shop 1', rules: upside, note: 'Upside down' })
      .expect(400);
    expect(answer.body.sentence).toMatch(/A higher grade needs a higher threshold/);
  });
  it('is taken over whole by a new case, and an open one takes it over by hand', async () => {
    const id = await newCase(bench.people.builder);
    const entries = (await bench.people.reader.get(`/api/cases/${id}/entries`)).body as Array<{
      kind: string;
      body: { book: { version: string } };
    }>;
    expect(entries.find((e) => e.kind === 'grade-book-set')!.body.book.version).toBe('shop 1');
    await bench.people.builder
      .post(`/api/cases/${caseId}/entries`)
      .send({ entries: [draft('grade-book-set', null, { book: { version: 'shop 1', rules: stricter } })] })
      .expect(201);
  });
});

describe('a second opinion', () => {
  const say = (who: 'builder' | 'second' | 'reader', station: string) =>
    bench.people[who].post(`/api/cases/${caseId}/entries`).send({ entries: [draft('second-opinion', station, { grade: 2, note: '' })] });
  it('comes from another hand, and after a first grade', async () => {
    const early = await say('second', STATION).expect(400);
    expect(early.body.sentence).toMatch(/no confirmed grade yet/);
    await bench.people.builder
      .post(`/api/cases/${caseId}/entries`)
      .send({ entries: [draft('grade-confirmed', STATION, { grade: 3, proposed: 3, reason: '', book: '1' })] })
      .expect(201);
    const own = await say('builder', STATION).expect(400);
    expect(own.body.sentence).toMatch(/You graded this place yourself/);
    await say('second', STATION).expect(201);
    await say('reader', STATION).expect(403);
  });
});

describe('reference parts', () => {
  const body = (change: object = {}) => ({
    id: randomUUID(),
    name: 'New rod shell, 25 mm',
    note: 'from the box',
    caseId,
    station: STATION,
    sha256: sha256Hex(jpeg),
    ...change,
  });
  it('are kept from a picture of a case and shown to everyone of the shop', async () => {
    const one = body();
    const kept = (await bench.people.builder.post('/api/references').send(one).expect(201)).body as ReferencePart;
    expect(kept).toMatchObject({ name: 'New rod shell, 25 mm', part: 'shell', by: 'The builder', width: 640 });
    expect(kept.corners).toHaveLength(4);
    expect((await bench.people.builder.post('/api/references').send(one).expect(201)).body).toMatchObject({ id: one.id });
    expect((await bench.people.reader.get('/api/references').expect(200)).body).toHaveLength(1);
    const picture = await bench.people.reader.get(`/api/references/${one.id}/picture`).expect(200);
    expect((await sharp(picture.body as Buffer).metadata()).width).toBe(640);
    await bench.people.builder.delete(`/api/references/${one.id}`).expect(403);
    await bench.people.owner.delete(`/api/references/${one.id}`).expect(200);
    await bench.people.reader.get(`/api/references/${one.id}/picture`).expect(404);
  });
  it.each([
    ['a picture the place does not hold', { sha256: 'a'.repeat(64) }, 404],
    ['no name', { name: ' ' }, 400],
    ['a case that is not there', { caseId: randomUUID() }, 404],
  ])('refuse %s', async (_, change, status) => {
    await bench.people.builder.post('/api/references').send(body(change)).expect(status);
  });
  it('are not kept by readers', () => bench.people.reader.post('/api/references').send(body()).expect(403));
});
