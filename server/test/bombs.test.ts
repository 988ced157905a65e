import { randomUUID } from 'node:crypto';
import { constants, crc32, deflateRawSync, deflateSync } from 'node:zlib';
import { ZipFile } from 'yazl';
import { emptyCase, sealEntry, type LedgerEntry } from '@true-ledger/core/ledger';
import { foldEntries } from '@true-ledger/core/entries';
import { caseView } from '@true-ledger/core/case';
import { readingsCsv } from '@true-ledger/core/measured';
import { caseFileOf, findingsCsv } from '@true-ledger/core/bundle';
import type { Response, Test } from 'supertest';
import { draft, FOUR, newCase, startBench, type Bench } from './harness.js';

let bench: Bench;
let caseId: string;
beforeAll(async () => {
  bench = await startBench();
  caseId = await newCase(bench.people.builder);
});
afterAll(() => bench.close());

/** Sends something dear and asks for something cheap every 50 ms meanwhile: the longest the cheap answers were apart, ms. */
async function meanwhile(dear: Test): Promise<{ answer: Response; others: number }> {
  let done = false;
  let others = 0;
  const asking = (async () => {
    while (!done) {
      await bench.people.reader.get('/api/me').expect(200);
      others++;
      await new Promise((r) => setTimeout(r, 50));
    }
  })();
  const answer = await dear.ok(() => true);
  done = true;
  await asking;
  return { answer, others };
}

const clip = (bytes: Buffer): Test =>
  bench.people.builder
    .post(`/api/cases/${caseId}/clips`)
    .field({ entryId: randomUUID(), station: '' })
    .attach('file', bytes, { filename: 'a.webm', contentType: 'video/webm' });
const photo = (bytes: Buffer): Test =>
  bench.people.builder
    .post(`/api/cases/${caseId}/photos`)
    .field({ entryId: randomUUID(), station: 'bore.1' })
    .attach('file', bytes, 'a.png');

/** A head of a film whose first part says it is no bytes long, so that a reader that believes it goes back for ever. */
function endlessHead(): Buffer {
  const bytes = Buffer.alloc(254);
  Buffer.from('3026b2758e66cf11a6d900aa0062ce6c', 'hex').copy(bytes);
  bytes.writeBigUInt64LE(230n, 16);
  return bytes;
}

function pngChunk(type: string, data: Buffer): Buffer {
  const head = Buffer.alloc(4);
  head.writeUInt32BE(data.length);
  const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
  const tail = Buffer.alloc(4);
  tail.writeUInt32BE(crc32(body));
  return Buffer.concat([head, body, tail]);
}

/** So many MB of zeros as zlib packs them, made of one MB said over and over; the checksum of n zeros is n and 1 (RFC 1950). */
function zeros(megabytes: number): Buffer {
  const one = deflateRawSync(Buffer.alloc(1024 * 1024), { level: 9, finishFlush: constants.Z_FULL_FLUSH });
  const end = deflateRawSync(Buffer.alloc(0));
  const sum = Buffer.alloc(4);
  sum.writeUInt16BE((megabytes * 1024 * 1024) % 65521);
  sum.writeUInt16BE(1, 2);
  return Buffer.concat([Buffer.from('78da', 'hex'), ...Array.from({ length: megabytes }, () => one), end, sum]);
}

/** A ZIP of texts, packed natively. */
async function zipOf(files: Readonly<Record<string, string>>): Promise<Buffer> {
  const zip = new ZipFile();
  for (const [name, text] of Object.entries(files)) zip.addBuffer(Buffer.from(text), name);
  zip.end();
  const parts: Buffer[] = [];
  for await (const part of zip.outputStream) parts.push(part as Buffer);
  return Buffer.concat(parts);
}

/** A picture of four pixels whose colour profile inflates to so many MB. */
function profileBomb(megabytes: number): Buffer {
  const header = Buffer.from('0000000200000002080200000000000000'.slice(0, 26), 'hex');
  const profile = zeros(megabytes);
  const rows = deflateSync(Buffer.alloc(2 * 7));
  return Buffer.concat([
    Buffer.from('89504e470d0a1a0a', 'hex'),
    pngChunk('IHDR', header),
    pngChunk('iCCP', Buffer.concat([Buffer.from('p\0\0', 'latin1'), profile])),
    pngChunk('IDAT', rows),
    pngChunk('IEND', Buffer.alloc(0)),
  ]);
}

describe('a file made to take time or memory', () => {
  it('that sends its reader in circles is ended, and others are answered meanwhile', async () => {
    const { answer, others } = await meanwhile(clip(endlessHead()));
    expect(answer.body).toMatchObject({ code: 'not-a-clip', field: 'file' });
    expect(others).toBeGreaterThan(3);
    // The next one finds a new reader.
    expect(
      (await clip(Buffer.from('RIFF\x24\0\0\0WAVEfmt \x10\0\0\0\x01\0\x01\0\x44\xac\0\0\x88\x58\x01\0\x02\0\x10\0data\0\0\0\0', 'latin1')))
        .status,
    ).toBe(201);
  });
  it('of headers within headers is read within bounds', async () => {
    const id3 = Buffer.alloc(10);
    id3.write('ID3\x04');
    const { answer, others } = await meanwhile(clip(Buffer.concat(Array.from({ length: 400_000 }, () => id3))));
    expect(answer.status).toBe(400);
    expect(others).toBeGreaterThan(0);
  });
  it('whose colour profile inflates to 1.5 GB is refused, or taken without unpacking it', async () => {
    const { answer } = await meanwhile(photo(profileBomb(1500)));
    expect([201, 400]).toContain(answer.status);
    expect((await bench.people.reader.get('/api/me')).status).toBe(200);
    expect(process.memoryUsage().rss).toBeLessThan(2_500_000_000);
  });
});

describe('what a request can swell', () => {
  const scribble = (n: number): object => ({
    id: `m${n}`,
    shape: 'stroke',
    class: 'lining',
    points: Array.from({ length: 2000 }, (_, i) => [((i * 7919) % 1000) / 1000, ((i * 104729) % 1000) / 1000]),
    radiusMm: 200,
    made: 'found-so',
  });
  it('strokes over the whole surface, in a case file and in an append, hold up nobody', async () => {
    const file = {
      format: 'true-ledger/case',
      version: 1,
      engine: { template: 'inline-4-petrol' },
      findings: [{ station: 'rod.1.shell.upper', grade: 2, marks: Array.from({ length: 10 }, (_, n) => scribble(n)) }],
    };
    const read = await meanwhile(bench.people.reader.post('/api/diagnose').send(file));
    expect(read.answer.status).toBe(200);
    const entries = Array.from({ length: 30 }, (_, n) => draft('mark-made', 'rod.1.shell.upper', { mark: scribble(n) }));
    const kept = await meanwhile(bench.people.builder.post(`/api/cases/${caseId}/entries`).send({ entries }));
    expect(kept.answer.status).toBe(201);
    expect((await meanwhile(bench.people.reader.get(`/api/cases/${caseId}/differential`))).answer.status).toBe(200);
  });
  it('a text of tabs makes an account all the same', async () => {
    await bench.people.builder
      .post(`/api/cases/${caseId}/entries`)
      .send({ entries: [draft('intake-set', null, { field: 'complaint', value: 'it knocked\t'.padEnd(4000, '\t') })] })
      .expect(201);
    const { answer, others } = await meanwhile(bench.people.reader.get(`/api/cases/${caseId}/report.pdf`).buffer(true));
    expect(answer.status).toBe(200);
    expect(others).toBeGreaterThan(0);
  });
  it('a sheet of tags for every place is made beside', async () => {
    const { answer } = await meanwhile(bench.people.reader.get(`/api/cases/${caseId}/tags.pdf`).buffer(true));
    expect(answer.headers['content-type']).toBe('application/pdf');
  });
  it('a small bundle that unpacks to much is refused while others are answered', async () => {
    const id = randomUUID();
    const author = { id: randomUUID(), name: 'A' };
    const lines: LedgerEntry[] = [];
    const add = (kind: LedgerEntry['kind'], station: string | null, body: object): void =>
      void lines.push(
        sealEntry(
          { id: randomUUID(), kind, station, body: body as never, basedOn: null },
          {
            caseId: id,
            seq: lines.length + 1,
            prev: lines.at(-1)?.hash ?? '0'.repeat(64),
            time: '2026-11-27T08:00:00.000Z',
            salt: '',
            author,
            supersedes: null,
          },
        ),
      );
    add('case-opened', null, { number: 'B-1', title: 'Bomb' });
    add('layout-set', null, { layout: FOUR });
    const state = foldEntries(emptyCase(id), lines);
    const view = caseView(state)!;
    const zip = await zipOf({
      'ledger.jsonl': lines.map((e) => JSON.stringify(e)).join('\n') + '\n',
      'case.json': JSON.stringify(caseFileOf(state, view)) + ' '.repeat(60 * 1024 * 1024),
      'measurements.csv': readingsCsv(view),
      'findings.csv': findingsCsv(view),
    });
    expect(zip.length).toBeLessThan(200_000);
    const { answer } = await meanwhile(bench.people.builder.post('/api/bundles').attach('file', zip, 'case.zip'));
    expect([201, 400]).toContain(answer.status);
    const deep = await zipOf({
      'ledger.jsonl': '['.repeat(30 * 1024 * 1024),
      'case.json': '{"format":"true-ledger/case","version":1}',
    });
    const refused = await meanwhile(bench.people.builder.post('/api/bundles').attach('file', deep, 'case.zip'));
    expect(refused.answer.status).toBe(400);
  });
});
