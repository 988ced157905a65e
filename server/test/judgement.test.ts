import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { LedgerEntry } from '@true-ledger/core/ledger';
import { draft, newCase, ROOT, startBench, type Bench } from './harness.js';

let bench: Bench;
beforeAll(async () => void (bench = await startBench()));
afterAll(() => bench.close());

const give = (caseId: string, ...entries: object[]) => bench.people.builder.post(`/api/cases/${caseId}/entries`).send({ entries });
const entriesOf = async (caseId: string): Promise<LedgerEntry[]> =>
  (await bench.people.reader.get(`/api/cases/${caseId}/entries`).expect(200)).body as LedgerEntry[];

describe('the shop’s policy', () => {
  const change = { question: 'alloy-on-pin', position: 'no-oil', reason: 'seen often here' };
  it('is the owner’s to set, to a position that exists; every change is kept', async () => {
    await bench.people.builder.post('/api/policy').send(change).expect(403);
    await bench.people.reader.post('/api/policy').send(change).expect(403);
    const wrong = await bench.people.owner
      .post('/api/policy')
      .send({ ...change, position: 'sideways' })
      .expect(400);
    expect(wrong.body.sentence).toMatch(/no position "sideways".*Nothing was changed/);
    await bench.people.owner
      .post('/api/policy')
      .send({ ...change, reason: '' })
      .expect(400);
    await bench.people.owner.post('/api/policy').send(change).expect(201);
    await bench.people.owner
      .post('/api/policy')
      .send({ ...change, position: 'second-sign', reason: 'thought again' })
      .expect(201);
    await bench.people.owner
      .post('/api/policy')
      .send({ ...change, reason: 'and again' })
      .expect(201);
    expect((await bench.people.reader.get('/api/policy').expect(200)).body).toMatchObject([
      { position: 'no-oil', reason: 'and again' },
      { position: 'second-sign' },
      { position: 'no-oil', reason: 'seen often here' },
    ]);
  });
  it('stands in a case that is opened after it, where it differs from the standard', async () => {
    const id = await newCase(bench.people.builder);
    expect((await entriesOf(id)).filter((e) => e.kind === 'school-set').map((e) => e.body)).toMatchObject([
      { question: 'alloy-on-pin', position: 'no-oil', reason: 'The shop’s policy: and again' },
    ]);
  });
});

describe('judgement over the API', () => {
  it('answers a case file with the documented diagnosis: best set, evidence for and against, chain', async () => {
    const file = JSON.parse(readFileSync(join(ROOT, 'bench/cases/tuning/main-two-blind.json'), 'utf8')) as object;
    const { body } = await bench.people.reader.post('/api/diagnose').send(file).expect(200);
    expect(body).toMatchObject({ format: 'true-ledger/diagnosis', version: 2, ending: { kind: 'cause found' } });
    expect(body.bestSet.causes).toContain('local-feed');
    expect(body.topEvidence.for[0].decibans).toBeGreaterThanOrEqual(body.topEvidence.for[1].decibans);
    expect(body.chain.links.map((l: { from: string }) => l.from)).toContain('find:feed-missed@main.2');
  });
  it('tells the slips of a file of version 1 with the answer, and refuses them from version 2 on', async () => {
    const slip = {
      format: 'true-ledger/case',
      version: 1,
      engine: { template: 'inline-4-petrol' },
      findings: [{ station: 'rod.2', patterns: ['wiping'] }],
    };
    const { body } = await bench.people.reader.post('/api/diagnose').send(slip).expect(200);
    expect(body.doubts).toEqual([{ field: 'findings.0.patterns', sentence: expect.stringContaining('add "half"') }]);
    const refused = await bench.people.reader
      .post('/api/diagnose')
      .send({ ...slip, version: 2 })
      .expect(400);
    expect(refused.body).toMatchObject({ code: 'case-file-slip', field: 'findings.0.patterns' });
  });
  it('refuses a case that says a thing and its contrary, naming the field', async () => {
    const { body } = await bench.people.reader
      .post('/api/diagnose')
      .send({
        format: 'true-ledger/case',
        version: 1,
        engine: { template: 'inline-4-petrol' },
        evidence: [
          { feature: 'fluid.milky', present: true },
          { feature: 'fluid.milky', present: false },
        ],
      })
      .expect(400);
    expect(body).toMatchObject({ code: 'case-file-contradiction', field: 'evidence.1' });
  });
  it('does not release a case while something stands in the way, whoever asks', async () => {
    const id = await newCase(bench.people.builder);
    const refused = await give(id, draft('case-released', null, { note: '' })).expect(400);
    expect(refused.body.sentence).toMatch(/was not released\. No cause is confirmed/);
    expect((await entriesOf(id)).some((e) => e.kind === 'case-released')).toBe(false);
  });
  it('refuses a price below nothing, a link of an event to itself, a plan without a working day', async () => {
    const id = await newCase(bench.people.builder);
    const line = {
      key: 'x',
      what: 'A thing',
      kind: 'part',
      price: { low: -1, likely: 1, high: 2 },
      leadDays: { low: 0, likely: 1, high: 2 },
    };
    const book = { version: '2', currency: 'EUR', date: '2026-11-27', lines: [line] };
    await give(id, draft('price-book-set', null, { book })).expect(400);
    await give(
      id,
      draft('price-book-set', null, { book: { ...book, lines: [{ ...line, price: { low: 1, likely: 1, high: 1e12 } }] } }),
    ).expect(400);
    await give(id, draft('sequence-link', null, { from: 'cause:surge', to: 'cause:surge', state: 'drawn', reason: '' })).expect(400);
    const plan = { route: 'repair', deadline: null, from: '2026-11-30', hoursPerDay: 6, workdays: [], budget: null };
    await give(id, draft('plan-set', null, plan)).expect(400);
    await give(id, draft('plan-set', null, { ...plan, workdays: [1, 2] })).expect(201);
  });
});
