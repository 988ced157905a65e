import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { KeptEntry } from '@true-ledger/core/ledger';
import { chainAgainstSeal, parseDailySeal, readBundleFiles, statementHolds } from '@true-ledger/core/bundle';
import { unzipSync, zipSync, strToU8 } from 'fflate';
import { KeysService, SUCCESSION } from '../src/keys/keys.service.js';
import { bytesOf, draft, newCase, startBench, type Bench } from './harness.js';

const keysFolder = mkdtempSync(join(tmpdir(), 'tl-keys-'));
let bench: Bench;
/** The same shop on another machine: its key, another database. */
let same: Bench;
let caseId: string;
beforeAll(async () => {
  bench = await startBench({ keysFolder });
  same = await startBench({ keysFolder });
  caseId = await newCase(bench.people.builder);
});
afterAll(async () => {
  await bench.close();
  await same.close();
});

const bundle = (): Promise<Buffer> => bytesOf(bench.people.builder.get(`/api/cases/${caseId}/bundle.zip`).expect(200));
const daily = async (): Promise<string> => (await bench.people.builder.get('/api/seals/today').expect(200)).text;

describe('the key of the shop', () => {
  it('seals every file of a bundle, and keeps to itself', async () => {
    const files = unzipSync(await bundle());
    const { verdict } = readBundleFiles(files);
    const { key } = (await bench.people.reader.get('/api/seals/keys').expect(200)).body as { key: string };
    expect(verdict).toMatchObject({ ok: true, seal: { state: 'holds', key } });
    const secret = (bench.app.get(KeysService) as unknown as { held(): { secret: string } }).held().secret;
    expect(JSON.stringify((await bench.people.owner.get('/api/seals/keys')).body)).not.toContain(secret);
    const report = readBundleFiles({ ...files, 'report.pdf': strToU8('%PDF-another') }).verdict;
    expect(report.disagreements).toEqual(['"report.pdf" is missing or not the file that was sealed']);
  });
  it('makes a case of ours ours again on another machine, and lets it go on', async () => {
    const take = async (zip: Uint8Array): Promise<unknown> =>
      (await same.people.builder.post('/api/bundles').attach('file', Buffer.from(zip), 'case.zip').expect(201)).body;
    expect(await take(await bundle())).toMatchObject({ outcome: 'new' });
    await bench.people.builder
      .post(`/api/cases/${caseId}/entries`)
      .send({ entries: [draft('remark', null, { remark: 'r', text: 'later' })] })
      .expect(201);
    expect(await take(await bundle())).toMatchObject({ outcome: 'continued' });
    const kept = (await same.people.reader.get(`/api/cases/${caseId}/entries`).expect(200)).body as KeptEntry[];
    expect(kept.some((e) => e.origin !== undefined)).toBe(false);
    expect(kept).toEqual((await bench.people.reader.get(`/api/cases/${caseId}/entries`)).body);
  });
  it('gives way to another, which it signs over; what it sealed stays ours', async () => {
    const keys = bench.app.get(KeysService);
    const before = keys.key;
    keys.rotate();
    const { key, earlier } = keys.publicKeys();
    expect(key).not.toBe(before);
    expect(keys.isOurs(before)).toBe(true);
    const { next, until, signature } = earlier[0]!;
    expect(next).toBe(key);
    expect(statementHolds(SUCCESSION, { key: before, next, until }, signature, before)).toBe(true);
  });
});

describe('a daily seal', () => {
  it('is made once a day, named by the next, and a bundle passes through it or is found out', async () => {
    const text = await daily();
    expect(await daily()).toBe(text);
    const seal = parseDailySeal(text);
    if (!seal.ok) throw new Error(seal.problem.sentence);
    await bench.people.builder
      .post(`/api/cases/${caseId}/entries`)
      .send({ entries: [draft('remark', null, { remark: 's', text: 'after the seal' })] })
      .expect(201);
    const { entries } = readBundleFiles(unzipSync(await bundle()));
    expect(chainAgainstSeal(entries, seal.value)).toMatchObject({ state: 'passes' });
    expect(chainAgainstSeal(entries.slice(0, 2), seal.value)).toMatchObject({ state: 'cut-off' });
    await bench.people.reader.get('/api/seals/today').expect(403);
    await bench.people.builder.get('/api/seals/2020-01-01').expect(404);
    expect((await bench.people.builder.get('/api/seals').expect(200)).body).toHaveLength(1);
    // A bundle repacked without its seal says so.
    const { 'seal.json': _gone, ...rest } = unzipSync(await bundle());
    expect(readBundleFiles(unzipSync(zipSync(rest))).verdict).toMatchObject({ ok: true, seal: { state: 'none' } });
  });
});
