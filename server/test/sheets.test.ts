import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import request from 'supertest';
import { FOUR, newCase, startBench, type Bench } from './harness.js';

let bench: Bench;
beforeAll(async () => void (bench = await startBench()));
afterAll(() => bench.close());

const sheet = (change: object = {}) => ({
  id: 'pump-house',
  basedOn: 0,
  name: 'Pump house four',
  source: 'Data plate and sheet 4',
  layout: { ...FOUR, boreMm: 84 },
  specs: { 'crank.pin': { minMm: 52.984, maxMm: 53, outOfRoundMaxMm: 0.008, undersizesMm: [0.25, 0.5], source: 'sheet 4' } },
  limits: [{ quantity: 'end-float', lower: 0.05, upper: 0.25, unit: 'mm' }],
  ...change,
});
const save = (body: object, who: 'builder' | 'second' | 'reader' = 'builder') => bench.people[who].post('/api/sheets').send(body);

describe('spec sheets', () => {
  it('are kept in versions; an edit from an old one is refused with who was first', async () => {
    expect((await save(sheet()).expect(201)).body).toMatchObject({ version: 1, by: 'The builder' });
    expect((await save(sheet({ basedOn: 1, source: 'Sheet 5' }), 'second').expect(201)).body.version).toBe(2);
    const late = await save(sheet({ basedOn: 1 })).expect(409);
    expect(late.body.sentence).toMatch(/The second kept version 2/);
    expect((await bench.people.reader.get('/api/sheets').expect(200)).body).toHaveLength(1);
    expect((await bench.people.reader.get('/api/sheets/pump-house').expect(200)).body.map((s: { version: number }) => s.version)).toEqual([
      2, 1,
    ]);
    await save(sheet({ basedOn: 2 }), 'reader').expect(403);
  });
  it('two at once give one version and one refusal', async () => {
    const answers = await Promise.all([save(sheet({ id: 'both' })), save(sheet({ id: 'both' }), 'second')]);
    expect(answers.map((a) => a.status).sort()).toEqual([201, 409]);
  });
  it.each([
    ['a layout that contradicts itself', { layout: { ...FOUR, firingOrder: [1, 2] } }, /names 2 cylinders/],
    ['a limit upside down', { limits: [{ quantity: 'end-float', lower: 0.3, upper: 0.1, unit: 'mm' }] }, /above the upper/],
    ['an unknown limit', { limits: [{ quantity: 'mood', lower: 0, upper: 1, unit: 'mm' }] }, /not a limit known/],
    ['no source', { source: '' }, /source/],
    [
      'a specification upside down',
      { specs: { 'crank.pin': { minMm: 53, maxMm: 52, undersizesMm: [], source: 'x' } } },
      /smaller than the lower/,
    ],
  ])('refuse %s', async (_, change, words) => {
    const answer = await save(sheet({ id: 'wrong', ...change })).expect(400);
    expect(answer.body.sentence).toMatch(words);
  });
  it('open a case with their layout, specification and limits, as a copy with its source', async () => {
    const id = randomUUID();
    await bench.people.builder
      .post('/api/cases')
      .send({ id, title: 'From sheet', reference: '', layout: { ...FOUR, boreMm: 84 }, sheet: { id: 'pump-house', version: 1 } })
      .expect(201);
    const entries = (await bench.people.reader.get(`/api/cases/${id}/entries`)).body as Array<{ kind: string; body: object }>;
    expect(entries.map((e) => e.kind)).toEqual(['case-opened', 'layout-set', 'spec-set', 'limits-set']);
    expect(entries[3]!.body).toMatchObject({ sheet: { id: 'pump-house', version: 1, source: 'Data plate and sheet 4' } });
    const answer = await bench.people.builder
      .post('/api/cases')
      .send({ id: randomUUID(), title: 'x', reference: '', layout: FOUR, sheet: { id: 'pump-house', version: 9 } })
      .expect(404);
    expect(answer.body.sentence).toMatch(/no such spec sheet/);
    expect(await newCase(bench.people.builder)).toMatch(/-/);
  });
});

describe('measuring sheets', () => {
  const worked = JSON.parse(readFileSync(join(__dirname, '../../docs/formats/examples/measure/journal.json'), 'utf8')) as object;

  it('are computed for who may read, as the command line does', async () => {
    const { body } = await bench.people.reader.post('/api/measure').send(worked).expect(200);
    expect(body).toMatchObject({ format: 'true-ledger/measure', sheet: 'journal' });
    const round = (body as { lines: Array<{ id: string; verdict: object }> }).lines.find((l) => l.id === 'outOfRound');
    expect(round).toMatchObject({ verdict: { word: 'too close to call' } });
  });
  it('are refused with the place of the fault, and to strangers', async () => {
    const { body } = await bench.people.reader
      .post('/api/measure')
      .send({ ...worked, sheet: 'mood' })
      .expect(400);
    expect(body).toMatchObject({ code: 'sheet-unknown', field: 'sheet' });
    await request(bench.app.getHttpServer()).post('/api/measure').send(worked).expect(401);
  });
});

describe('running engines by the API', () => {
  const engine = { format: 'true-ledger/engine', version: 1, engine: { template: 'inline-4-petrol' }, operating: { speedRpm: 3000 } };
  it('are computed for who may read, as the command line does', async () => {
    for (const [question, format] of [
      ['loads', 'true-ledger/loads'],
      ['film', 'true-ledger/film'],
      ['oil', 'true-ledger/oil'],
    ])
      expect((await bench.people.reader.post(`/api/${question}`).send(engine).expect(200)).body).toMatchObject({ format });
  });
  it('are refused with the place of the fault, and to strangers', async () => {
    const faulty = { ...engine, faults: [{ kind: 'shut-feed', at: 'main.9' }] };
    expect((await bench.people.reader.post('/api/oil').send(faulty).expect(400)).body).toMatchObject({
      code: 'oil-fault',
      field: 'faults.0.at',
    });
    await bench.people.reader.post('/api/loads').send({ format: 'true-ledger/bearing' }).expect(400);
    await request(bench.app.getHttpServer()).post('/api/film').send(engine).expect(401);
  });
});
