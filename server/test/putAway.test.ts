import { randomUUID } from 'node:crypto';
import type { ShelfPage } from '@true-ledger/contract';
import type { CaseState } from '@true-ledger/core/ledger';
import { caseView } from '@true-ledger/core/case';
import { draft, FOUR, newCase, startBench, type Bench } from './harness.js';

let bench: Bench;
let caseId: string;
beforeAll(async () => {
  bench = await startBench();
  caseId = await newCase(bench.people.builder);
});
afterAll(() => bench.close());

const give = async (body: object, id = caseId): Promise<number> =>
  (
    await bench.people.builder
      .post(`/api/cases/${id}/entries`)
      .send({ entries: [draft('case-shelved', null, body, (await slot(id))?.entry ?? null)] })
  ).status;
const state = async (id = caseId): Promise<CaseState> =>
  ((await bench.people.reader.get(`/api/cases/${id}`).expect(200)).body as { state: CaseState }).state;
const slot = async (id: string): Promise<{ entry: string } | undefined> => (await state(id)).groups['']?.['shelved']?.at(-1);
const onShelf = async (shelved: 'yes' | 'no'): Promise<readonly string[]> =>
  ((await bench.people.reader.get(`/api/cases/page?shelved=${shelved}`).expect(200)).body as ShelfPage).cases.map((c) => c.id);
/** The figures on the shelf follow a moment after the entry. */
async function until(shelved: 'yes' | 'no'): Promise<void> {
  for (let k = 0; k < 300 && !(await onShelf(shelved)).includes(caseId); k++) await new Promise((r) => setTimeout(r, 100));
  expect(await onShelf(shelved)).toContain(caseId);
  expect(await onShelf(shelved === 'yes' ? 'no' : 'yes')).not.toContain(caseId);
}

describe('a case put away', () => {
  it('leaves the shelf, can be gone on with, and comes back', async () => {
    await until('no');
    expect(await give({ as: 'archived', reason: '' })).toBe(201);
    await until('yes');
    await bench.people.builder
      .post(`/api/cases/${caseId}/entries`)
      .send({ entries: [draft('remark', null, { remark: 'r', text: 'still here' })] })
      .expect(201);
    expect(await give({ as: 'in-hand', reason: '' })).toBe(201);
    await until('no');
  });
  it('is withdrawn with a reason only', async () => {
    expect(await give({ as: 'withdrawn', reason: '' })).toBe(400);
    expect(await give({ as: 'lost', reason: 'why' })).toBe(400);
    expect(await give({ as: 'withdrawn', reason: 'opened twice' })).toBe(201);
    expect(caseView(await state())!.shelved).toMatchObject({ value: { as: 'withdrawn', reason: 'opened twice' } });
  });
});

describe('another case of the same engine', () => {
  it('takes sizes and limits over, and nothing that was found', async () => {
    const spec = { minMm: 52.984, maxMm: 53, undersizesMm: [], source: 'sheet 4' };
    await bench.people.builder
      .post(`/api/cases/${caseId}/entries`)
      .send({
        entries: [draft('spec-set', null, { quantity: 'crank.pin', spec }), draft('remark', null, { remark: 'x', text: 'found here' })],
      })
      .expect(201);
    const id = randomUUID();
    const body = { id, title: 'Its sister', reference: '', layout: FOUR, sheet: null, like: caseId };
    await bench.people.builder.post('/api/cases').send(body).expect(201);
    const view = caseView(await state(id))!;
    expect(Object.values(view.specs).map((s) => s.value.spec)).toEqual([spec]);
    expect(view.remarks).toEqual([]);
    await bench.people.builder
      .post('/api/cases')
      .send({ ...body, id: randomUUID(), like: randomUUID() })
      .expect(404);
    await bench.people.builder
      .post('/api/cases')
      .send({ ...body, id: randomUUID(), sheet: { id: 's', version: 1 } })
      .expect(400);
  });
});
