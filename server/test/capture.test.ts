import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { connect, type AddressInfo } from 'node:net';
import { get } from 'node:http';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sha256Hex } from '@true-ledger/core/kit';
import type { LedgerEntry } from '@true-ledger/core/ledger';
import type { EntryBodies } from '@true-ledger/core/entries';
import { openBundle, verifyBundle } from '@true-ledger/core/bundle';
import sharp from 'sharp';
import { bytesOf, appOn, draft, newCase, PASSWORD, ROOT, shellJpeg, startBench, type Bench } from './harness.js';

let bench: Bench;
let caseId: string;
let jpeg: Buffer;
const fixture = (name: string): Buffer => readFileSync(join(ROOT, 'e2e/fixtures', name));
beforeAll(async () => {
  bench = await startBench();
  caseId = await newCase(bench.people.builder);
  jpeg = await shellJpeg(5);
});
afterAll(() => bench.close());

const picture = (bytes: Buffer, more: Record<string, string> = {}, id = caseId) => {
  const request = bench.people.builder.post(`/api/cases/${id}/photos`);
  for (const [k, v] of Object.entries({ entryId: randomUUID(), station: 'rod.1.shell.upper', ...more })) void request.field(k, v);
  return request.attach('file', bytes, 'picture.jpg');
};
const clip = (bytes: Buffer, name: string, type: string, more: Record<string, string> = {}) => {
  const request = bench.people.builder.post(`/api/cases/${caseId}/clips`);
  for (const [k, v] of Object.entries({ entryId: randomUUID(), station: 'rod.1', ...more })) void request.field(k, v);
  return request.attach('file', bytes, { filename: name, contentType: type });
};
const entries = async (id = caseId): Promise<LedgerEntry[]> =>
  (await bench.people.reader.get(`/api/cases/${id}/entries`).expect(200)).body as LedgerEntry[];

describe('pictures from a phone', () => {
  it('may be of the whole engine, and say which shot they are', async () => {
    const answer = await picture(jpeg, { station: '', shot: 'left side' }).expect(201);
    expect(answer.body.entry).toMatchObject({ station: null, body: { shot: 'left side' } });
  });
  it('are refused when they did not arrive as they were sent', async () => {
    const answer = await picture(jpeg, { sha256: 'a'.repeat(64) }).expect(400);
    expect(answer.body.code).toBe('damaged-on-the-way');
    await picture(jpeg, { sha256: sha256Hex(jpeg) }).expect(201);
  });
  it('in HEIC are decoded, the original kept as it came', async () => {
    const heic = fixture('phone.heic');
    const answer = await picture(heic, { station: 'bore.1' }).expect(201);
    const body = answer.body.entry.body as EntryBodies['photo-added'];
    expect(body).toMatchObject({ mime: 'image/heic', width: 400, height: 300, sha256: sha256Hex(heic) });
    const work = (await bench.people.reader.get(`/api/cases/${caseId}/photos/${body.sha256}/work`).expect(200)).body as Buffer;
    const { data, info } = await sharp(work).raw().toBuffer({ resolveWithObject: true });
    expect([info.width, info.height]).toEqual([400, 300]);
    const truth = await sharp(fixture('shell.jpg')).resize(400, 300, { fit: 'cover' }).raw().toBuffer();
    let off = 0;
    for (let i = 0; i < data.length; i++) off += Math.abs(data[i]! - truth[i]!);
    expect(off / data.length).toBeLessThan(8);
  });
  it('in HEIC cut short get a clear word', async () => {
    const heic = fixture('phone.heic');
    const answer = await picture(heic.subarray(0, heic.length / 2), { station: 'bore.1' }).expect(400);
    expect(answer.body.sentence).toMatch(/HEIC picture cannot be decoded here.*Save it as JPEG/);
  });

  it('cut off at any tenth of the way leave nothing, and arrive exactly once when sent again', async () => {
    const id = await newCase(bench.people.builder);
    const me = await bench.people.builder.post('/api/sign-in').send({ signIn: 'builder', password: PASSWORD }).expect(201);
    const cookie = (me.headers['set-cookie'] as unknown as string[])[0]!.split(';')[0]!;
    const { port } = bench.app.getHttpServer().address() as AddressInfo;
    const mark = '----tl';
    const field = (name: string, value: string): string =>
      `--${mark}\r\nContent-Disposition: form-data; name="${name}"\r\n\r\n${value}\r\n`;
    const head = Buffer.from(
      `${field('entryId', randomUUID())}${field('station', 'bore.2')}--${mark}\r\nContent-Disposition: form-data; name="file"; filename="a.jpg"\r\nContent-Type: image/jpeg\r\n\r\n`,
    );
    const body = Buffer.concat([head, jpeg, Buffer.from(`\r\n--${mark}--\r\n`)]);
    const request = Buffer.from(
      `POST /api/cases/${id}/photos HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nCookie: ${cookie}\r\nContent-Type: multipart/form-data; boundary=${mark}\r\nContent-Length: ${body.length}\r\n\r\n`,
    );
    const before = (await entries(id)).length;
    for (let tenth = 0; tenth < 10; tenth++) {
      await new Promise<void>((resolve, reject) => {
        const socket = connect(port, '127.0.0.1', () =>
          socket.write(Buffer.concat([request, body.subarray(0, Math.floor((body.length * tenth) / 10))]), () =>
            setTimeout(() => socket.destroy(), 15),
          ),
        );
        socket.on('close', () => resolve());
        socket.on('error', reject);
      });
    }
    await new Promise((r) => setTimeout(r, 200));
    expect(await entries(id)).toHaveLength(before);
    for (const already of [false, true]) expect((await picture(jpeg, { station: 'bore.2' }, id).expect(201)).body.already).toBe(already);
    expect(await entries(id)).toHaveLength(before + 1);
  });
});

describe('personal things', () => {
  const pixels = async (agent: 'builder' | 'reader', path: string): Promise<Buffer> =>
    sharp((await bench.people[agent].get(`/api/cases/${caseId}/photos/${path}`).expect(200)).body as Buffer)
      .raw()
      .toBuffer();
  const contrast = (raw: Buffer, width: number, x0: number, y0: number, side: number): number => {
    let sum = 0;
    for (let y = y0; y < y0 + side; y++)
      for (let x = x0; x < x0 + side - 1; x++) sum += Math.abs(raw[(y * width + x) * 3]! - raw[(y * width + x + 1) * 3]!);
    return sum / (side * (side - 1));
  };
  it('are blurred for readers and reports; the builder keeps the picture, the ledger the reason', async () => {
    const noise = await sharp({
      create: { width: 600, height: 400, channels: 3, background: '#808080', noise: { type: 'gaussian', mean: 128, sigma: 60 } },
    })
      .jpeg({ quality: 95 })
      .toBuffer();
    const sha = sha256Hex(noise);
    await picture(noise, { station: 'bore.3' }).expect(201);
    await bench.people.builder
      .post(`/api/cases/${caseId}/entries`)
      .send({ entries: [draft('blur-set', 'bore.3', { sha256: sha, regions: [{ x: 0.5, y: 0.5, r: 0.12 }] })] })
      .expect(201);
    const reader = await pixels('reader', `${sha}/work`);
    const builder = await pixels('builder', `${sha}/work`);
    const shared = await pixels('builder', `${sha}/shared`);
    expect(contrast(builder, 600, 280, 180, 40)).toBeGreaterThan(25);
    expect(contrast(reader, 600, 280, 180, 40)).toBeLessThan(4);
    expect(contrast(shared, 600, 280, 180, 40)).toBeLessThan(4);
    expect(contrast(reader, 600, 20, 20, 40)).toBeGreaterThan(25);
    await bench.people.reader.get(`/api/cases/${caseId}/photos/${sha}/original`).expect(403);
  });
});

describe('voice notes and clips', () => {
  it('are kept, played whole or in part, and told by their own bytes', async () => {
    const wav = fixture('knock.wav');
    const answer = await clip(wav, 'knock.wav', 'audio/wav', { seconds: '0.6', sha256: sha256Hex(wav) }).expect(201);
    expect(answer.body.entry).toMatchObject({ kind: 'clip-added', station: 'rod.1', body: { mime: 'audio/wav', seconds: 0.6 } });
    const url = `/api/cases/${caseId}/clips/${sha256Hex(wav)}`;
    expect(Buffer.compare((await bench.people.reader.get(url).buffer(true).expect(200)).body as Buffer, wav)).toBe(0);
    const part = await bench.people.reader.get(url).set('Range', 'bytes=10-19').buffer(true).expect(206);
    expect(part.headers['content-range']).toBe(`bytes 10-19/${wav.length}`);
    expect(Buffer.compare(part.body as Buffer, wav.subarray(10, 20))).toBe(0);
    await bench.people.reader.get(url).set('Range', 'bytes=999999999-').expect(416);
    expect((await clip(wav, 'again.wav', 'audio/wav').expect(201)).body.already).toBe(true);
  });
  it('that are none are refused, whatever they are called', async () => {
    const answer = await clip(Buffer.from('<html><script>1</script>'), 'knock.webm', 'video/webm').expect(400);
    expect(answer.body.code).toBe('not-a-clip');
    expect((await clip(jpeg, 'knock.mp3', 'audio/mpeg').expect(400)).body.code).toBe('not-a-clip');
  });
  it('go into the bundle and are verified there', async () => {
    const zip = await bytesOf(bench.people.builder.get(`/api/cases/${caseId}/bundle.zip`).expect(200));
    const opened = openBundle(new Uint8Array(zip));
    if (!opened.ok) throw new Error(opened.problem.sentence);
    expect(verifyBundle(opened.value)).toMatchObject({ ok: true, disagreements: [] });
    const name = Object.keys(opened.value).find((n) => n.startsWith('clips/'))!;
    expect(name).toMatch(/\.wav$/);
    const changed = { ...opened.value, [name]: new Uint8Array([1, 2, 3]) };
    expect(verifyBundle(changed).broken?.reason).toMatch(/clip is not the one that was recorded/);
  });
});

describe('part tags', () => {
  it('print on sheets with the place in words and embedded fonts', async () => {
    const pdf = (
      await bench.people.reader.get(`/api/cases/${caseId}/tags.pdf`).query({ places: 'main.*.shell.*' }).buffer(true).expect(200)
    ).body as Buffer;
    const file = join(mkdtempSync(join(tmpdir(), 'tl-tags-')), 'tags.pdf');
    writeFileSync(file, pdf);
    const text = execFileSync('pdftotext', [file, '-'], { encoding: 'utf8' });
    expect(text).toContain('Main 5 lower shell');
    expect(text).toContain('20 mm');
    expect(text).not.toContain('Bore 1');
    expect(execFileSync('pdffonts', [file], { encoding: 'utf8' })).toMatch(/B612.*yes yes/);
    expect((await bench.people.reader.get(`/api/cases/${caseId}/tags.pdf`).query({ places: 'nowhere' }).expect(400)).body.code).toBe(
      'no-places',
    );
  });
});

describe('two server processes on one store', () => {
  it('a picture sent to one is announced by the other within a second', async () => {
    const other = await appOn(bench.url);
    try {
      const { port } = other.getHttpServer().address() as AddressInfo;
      const signedIn = await fetch(`http://127.0.0.1:${port}/api/sign-in`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ signIn: 'reader', password: PASSWORD }),
      });
      const cookie = signedIn.headers.get('set-cookie')!.split(';')[0]!;
      let listening = false;
      const heard = new Promise<number>((resolve, reject) => {
        const stream = get({ host: '127.0.0.1', port, path: `/api/events?case=${caseId}`, headers: { Cookie: cookie } }, (response) => {
          response.on('data', (d: Buffer) => {
            if (listening && d.toString().includes('"seq"')) {
              resolve(Date.now());
              stream.destroy();
            }
          });
        });
        stream.on('error', (e) => (listening ? undefined : reject(e)));
      });
      await new Promise((r) => setTimeout(r, 300));
      // It may be heard of before the answer to who sent it is here.
      listening = true;
      const bytes = await sharp(jpeg).modulate({ brightness: 1.1 }).jpeg().toBuffer();
      const answer = await picture(bytes, { station: 'bore.4' }).expect(201);
      expect((await heard) - Date.parse((answer.body.entry as LedgerEntry).time)).toBeLessThan(1000);
    } finally {
      await other.close();
    }
  });
});
