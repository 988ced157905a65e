import { randomUUID } from 'node:crypto';
import type { AcrossAnswer, FoundCases, LikeCases, ShopPriors } from '@true-ledger/contract';
import type { PartsShelf } from '@true-ledger/core/across';
import { cause } from '@true-ledger/core/cause';
import { sightName } from '@true-ledger/core/damage';
import { DataSource } from 'typeorm';
import { draft, newCase, startBench, type Bench } from './harness.js';

// What many cases say: counted from the ledgers, moved into the priors of the next case, kept with it, and found again by any word.
let bench: Bench;
beforeAll(async () => void (bench = await startBench()));
afterAll(() => bench.close());

const outcome = (on: string, more: object = {}) =>
  draft('outcome-set', null, {
    on,
    outcome: 'proved',
    by: 'later-strip',
    cause: null,
    service: 120,
    cost: null,
    days: null,
    note: '',
    ...more,
  });
const append = (caseId: string, ...entries: object[]) =>
  bench.people.builder.post(`/api/cases/${caseId}/entries`).send({ entries }).expect(201);

/** Until the figures of every case were computed from its ledger as it stands. */
async function counted(): Promise<AcrossAnswer> {
  for (let k = 0; k < 600; k++) {
    const [{ n }] = (await bench.app
      .get(DataSource)
      .query('SELECT count(*)::int AS n FROM cases WHERE "summarySeq" < seq OR facts IS NULL')) as [{ n: number }];
    if (n === 0) return (await bench.people.reader.get('/api/across').expect(200)).body as AcrossAnswer;
    await new Promise((r) => setTimeout(r, 100));
  }
  throw new Error('the figures never came');
}
const priorsOf = async (
  caseId: string,
): Promise<{ body: { priors: { cases: number; factors: Record<string, number> } | null } } | undefined> =>
  ((await bench.people.builder.get(`/api/cases/${caseId}/entries`)).body as Array<{ kind: string; body: never }>)
    .filter((e) => e.kind === 'priors-taken')
    .at(-1);

describe('across cases', () => {
  const cases: string[] = [];
  it('says nothing from nothing', async () => {
    const { statistics } = await counted();
    expect(statistics).toMatchObject({ cases: 0, proven: 0, families: [], logScore: null, builder: { n: 0, low: 0, high: 1 } });
  });

  it('counts what was confirmed and what an outcome proved', async () => {
    for (let k = 0; k < 3; k++) {
      const id = await newCase(bench.people.builder);
      cases.push(id);
      expect(await priorsOf(id)).toBeUndefined();
      await append(
        id,
        draft('pattern-set', 'rod.2.shell.upper', { pattern: 'wiping', present: true }),
        draft('cause-decided', null, { cause: 'oil-low', decision: 'confirmed', reason: 'gravel-pit tractor ran dry' }),
      );
    }
    await append(cases[0]!, outcome('2026-11-01'));
    await append(cases[1]!, outcome('2026-11-02', { outcome: 'disproved', cause: 'surge' }));
    const { statistics, cases: named } = await counted();
    expect(statistics.proven).toBe(2);
    expect(statistics.builder).toMatchObject({ k: 1, n: 2 });
    const causes = Object.fromEntries(statistics.families[0]!.causes.map((c) => [c.key, c.cases]));
    expect([...causes['oil-low']!].sort()).toEqual([cases[0]!, cases[2]!].sort());
    expect(causes['surge']).toEqual([cases[1]]);
    expect(named[cases[0]!]).toMatchObject({ title: 'Slipway winch' });
  });

  it('moves the priors of the next case, which keeps them, and not when the owner switches it off', async () => {
    const next = await newCase(bench.people.builder);
    const taken = (await priorsOf(next))!.body.priors!;
    expect(taken).toMatchObject({ cases: 2, ofFamily: 2 });
    expect(taken.factors['surge']).toBeGreaterThan(1);
    await append(cases[2]!, outcome('2026-11-03', { outcome: 'disproved', cause: 'surge' }));
    await counted();
    expect((await priorsOf(next))!.body.priors).toEqual(taken);
    const now = (await bench.people.builder.get('/api/across/priors?family=inline-4-petrol').expect(200)).body as ShopPriors;
    expect(now.priors!.factors['surge']).toBeGreaterThan(taken.factors['surge']!);
    // A case is not judged by what came of itself.
    const without = (await bench.people.builder.get(`/api/across/priors?family=inline-4-petrol&without=${cases[2]}`).expect(200))
      .body as ShopPriors;
    expect(without.priors!.cases).toBe(2);
    await bench.people.builder.put('/api/across/priors').send({ on: false }).expect(403);
    await bench.people.owner.put('/api/across/priors').send({ on: false }).expect(200);
    expect(await priorsOf(await newCase(bench.people.builder))).toBeUndefined();
    expect((await counted()).ownPriors).toBe(false);
  });

  it('is found by words, parts and causes, all of them, and the last by its beginning', async () => {
    const found = async (words: string): Promise<FoundCases> =>
      (await bench.people.reader.get('/api/across/search').query({ words }).expect(200)).body as FoundCases;
    expect((await found('gravel-pit rod')).total).toBe(3);
    expect((await found('gravel-pit rod')).cases[0]!.where).toMatch(/gravel-pit/);
    expect((await found('surge grav')).total).toBe(0);
    expect((await found('wip')).total).toBe(3);
    expect((await found('nothing like it')).total).toBe(0);
    for (const words of ['', "' | !", "';DROP TABLE cases;--", ':*&|!()<->']) expect((await found(words)).total).toBe(0);
    await bench.people.reader.get('/api/across/search?words=%00').expect(400);
  });

  it('lays a case beside those that found much the same, with what they were', async () => {
    const { body } = await bench.people.builder.get(`/api/across/like/${cases[0]}`).expect(200);
    const { cases: like, among } = body as LikeCases;
    expect(among).toBe(like.length);
    expect(like.map((l) => l.caseId).sort()).toEqual(cases.slice(1).sort());
    const proved = like.find((l) => l.caseId === cases[1])!;
    expect(proved).toMatchObject({
      likeness: 1,
      sameFamily: true,
      proved: true,
      was: [cause('surge')!.name],
      shared: [sightName('wiping').toLowerCase()],
    });
    expect((await bench.people.builder.get(`/api/across/like/${randomUUID()}`)).body).not.toHaveProperty('cases.0');
    await bench.people.builder.get('/api/across/like/nobody').expect(404);
  });

  it('goes out as an open table, a row a case', async () => {
    const { text, headers } = await bench.people.reader.get('/api/across/cases.csv').expect(200);
    expect(headers['content-type']).toContain('text/csv');
    const [head, ...rows] = text.trim().split('\r\n');
    expect(head).toMatch(/^number,engine,kind,confirmed,proven,/);
    expect(rows.filter((r) => /,surge,/.test(r)).length).toBe(2);
  });

  it('leaves out what was withdrawn', async () => {
    await append(cases[0]!, draft('case-shelved', null, { as: 'withdrawn', reason: 'opened twice' }));
    const { statistics } = await counted();
    expect(statistics.proven).toBe(2);
  });
});

describe('the parts shelf', () => {
  it('lists what cases keep and want, holds a case as waiting for parts, and knows whom a part was promised to', async () => {
    const { builder, reader } = bench.people;
    const [keeps, wants] = [await newCase(builder), await newCase(builder)];
    await append(
      keeps,
      draft('part-kept', 'rod.2', { kept: true, name: 'Rod 2, straight', size: 'centres 140.02 mm', place: 'rack 2', note: '' }),
    );
    const want = draft('part-wanted', 'rod.4', { what: 'A rod', state: 'wanted', from: '', shelf: null });
    await append(wants, want);
    await counted();
    const shelf = async (): Promise<PartsShelf> => (await reader.get('/api/across/parts').expect(200)).body as PartsShelf;
    expect(await shelf()).toMatchObject({
      kept: [{ caseId: keeps, station: 'rod.2', place: 'rack 2', promised: [] }],
      wanted: [{ caseId: wants, what: 'A rod', fits: [`${keeps}/rod.2`] }],
    });
    const waiting = (await builder.get('/api/cases?waits=parts').expect(200)).body as Array<{ id: string; waitingOn: string }>;
    expect(waiting.find((c) => c.id === wants)?.waitingOn).toBe('parts: 1 wanted');
    await append(wants, {
      ...draft('part-wanted', 'rod.4', { what: 'A rod', state: 'had', from: 'Rod 2, straight', shelf: `${keeps}/rod.2` }),
      basedOn: want.id,
    });
    await counted();
    expect(await shelf()).toMatchObject({ kept: [{ promised: [{ caseId: wants }] }], wanted: [] });
    const refused = draft('part-wanted', 'rod.3', { what: 'A rod', state: 'had', from: '', shelf: '../../secret' });
    await builder
      .post(`/api/cases/${wants}/entries`)
      .send({ entries: [refused] })
      .expect(400);
    await reader
      .post(`/api/cases/${wants}/entries`)
      .send({ entries: [draft('part-wanted', 'rod.1', { ...refused.body, shelf: null })] })
      .expect(403);
  });
});
