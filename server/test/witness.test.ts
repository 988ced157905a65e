import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { certificatesOf, stampQuery, stampVerdict, type StampCheck, type StampVerdict } from '@true-ledger/core/bundle';
import type { SealLine, StampSaid } from '@true-ledger/contract';
import { DataSource } from 'typeorm';
import { StandInAuthority } from '../src/seals/standInAuthority.js';
import { bytesOf, newCase, startBench, type Bench } from './harness.js';

const folder = mkdtempSync(join(tmpdir(), 'tl-witness-'));
const at = (name: string): string => join(folder, name);
const openssl = (...args: string[]): string =>
  execFileSync('openssl', args, { cwd: folder, encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });
const WORDS = new TextEncoder().encode('what is to be witnessed\n');
const NONCE = Uint8Array.from([9, 8, 7, 6, 5, 4, 3, 2]);
const DAY = 86_400_000;

/** A time-stamp authority by another hand. */
function opensslAuthority(): { answer(query: Uint8Array): Uint8Array; pem: string } {
  writeFileSync(
    at('tsa.cnf'),
    `[req]\ndistinguished_name=dn\n[dn]\n[ca]\nbasicConstraints=critical,CA:true\n[ts]\nextendedKeyUsage=critical,timeStamping\n[tsa]\ndefault_tsa=t\n[t]\nserial=serial\ndefault_policy=1.2.3.4\ndigests=sha256\nsigner_digest=sha256\naccuracy=secs:1\nordering=yes\ncrypto_device=builtin\n`,
  );
  writeFileSync(at('serial'), '01');
  openssl(
    'req',
    '-x509',
    '-newkey',
    'rsa:2048',
    '-nodes',
    '-keyout',
    'ca.key',
    '-out',
    'ca.pem',
    '-subj',
    '/CN=Other root',
    '-config',
    'tsa.cnf',
    '-extensions',
    'ca',
  );
  openssl(
    'req',
    '-newkey',
    'rsa:2048',
    '-nodes',
    '-keyout',
    'ts.key',
    '-out',
    'ts.csr',
    '-subj',
    '/CN=Other authority',
    '-config',
    'tsa.cnf',
  );
  openssl(
    'x509',
    '-req',
    '-in',
    'ts.csr',
    '-CA',
    'ca.pem',
    '-CAkey',
    'ca.key',
    '-days',
    '30',
    '-out',
    'ts.pem',
    '-extfile',
    'tsa.cnf',
    '-extensions',
    'ts',
  );
  return {
    pem: readFileSync(at('ca.pem'), 'utf8'),
    answer(query) {
      writeFileSync(at('q.tsq'), query);
      openssl(
        'ts',
        '-reply',
        '-config',
        'tsa.cnf',
        '-queryfile',
        'q.tsq',
        '-signer',
        'ts.pem',
        '-inkey',
        'ts.key',
        '-chain',
        'ca.pem',
        '-out',
        'r.tsr',
      );
      return readFileSync(at('r.tsr'));
    },
  };
}

let other: ReturnType<typeof opensslAuthority>;
let standIn: StandInAuthority;
beforeAll(() => {
  other = opensslAuthority();
  standIn = new StandInAuthority(at('stand-in.json'));
});

describe('a stamp', () => {
  it('of another hand holds, and ours holds for another hand', async () => {
    const theirs = other.answer(stampQuery(WORDS, NONCE));
    expect(await stampVerdict(theirs, WORDS, { trusted: certificatesOf(other.pem), nonce: NONCE })).toMatchObject({
      state: 'holds',
      authority: 'Other authority',
    });
    writeFileSync(at('ours.tsr'), await standIn.answer(stampQuery(WORDS, NONCE)));
    writeFileSync(at('ours.pem'), await standIn.rootPem());
    writeFileSync(at('words'), WORDS);
    expect(openssl('ts', '-verify', '-data', 'words', '-in', 'ours.tsr', '-CAfile', 'ours.pem')).toMatch(/OK/);
  });

  const judged = async (
    change: (reply: Uint8Array) => Uint8Array | null,
    check: Partial<StampCheck> = {},
    words = WORDS,
  ): Promise<StampVerdict> =>
    stampVerdict(change(other.answer(stampQuery(WORDS, NONCE))), words, { trusted: certificatesOf(other.pem), ...check });
  const flipped = (from: number) => (reply: Uint8Array) =>
    Uint8Array.from(reply, (byte, i) => (i === reply.length + from ? byte ^ 1 : byte));
  it.each<[string, StampVerdict['state'], RegExp | null, () => Promise<StampVerdict>]>([
    ['missing', 'missing', null, () => judged(() => null)],
    ['cut short', 'unreadable', /RFC 3161/, () => judged((r) => r.slice(0, 300))],
    ['far too long', 'unreadable', /longer/, () => judged(() => new Uint8Array(70_000))],
    ['with a signature altered', 'wrong', /signature/, () => judged(flipped(-3))],
    ['for other words', 'wrong', /other words/, () => judged((r) => r, {}, new TextEncoder().encode('altered'))],
    [
      'given for another day',
      'reused',
      /the seal of yesterday/,
      () => judged((r) => r, { others: [{ name: 'the seal of yesterday', bytes: WORDS }] }, new TextEncoder().encode('today')),
    ],
    ['of an earlier question', 'reused', /earlier question/, () => judged((r) => r, { nonce: Uint8Array.from([1, 2, 3]) })],
    ['whose certificate ran out', 'expired', /ran out/, () => judged((r) => r, { now: new Date(Date.now() + 40 * DAY) })],
    ['of an authority that is not trusted', 'unknown-authority', null, () => judged((r) => r, { trusted: [] })],
    ['that was refused', 'refused', /status 2/, () => judged(() => Uint8Array.from([0x30, 5, 0x30, 3, 2, 1, 2]))],
  ])('%s is named', async (_, state, reason, verdict) => {
    const found = await verdict();
    expect(found.state).toBe(state);
    if (reason) expect((found as { reason: string }).reason).toMatch(reason);
  });
  it('by a clock outside its certificate is expired', async () => {
    const slow = new StandInAuthority(at('slow.json'), 10, () => new Date(Date.now() + 30 * DAY));
    const reply = await slow.answer(stampQuery(WORDS, NONCE));
    expect(await stampVerdict(reply, WORDS, { trusted: [await slow.root()] })).toMatchObject({ state: 'expired' });
  });
  it('of any bytes at all is answered, never thrown', async () => {
    const reply = other.answer(stampQuery(WORDS, NONCE));
    const check = { trusted: certificatesOf(other.pem), nonce: NONCE };
    const held = await stampVerdict(reply, WORDS, check);
    for (let i = 0; i < reply.length; i += 41) {
      const verdict = await stampVerdict(flipped(i - reply.length)(reply), WORDS, check);
      // What no signature covers may change; what the stamp says may not.
      if (verdict.state === 'holds') expect(verdict).toEqual(held);
      else expect(verdict.state).toMatch(/unreadable|wrong|refused|reused|unknown-authority/);
    }
  });
});

describe('the seals of a shop', () => {
  let bench: Bench;
  let authority: Server;
  let say: 'stamp' | 'nothing' | 'again' = 'nothing';
  let last: Uint8Array;
  beforeAll(async () => {
    authority = createServer((request, response) => {
      const parts: Buffer[] = [];
      request.on('data', (part: Buffer) => parts.push(part));
      request.on('end', () => {
        if (say === 'nothing') return void response.writeHead(503).end();
        if (say === 'stamp') last = other.answer(Buffer.concat(parts));
        response.setHeader('Content-Type', 'application/timestamp-reply').end(last);
      });
    });
    await new Promise<void>((ready) => authority.listen(0, '127.0.0.1', ready));
    const { port } = authority.address() as { port: number };
    bench = await startBench({ authorityOutside: { url: `http://127.0.0.1:${port}/`, certificates: other.pem } });
    await newCase(bench.people.builder);
  });
  afterAll(async () => {
    await bench.close();
    authority.close();
  });
  const stamp = async (day: string, status = 200): Promise<StampSaid> =>
    (await bench.people.builder.post(`/api/seals/${day}/stamp`).expect(status)).body as StampSaid;

  it('stand without a stamp while the witness is away, take one when it answers, and keep it', async () => {
    const text = (await bench.people.builder.get('/api/seals/today').expect(200)).text;
    const day = /^Day +(\S+)/m.exec(text)![1]!;
    expect((await stamp(day, 503)) as unknown).toMatchObject({
      code: 'witness-away',
      sentence: expect.stringMatching(/stands without/) as string,
    });
    expect((await bench.people.builder.get(`/api/seals/${day}/stamp`).expect(200)).body).toMatchObject({ verdict: { state: 'missing' } });
    await bench.people.builder.get(`/api/seals/${day}/stamp.tsr`).expect(404);
    say = 'stamp';
    expect(await stamp(day)).toMatchObject({ verdict: { state: 'holds', authority: 'Other authority' }, simulated: false });
    const before = last;
    expect((await stamp(day)).verdict.state).toBe('holds');
    expect(last).toBe(before);
    // The stamp is over the text as it is handed out: any tool of the standard can hold one against the other.
    const tsr = await bytesOf(bench.people.builder.get(`/api/seals/${day}/stamp.tsr`).expect(200));
    writeFileSync(at('seal.txt'), text);
    writeFileSync(at('seal.tsr'), tsr);
    expect(openssl('ts', '-verify', '-data', 'seal.txt', '-in', 'seal.tsr', '-CAfile', 'ca.pem')).toMatch(/OK/);
    await bench.people.reader.post(`/api/seals/${day}/stamp`).expect(403);
    const [line] = (await bench.people.builder.get('/api/seals').expect(200)).body as SealLine[];
    expect(line).toMatchObject({ day, stamped: true, simulated: false });
  });
  it('are listed as stamped by the stand-in where it was the stand-in', async () => {
    const plain = await startBench();
    await newCase(plain.people.builder);
    const list = async (): Promise<SealLine> => ((await plain.people.builder.get('/api/seals').expect(200)).body as SealLine[])[0]!;
    const text = (await plain.people.builder.get('/api/seals/today').expect(200)).text;
    const day = /^Day +(\S+)/m.exec(text)![1]!;
    expect(await list()).toMatchObject({ day, stamped: false, simulated: false });
    await plain.people.builder.post(`/api/seals/${day}/stamp`).expect(200);
    expect(await list()).toMatchObject({ day, stamped: true, simulated: true });
    await plain.close();
  });
  it('do not take the stamp of another day for their own', async () => {
    const db = bench.app.get(DataSource);
    await db.query(`UPDATE daily_seals SET day = '2026-01-02', statement = jsonb_set(statement, '{day}', '"2026-01-02"'), stamp = NULL`);
    await bench.people.builder.get('/api/seals/today').expect(200);
    say = 'again';
    expect((await stamp('2026-01-02')).verdict).toMatchObject({ state: 'wrong' });
    const day = new Date().toISOString().slice(0, 10);
    say = 'stamp';
    await stamp(day);
    say = 'again';
    expect((await stamp('2026-01-02')).verdict).toMatchObject({ state: 'reused', reason: `it was given for the seal of ${day}` });
    await bench.people.builder.get('/api/seals/2026-01-02/stamp.tsr').expect(404);
  });
});
