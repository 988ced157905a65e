import { keyFingerprint, makeShopKey, sealBundle, sealVerdict, type SealClaims } from './seal.js';

const { secret, key } = makeShopKey();
const claims: SealClaims = {
  format: 'true-ledger/seal',
  version: 1,
  caseId: 'c0000000-0000-4000-8000-000000000000',
  entries: 2,
  head: 'a'.repeat(64),
  made: '2026-11-24T10:00:00.000Z',
  shop: { name: 'Estuary works', key },
  files: { 'ledger.jsonl': 'b'.repeat(64), 'report.pdf': 'c'.repeat(64) },
  origins: [],
};
const chain = { caseId: claims.caseId, entries: 2, head: claims.head };
const look = (
  seal: object | string,
  names = ['ledger.jsonl', 'report.pdf', 'seal.json'],
  files: Record<string, string> = claims.files,
): object => sealVerdict(typeof seal === 'string' ? seal : JSON.stringify(seal), chain, names, (n) => files[n] ?? null);

describe('the seal of a bundle', () => {
  const seal = sealBundle(claims, secret);
  it('holds for the files and the chain it was made for, and names the key', () => {
    expect(look(seal)).toMatchObject({ state: 'holds', shop: 'Estuary works', key, fingerprint: keyFingerprint(key) });
    expect(sealVerdict(null, chain, [], () => null)).toEqual({ state: 'none' });
  });
  it.each<[string, object | string, RegExp, string[]?, Record<string, string>?]>([
    ['a file exchanged', seal, /"report\.pdf" is missing or not the file/, undefined, { ...claims.files, 'report.pdf': 'd'.repeat(64) }],
    ['a file added', seal, /"photos\/x" is not under its seal/, ['ledger.jsonl', 'report.pdf', 'photos/x', 'seal.json']],
    ['a claim changed', { ...seal, shop: { name: 'Another', key } }, /not signed by the key/],
    ['another key named', { ...seal, shop: { ...seal.shop, key: makeShopKey().key } }, /not signed by the key/],
    ['another ledger', sealBundle({ ...claims, head: 'e'.repeat(64) }, secret), /not for this ledger/],
    ['the last entries cut off', sealBundle({ ...claims, entries: 3 }, secret), /for 3 entries/],
    ['another shape', { ...seal, more: 1 }, /another shape/],
    ['no JSON', 'seal', /not readable/],
    ['a signature of letters', { ...seal, signature: 'zz' }, /another shape/],
    ['a key that is no point', { ...seal, shop: { ...seal.shop, key: 'f'.repeat(64) } }, /not signed/],
  ])('is broken by %s', (...[, given, reason, names, files]) => {
    expect(look(given, names, files)).toMatchObject({ state: 'broken', reason: expect.stringMatching(reason) as string });
  });
});
