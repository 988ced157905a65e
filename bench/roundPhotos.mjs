// How well journals and piston skirts are read from pictures with exact truth, by the same two sets as half shells; and the third set of another renderer when a folder is named.
// node bench/roundPhotos.mjs [--part journal|skirt] [--set tune|report] [--count 60] [--folder DIR] [--list]
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import sharp from 'sharp';
import { proposeGrade, summariseMap } from '@true-ledger/core/damage';
import { NOT_SEEN_COSINE, readSurface } from '@true-ledger/core/photo';
import { seeded, surfaceMaps, takeRound } from '@true-ledger/core/specimen';
import { compressed, SETS, shotOf, truthOf } from './sets.mjs';

const { values } = parseArgs({
  options: {
    part: { type: 'string', default: 'journal' },
    set: { type: 'string', default: 'report' },
    count: { type: 'string', default: '60' },
    folder: { type: 'string', default: process.env.SPECIMENS ?? '' },
    list: { type: 'boolean', default: false },
  },
});
const { part } = values;
const FACING = 180;

const KINDS = {
  journal: ['sound', 'scored', 'ring', 'patch', 'transfer', 'rust', 'both'],
  skirt: ['sound', 'thrust', 'corners', 'coated', 'round'],
};

function scores(r) {
  const n = 1 + Math.floor(6 * r());
  return Array.from({ length: n }, (_, k) => {
    const from = r() < 0.5 ? 0 : 60 + 60 * r();
    return {
      kind: 'score',
      axial: 0.08 + (0.84 * (k + 0.3 + 0.4 * r())) / n,
      fromDeg: from,
      toDeg: from === 0 ? 360 : from + 70 + 100 * r(),
      widthMm: r() < 0.2 ? 0.06 + 0.05 * r() : 0.2 + 0.4 * r(),
      through: false,
    };
  });
}

function damagesOf(kind, r) {
  const arc = FACING + 50 * (r() - 0.5);
  const temper = (ring) => ({
    kind: 'temper',
    arc,
    halfDeg: ring ? 180 : 35 + 40 * r(),
    axial: 0.35 + 0.3 * r(),
    axialHalf: 0.2 + 0.2 * r(),
    most: 0.55 + 0.4 * r(),
  });
  const scuff = (at, half) => ({ kind: 'scuff', arc: at, halfDeg: half, from: 0.3 * r(), to: 0.65 + 0.35 * r(), amount: 0.8 + 0.5 * r() });
  switch (kind) {
    case 'scored':
      return scores(r);
    case 'ring':
      return [temper(true)];
    case 'patch':
      return [temper(false)];
    case 'transfer':
      return [
        {
          kind: 'transfer',
          arc,
          halfDeg: 25 + 40 * r(),
          axial: 0.4 + 0.2 * r(),
          axialHalf: 0.15 + 0.25 * r(),
          cover: 0.15 + 0.5 * r(),
          metal: 'bronze',
        },
      ];
    case 'rust':
      return [{ kind: 'rust', arc, halfDeg: 25 + 45 * r(), amount: 0.3 + 0.5 * r() }];
    case 'both':
      return [
        temper(true),
        { kind: 'transfer', arc, halfDeg: 25 + 30 * r(), axial: 0.5, axialHalf: 0.3, cover: 0.2 + 0.3 * r(), metal: 'bronze' },
      ];
    case 'thrust':
      return [scuff(arc, 8 + 25 * r())];
    case 'corners':
      return [-1, 1].map((side) => scuff(FACING + side * (38 + 14 * r()), 7 + 6 * r()));
    case 'coated':
      return [
        { kind: 'coat', fromDeg: FACING - 35, toDeg: FACING + 35, from: 0.08, to: 0.9 },
        ...(r() < 0.7 ? [scuff(FACING + (r() < 0.5 ? -1 : 1) * (45 + 8 * r()), 7 + 5 * r())] : []),
      ];
    case 'round':
      return [-1, 0, 1].map((side) => scuff(FACING + side * 40, 22));
    default:
      return [];
  }
}

function specimen(set, n) {
  const r = seeded(set.from + 31 + n * 977);
  const kind = KINDS[part][n % KINDS[part].length];
  const radiusMm = part === 'journal' ? 20 + 16 * r() : 36 + 14 * r();
  const s = {
    seed: set.from + n,
    radiusMm,
    widthMm: part === 'journal' ? 20 + 10 * r() : radiusMm * (0.75 + 0.25 * r()),
    spanDeg: 360,
    finish: part === 'journal' ? 'ground-steel' : 'turned-aluminium',
    damages: damagesOf(kind, r),
    ...(part === 'journal' && r() < 0.4
      ? { hole: { arc: FACING + 60 * (r() - 0.5), axial: 0.4 + 0.2 * r(), diameterMm: 3.5 + 2 * r() } }
      : {}),
  };
  return { kind, s, ...shotOf(set, n, r, part === 'journal' ? [0.28, 0.42] : [0.38, 0.55]) };
}

const rows = [];
let spent = 0;
const MAIN = part === 'journal' ? ['heat', 'transfer', 'rust'] : ['scuffed'];

function judge(id, kind, picture, corners, radiusMm, truth) {
  const from = performance.now();
  const reading = readSurface(part, picture, corners, { radiusMm, widthMm: null });
  spent += performance.now() - from;
  const row = { id, kind, truth, ok: reading.ok };
  if (reading.ok) {
    const v = reading.value;
    row.percent = v.summary.percent;
    row.error = Math.max(...MAIN.map((c) => Math.abs(v.summary.percent[c] - truth.percent(c))));
    row.lines = v.lines.filter((l) => l.widthMm >= 0.15).length;
    row.lineError = Math.abs(row.lines - truth.lines);
    row.grade = v.grade;
  }
  rows.push(row);
  if (values.list)
    console.error(
      id,
      kind,
      reading.ok
        ? `${MAIN.map((c) => `${c} ${row.percent[c].toFixed(1)} / ${truth.percent(c).toFixed(1)}`).join('  ')}  lines ${row.lines} / ${truth.lines}  grade ${row.grade} / ${truth.grade}  conf ${reading.value.confidence}`
        : reading.problem.sentence,
    );
}

function report(name) {
  const say = (figure, value, limit) =>
    console.log(
      JSON.stringify({
        figure: `${name}, ${rows.length} pictures of ${part}: ${figure}`,
        unit: '%',
        value: Number(value.toFixed(1)),
        ...(limit ? { limit } : {}),
      }),
    );
  const share = (list, f) => (list.length === 0 ? 0 : (100 * list.filter(f).length) / list.length);
  say(
    `${MAIN.join(', ')} within 3 points`,
    share(rows, (r) => r.ok && r.error <= 3),
    90,
  );
  if (part === 'journal')
    say(
      'score lines from 0.15 mm within one',
      share(rows, (r) => r.ok && r.lineError <= 1),
      85,
    );
  const graded = rows.filter((r) => r.ok && r.grade !== null && r.truth.grade !== null);
  if (graded.length > 0) {
    say(
      'proposed grade equal to truth',
      share(graded, (r) => r.grade === r.truth.grade),
      80,
    );
    say(
      'proposed grade within one',
      share(graded, (r) => Math.abs(r.grade - r.truth.grade) <= 1),
      99,
    );
    console.log(
      JSON.stringify({
        figure: `${name}, ${part}: grades, row true, column proposed`,
        matrix: Array.from({ length: 5 }, (_, t) =>
          Array.from({ length: 5 }, (__, g) => graded.filter((r) => r.truth.grade === t && r.grade === g).length),
        ),
      }),
    );
  }
  for (const kind of KINDS[part]) {
    const own = rows.filter((r) => r.kind === kind && r.ok);
    if (own.length > 0)
      console.log(
        JSON.stringify({
          figure: `${name}, ${part}: ${kind}`,
          pictures: own.length,
          errorMean: Number((own.reduce((s, r) => s + r.error, 0) / own.length).toFixed(2)),
          errorWorst: Number(Math.max(...own.map((r) => r.error)).toFixed(2)),
          linesWithinOne: Math.round(share(own, (r) => r.lineError <= 1)),
          gradeEqual: Math.round(share(own, (r) => r.grade === r.truth.grade)),
        }),
      );
  }
  console.log(
    JSON.stringify({ figure: `${name}, ${part}: time of a reading`, unit: 'ms', value: Math.round(spent / rows.length), limit: 1500 }),
  );
  rows.length = 0;
  spent = 0;
}

const set = SETS[values.set];
if (!set) throw new Error(`no set ${values.set}`);
for (let n = 0; n < Number(values.count); n++) {
  const { kind, s, shot, quality } = specimen(set, n);
  const maps = surfaceMaps(s, 2400, 400);
  const taken = takeRound(s, maps, shot, part === 'journal' ? 'journal' : 'piston', FACING);
  const picture = await compressed(taken.pixels, quality);
  const lines = { hair: 0, probe: 0, nail: 0, through: 0 };
  for (const d of s.damages) if (d.kind === 'score') lines[d.widthMm >= 0.15 ? 'probe' : 'hair']++;
  // The reading covers the half turn that faces the camera.
  const truth = truthOf(maps, (arc, axial) => {
    const phi = arc - FACING + 90;
    return phi < 0 || phi >= 180 || taken.cosine(arc, axial) < NOT_SEEN_COSINE ? null : phi;
  });
  const { grade } = proposeGrade(part, 'unknown', summariseMap(truth.map, lines));
  judge(`${values.set}-${n}`, kind, picture, taken.corners, s.radiusMm, { ...truth, grade, lines: maps.lines });
}
if (rows.length > 0) report(`rendered, ${values.set} set`);

const folder = part === 'journal' ? 'journals' : 'pistons';
if (values.folder && existsSync(join(values.folder, folder))) {
  for (const file of readdirSync(join(values.folder, folder)).filter((f) => f.endsWith('.json'))) {
    const t = JSON.parse(readFileSync(join(values.folder, folder, file), 'utf8'));
    const { data, info } = await sharp(join(values.folder, folder, t.image))
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const seen = t.truth.visible_percent;
    const named = { heat: seen.blued ?? 0, transfer: seen.transfer ?? 0, rust: seen.rust ?? 0, scuffed: seen.scuffed ?? 0 };
    judge(
      t.id,
      t.description,
      { width: info.width, height: info.height, data: new Uint8ClampedArray(data) },
      outline(t),
      t.part_mm.dia / 2,
      {
        grade: null,
        lines: t.truth['score_lines_wider_than_0.15mm'],
        percent: (c) => named[c] ?? 0,
      },
    );
  }
  report('another renderer');
}

/** Corners of the visible band from the grid of true places: where its sides meet its two ends. */
function outline(t) {
  const nodes = t.grid.node_px;
  const [front, rear] = [nodes.map((row) => row[0]), nodes.map((row) => row[row.length - 1])];
  const middle = (ring) => [0, 1].map((k) => ring.reduce((s, p) => s + p[k], 0) / ring.length);
  const [a, b] = [middle(front), middle(rear)];
  const long = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const right = [-(b[1] - a[1]) / long, (b[0] - a[0]) / long];
  const most = (ring, sign) =>
    ring.reduce((best, p) => (sign * (p[0] * right[0] + p[1] * right[1]) > sign * (best[0] * right[0] + best[1] * right[1]) ? p : best));
  return [most(front, -1), most(rear, -1), most(rear, 1), most(front, 1)];
}
