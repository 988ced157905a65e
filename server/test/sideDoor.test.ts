import { randomUUID } from 'node:crypto';
import { sha256Hex } from '@true-ledger/core/kit';
import { emptyCase, sealEntry, type KeptEntry, type LedgerEntry } from '@true-ledger/core/ledger';
import { foldEntries } from '@true-ledger/core/entries';
import { caseView } from '@true-ledger/core/case';
import { readingsCsv } from '@true-ledger/core/measured';
import { caseFileOf, findingsCsv } from '@true-ledger/core/bundle';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import request from 'supertest';
import { draft, newCase, startBench, type Bench } from './harness.js';

let bench: Bench;
let caseId: string;
beforeAll(async () => {
  bench = await startBench();
  caseId = await newCase(bench.people.builder);
  await bench.people.owner
    .post(`/api/cases/${caseId}/entries`)
    .send({ entries: [draft('remark', null, { remark: 'r', text: 'what the owner saw' })] })
    .expect(201);
});
afterAll(() => bench.close());

const ledger = async (): Promise<KeptEntry[]> =>
  (await bench.people.reader.get(`/api/cases/${caseId}/entries`).expect(200)).body as KeptEntry[];
const take = (zip: Uint8Array): request.Test => bench.people.builder.post('/api/bundles').attach('file', Buffer.from(zip), 'case.zip');
const owner = async (): Promise<LedgerEntry['author']> => {
  const { account } = (await bench.people.owner.get('/api/me')).body as { account: { id: string; name: string } };
  return { id: account.id, name: account.name };
};

type More = readonly [kind: LedgerEntry['kind'], body: object];

/** The case's ledger with entries sealed after it in anybody's name, as a bundle whose other files follow from it. */
async function forged(
  more: readonly More[],
  change: (entries: LedgerEntry[]) => LedgerEntry[] = (e) => e,
  files: Record<string, Uint8Array> = {},
): Promise<Uint8Array> {
  const author = await owner();
  const entries: LedgerEntry[] = [...(await ledger())];
  for (const [kind, body] of more)
    entries.push(
      sealEntry(
        { id: randomUUID(), kind, station: null, body: body as never, basedOn: null },
        {
          caseId,
          seq: entries.length + 1,
          prev: entries.at(-1)!.hash,
          time: '2020-01-01T00:00:00.000Z',
          salt: 'x',
          author,
          supersedes: null,
        },
      ),
    );
  const made = change(entries);
  const state = foldEntries(emptyCase(caseId), made);
  const view = caseView(state)!;
  return zipSync({
    'ledger.jsonl': strToU8(made.map((e) => JSON.stringify(e)).join('\n') + '\n'),
    'case.json': strToU8(JSON.stringify(caseFileOf(state, view))),
    'measurements.csv': strToU8(readingsCsv(view)),
    'findings.csv': strToU8(findingsCsv(view)),
    ...files,
  });
}

describe('an import into a case of this shop', () => {
  it('strikes nothing, in whoever’s name the redaction is written', async () => {
    const remark = (await ledger()).find((e) => e.kind === 'remark')!;
    const zip = await forged(
      [['redacted', { target: remark.id, kind: 'remark', slot: 'remark:r', station: null, reason: 'forged' }]],
      (entries) => entries.map((e) => (e.id === remark.id ? { ...e, body: null, salt: '' } : e)),
    );
    expect((await take(zip).expect(403)).body).toMatchObject({
      code: 'bundle-oversteps',
      sentence: expect.stringMatching(/would strike/) as string,
    });
    expect((await ledger()).find((e) => e.id === remark.id)!.body).toEqual(remark.body);
  });
  it('signs and releases nothing', async () => {
    const pdf = strToU8('%PDF-forged');
    const signed = {
      version: 1,
      reason: '',
      template: 'private',
      sha256: sha256Hex(pdf),
      bytes: pdf.length,
      head: 'b'.repeat(64),
      entries: 2,
      sections: {},
      flags: 0,
    };
    const before = await ledger();
    for (const [more, files, words] of [
      [['account-signed', signed], { 'accounts/v1.pdf': pdf }, /would sign/],
      [['case-released', { note: '' }], {}, /would release/],
    ] as ReadonlyArray<readonly [More, Record<string, Uint8Array>, RegExp]>) {
      const answer = await take(await forged([more], undefined, files)).expect(403);
      expect(answer.body.sentence).toMatch(words);
      expect(await ledger()).toEqual(before);
    }
  });
  it('adds what its importer might have written, as his own and of now, and once', async () => {
    const zip = await forged([['remark', { remark: 'by-the-way', text: 'in the owner’s name, dated back' }]]);
    const answer = await take(zip).expect(201);
    expect(answer.body).toMatchObject({ outcome: 'continued' });
    const added = (await ledger()).at(-1)!;
    expect(added.author.name).toBe('The builder');
    expect(Date.now() - Date.parse(added.time)).toBeLessThan(60_000);
    expect(added.origin).toBeUndefined();
    expect((await take(zip).expect(201)).body).toMatchObject({ outcome: 'same' });
  });
  it('is held to the same checks as what he sends', async () => {
    const before = await ledger();
    expect((await take(await forged([['case-opened', { number: '9', title: 'again' }]]))).body).toMatchObject({ code: 'entry-kind' });
    expect(await ledger()).toEqual(before);
  });
});

describe('a case from another shop', () => {
  it('stands as theirs, its release and signature too, whoever’s names are in it', async () => {
    const pdf = strToU8('%PDF-theirs');
    const signed = {
      version: 1,
      reason: '',
      template: 'private',
      sha256: sha256Hex(pdf),
      bytes: pdf.length,
      head: 'b'.repeat(64),
      entries: 2,
      sections: {},
      flags: 0,
    };
    const zip = unzipSync(
      await forged(
        [
          ['account-signed', signed],
          ['case-released', { note: '' }],
        ],
        undefined,
        { 'accounts/v1.pdf': pdf },
      ),
    );
    // The same lines under the id of a case nobody has here.
    const id = randomUUID();
    const lines: LedgerEntry[] = [];
    for (const line of strFromU8(zip['ledger.jsonl']!).trim().split('\n')) {
      const e = JSON.parse(line) as LedgerEntry;
      lines.push(
        sealEntry(
          { id: randomUUID(), kind: e.kind, station: e.station, body: e.body!, basedOn: null },
          {
            caseId: id,
            seq: e.seq,
            prev: lines.at(-1)?.hash ?? '0'.repeat(64),
            time: e.time,
            salt: 's',
            author: e.author,
            supersedes: null,
          },
        ),
      );
    }
    const state = foldEntries(emptyCase(id), lines);
    const view = caseView(state)!;
    await take(
      zipSync({
        'ledger.jsonl': strToU8(lines.map((e) => JSON.stringify(e)).join('\n') + '\n'),
        'case.json': strToU8(JSON.stringify(caseFileOf(state, view))),
        'measurements.csv': strToU8(readingsCsv(view)),
        'findings.csv': strToU8(findingsCsv(view)),
        'accounts/v1.pdf': pdf,
      }),
    ).expect(201);
    const kept = (await bench.people.reader.get(`/api/cases/${id}/entries`).expect(200)).body as KeptEntry[];
    expect(new Set(kept.map((e) => e.origin))).toEqual(new Set(['another shop, unsigned']));
    const here = caseView((await bench.people.reader.get(`/api/cases/${id}`).expect(200)).body.state as never)!;
    expect(here.released).toBeUndefined();
    expect(here.signed[0]!.version.author).toMatchObject({ name: 'The owner (another shop, unsigned)', shop: 'another shop, unsigned' });
    const answer = await bench.people.builder.post(`/api/cases/${id}/shares`).send({ version: 1, days: 3, note: '' }).expect(400);
    expect(answer.body).toMatchObject({ code: 'signed-elsewhere' });
  });
});

describe('what carries a case', () => {
  it('is not taken back by anybody', async () => {
    const entries = await ledger();
    for (const kind of ['case-opened', 'layout-set'] as const) {
      const { id } = entries.find((e) => e.kind === kind)!;
      const slot = kind === 'case-opened' ? 'case' : 'layout';
      const answer = await bench.people.builder
        .post(`/api/cases/${caseId}/entries`)
        .send({ entries: [draft('retracted', null, { target: id, slot, reason: '' })] });
      expect(answer.body).toMatchObject({ code: 'entry-kind', field: 'slot' });
    }
  });
  it('one id is not sent twice in a request', async () => {
    const one = draft('remark', null, { remark: 'twice', text: 'a' });
    expect((await bench.people.builder.post(`/api/cases/${caseId}/entries`).send({ entries: [one, one] })).body).toMatchObject({
      code: 'entry-id',
    });
  });
});
