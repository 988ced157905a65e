import { randomUUID } from 'node:crypto';
import { DRILL_CARDS, drillOf, type DrillAnswer } from '@true-ledger/core/practice';
import { startBench, type Bench } from './harness.js';

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
