import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { EngineLine, EngineLogAnswer } from '@true-ledger/contract';
import { readLog, type EngineRecord, type LineBodies, type LineKind } from '@true-ledger/core/engineLog';
import { DataSource } from 'typeorm';
import { bytesOf, newCase, PASSWORD, startBench, type Bench } from './harness.js';
import request from 'supertest';

// Engines as records of their own: nothing written is lost, whoever merges what, and what a laboratory gets wrong is caught by the log.
const RECORD: EngineRecord = {
  mark: 'E-14',
  name: 'Launch, four cylinders',
  counter: 'h',
  fuel: 'diesel',
  cooling: 'liquid',
  sumpL: 9,
  marksL: 2,
  changeEvery: 250,
};
let bench: Bench;
beforeAll(async () => void (bench = await startBench({ laboratorySeconds: 0 })));
afterAll(() => bench.close());

const make = async (change: Partial<EngineRecord> = {}): Promise<string> => {
  const id = randomUUID();
  await bench.people.builder
    .post('/api/engines')
    .send({ id, record: { ...RECORD, mark: `E-${id.slice(0, 6)}`, ...change } })
    .expect(201);
  return id;
};
const line = <K extends LineKind>(kind: K, day: string, counter: number | null, body: LineBodies[K], supersedes: string | null = null) => ({
  id: randomUUID(),
  kind,
  day,
  counter,
  supersedes,
  body,
});
const write = (id: string, ...lines: object[]): request.Test => bench.people.builder.post(`/api/engines/${id}/lines`).send({ lines });
const log = async (id: string): Promise<EngineLogAnswer> =>
  (await bench.people.builder.get(`/api/engines/${id}`).expect(200)).body as EngineLogAnswer;
const level = (day: string, counter: number, share: number) => line('level', day, counter, { share, look: 'dark', stick: '', note: '' });
const sample = (reference: string, day: string, counter: number) =>
  line('sample', day, counter, { reference, drawn: 'mid-stream', laboratory: 'Stand-in' });
const change = (day: string, counter: number) => line('oil-change', day, counter, { litres: 9, oil: 'Harbour 15W-40', filter: true });

describe('an engine', () => {
  it('is made once, however often it is sent, has a mark of its own, and is changed by one at a time', async () => {
    const id = await make({ mark: 'E-14' });
    await bench.people.builder.post('/api/engines').send({ id, record: RECORD }).expect(201);
    const taken = await bench.people.builder.post('/api/engines').send({ id: randomUUID(), record: { ...RECORD, mark: 'e-14' } });
    expect([taken.status, taken.body]).toMatchObject([400, { code: 'engine-mark', field: 'record.mark' }]);
    const changed = { ...RECORD, name: 'Launch, its second engine' };
    const both = await Promise.all([1, 2].map(() => bench.people.builder.put(`/api/engines/${id}`).send({ basedOn: 1, record: changed })));
    expect(both.map((r) => r.status).sort()).toEqual([200, 409]);
    expect((await log(id)).record.name).toBe('Launch, its second engine');
    await bench.people.reader.post('/api/engines').send({ id: randomUUID(), record: RECORD }).expect(403);
    await bench.people.builder.get(`/api/engines/${randomUUID()}`).expect(404);
  });

  it('keeps every line of its log: one sent twice is there once, one replaced is still there, none is changed in the database', async () => {
    const id = await make();
    const first = level('2026-01-02', 10, 0.9);
    await write(id, first).expect(201);
    await write(id, first, level('2026-02-02', 40, 0.8)).expect(201);
    const again = { ...line('level', '2026-01-02', 10, { share: 0.7, look: null, stick: '', note: '' }, first.id) };
    await write(id, again).expect(201);
    expect((await log(id)).lines).toHaveLength(3);
    expect((await write(id, { ...again, id: randomUUID() })).body).toMatchObject({ code: 'book-conflict' });
    // Two at once: the database lets one.
    const both = await Promise.all(
      [0.6, 0.65].map((share) => write(id, { ...again, id: randomUUID(), supersedes: again.id, body: { ...again.body, share } })),
    );
    expect(both.map((r) => r.status).sort()).toEqual([201, 409]);
    expect((await write(id, { ...level('2026-03-02', 60, 1), supersedes: randomUUID() })).body).toMatchObject({ code: 'engine-line' });
    expect((await write(id, { ...first, kind: 'note', body: { words: 'x' } })).body).toMatchObject({ code: 'entry-id' });
    expect((await write(id, { ...level('2026-13-99', 60, 1), day: 'soon' })).body).toMatchObject({ code: 'request' });
    expect((await write(id, { ...level('2026-03-02', 60, 1), body: { share: 'full' } })).body).toMatchObject({ code: 'request' });
    await expect(bench.app.get(DataSource).query('UPDATE engine_lines SET day = $1', ['2000-01-01'])).rejects.toThrow(/never edited/);
    await bench.people.reader
      .post(`/api/engines/${id}/lines`)
      .send({ lines: [level('2026-03-02', 60, 1)] })
      .expect(403);
  });

  it('says on the list what should be looked at, and what is due stands in the calendar', async () => {
    const id = await make({ name: 'Rising' });
    await write(id, change('2026-08-01', 0), level('2026-08-01', 0, 0.6), level('2026-09-01', 50, 1.1)).expect(201);
    const own = ((await bench.people.reader.get('/api/engines').expect(200)).body as EngineLine[]).find((e) => e.id === id)!;
    expect(own).toMatchObject({ lines: 3, newest: '2026-09-01', counter: 50, urgent: [expect.stringContaining('The level is rising')] });
    const { text, headers } = await bench.people.reader.get('/api/engines/due.ics').expect(200);
    expect(headers['content-type']).toContain('text/calendar');
    expect(text).toContain('BEGIN:VCALENDAR');
    expect(text.replace(/\r\n /g, '')).toContain('Rising: Level and look of the oil');
  });
});

describe('one engine under two marks', () => {
  it('is merged and parted again without a line lost, and nothing is written where nobody would look', async () => {
    const [one, other] = [await make({ mark: 'E-ONE' }), await make({ mark: 'E-TWO' })];
    await write(one, level('2026-01-01', 1, 1)).expect(201);
    await write(other, level('2026-02-01', 20, 1)).expect(201);
    const caseId = await newCase(bench.people.builder);
    await bench.people.builder.put(`/api/cases/${caseId}/engine`).send({ engine: other }).expect(200);
    const merge = (id: string, into: string | null): request.Test => bench.people.builder.put(`/api/engines/${id}/merged`).send({ into });
    await merge(other, one).expect(200);
    expect(await log(one)).toMatchObject({ merged: [{ mark: 'E-TWO' }], lines: [{}, {}], cases: [{ id: caseId }] });
    expect((await bench.people.builder.get(`/api/cases/${caseId}/engine`)).body).toMatchObject({ engine: { id: one } });
    expect((await write(other, level('2026-03-01', 30, 1))).body).toMatchObject({
      code: 'engine-merge',
      sentence: expect.stringContaining('E-ONE'),
    });
    expect(((await bench.people.builder.get('/api/engines')).body as EngineLine[]).some((e) => e.id === other)).toBe(false);
    // In a ring nobody would find either.
    expect((await merge(one, other)).body).toMatchObject({ code: 'engine-merge' });
    const three = await make();
    const race = await Promise.all([merge(one, three), merge(three, one)]);
    expect(race.map((r) => r.status).sort()).toEqual([200, 400]);
    for (const each of [one, three]) await merge(each, null).expect(200);
    expect((await merge(one, one)).body).toMatchObject({ code: 'engine-merge' });
    await merge(other, null).expect(200);
    expect((await log(one)).lines).toHaveLength(1);
    expect(await log(other)).toMatchObject({ lines: [{}], cases: [{ id: caseId }], mergedInto: null });
    const km = await make({ counter: 'km' });
    expect((await merge(km, one)).body).toMatchObject({ code: 'engine-merge', sentence: expect.stringContaining('counts km') });
  });

  it('is of a case until another is said, and is shown to nobody who may not see one of its cases', async () => {
    const id = await make();
    const caseId = await newCase(bench.people.builder);
    await bench.people.builder.put(`/api/cases/${caseId}/engine`).send({ engine: randomUUID() }).expect(404);
    await bench.people.builder.put(`/api/cases/${caseId}/engine`).send({ engine: id }).expect(200);
    const account = (
      await bench.people.owner
        .post('/api/accounts')
        .send({ name: 'Outside', signIn: 'outside', password: PASSWORD, role: 'reader' })
        .expect(201)
    ).body as { id: string };
    await bench.people.owner.patch(`/api/accounts/${account.id}`).send({ cases: [] }).expect(200);
    const outside = request.agent(bench.app.getHttpServer());
    await outside.post('/api/sign-in').send({ signIn: 'outside', password: PASSWORD }).expect(201);
    expect((await outside.get('/api/engines').expect(200)).body).toEqual([]);
    await outside.get(`/api/engines/${id}`).expect(404);
    await bench.people.owner
      .patch(`/api/accounts/${account.id}`)
      .send({ cases: [caseId] })
      .expect(200);
    expect((await outside.get(`/api/engines/${id}`).expect(200)).body).toMatchObject({ cases: [{ id: caseId }], others: [] });
    await bench.people.builder.put(`/api/cases/${caseId}/engine`).send({ engine: null }).expect(200);
    await outside.get(`/api/engines/${id}`).expect(404);
  });
});

describe('the stand-in of the laboratory', () => {
  const collect = async (id: string): Promise<EngineLogAnswer> =>
    (await bench.people.builder.post(`/api/engines/${id}/laboratory/collected`).expect(201)).body as EngineLogAnswer;
  const reading = (answer: EngineLogAnswer) => readLog(answer.record, answer.lines, answer.others).samples.at(-1)!;
  let id: string;
  let n = 0;
  /** One more filling run, sampled and sent in. */
  const sent = async (fault: string): Promise<EngineLogAnswer> => {
    n++;
    const reference = `LAB-${n}`;
    const day = `2025-0${n}-01`;
    await write(id, change(day, 250 * (n - 1)), sample(reference, day, 250 * (n - 1) + 240)).expect(201);
    await bench.people.builder.post(`/api/engines/${id}/laboratory`).send({ reference, fault }).expect(201);
    return collect(id);
  };

  it('answers, and what it slips, swaps or loses is caught', async () => {
    const petrol = await make({ fuel: 'petrol', mark: 'E-PETROL' });
    for (const k of [1, 2]) {
      await write(petrol, change(`2025-0${k}-01`, 100 * k), sample(`PET-${k}`, `2025-0${k}-02`, 100 * k + 90)).expect(201);
      await bench.people.builder
        .post(`/api/engines/${petrol}/laboratory`)
        .send({ reference: `PET-${k}`, fault: 'none' })
        .expect(201);
    }
    await collect(petrol);
    id = await make();
    for (let k = 0; k < 3; k++) expect(reading(await sent('none'))).toMatchObject({ counts: true, result: { body: { simulated: true } } });
    // Ten times of what there was much of already is more than any oil holds.
    expect(['slipped', 'impossible']).toContain(reading(await sent('slipped')).doubts[0]?.kind);
    const swapped = reading(await sent('swapped'));
    expect(swapped).toMatchObject({ counts: false, doubts: [{ kind: 'another-engine', offer: { engine: 'E-PETROL' } }] });
    expect(reading(await sent('other-units')).doubts.map((d) => d.kind)).toEqual(['other-units']);
    const lost = await sent('lost');
    expect([lost.awaited, reading(lost).result]).toEqual([['LAB-7'], null]);
    // Asked twice, a result comes once.
    expect((await collect(id)).lines.length).toBe(lost.lines.length);
  });

  it('answers for a record that was merged, and takes a reference from one engine alone', async () => {
    const [one, other] = [await make(), await make()];
    await write(one, change('2025-01-01', 0), sample('MERGED-1', '2025-02-01', 200)).expect(201);
    await bench.people.builder.post(`/api/engines/${one}/laboratory`).send({ reference: 'MERGED-1', fault: 'none' }).expect(201);
    await write(other, sample('MERGED-1', '2025-03-01', 10)).expect(201);
    const refused = await bench.people.builder.post(`/api/engines/${other}/laboratory`).send({ reference: 'MERGED-1', fault: 'none' });
    expect([refused.status, refused.body]).toMatchObject([400, { code: 'engine-line', field: 'reference' }]);
    await bench.people.builder.put(`/api/engines/${one}/merged`).send({ into: other }).expect(200);
    expect((await collect(other)).awaited).toEqual([]);
    expect((await log(other)).lines.some((l) => l.kind === 'result')).toBe(true);
  });

  it('that came for a sample of another engine is told whose it is', async () => {
    const [mine, theirs] = [await make(), await make({ mark: 'E-THEIRS' })];
    await write(theirs, change('2025-01-01', 0), sample('THEIRS-1', '2025-02-01', 200)).expect(201);
    const body = { reference: 'THEIRS-1', reported: '2025-02-10', laboratory: '', figures: { Fe: 12 }, insisted: false };
    await write(mine, line('result', '2025-02-10', null, body)).expect(201);
    const doubts = async (): Promise<string[]> => {
      const { record, lines, others } = await log(mine);
      return readLog(record, lines, others).doubts.map((d) => d.words);
    };
    expect(await doubts()).toEqual([expect.stringMatching(/it is a sample of E-THEIRS/)]);
    // A record that was merged is named by what it is part of now; a sample that was struck is nobody's.
    const whole = await make({ mark: 'E-WHOLE' });
    await bench.people.builder.put(`/api/engines/${theirs}/merged`).send({ into: whole }).expect(200);
    expect(await doubts()).toEqual([expect.stringMatching(/it is a sample of E-WHOLE/)]);
    const struck = (await log(whole)).lines.find((l) => l.kind === 'sample')!;
    await write(whole, { ...line('struck', '2025-02-11', null, { why: 'twice' }), supersedes: struck.id }).expect(201);
    expect(await doubts()).toEqual([expect.stringMatching(/no sample of this engine has that reference\.$/)]);
    // Whoever is named has nothing of it to tell where nothing strayed.
    expect((await log(theirs)).others.flatMap((o) => o.references)).toEqual([]);
  });

  it('gets a label that names the sample and nobody', async () => {
    const named = await make({ name: 'Launch of Somebody' });
    await write(
      named,
      line('owner', '2025-01-01', null, { reference: 'Somebody' }),
      change('2025-01-01', 0),
      sample('LABEL-1', '2025-02-01', 200),
    ).expect(201);
    const pdf = await bytesOf(bench.people.reader.get(`/api/engines/${named}/label.pdf?reference=LABEL-1`).expect(200));
    const file = join(mkdtempSync(join(tmpdir(), 'tl-label-')), 'label.pdf');
    writeFileSync(file, pdf);
    const text = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
    expect(text).toMatch(/LABEL-1[^]*200 h[^]*Harbour 15W-40/);
    // On the bottle and on the form.
    expect(text.match(/Harbour 15W-40/g)).toHaveLength(2);
    expect(text).not.toContain('Somebody');
    await bench.people.reader.get(`/api/engines/${named}/label.pdf?reference=NONE-1`).expect(404);
  });

  it('takes no reference that is not in the log', async () => {
    const refused = await bench.people.builder.post(`/api/engines/${id}/laboratory`).send({ reference: 'NOBODY-1', fault: 'none' });
    expect([refused.status, refused.body]).toMatchObject([400, { code: 'engine-line', field: 'reference' }]);
  });
});
