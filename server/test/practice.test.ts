import { randomUUID } from 'node:crypto';
import { DRILL_CARDS, drillOf, type DrillAnswer } from '@true-ledger/core/practice';
import type { PracticeEngines, PracticeShown } from '@true-ledger/contract';
import { caseView, type CaseView } from '@true-ledger/core/case';
import type { CaseState } from '@true-ledger/core/ledger';
import { drawEngine, minutesSpent, practiceLook, shownBy } from '@true-ledger/core/practiceEngine';
import { DataSource } from 'typeorm';
import { newCase, startBench, type Bench } from './harness.js';

let bench: Bench;
beforeAll(async () => void (bench = await startBench()));
afterAll(() => bench.close());

describe('answers to drills', () => {
  const card = DRILL_CARDS[0]!;
  const { right, options } = drillOf(card, 5);
  const wrong = options.find((o) => o.id !== right)!.id;
  const answer = (given: string, more: object = {}) => ({ id: randomUUID(), card: card.id, seed: 5, given, tookMs: 3000, ...more });
  const kept = async (who: keyof Bench['people']): Promise<DrillAnswer[]> =>
    ((await bench.people[who].get('/api/practice/answers').expect(200)).body as { answers: DrillAnswer[] }).answers;

  it('are kept once, judged by the server, and each sees his own', async () => {
    const first = answer(right);
    await bench.people.reader.post('/api/practice/answers').send(first).expect(201);
    await bench.people.reader.post('/api/practice/answers').send(first).expect(201);
    await bench.people.reader.post('/api/practice/answers').send(answer(wrong)).expect(201);
    expect((await kept('reader')).map((a) => [a.given, a.right])).toEqual([
      [right, true],
      [wrong, false],
    ]);
    expect(await kept('builder')).toEqual([]);
    await bench.people.reader
      .post('/api/practice/answers')
      .send({ ...answer(wrong), right: true })
      .expect(400);
  });

  it('of no drill, or none it offers, are refused', async () => {
    for (const bad of [answer('spun', { card: 'name:nobody' }), answer('nobody')]) {
      const refused = await bench.people.builder.post('/api/practice/answers').send(bad);
      expect([refused.status, refused.body]).toMatchObject([400, { code: 'drill-unknown' }]);
    }
  });
});

describe('practice engines', () => {
  const people = () => bench.people;
  const make = async (level: number, seed: number | null): Promise<string> => {
    const id = randomUUID();
    await people().builder.post('/api/practice/engines').send({ id, level, seed }).expect(201);
    return id;
  };
  const stateOf = async (id: string): Promise<CaseView> =>
    caseView(((await people().builder.get(`/api/cases/${id}`).expect(200)).body as { state: CaseState }).state)!;
  const look = (id: string, what: string) => people().builder.post(`/api/practice/cases/${id}/looks`).send({ look: what });
  const done = (id: string, ...steps: string[]) =>
    people()
      .builder.post(`/api/cases/${id}/entries`)
      .send({
        entries: steps.map((step) => ({
          id: randomUUID(),
          kind: 'step-set',
          station: null,
          basedOn: null,
          body: { step, state: 'done', note: '' },
        })),
      })
      .expect(201);

  const undo = async (id: string, step: string) => {
    const basedOn = (await stateOf(id)).steps.get(step)!.version.entry;
    const body = { step, state: 'open', note: 'not done after all' };
    await people()
      .builder.post(`/api/cases/${id}/entries`)
      .send({ entries: [{ id: randomUUID(), kind: 'step-set', station: null, basedOn, body }] })
      .expect(201);
  };

  it('are the same for two people, keep a drawn seed to themselves, and count in no statistics', async () => {
    const [a, b, sealed] = [await make(3, 41), await make(3, 41), await make(3, null)];
    const [one, two] = [await stateOf(a), await stateOf(b)];
    expect(one.layout).toEqual(two.layout);
    expect(one.history.map((h) => h.value.text)).toEqual(two.history.map((h) => h.value.text));
    expect(one.practice!.value).toEqual({ level: 3, version: 1, sealed: false });
    const { body } = await people().builder.get('/api/practice/engines').expect(200);
    const listed = body as PracticeEngines;
    expect(listed.map((e) => [e.caseId, e.seed, e.opened]).sort()).toEqual([[a, 41, null], [b, 41, null], [sealed, null, null]].sort()); // prettier-ignore
    // What the case and its ledger say of a sealed one holds no seed.
    const all = JSON.stringify((await people().builder.get(`/api/cases/${sealed}/entries`).expect(200)).body);
    expect(all).not.toContain('seed');
    expect(all).not.toContain(drawEngine(3, 41).causes[0]!.cause);
    await people().reader.post('/api/practice/engines').send({ id: randomUUID(), level: 1, seed: 1 }).expect(403);
    await people().builder.post('/api/practice/engines').send({ id: randomUUID(), level: 11, seed: 1 }).expect(400);
    for (let k = 0; k < 100; k++) {
      const [{ n }] = (await bench.app.get(DataSource).query('SELECT count(*)::int AS n FROM cases WHERE "summarySeq" < seq')) as [
        { n: number },
      ];
      if (n === 0) break;
      await new Promise((r) => setTimeout(r, 100));
    }
    const shelf = (await people().builder.get('/api/cases/page').expect(200)).body as { total: number };
    expect(shelf.total).toBe(0);
    expect(((await people().builder.get('/api/across').expect(200)).body as { statistics: { cases: number } }).statistics.cases).toBe(0);
  });

  it('are looked at for minutes, once, when laid bare, and not when passed over', async () => {
    const id = await make(1, 12);
    const hidden = drawEngine(1, 12);
    const first = await look(id, 'check:dipstick').expect(201);
    expect(first.body).toMatchObject({ minutes: 2, words: shownBy(hidden, practiceLook(hidden.layout, 'check:dipstick')!).words });
    expect((await look(id, 'check:dipstick').expect(201)).body).toMatchObject({ minutes: 0 });
    expect(minutesSpent(await stateOf(id))).toBe(2);
    expect((await look(id, 'part:rod.1.shell.upper').expect(409)).body).toMatchObject({ code: 'practice-not-yet', field: 'look' });
    await look(id, 'part:nowhere').expect(404);
    await done(id, 'arrival', 'isolate', 'turn', 'drain-oil', 'filter', 'pan', 'rod-cap-1');
    // A step that is opened again brings nothing back, and was paid for.
    await undo(id, 'drain-oil');
    expect((await look(id, 'check:oil-sample').expect(409)).body).toMatchObject({ code: 'practice-not-yet' });
    expect((await look(id, 'check:coolant').expect(201)).body).toMatchObject({ minutes: 2 });
    const shown = (await look(id, 'part:rod.1.shell.upper').expect(201)).body as PracticeShown;
    expect(shown.picture).toBe(true);
    const picture = await people()
      .builder.get(`/api/practice/cases/${id}/looks/${encodeURIComponent('part:rod.1.shell.upper')}/picture`)
      .expect(200);
    expect([picture.headers['content-type'], (picture.body as Buffer).subarray(0, 2).toString('hex')]).toEqual(['image/jpeg', 'ffd8']);
    await people()
      .builder.get(`/api/practice/cases/${id}/looks/${encodeURIComponent('part:rod.1.shell.lower')}/picture`)
      .expect(404);
    // Nobody writes a look or a score himself.
    const forged = {
      id: randomUUID(),
      kind: 'practice-looked',
      station: null,
      basedOn: null,
      body: { look: 'x', name: 'x', minutes: 0, words: [], picture: true },
    };
    expect(
      (
        await people()
          .builder.post(`/api/cases/${id}/entries`)
          .send({ entries: [forged] })
      ).body,
    ).toMatchObject({ code: 'entry-kind' });
    await people().reader.post(`/api/practice/cases/${id}/looks`).send({ look: 'check:magnet' }).expect(403);
  });

  it('are opened once, scored beside the truth, and looked at no more', async () => {
    const id = await make(2, null);
    await look(id, 'check:dipstick').expect(201);
    const open = (answer: object[]) => people().builder.post(`/api/practice/cases/${id}/open`).send({ answer });
    expect((await open([{ cause: 'nobody', percent: 5 }])).body).toMatchObject({ code: 'outcome-cause', field: 'answer.0.cause' });
    expect((await stateOf(id)).practiceScored).toBeUndefined();
    const [one, two] = await Promise.all([open([{ cause: 'oil-low', percent: 60 }]), open([{ cause: 'oil-low', percent: 60 }])]);
    expect([one.status, two.status].sort()).toEqual([201, 409]);
    const { value } = (await stateOf(id)).practiceScored!;
    const hidden = drawEngine(2, value.seed);
    expect(value.score.causes.map((c) => c.cause)).toEqual(hidden.causes.map((c) => c.cause));
    expect(value.score.minutes).toBe(2);
    expect(value.score.right).toBe(hidden.causes[0]!.cause === 'oil-low');
    expect((await look(id, 'check:magnet').expect(409)).body).toMatchObject({ code: 'practice-opened' });
    const engine = ((await people().builder.get('/api/practice/engines')).body as PracticeEngines).find((e) => e.caseId === id)!;
    expect([engine.seed, engine.opened !== null]).toEqual([value.seed, true]);
  });

  it('are none where the case is an ordinary one', async () => {
    const id = await newCase(people().builder);
    expect((await look(id, 'check:dipstick').expect(404)).body).toMatchObject({ code: 'practice-none' });
    await people().builder.post(`/api/practice/cases/${id}/open`).send({ answer: [] }).expect(404);
  });
});
