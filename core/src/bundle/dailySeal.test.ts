import { chainAgainstSeal, DAILY_SEAL, dailySealText, parseDailySeal, type DailyStatement } from './dailySeal.js';
import { makeShopKey, signStatement } from './seal.js';

const { key, secret } = makeShopKey();
const ID = 'c0000000-0000-4000-8000-000000000000';
const heads = ['a', 'b', 'c'].map((x) => x.repeat(64));
const chain = heads.map((hash, i) => ({ caseId: ID, seq: i + 1, hash }));
const statement: DailyStatement = { day: '2026-11-29', key, before: null, cases: [{ id: ID, seq: 2, head: heads[1]! }] };
const seal = { statement, signature: signStatement(DAILY_SEAL, statement, secret) };

describe('a daily seal', () => {
  it('goes out as text and comes back', () => expect(parseDailySeal(dailySealText(seal))).toEqual({ ok: true, value: seal }));
  it.each([
    ['a head changed', dailySealText(seal).replace(heads[1]!, heads[2]!), /not signed/],
    ['a case taken out', dailySealText(seal).replace(/^Case.*\n/m, ''), /not signed/],
    ['another day', dailySealText(seal).replace('2026-11-29', '2026-11-30'), /not signed/],
    ['no seal', 'hello', /no daily seal/],
  ])('is refused with %s', (_, text, words) =>
    expect(parseDailySeal(text)).toMatchObject({ ok: false, problem: { sentence: expect.stringMatching(words) as string } }),
  );
  it('tells a chain that goes on from one that was rewritten or cut off', () => {
    expect(chainAgainstSeal(chain, seal)).toEqual({ state: 'passes', seq: 2, day: '2026-11-29' });
    expect(chainAgainstSeal(chain.slice(0, 1), seal)).toMatchObject({ state: 'cut-off' });
    expect(chainAgainstSeal([chain[0]!, { ...chain[1]!, hash: heads[2]! }], seal)).toMatchObject({ state: 'rewritten' });
    expect(chainAgainstSeal([{ ...chain[0]!, caseId: 'other' }], seal)).toMatchObject({ state: 'not-in-seal' });
  });
});
