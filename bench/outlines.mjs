// How near the outline found without help lies to the true corners of half shells, and what a reading from it is worth: two sets of rendered specimens, and pictures of another renderer when a folder is named.
// node bench/outlines.mjs [--set tune|report] [--count 48] [--folder DIR] [--list] [--keep DIR]
import { existsSync, mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import sharp from 'sharp';
import { findOutline, readSurface } from '@true-ledger/core/photo';
import { surfaceMaps, takeShell } from '@true-ledger/core/specimen';
import { compressed, SETS } from './sets.mjs';
import { shellSpecimen } from './shells.mjs';

const { values } = parseArgs({
  options: {
    set: { type: 'string', default: 'report' },
    count: { type: 'string', default: '48' },
    folder: { type: 'string', default: process.env.SPECIMENS ?? '' },
    list: { type: 'boolean', default: false },
    keep: { type: 'string', default: '' },
  },
});

/** A corner this far from its place, share of the length of a parting line to the other, is near enough to be read from. */
const NEAR = 0.05;
let rows = [];

async function judge(id, picture, truth, size, given) {
  const from = performance.now();
  const found = findOutline('shell', picture);
  const seconds = (performance.now() - from) / 1000;
  const length = Math.hypot(truth[0][0] - truth[3][0], truth[0][1] - truth[3][1]);
  const row = { id, found: found.ok, seconds };
  if (found.ok) {
    row.off = Math.max(...found.value.map((p, k) => Math.hypot(p[0] - truth[k][0], p[1] - truth[k][1]))) / length;
    const reading = readSurface('shell', picture, found.value, size, { cornersProposed: true });
    row.grade = reading.ok ? reading.value.grade : null;
    row.given = given();
  }
  rows.push(row);
  if (values.list)
    console.error(id, found.ok ? `off ${(100 * row.off).toFixed(1)} %  grade ${row.grade} / ${row.given}` : found.problem.code);
  if (values.keep) await keep(id, picture, found.ok ? found.value : [], truth);
}

async function keep(id, { width, height, data }, found, truth) {
  mkdirSync(values.keep, { recursive: true });
  const line = (points, colour) =>
    points.length === 0
      ? ''
      : `<polygon points="${points.map((p) => p.join(',')).join(' ')}" fill="none" stroke="${colour}" stroke-width="5"/>`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${line(truth, '#00ff00')}${line(found, '#ff00ff')}</svg>`;
  await sharp(Buffer.from(data.buffer), { raw: { width, height, channels: 4 } })
    .composite([{ input: Buffer.from(svg) }])
    .removeAlpha()
    .png()
    .toFile(join(values.keep, `${id}.png`));
}

const gradeOf = (picture, corners, size) => {
  const reading = readSurface('shell', picture, corners, size);
  return reading.ok ? reading.value.grade : null;
};

async function rendered(name, count) {
  const set = SETS[name];
  if (!set) throw new Error(`no set ${name}`);
  for (let n = 0; n < count; n++) {
    const { s, shot, quality } = shellSpecimen(set, n);
    const taken = takeShell(s, surfaceMaps(s), shot);
    const picture = await compressed(taken.pixels, quality);
    const size = { radiusMm: s.radiusMm, widthMm: null };
    await judge(`${name}-${n}`, picture, taken.corners, size, () => gradeOf(picture, taken.corners, size));
  }
  report(`outlines, rendered, ${name} set`);
}

async function folder(dir) {
  for (const file of readdirSync(dir).filter((f) => f.endsWith('.json'))) {
    const t = JSON.parse(readFileSync(join(dir, file), 'utf8'));
    const { data, info } = await sharp(join(dir, t.image)).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    const picture = { width: info.width, height: info.height, data: new Uint8ClampedArray(data) };
    const c = t.face_corners_px;
    const truth = [c.left_front, c.left_rear, c.right_rear, c.right_front];
    const size = { radiusMm: t.part_mm.inner_radius, widthMm: null };
    await judge(t.id, picture, truth, size, () => gradeOf(picture, truth, size));
  }
  report('outlines, another renderer');
}

function report(name) {
  const say = (figure, value, more = {}) =>
    console.log(JSON.stringify({ figure: `${name}, ${rows.length} half shells: ${figure}`, value: Number(value.toFixed(1)), ...more }));
  const share = (list, f) => (list.length === 0 ? 0 : (100 * list.filter(f).length) / list.length);
  const found = rows.filter((r) => r.found);
  const graded = found.filter((r) => r.grade !== null && r.given !== null);
  say(
    'found',
    share(rows, (r) => r.found),
    { unit: '%' },
  );
  say(
    'every corner within 5 % of the length',
    share(rows, (r) => r.found && r.off <= NEAR),
    { unit: '%' },
  );
  say(
    'found, but a corner further off than 5 %',
    share(rows, (r) => r.found && r.off > NEAR),
    { unit: '%' },
  );
  say(
    'a grade proposed from it',
    share(rows, (r) => r.grade !== null && r.grade !== undefined),
    { unit: '%' },
  );
  say(
    'of these, the grade read from the true corners',
    share(graded, (r) => r.grade === r.given),
    { unit: '%' },
  );
  say(
    'of these, within one of it',
    share(graded, (r) => Math.abs(r.grade - r.given) <= 1),
    { unit: '%' },
  );
  say('time to find one', Math.max(...rows.map((r) => r.seconds)) * 1000, { unit: 'ms, longest' });
  rows = [];
}

await rendered(values.set, Number(values.count));
if (values.folder && existsSync(join(values.folder, 'shells'))) await folder(join(values.folder, 'shells'));
