import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sha256Hex } from '@true-ledger/core/kit';
import { chainLine, sealEntry, verifyChain, type KeptEntry, type LedgerEntry } from '@true-ledger/core/ledger';
import type { EntryBody } from '@true-ledger/core/entries';
import { openBundle, verifyBundle } from '@true-ledger/core/bundle';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import pg from 'pg';
import request from 'supertest';
import { bytesOf, appOn, draft, freshDatabase, newCase, ROOT, shellJpeg, startBench, type Bench } from './harness.js';

let bench: Bench;
/** Another shop, empty. */
let other: Bench;
let caseId: string;
let picture: Buffer;
const folder = mkdtempSync(join(tmpdir(), 'tl-documents-'));

beforeAll(async () => {
  bench = await startBench();
  other = await startBench();
  caseId = await newCase(bench.people.builder);
  picture = await shellJpeg(7);
  await bench.people.builder
    .post(`/api/cases/${caseId}/photos`)
    .field({ entryId: randomUUID(), station: 'rod.2.shell.upper', standIn: 'yes' })
    .attach('file', picture, 'rod 2.jpg')
    .expect(201);
  await append([
    draft('grade-confirmed', 'rod.2.shell.upper', { grade: 3, proposed: null, reason: 'lining shows', book: '1' }),
    draft('corners-set', 'rod.2.shell.upper', {
      sha256: sha256Hex(picture),
      corners: [
        [120, 330],
        [120, 180],
        [520, 180],
        [520, 330],
      ],
    }),
    draft('remark', 'rod.2.shell.upper', { remark: 'who', text: 'Brought in by P. Nobody, Quay Lane 3' }),
    draft('report-set', null, { field: 'conclusion', value: 'The lining of rod 2 is through.' }),
  ]);
});
afterAll(async () => {
  await bench.close();
  await other.close();
  rmSync(folder, { recursive: true, force: true });
});

const append = (drafts: object[], id = caseId): request.Test =>
  bench.people.builder.post(`/api/cases/${id}/entries`).send({ entries: drafts }).expect(201);
const ledger = async (of = bench, id = caseId): Promise<LedgerEntry[]> =>
  (await of.people.reader.get(`/api/cases/${id}/entries`).expect(200)).body as LedgerEntry[];
const head = async (): Promise<string> => (await ledger()).at(-1)!.hash;
const sign = async (more: object = {}, who: 'builder' | 'reader' = 'builder'): Promise<request.Response> =>
  bench.people[who].post(`/api/cases/${caseId}/account/sign`).send({ head: await head(), reason: '', acceptFlags: false, ...more });
const bytes = (test: request.Test): Promise<Buffer> => bytesOf(test.expect(200));
const bundle = (): Promise<Buffer> => bytes(bench.people.builder.get(`/api/cases/${caseId}/bundle.zip`));
const textOf = (pdf: Buffer): string => {
  const file = join(folder, `${randomUUID()}.pdf`);
  writeFileSync(file, pdf);
  return execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
};
const take = (zip: Buffer | Uint8Array, of = other, who: 'builder' | 'reader' = 'builder'): request.Test =>
  of.people[who].post('/api/bundles').attach('file', Buffer.from(zip), 'case.zip');

describe('pictures of an account', () => {
  it('are drawn with their surface, and again only when something changed', async () => {
    const at = (more: string): Promise<Buffer> =>
      bytes(bench.people.reader.get(`/api/cases/${caseId}/photos/${sha256Hex(picture)}/account?station=rod.2.shell.upper&${more}`));
    const [plain, whole, again] = [await at('marks=no&inset=no'), await at('marks=yes&inset=yes'), await at('marks=yes&inset=yes')];
    expect(whole.length).toBeGreaterThan(plain.length);
    expect(again.equals(whole)).toBe(true);
  });
  it('filed at two places carry the marks of each, in the account as well', async () => {
    const sha = sha256Hex(picture);
    await bench.people.builder
      .post(`/api/cases/${caseId}/photos`)
      .field({ entryId: randomUUID(), station: 'rod.3.shell.upper', standIn: 'yes' })
      .attach('file', picture, 'rod 3.jpg')
      .expect(201);
    const at = (station: string): Promise<Buffer> =>
      bytes(bench.people.reader.get(`/api/cases/${caseId}/photos/${sha}/account?station=${station}&marks=yes&inset=yes`));
    const [second, third, again] = [await at('rod.2.shell.upper'), await at('rod.3.shell.upper'), await at('rod.2.shell.upper')];
    expect(third.equals(second)).toBe(false);
    expect(again.equals(second)).toBe(true);
    await append([draft('grade-confirmed', 'rod.3.shell.upper', { grade: 1, proposed: null, reason: '', book: '1' })]);
    const file = join(folder, 'two.pdf');
    writeFileSync(file, await bytes(bench.people.reader.get(`/api/cases/${caseId}/report.pdf`)));
    const images = execFileSync('pdfimages', ['-list', file], { encoding: 'utf8' }).trim().split('\n').slice(2);
    expect(new Set(images.map((l) => l.trim().split(/\s+/)[10])).size).toBe(2);
  });
  it('are told apart from pictures of another place', () =>
    bench.people.reader.get(`/api/cases/${caseId}/photos/${sha256Hex(picture)}/account?station=bore.1&marks=yes&inset=yes`).expect(404));
});

describe('the machine-shop sheet', () => {
  it('holds what is confirmed, with the places marked by its numbers, and names what is only proposed', async () => {
    await append([draft('disposition-set', 'bore.2', { operation: 'rebore', size: '+0.50', reason: 'scuffed' })]);
    const words = textOf(await bytes(bench.people.reader.get(`/api/cases/${caseId}/machine-shop.pdf`))).replace(/\s+/g, ' ');
    for (const w of ['Machine-shop sheet', 'Rebore', 'plateau hone', 'From above, front at left', 'Parts to buy'])
      expect(words).toContain(w);
    expect(words).not.toContain('Draft');
  });
});

describe('the assembly book', () => {
  it('is printed for everybody who may read, with every step, its picture as it came apart, and a cell for what is not proved', async () => {
    await append([
      draft('proof-set', null, { proof: 'end-float', text: '0.14', unit: 'mm', value: 0.14 }),
      draft('torque-set', null, { fasteners: 'rod-bolts', text: '20 N·m; 60°', source: 'maker' }),
      draft('assembly-set', null, { step: 'wash', state: 'done', note: '' }),
    ]);
    const pdf = await bytes(bench.people.reader.get(`/api/cases/${caseId}/assembly.pdf`));
    const words = textOf(pdf).replace(/\s+/g, ' ');
    for (const w of [
      'Assembly book',
      'Rod cap 2 on',
      '20.0 N·m, then 60° on (maker)',
      'Crank end float',
      '0.14 mm',
      'As it came apart',
      'Done by',
      '_____',
      'Prime and first start',
    ])
      expect(words).toContain(w);
    expect(words).not.toContain('The picture is not at hand');
  });
});

describe('the account as one HTML file', () => {
  it('holds pictures, headings, captions and tables, fetches nothing, and lets no words of a hand run', async () => {
    const hostile = '<img src=x onerror=alert(1)><script>alert(2)</script>';
    await append([draft('intake-set', null, { field: 'complaint', value: hostile })]);
    const answer = await bench.people.reader.get(`/api/cases/${caseId}/report.html`).expect(200);
    expect(answer.headers['content-disposition']).toMatch(/^attachment; filename="account-.*-draft\.html"$/);
    const html = answer.text;
    expect(html).toMatch(/^<!doctype html><html lang="en">/);
    expect(html).toContain('content="default-src &#x27;none&#x27;; img-src data:; style-src &#x27;unsafe-inline&#x27;"');
    expect(html).toMatch(/<img alt="Picture 1: [^"]+" src="data:image\/jpeg;base64,/);
    expect(html).toMatch(/<h2 id="h1">/);
    expect(html).toMatch(/<th scope="col"/);
    expect(html).not.toContain('<script');
    expect(html).not.toContain('<img src=x');
    expect(html).toContain('&#x3C;script>alert(2)');
    expect([...html.matchAll(/(?:src|href)="([^"]{0,12})/g)].map((m) => m[1]).filter((to) => !/^(#|data:)/.test(to!))).toEqual([]);
  });
});

describe('signing', () => {
  it('is refused to readers, for a ledger that moved on, and over flagged passages unless accepted', async () => {
    expect((await sign({}, 'reader')).status).toBe(403);
    expect((await sign({ head: 'a'.repeat(64) })).body).toMatchObject({ code: 'account-moved' });
    const last = (await ledger()).findLast((e) => e.kind === 'report-set')!;
    await append([draft('report-set', null, { field: 'conclusion', value: 'It ran 777 min dry.' }, last.id)]);
    const refused = await sign();
    expect(refused.status).toBe(400);
    expect(refused.body).toMatchObject({ code: 'account-flags' });
    const wrong = (await ledger()).at(-1)!;
    await append([draft('report-set', null, { field: 'conclusion', value: 'The lining of rod 2 is through.' }, wrong.id)]);
    expect((await ledger()).some((e) => e.kind === 'account-signed')).toBe(false);
  });
  it('keeps the PDF by its hash and enters it', async () => {
    const signed = await sign();
    expect(signed.status).toBe(201);
    const body = (signed.body as LedgerEntry).body as { sha256: string; version: number; bytes: number };
    const pdf = await bytes(bench.people.reader.get(`/api/cases/${caseId}/account/1/account.pdf`));
    expect(sha256Hex(pdf)).toBe(body.sha256);
    expect(pdf.length).toBe(body.bytes);
    const words = textOf(pdf);
    expect(words).toContain('Version 1, signed by The builder');
    expect(words).toContain('The lining of rod 2 is through.');
    expect(words).toMatch(/page 1 of \d/);
    expect(textOf(await bytes(bench.people.reader.get(`/api/cases/${caseId}/report.pdf`)))).toContain('Draft, not signed.');
  });
  it('asks what a second version amends, and tells which sections read differently', async () => {
    expect((await sign()).body).toMatchObject({ code: 'amendment-reason' });
    await append([draft('state-set', 'bore.1', { state: 'sound' })]);
    expect((await sign({ reason: 'Bore 1 was looked at.' })).status).toBe(201);
    const words = textOf(await bytes(bench.people.reader.get(`/api/cases/${caseId}/account/2/account.pdf`))).replace(/\s+/g, ' ');
    expect(words).toContain('Version 2, signed by The builder');
    expect(words).toMatch(/amends version 1: Bore 1 was looked at\. Sections that read differently: [^.]*What was and was not examined/);
    expect(words).not.toMatch(/read differently: [^.]*Question and engine/);
  });
  it('cannot be sent as an entry nor taken back', async () => {
    const signed = (await ledger()).find((e) => e.kind === 'account-signed')!;
    for (const d of [
      draft('account-signed', null, signed.body as object),
      draft('redacted', null, { target: signed.id, kind: 'x', slot: 'x', station: null, reason: 'because' }),
      draft('retracted', null, { target: signed.id, slot: 'signed:1', reason: '' }),
    ])
      expect((await bench.people.builder.post(`/api/cases/${caseId}/entries`).send({ entries: [d] })).body).toMatchObject({
        code: 'entry-kind',
      });
  });
  it('lets one of two who sign at once win', async () => {
    const at = await head();
    const both = await Promise.all([sign({ head: at, reason: 'One.' }), sign({ head: at, reason: 'Two.' })]);
    expect(both.map((r) => r.status).sort()).toEqual([201, 409]);
  });
});

describe('links', () => {
  let path = '';
  let link = '';
  const outside = (): request.Agent => request.agent(bench.app.getHttpServer());
  it('open one signed version, counted, to whoever has them', async () => {
    const made = await bench.people.builder.post(`/api/cases/${caseId}/shares`).send({ version: 1, days: 3, note: 'Insurer' }).expect(201);
    path = (made.body as { path: string }).path.replace('/shared/', '/api/shared/');
    link = (made.body as { link: { id: string } }).link.id;
    const told = (await outside().get(path).expect(200)).body as { version: number; newest: number; sha256: string };
    expect(told).toMatchObject({ version: 1, newest: 3 });
    for (let i = 0; i < 2; i++) expect(sha256Hex(await bytes(outside().get(`${path}/account.pdf`)))).toBe(told.sha256);
    expect((await bench.people.builder.get(`/api/cases/${caseId}/shares`).expect(200)).body).toMatchObject([
      { opened: 2, note: 'Insurer' },
    ]);
  });
  it('are kept by their hash only', async () => {
    const client = new pg.Client({ connectionString: bench.url });
    await client.connect();
    const token = path.split('/').at(-1)!;
    const rows = (await client.query('SELECT * FROM share_links')).rows as object[];
    await client.end();
    expect(JSON.stringify(rows)).not.toContain(token);
    expect(JSON.stringify(rows)).toContain(sha256Hex(token));
  });
  it('give nothing else away', async () => {
    const stranger = outside();
    for (const at of [`/api/cases/${caseId}`, `/api/cases/${caseId}/account/1/account.pdf`, `/api/cases/${caseId}/shares`])
      expect((await stranger.get(at)).status).toBe(401);
    expect((await bench.people.reader.get(`/api/cases/${caseId}/shares`)).status).toBe(403);
  });
  it('say the same when guessed, expired or taken back', async () => {
    const guessed = await outside().get(`/api/shared/${'0'.repeat(64)}`);
    const client = new pg.Client({ connectionString: bench.url });
    await client.connect();
    await client.query(`UPDATE share_links SET expires = now() - interval '1 second'`);
    const expired = await outside().get(path);
    await client.query(`UPDATE share_links SET expires = now() + interval '1 day'`);
    await client.end();
    expect((await outside().get(path)).status).toBe(200);
    await bench.people.builder.delete(`/api/cases/${caseId}/shares/${link}`).expect(200);
    const revoked = await outside().get(`${path}/account.pdf`);
    for (const answer of [guessed, expired, revoked]) {
      expect(answer.status).toBe(404);
      expect(answer.body).toEqual(guessed.body);
    }
  });
  it('are made for signed versions only', () =>
    bench.people.builder.post(`/api/cases/${caseId}/shares`).send({ version: 9, days: 3, note: '' }).expect(404));
});

describe('a bundle taken in elsewhere', () => {
  it('becomes the very same case', async () => {
    const zip = await bundle();
    expect(verifyBundle(unzipSync(zip))).toMatchObject({ ok: true });
    const taken = await take(zip).expect(201);
    expect(taken.body).toMatchObject({ caseId, outcome: 'new', head: await head() });
    // The chain is the same to the letter; that it stands for another shop is kept beside it.
    const kept = (await other.people.reader.get(`/api/cases/${caseId}/entries`).expect(200)).body as KeptEntry[];
    expect(kept.map(chainLine)).toEqual(await ledger());
    expect(new Set(kept.map((e) => e.origin))).toEqual(new Set([expect.stringMatching(/^another shop, key( [0-9A-F]{4}){4}$/)]));
    const [here, there] = await Promise.all([bench, other].map((b) => b.people.reader.get(`/api/cases/${caseId}`).expect(200)));
    expect([there!.body.state.head, there!.body.state.seq]).toEqual([here!.body.state.head, here!.body.state.seq]);
    expect(there!.body.state.groups[''].case[0].author).toMatchObject({ name: expect.stringContaining('(another shop') as string });
    for (const at of [`photos/${sha256Hex(picture)}/original`, 'account/1/account.pdf'])
      expect(await bytes(other.people.builder.get(`/api/cases/${caseId}/${at}`))).toEqual(
        await bytes(bench.people.builder.get(`/api/cases/${caseId}/${at}`)),
      );
    expect((await other.people.owner.post(`/api/cases/${caseId}/rebuild`).expect(201)).body).toMatchObject({ same: true });
  });
  it('comes out again as it went in', async () => {
    const [out, back] = [unzipSync(await bundle()), unzipSync(await bytes(other.people.builder.get(`/api/cases/${caseId}/bundle.zip`)))];
    expect(Object.keys(back).sort()).toEqual(Object.keys(out).sort());
    for (const name of Object.keys(out).filter((n) => !['report.pdf', 'seal.json'].includes(n)))
      expect(Buffer.from(back[name]!).equals(Buffer.from(out[name]!))).toBe(true);
  });
  it('is left alone when it is here, and continued by a later one', async () => {
    const before = await bundle();
    expect((await take(before).expect(201)).body).toMatchObject({ outcome: 'same' });
    await append([draft('state-set', 'bore.2', { state: 'sound' })]);
    expect((await take(await bundle()).expect(201)).body).toMatchObject({ outcome: 'continued', head: await head() });
    expect((await take(before).expect(201)).body).toMatchObject({ outcome: 'same', head: await head() });
  });
  it('is refused when the two went different ways, naming the entry', async () => {
    await other.people.builder
      .post(`/api/cases/${caseId}/entries`)
      .send({ entries: [draft('state-set', 'bore.3', { state: 'sound' })] })
      .expect(201);
    await append([draft('state-set', 'bore.4', { state: 'sound' })]);
    const seq = (await ledger()).length;
    const refused = await take(await bundle()).expect(409);
    expect(refused.body.sentence).toContain(`another way from entry ${seq} on`);
  });
  it('is not taken from readers', async () => {
    expect((await take(await bundle(), bench, 'reader')).status).toBe(403);
  });
});

describe('a bundle that is not what it says', () => {
  let files: Record<string, Uint8Array>;
  let third: Bench;
  beforeAll(async () => {
    files = unzipSync(await bundle());
    third = await startBench();
  });
  afterAll(() => third.close());
  /** The ledger with entry `seq` changed and everything after it sealed anew, as a forger would. */
  function forged(seq: number, body: EntryBody, kind?: LedgerEntry['kind']): string {
    const entries = strFromU8(files['ledger.jsonl']!)
      .trim()
      .split('\n')
      .map((l) => JSON.parse(l) as LedgerEntry);
    const made: LedgerEntry[] = [];
    for (const e of entries)
      made.push(
        e.seq < seq
          ? e
          : sealEntry(
              { ...e, kind: e.seq === seq && kind ? kind : e.kind, body: e.seq === seq ? body : e.body!, basedOn: null },
              { ...e, prev: made.at(-1)!.hash },
            ),
      );
    return made.map((e) => JSON.stringify(e)).join('\n') + '\n';
  }
  const nothing = async (): Promise<void> => expect((await third.people.reader.get('/api/cases').expect(200)).body).toEqual([]);
  const photo = (): string => Object.keys(files).find((n) => n.startsWith('photos/'))!;
  it.each<[string, () => Uint8Array, string, RegExp]>([
    [
      'tampered text',
      () => zipSync({ ...files, 'ledger.jsonl': strToU8(strFromU8(files['ledger.jsonl']!).replace('lining shows', 'lining holds')) }),
      'bundle-broken',
      /entry 5 \(.+\): its content is not what was recorded/,
    ],
    ['another picture', () => zipSync({ ...files, [photo()]: strToU8('else') }), 'bundle-broken', /entry 4 .*its picture is not the one/],
    [
      'a signed account exchanged',
      () => zipSync({ ...files, 'accounts/v1.pdf': strToU8('%PDF-else') }),
      'bundle-broken',
      /its signed account is not the one/,
    ],
    [
      'a derived file exchanged',
      () => zipSync({ ...files, 'findings.csv': strToU8('x') }),
      'bundle-broken',
      /findings\.csv does not agree/,
    ],
    ['a name that climbs', () => zipSync({ ...files, '../evil': strToU8('x') }), 'bundle-refused', /leads out|does not belong/],
    ['a name of its own', () => zipSync({ ...files, 'run.sh': strToU8('x') }), 'bundle-refused', /does not belong/],
    [
      'a bomb',
      () => zipSync({ ...files, 'report.pdf': new Uint8Array(130 * 1024 * 1024) }, { level: 1 }),
      'bundle-refused',
      /unpacks to more than/,
    ],
    ['no archive', () => strToU8('hello'), 'bundle-damaged', /damaged or is not one/],
    ['an archive cut off', () => zipSync(files).subarray(0, 4000), 'bundle-damaged', /damaged/],
    [
      'a newer format',
      () => zipSync({ ...files, 'case.json': strToU8(strFromU8(files['case.json']!).replace('"version": 1', '"version": 3')) }),
      'bundle-newer',
      /newer version/,
    ],
    ['no case file', () => zipSync({ 'ledger.jsonl': files['ledger.jsonl']! }), 'bundle-refused', /case\.json is missing/],
    [
      'a kind nobody knows',
      () => zipSync({ ...files, 'ledger.jsonl': strToU8(forged(5, {} as EntryBody, 'spell-cast' as never)) }),
      'bundle-newer',
      /newer version.*not known here/,
    ],
    [
      'a body its kind does not have',
      () => zipSync({ ...files, 'ledger.jsonl': strToU8(forged(5, { grade: 99, proposed: null, reason: '', book: '' } as never)) }),
      'bundle-broken',
      /entry 5 .*does not hold what its kind needs/,
    ],
  ])('%s', async (_, make, code, words) => {
    const refused = await take(make(), third);
    expect(refused.status).toBeGreaterThanOrEqual(400);
    expect(refused.status).toBeLessThan(500);
    expect(refused.body.code).toContain(code);
    expect(refused.body.sentence).toMatch(words);
    expect(refused.body.sentence).toContain('Nothing was changed');
    await nothing();
  });
  it('still takes the whole one afterwards, under another number where its own is taken', async () => {
    const first = await newCase(third.people.builder);
    const number = (await ledger(third, first))[0]!.body as { number: string };
    const mine = ((await ledger())[0]!.body as { number: string }).number;
    expect(number.number).toBe(mine);
    expect((await take(zipSync(files), third).expect(201)).body).toMatchObject({ outcome: 'new', number: `${mine}/2` });
  });
});

describe('striking an entry', () => {
  it('is the owner’s, with a reason, and not for what carries the case', async () => {
    const list = await ledger();
    const remark = list.find((e) => e.kind === 'remark')!;
    const post = (who: 'owner' | 'builder', entry: string, reason = 'personal data'): request.Test =>
      bench.people[who].post(`/api/cases/${caseId}/redactions`).send({ entry, reason });
    await post('builder', remark.id).expect(403);
    await post('owner', remark.id, '').expect(400);
    for (const kind of ['case-opened', 'layout-set', 'account-signed'])
      expect((await post('owner', list.find((e) => e.kind === kind)!.id)).body).toMatchObject({ code: 'never-redacted' });
    await post('owner', remark.id).expect(201);
    expect((await post('owner', remark.id)).body).toMatchObject({ code: 'redacted' });
  });
  it('takes the words out of ledger, state and bundle, and leaves the chain whole', async () => {
    const list = await ledger();
    expect(verifyChain(list)).toMatchObject({ ok: true });
    const opened = openBundle(await bundle());
    if (!opened.ok) throw new Error(opened.problem.sentence);
    expect(verifyBundle(opened.value)).toMatchObject({ ok: true });
    const state = await bench.people.reader.get(`/api/cases/${caseId}`).expect(200);
    for (const text of [
      JSON.stringify(list),
      JSON.stringify(state.body),
      strFromU8(opened.value['ledger.jsonl']!),
      strFromU8(opened.value['case.json']!),
    ])
      expect(text).not.toContain('Nobody');
    const client = new pg.Client({ connectionString: bench.url });
    await client.connect();
    const rows = await client.query('SELECT state::text AS s, summary::text AS m FROM cases');
    await client.end();
    expect(JSON.stringify(rows.rows)).not.toContain('Nobody');
    expect((await bench.people.owner.post(`/api/cases/${caseId}/rebuild`).expect(201)).body).toMatchObject({ same: true });
  });
  it('takes the file of a picture with it once no place names it', async () => {
    const work = `/api/cases/${caseId}/photos/${sha256Hex(picture)}/work`;
    const entries = (await ledger()).filter((e) => e.kind === 'photo-added');
    expect(entries).toHaveLength(2);
    for (const [i, { id }] of entries.entries()) {
      await bench.people.builder.get(work).expect(200);
      await bench.people.owner.post(`/api/cases/${caseId}/redactions`).send({ entry: id, reason: 'shows a person' }).expect(201);
      if (i === 1) await bench.people.builder.get(work).expect(404);
    }
    const files = unzipSync(await bundle());
    expect(Object.keys(files).filter((n) => n.startsWith('photos/'))).toEqual([]);
    expect(verifyBundle(files).ok).toBe(true);
  });
  it('is found out when it is done without a word', async () => {
    const files = unzipSync(await bundle());
    const lines = strFromU8(files['ledger.jsonl']!).trim().split('\n');
    const emptied = lines.map((l, i) => (i === 2 ? JSON.stringify({ ...(JSON.parse(l) as object), body: null }) : l));
    expect(verifyBundle({ ...files, 'ledger.jsonl': strToU8(emptied.join('\n') + '\n') })).toMatchObject({
      ok: false,
      broken: { seq: 3, reason: 'its content is gone and no redaction says why' },
    });
  });
});

describe('who is here', () => {
  it('tells each the others, and where they are', async () => {
    const say = async (who: 'builder' | 'second' | 'reader', place: string): Promise<unknown> =>
      (await bench.people[who].post(`/api/cases/${caseId}/presence`).send({ page: randomUUID(), place }).expect(201)).body;
    expect(await say('builder', 'Bench')).toEqual([]);
    expect(await say('second', 'Rod 2 upper shell')).toEqual([{ name: 'The builder', place: 'Bench' }]);
    expect(await say('reader', 'Document')).toHaveLength(2);
  });
});

describe('the shop’s prices', () => {
  const line = {
    key: 'labour',
    what: 'Bench hour',
    kind: 'labour',
    price: { low: 50, likely: 60, high: 70 },
    leadDays: { low: 0, likely: 0, high: 0 },
  };
  const save = (change: object, who: 'owner' | 'builder' = 'owner'): request.Test =>
    bench.people[who].post('/api/prices').send({ basedOn: 0, currency: 'EUR', lines: [line], note: 'New rates', ...change });
  it.each([
    ['a price under nothing', { lines: [{ ...line, price: { low: -1, likely: 60, high: 70 } }] }],
    ['a price beyond reason', { lines: [{ ...line, price: { low: 1, likely: 60, high: 1e12 } }] }],
    ['points out of order', { lines: [{ ...line, price: { low: 80, likely: 60, high: 70 } }] }],
    ['the same line twice', { lines: [line, line] }],
    ['no currency', { currency: 'coins' }],
  ])('refuse %s', (_, change) => save(change).expect(400));
  it('are kept by version, by the owner, and copied into cases opened after', async () => {
    await save({}, 'builder').expect(403);
    await save({}).expect(201);
    expect((await save({})).body).toMatchObject({ code: 'book-conflict' });
    const fresh = await newCase(bench.people.builder);
    const copied = (await ledger(bench, fresh)).find((e) => e.kind === 'price-book-set')!;
    expect((copied.body as { book: { version: string } }).book.version).toBe('shop 1');
  });
});

describe('backup and restore', () => {
  const run = (script: string, args: string[], url: string): string =>
    execFileSync('node', [`scripts/${script}.mjs`, ...args], {
      cwd: ROOT,
      env: { ...process.env, DATABASE_URL: url },
      encoding: 'utf8',
      stdio: 'pipe',
    });
  const failing = (script: string, args: string[], url: string): string => {
    try {
      run(script, args, url);
    } catch (error) {
      return String((error as { stderr: string }).stderr);
    }
    throw new Error('it did not fail');
  };
  const file = join(folder, 'shop.tlb');
  it('carry a running shop to another machine, equal by ledger heads, without sessions', async () => {
    expect(run('backup', [file], bench.url)).toMatch(/\d cases in .*shop\.tlb/);
    expect(failing('backup', [file], bench.url)).toContain('is there already');
    const url = await freshDatabase();
    expect(run('restore', [file], url)).toMatch(/every head as it was/);
    const back = await appOn(url);
    const [here, there] = await Promise.all(
      [bench.url, url].map(async (u) => {
        const client = new pg.Client({ connectionString: u });
        await client.connect();
        const heads = (await client.query('SELECT id, number, seq, head FROM cases ORDER BY id')).rows as object[];
        await client.end();
        return heads;
      }),
    );
    expect(there).toEqual(here);
    const agent = request.agent(back.getHttpServer());
    await agent.post('/api/sign-in').send({ signIn: 'owner', password: 'a-long-enough-password' }).expect(201);
    const pdf = await bytes(agent.get(`/api/cases/${caseId}/account/1/account.pdf`));
    expect(pdf.equals(await bytes(bench.people.reader.get(`/api/cases/${caseId}/account/1/account.pdf`)))).toBe(true);
    expect((await agent.post(`/api/cases/${caseId}/rebuild`).expect(201)).body).toMatchObject({ same: true });
    await back.close();
  });
  it('refuse a file that is none, one that was changed, and a database in use', async () => {
    expect(failing('restore', [file], bench.url)).toContain('not empty');
    const url = await freshDatabase();
    writeFileSync(join(folder, 'none.tlb'), 'hello');
    expect(failing('restore', [join(folder, 'none.tlb')], url)).toContain('damaged or is not a backup');
    expect(failing('restore', [join(folder, 'missing.tlb')], url)).toContain('there is no file');
    const inside = unzipSync(readFileSync(file));
    const dump = inside['database.dump']!.slice();
    dump[dump.length >> 1]! ^= 1;
    writeFileSync(join(folder, 'changed.tlb'), zipSync({ ...inside, 'database.dump': dump }, { level: 0 }));
    expect(failing('restore', [join(folder, 'changed.tlb')], url)).toContain('not the one that was written');
  });
});
