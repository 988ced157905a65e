import { randomUUID } from 'node:crypto';
import { sha256Hex } from '@true-ledger/core/kit';
import { surfaceMaps, takeShell, USUAL_SHOT } from '@true-ledger/core/specimen';
import { stationsOf } from '@true-ledger/core/engine';
import type { Point } from '@true-ledger/core/photo';
import sharp from 'sharp';
import { standInJpeg } from '../src/photos/standInJpeg.js';
import { bytesOf, draft, FOUR, newCase, startBench, type Bench } from './harness.js';

// Photographed surfaces as the bench shows them: made from pictures and corners when first asked for.
const PLACE = 'rod.1.shell.upper';
const FRAME = stationsOf(FOUR).find((s) => s.id === PLACE)!.surface!;

let bench: Bench;
let caseId: string;
let sha: string;
let entryId: string;
/** Entry that set the corners. */
let placed: string;
let corners: readonly Point[];
beforeAll(async () => {
  bench = await startBench();
  caseId = await newCase(bench.people.builder);
  const specimen = {
    seed: 4,
    radiusMm: FRAME.widthMm / Math.PI,
    widthMm: FRAME.heightMm,
    damages: [{ kind: 'wipe', arc: 90, halfDeg: 30, amount: 1.2 }] as const,
  };
  const taken = takeShell(specimen, surfaceMaps(specimen), { ...USUAL_SHOT, width: 800, height: 600 });
  corners = taken.corners;
  const jpeg = await standInJpeg(taken.pixels);
  sha = sha256Hex(jpeg);
  entryId = randomUUID();
  await bench.people.builder
    .post(`/api/cases/${caseId}/photos`)
    .field('entryId', entryId)
    .field('station', PLACE)
    .attach('file', jpeg, 'shell.jpg')
    .expect(201);
});
afterAll(() => bench.close());

const surface = (size = 'middle', who: 'builder' | 'reader' = 'builder', place = PLACE) =>
  bench.people[who].get(`/api/cases/${caseId}/surfaces/${place}/${size}`);
const append = (...entries: object[]) => bench.people.builder.post(`/api/cases/${caseId}/entries`).send({ entries }).expect(201);

it('there is none before corners are set, of another place, or in a size that does not exist', async () => {
  await surface().expect(404);
  const set = draft('corners-set', PLACE, { sha256: sha, corners });
  placed = set.id;
  await append(set);
  await surface('middle', 'builder', 'oil.gallery').expect(404);
  await surface('middle', 'builder', 'nowhere').expect(404);
  await surface('huge').expect(400);
});

it('is the face on its frame, in three sizes, copper where it was painted', async () => {
  for (const [size, most] of [
    ['large', 2048],
    ['middle', 512],
    ['small', 128],
  ] as const) {
    const { data, info } = await sharp(await bytesOf(surface(size).expect(200)))
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect(info.width).toBeLessThanOrEqual(most);
    expect(info.width / info.height).toBeCloseTo(FRAME.widthMm / FRAME.heightMm, 0);
    const at = (u: number): number => {
      const i = 4 * (Math.floor(info.height / 2) * info.width + Math.floor(u * info.width));
      return data[i]! / Math.max(1, data[i + 2]!);
    };
    expect(at(0.5)).toBeGreaterThan(1.3 * at(0.15));
  }
});

it('is the same for as long as nothing changes, and another when its corners move', async () => {
  const first = (await surface().expect(200)).headers['etag']!;
  await surface().set('If-None-Match', first).expect(304);
  const moved = corners.map(([x, y], k): Point => [x + (k < 2 ? 4 : 0), y]);
  await append(draft('corners-set', PLACE, { sha256: sha, corners: moved }, placed));
  expect((await surface().expect(200)).headers['etag']).not.toBe(first);
});

it('a reader gets it with what is blurred, the builder plain; asked for at once it is made once', async () => {
  await append(draft('blur-set', PLACE, { sha256: sha, regions: [{ x: 0.5, y: 0.5, r: 0.08 }] }));
  const [plain, shared, again] = await Promise.all([
    bytesOf(surface('middle')),
    bytesOf(surface('middle', 'reader')),
    bytesOf(surface('middle', 'reader')),
  ]);
  expect(Buffer.compare(plain, shared)).not.toBe(0);
  expect(Buffer.compare(shared, again)).toBe(0);
});

it('is not to be had any more once its picture was struck', async () => {
  await surface().expect(200);
  await bench.people.owner.post(`/api/cases/${caseId}/redactions`).send({ entry: entryId, reason: 'shows a person' }).expect(201);
  await surface().expect(404);
  await surface('middle', 'reader').expect(404);
});
