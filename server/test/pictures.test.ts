import { randomBytes, randomUUID } from 'node:crypto';
import { sha256Hex } from '@true-ledger/core/kit';
import type { EntryBodies } from '@true-ledger/core/entries';
import { openBundle, verifyBundle } from '@true-ledger/core/bundle';
import sharp from 'sharp';
import { run } from '../../cli/src/main.js';
import { plainName } from '../src/photos/photos.service.js';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { draft, newCase, shellJpeg, startBench, type Bench } from './harness.js';

let bench: Bench;
let caseId: string;
let jpeg: Buffer;
beforeAll(async () => {
  bench = await startBench();
  caseId = await newCase(bench.people.builder);
  jpeg = await shellJpeg(1);
});
afterAll(() => bench.close());

const send = (bytes: Buffer, name = 'face.jpg', station = 'rod.1.shell.upper', entryId: string = randomUUID(), id = caseId) =>
  bench.people.builder.post(`/api/cases/${id}/photos`).field('entryId', entryId).field('station', station).attach('file', bytes, name);

describe('a picture', () => {
  it('is stored once, with its renditions, and filed by an entry', async () => {
    const first = await send(jpeg).expect(201);
    const body = first.body.entry.body as EntryBodies['photo-added'];
    expect(body).toMatchObject({ sha256: sha256Hex(jpeg), mime: 'image/jpeg', width: 640, height: 480, bytes: jpeg.length });
    const again = await send(jpeg).expect(201);
    expect(again.body).toMatchObject({ already: true, entry: { id: first.body.entry.id } });
    const thumb = await bench.people.reader.get(`/api/cases/${caseId}/photos/${body.sha256}/thumb`).expect(200);
    expect((await sharp(thumb.body as Buffer).metadata()).width).toBe(320);
    expect(
      Buffer.compare((await bench.people.builder.get(`/api/cases/${caseId}/photos/${body.sha256}/original`)).body as Buffer, jpeg),
    ).toBe(0);
  });
  it('sent twice at once is still one', async () => {
    const bytes = await sharp(jpeg).negate({ alpha: false }).jpeg().toBuffer();
    const answers = await Promise.all([send(bytes), send(bytes), send(bytes)]);
    expect(answers.map((a) => a.status)).toEqual([201, 201, 201]);
    expect(new Set(answers.map((a) => a.body.entry.id as string)).size).toBe(1);
    expect(answers.filter((a) => a.body.already === false)).toHaveLength(1);
  });
  it('may be filed to a second place without being stored twice', async () => {
    expect((await send(jpeg, 'same.jpg', 'rod.1.shell.lower').expect(201)).body.already).toBe(false);
  });
  it('is shown only through a case that holds it, its original not to readers', async () => {
    const other = await newCase(bench.people.builder);
    await bench.people.builder.get(`/api/cases/${other}/photos/${sha256Hex(jpeg)}/work`).expect(404);
    await bench.people.reader.get(`/api/cases/${caseId}/photos/${sha256Hex(jpeg)}/original`).expect(403);
  });
  it('stands upright whatever its EXIF says, and its renditions carry no metadata', async () => {
    const turned = await sharp(jpeg)
      .withExif({ IFD0: { Copyright: 'place 53.1' } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    const answer = await send(turned).expect(201);
    const body = answer.body.entry.body as EntryBodies['photo-added'];
    expect([body.width, body.height]).toEqual([480, 640]);
    const work = (await bench.people.reader.get(`/api/cases/${caseId}/photos/${body.sha256}/work`)).body as Buffer;
    const meta = await sharp(work).metadata();
    expect([meta.width, meta.height, meta.exif]).toEqual([480, 640, undefined]);
  });
  it('has a plain name whatever path it carries', async () => {
    expect(plainName('../../etc/passwd.jpg')).toBe('passwd.jpg');
    expect(plainName('C:\\bench\\shell.png')).toBe('shell.png');
    expect(plainName('')).toBe('picture');
    const png = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#888' } })
      .png()
      .toBuffer();
    const answer = await send(png, '../../../evil<b>.png').expect(201);
    expect((answer.body.entry.body as EntryBodies['photo-added']).name).not.toContain('/');
  });
});

describe('what is refused, each with a sentence and nothing stored', () => {
  const count = async (): Promise<number> => ((await bench.people.reader.get(`/api/cases/${caseId}/entries`)).body as unknown[]).length;
  it.each<[string, () => Promise<Buffer> | Buffer, string, number]>([
    ['text', () => Buffer.from('<html>not a picture</html>'), 'not-an-image', 400],
    ['nothing', () => Buffer.alloc(0), 'not-an-image', 400],
    ['a truncated JPEG', () => jpeg.subarray(0, Math.floor(jpeg.length * 0.6)), 'image-damaged', 400],
    [
      'a GIF',
      () =>
        sharp({ create: { width: 8, height: 8, channels: 3, background: '#888' } })
          .gif()
          .toBuffer(),
      'not-an-image',
      400,
    ],
    ['an SVG', () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'), 'not-an-image', 400],
    [
      '200 megapixels',
      () =>
        sharp({ create: { width: 20000, height: 10000, channels: 3, background: '#888' } })
          .png({ compressionLevel: 1 })
          .toBuffer(),
      'image-too-large',
      413,
    ],
    ['60 MB', () => Buffer.concat([jpeg, randomBytes(60 * 1024 * 1024)]), 'file-too-large', 413],
  ])(
    '%s',
    async (_, make, code, status) => {
      const before = await count();
      const answer = await send(await make()).catch((e: { code?: string; response?: unknown }) => ({
        status: e.code === 'ECONNRESET' || e.code === 'EPIPE' ? 413 : 0,
        body: { code: 'file-too-large', sentence: 'The connection was closed while the rest was refused.' },
      }));
      expect([answer.status, answer.body.code]).toEqual([status, code]);
      expect(answer.body.sentence.length).toBeGreaterThan(30);
      expect(await count()).toBe(before);
    },
    30_000,
  );
  it('a place the engine lacks', async () =>
    expect((await send(jpeg, 'a.jpg', 'rod.9.shell.upper').expect(400)).body.code).toBe('entry-station'));
  it('a request without a file', async () =>
    expect(
      (await bench.people.builder.post(`/api/cases/${caseId}/photos`).field('entryId', randomUUID()).field('station', 'bore.1').expect(400))
        .body.code,
    ).toBe('no-file'));
});

describe('report and bundle', () => {
  it('prints every symbol with embedded fonts and tells what was not examined', async () => {
    await bench.people.builder
      .post(`/api/cases/${caseId}/entries`)
      .send({
        entries: [
          draft('report-set', null, { field: 'conclusion', value: 'Limits ≤ ≥ Δ π → µ ² hold; <b>not bold</b>.' }),
          draft('mark-made', 'rod.1.shell.upper', {
            mark: {
              id: 'm1',
              shape: 'stroke',
              class: 'lining',
              points: [
                [0.2, 0.5],
                [0.8, 0.5],
              ],
              radiusMm: 3,
              made: 'found-so',
            },
          }),
        ],
      })
      .expect(201);
    const pdf = await bench.people.reader.get(`/api/cases/${caseId}/report.pdf`).expect(200).buffer(true).parse(binary);
    const file = join(mkdtempSync(join(tmpdir(), 'tl-')), 'report.pdf');
    writeFileSync(file, pdf.body as Buffer);
    const text = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
    for (const word of [
      'Workshop account',
      'Slipway winch',
      '≤',
      '≥',
      'Δ',
      'π',
      '→',
      '²',
      '<b>not bold</b>',
      'Not examined:',
      'page 1 of',
      'defers to the engine maker',
    ])
      expect(text).toContain(word);
    const fonts = execFileSync('pdffonts', [file], { encoding: 'utf8' }).trim().split('\n').slice(2);
    expect(fonts.length).toBeGreaterThanOrEqual(3);
    for (const line of fonts) expect(line).toMatch(/ yes +yes +(yes|no) /);
  });
  it('exports a bundle that verifies, and whose every changed byte in ledger or picture is named', async () => {
    const answer = await bench.people.builder.get(`/api/cases/${caseId}/bundle.zip`).expect(200).buffer(true).parse(binary);
    const zip = answer.body as Buffer;
    const opened = openBundle(new Uint8Array(zip));
    if (!opened.ok) throw new Error(opened.problem.sentence);
    const verdict = verifyBundle(opened.value);
    expect(verdict).toMatchObject({ ok: true, disagreements: [] });
    expect(verdict.photos).toBeGreaterThanOrEqual(2);
    const folder = mkdtempSync(join(tmpdir(), 'tl-'));
    const said: string[] = [];
    const terminal = { out: () => undefined, error: (t: string) => void said.push(t) };
    writeFileSync(join(folder, 'good.zip'), zip);
    expect(await run(['verify', join(folder, 'good.zip')], terminal)).toBe(0);
    const ledgerAt = zip.indexOf('"Slipway winch"');
    expect(ledgerAt).toBeGreaterThan(0);
    const broken = Buffer.from(zip);
    broken[ledgerAt + 3]! ^= 1;
    writeFileSync(join(folder, 'broken.zip'), broken);
    expect(await run(['verify', join(folder, 'broken.zip')], terminal)).toBe(1);
    expect(said.at(-1)).toMatch(/Broken at entry 1 \(.+\): its content is not what was recorded/);
    const pictureAt = zip.indexOf(jpeg) + 2000;
    const swapped = Buffer.from(zip);
    swapped[pictureAt]! ^= 255;
    writeFileSync(join(folder, 'swapped.zip'), swapped);
    expect(await run(['verify', join(folder, 'swapped.zip')], terminal)).toBe(1);
    expect(said.at(-1)).toMatch(/its picture is not the one that was recorded/);
  });
  it('gives the same differential from the API, from the case file and from the command line', async () => {
    const file = (await bench.people.reader.get(`/api/cases/${caseId}/case.json`).expect(200)).body as object;
    const api = (await bench.people.reader.get(`/api/cases/${caseId}/differential`).expect(200)).body as { causes: unknown };
    const posted = (await bench.people.reader.post('/api/diagnose').send(file).expect(200)).body as { causes: unknown };
    expect(posted.causes).toEqual(api.causes);
    const path = join(mkdtempSync(join(tmpdir(), 'tl-')), 'case.json');
    writeFileSync(path, JSON.stringify(file));
    const out: string[] = [];
    expect(await run(['diagnose', path], { out: (t) => void out.push(t), error: () => undefined })).toBe(0);
    expect((JSON.parse(out.join('')) as { causes: unknown }).causes).toEqual(api.causes);
    expect((await bench.people.reader.post('/api/diagnose').send({ format: 'x' }).expect(400)).body.code).toBe('case-file');
  });
});

function binary(response: unknown, done: (error: Error | null, body: Buffer) => void): void {
  const stream = response as NodeJS.ReadableStream;
  const parts: Buffer[] = [];
  stream.on('data', (p: Buffer) => parts.push(p));
  stream.on('end', () => done(null, Buffer.concat(parts)));
}
