import { verifyChain, type LedgerEntry } from '@true-ledger/core/ledger';
import { clusterCommand, draft, freshDatabase, newCase, startBench, type Bench } from './harness.js';

const FOLDER = 'test-outage';
let bench: Bench;
beforeAll(async () => {
  const base = clusterCommand(FOLDER, 'start');
  bench = await startBench({ databaseUrl: await freshDatabase(base) });
});
afterAll(async () => {
  await bench.close();
  clusterCommand(FOLDER, 'stop');
});

describe('the database stopped in the middle of appends', () => {
  it('answers with a sentence, loses nothing confirmed, and takes the same entries when it is back', async () => {
    const caseId = await newCase(bench.people.builder);
    const stations = [1, 2, 3, 4].flatMap((n) =>
      ['bore.N', 'rod.N', 'piston.N.crown', 'rings.N.pack', 'crank.pin.N', 'rod.N.shell.upper', 'rod.N.shell.lower'].map((s) =>
        s.replace('N', String(n)),
      ),
    );
    const drafts = stations.map((s) => draft('state-set', s, { state: 'sound' }));
    const send = (d: object): Promise<{ status: number; body: { code?: string; sentence?: string } }> =>
      bench.people.builder.post(`/api/cases/${caseId}/entries`).send({ entries: [d] }) as never;
    const first = drafts.slice(0, 6).map(send);
    await Promise.race(first);
    const rest = drafts.slice(6).map(send);
    clusterCommand(FOLDER, 'kill');
    const answers = await Promise.all([...first, ...rest]);
    const confirmed = answers.flatMap((a, i) => (a.status === 201 ? [drafts[i]!.id] : []));
    const failed = answers.filter((a) => a.status !== 201);
    expect(confirmed.length).toBeGreaterThan(0);
    expect(failed.length).toBeGreaterThan(0);
    for (const a of failed) expect([a.status, a.body.code]).toEqual([503, 'store-unavailable']);
    expect((await send(drafts[0]!)).body.sentence).toMatch(/nothing was recorded by this request/);

    clusterCommand(FOLDER, 'start');
    for (const d of drafts) {
      let answer = await send(d);
      for (let k = 0; answer.status === 503 && k < 20; k++) {
        await new Promise((r) => setTimeout(r, 200));
        answer = await send(d);
      }
      expect(answer.status).toBe(201);
    }
    const list = (await bench.people.reader.get(`/api/cases/${caseId}/entries`).expect(200)).body as LedgerEntry[];
    expect(verifyChain(list).ok).toBe(true);
    const ids = list.map((e) => e.id);
    for (const id of confirmed) expect(ids).toContain(id);
    expect(ids.filter((id) => drafts.some((d) => d.id === id))).toHaveLength(drafts.length);
  });
});
