import { randomUUID } from 'node:crypto';
import { sha256Hex } from '@true-ledger/core/kit';
import { emptyCase, FIRST_PREV, sealEntry, type LedgerEntry } from '@true-ledger/core/ledger';
import { foldEntries, type EntryKind } from '@true-ledger/core/entries';
import { caseView } from '@true-ledger/core/case';
import { readingsCsv } from '@true-ledger/core/measured';
import { caseFileOf, findingsCsv } from '@true-ledger/core/bundle';
import { strToU8 } from 'fflate';
import sharp from 'sharp';
import request from 'supertest';
import { ZipFile } from 'yazl';
import { FOUR, startBench, type Bench } from './harness.js';

let bench: Bench;
beforeAll(async () => {
  bench = await startBench();
});
afterAll(() => bench.close());

type Draft = readonly [kind: EntryKind, station: string | null, body: object];
interface Change {
  readonly caseId?: string;
  readonly id?: (seq: number) => string;
  readonly author?: LedgerEntry['author'];
  readonly time?: string;
}

const OPENED: Draft = ['case-opened', null, { number: 'H-1', title: 'Hostile' }];
const LAYOUT: Draft = ['layout-set', null, { layout: FOUR }];

/** A chain that holds, sealed as anybody could who read how it is made. */
function chain(drafts: readonly Draft[], change: Change = {}): LedgerEntry[] {
  const caseId = change.caseId ?? randomUUID();
  const author = change.author ?? { id: randomUUID(), name: 'A stranger' };
  const made: LedgerEntry[] = [];
  drafts.forEach(([kind, station, body], i) =>
    made.push(
      sealEntry(
        { id: change.id?.(i + 1) ?? randomUUID(), kind, station, body: body as never, basedOn: null },
        {
          caseId,
          seq: i + 1,
          prev: made.at(-1)?.hash ?? FIRST_PREV,
          time: change.time ?? '2026-11-27T08:00:00.000Z',
          salt: 'ab',
          author,
          supersedes: null,
        },
      ),
    ),
  );
  return made;
}

/** A bundle whose derived files follow from its ledger, with files of any name beside. */
async function zipOf(entries: readonly LedgerEntry[], more: ReadonlyArray<readonly [string, Uint8Array]> = []): Promise<Buffer> {
  const state = foldEntries(emptyCase(entries[0]!.caseId), entries);
  const view = caseView(state);
  const zip = new ZipFile();
  zip.addBuffer(Buffer.from(entries.map((e) => JSON.stringify(e)).join('\n') + '\n'), 'ledger.jsonl');
  zip.addBuffer(Buffer.from(JSON.stringify(view ? caseFileOf(state, view) : { format: 'true-ledger/case', version: 1 })), 'case.json');
  zip.addBuffer(Buffer.from(view ? readingsCsv(view) : ''), 'measurements.csv');
  zip.addBuffer(Buffer.from(view ? findingsCsv(view) : ''), 'findings.csv');
  for (const [name, bytes] of more) zip.addBuffer(Buffer.from(bytes), name);
  zip.end();
  const parts: Buffer[] = [];
  for await (const part of zip.outputStream) parts.push(part as Buffer);
  return Buffer.concat(parts);
}

const photo = (bytes: Uint8Array, mime = 'image/png'): Draft => [
  'photo-added',
  'bore.1',
  { sha256: sha256Hex(bytes), name: 'p.png', mime, bytes: bytes.length, width: 10, height: 10, takenAt: null, standIn: false, shot: null },
];
const take = (zip: Buffer): request.Test => bench.people.builder.post('/api/bundles').attach('file', zip, 'case.zip');
const shelf = async (): Promise<number> => ((await bench.people.reader.get('/api/cases').expect(200)).body as unknown[]).length;

describe('a bundle that was made to hurt', () => {
  it('is taken when it holds, whoever made it', async () => {
    const small = await sharp({ create: { width: 10, height: 10, channels: 3, background: '#888' } })
      .png()
      .toBuffer();
    const answer = await take(await zipOf(chain([OPENED, LAYOUT, photo(small)]), [[`photos/${sha256Hex(small)}.png`, small]])).expect(201);
    expect(answer.body).toMatchObject({ outcome: 'new', number: 'H-1', entries: 3 });
    expect(await shelf()).toBe(1);
  });
  it.each<[string, () => Promise<Buffer>, string, RegExp]>([
    [
      'a picture of more pixels than are taken',
      async () => {
        const huge = await sharp({ create: { width: 11_000, height: 10_000, channels: 3, background: '#000' } })
          .png({ compressionLevel: 9 })
          .toBuffer();
        return zipOf(chain([OPENED, LAYOUT, photo(huge)]), [[`photos/${sha256Hex(huge)}.png`, huge]]);
      },
      'bundle-refused',
      /picture of entry 3 is not a picture that is taken here/,
    ],
    [
      'a page that calls itself a picture',
      async () => {
        const page = strToU8('<html><script>alert(1)</script></html>');
        return zipOf(chain([OPENED, LAYOUT, photo(page)]), [[`photos/${sha256Hex(page)}.png`, page]]);
      },
      'bundle-refused',
      /picture of entry 3/,
    ],
    [
      'a name twice',
      async () => zipOf(chain([OPENED, LAYOUT]), [['findings.csv', strToU8('x')]]),
      'bundle-refused',
      /holds "findings\.csv" twice/,
    ],
    [
      'an engine that contradicts itself',
      async () => zipOf(chain([OPENED, ['layout-set', null, { layout: { ...FOUR, firingOrder: [1, 3] } }]])),
      'bundle-broken',
      /entry 2 .*contradicts itself/,
    ],
    ['a ledger that opens no case', async () => zipOf(chain([LAYOUT])), 'bundle-refused', /does not begin with the opening/],
    [
      'ids that could not be stored',
      async () => zipOf(chain([OPENED, LAYOUT], { id: (seq) => `x'; DROP TABLE entries; -- ${seq}` })),
      'bundle-broken',
      /entry 1 .*shape is not that of an entry \((?:id|author\.id)\)/,
    ],
    [
      'the same id twice',
      async () => {
        const id = randomUUID();
        return zipOf(chain([OPENED, LAYOUT], { id: () => id }));
      },
      'bundle-refused',
      /entry 2 carries the id of an entry before it/,
    ],
    [
      'an author that is none',
      async () => zipOf(chain([OPENED, LAYOUT], { author: { id: 'nobody', name: 'N' } })),
      'bundle-broken',
      /entry 1 .*shape is not that of an entry \((?:id|author\.id)\)/,
    ],
    [
      'a time that is none',
      async () => zipOf(chain([OPENED, LAYOUT], { time: 'yesterday' })),
      'bundle-broken',
      /entry 1 .*shape is not that of an entry \(time\)/,
    ],
    [
      'a signature without its account',
      async () =>
        zipOf(
          chain([
            OPENED,
            LAYOUT,
            [
              'account-signed',
              null,
              {
                version: 1,
                reason: '',
                template: 'private',
                sha256: 'a'.repeat(64),
                bytes: 9,
                head: 'b'.repeat(64),
                entries: 2,
                sections: {},
                flags: 0,
              },
            ],
          ]),
        ),
      'bundle-broken',
      /entry 3 .*its signed account is missing/,
    ],
    [
      'a signature over what is no PDF',
      async () => {
        const page = strToU8('<html></html>');
        const signed = {
          version: 1,
          reason: '',
          template: 'private',
          sha256: sha256Hex(page),
          bytes: page.length,
          head: 'b'.repeat(64),
          entries: 2,
          sections: {},
          flags: 0,
        };
        return zipOf(chain([OPENED, LAYOUT, ['account-signed', null, signed]]), [['accounts/v1.pdf', page]]);
      },
      'bundle-refused',
      /signed account of entry 3 is not a signed account/,
    ],
    [
      'a redaction that hides nothing it names',
      async () => {
        const entries = chain([OPENED, LAYOUT, ['remark', null, { remark: 'r', text: 'what was said' }]]);
        const emptied = [...entries.slice(0, 2), { ...entries[2]!, body: null }];
        return zipOf(emptied);
      },
      'bundle-broken',
      /entry 3 .*its content is gone and no redaction says why/,
    ],
  ])(
    'is refused whole: %s',
    async (_, make, code, words) => {
      const before = await shelf();
      const refused = await take(await make());
      expect(refused.status).toBeGreaterThanOrEqual(400);
      expect(refused.status).toBeLessThan(500);
      expect(refused.body).toMatchObject({ code });
      expect(refused.body.sentence).toMatch(words);
      expect(refused.body.sentence).toContain('Nothing was changed');
      expect(await shelf()).toBe(before);
    },
    60_000,
  );
  it('cannot put its entries into another case', async () => {
    const mine = chain([OPENED, LAYOUT]);
    await take(await zipOf(mine)).expect(201);
    const ids = mine.map((e) => e.id);
    const thief = chain([['case-opened', null, { number: 'H-2', title: 'Thief' }], LAYOUT], { id: (seq) => ids[seq - 1]! });
    expect((await take(await zipOf(thief))).body).toMatchObject({
      code: 'bundle-refused',
      sentence: expect.stringContaining('the id of an entry of another case') as string,
    });
  });
  it('is refused from outside a page of this server', async () => {
    const answer = await bench.people.builder
      .post('/api/bundles')
      .set('Origin', 'https://elsewhere.example')
      .attach('file', await zipOf(chain([OPENED, LAYOUT])), 'case.zip');
    expect(answer.status).toBe(403);
  });
});
