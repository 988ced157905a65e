// How well surfaces are read from pictures of another renderer, whose folder holds `shells`, `journals` and `pistons` with exact truth. Corners are given, given a percent and a half off, or not at all.
// node bench/otherRenderer.mjs --folder DIR [--part shell|journal|skirt] [--corners given|off|none] [--card] [--list]
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import sharp from 'sharp';
import { proposeGrade, summariseMap, WEAR_CLASSES } from '@true-ledger/core/damage';
import { findOutline, MAP_COLUMNS, MAP_ROWS, readSurface } from '@true-ledger/core/photo';
import { seeded } from '@true-ledger/core/specimen';
import { movedOff, outlineOf } from './sets.mjs';

const { values } = parseArgs({
  options: {
    folder: { type: 'string', default: process.env.SPECIMENS ?? '' },
    part: { type: 'string' },
    corners: { type: 'string' },
    only: { type: 'string' },
    card: { type: 'boolean', default: false },
    list: { type: 'boolean', default: false },
  },
});

/** What a class of the other renderer is called here; what is not named is sound. */
const CLASS_OF = {
  copper: 'lining',
  steel: 'steel',
  heat: 'heat',
  blued: 'heat',
  rust: 'rust',
  embedded: 'embedded',
  transfer: 'transfer',
  scuffed: 'scuffed',
};
const FOLDER = { shell: 'shells', journal: 'journals', skirt: 'pistons' };
/** Shares that must be right, by part. */
const SHARES = { shell: ['lining', 'heat', 'rust'], journal: ['heat', 'transfer', 'rust'], skirt: ['scuffed'] };
const OFF = 0.015;

function cornersOf(part, t) {
  if (part !== 'shell') return outlineOf(t.grid.node_px);
  const c = t.face_corners_px;
  return [c.left_front, c.left_rear, c.right_rear, c.right_front];
}

const drawsFor = (id) => seeded([...id].reduce((h, c) => (Math.imul(h, 31) + c.charCodeAt(0)) >>> 0, 7));

/** The true map of what a camera sees, in the cells of a reading: round parts turn their half that faces the lens. */
function truthOf(part, t) {
  const { fractions, visible } = t.grid;
  const cells = MAP_COLUMNS * MAP_ROWS;
  const shares = Object.fromEntries(WEAR_CLASSES.map((c) => [c, new Float32Array(cells)]));
  const seen = new Float32Array(cells);
  const turn = part === 'shell' ? 0 : Math.round(t.angle_facing_camera_deg / 5) - 18;
  const angles = t.grid.angle_cells;
  for (let k = 0; k < MAP_COLUMNS; k++)
    for (let row = 0; row < MAP_ROWS; row++) {
      const a = (((k + turn) % angles) + angles) % angles;
      const there = 1 - (fractions.void?.[a][row] ?? 0);
      const cell = row * MAP_COLUMNS + k;
      seen[cell] = there * visible[a][row];
      if (there <= 0) continue;
      let named = 0;
      for (const [theirs, ours] of Object.entries(CLASS_OF)) {
        const share = (fractions[theirs]?.[a][row] ?? 0) / there;
        shares[ours][cell] += share;
        named += share;
      }
      shares.sound[cell] = Math.max(0, 1 - named);
    }
  const lines = { hair: 0, probe: 0, nail: 0, through: 0 };
  for (const l of t.truth.score_lines) lines[l.through_to_copper ? 'through' : l.width_mm >= 0.15 ? 'probe' : 'hair']++;
  const summary = summariseMap({ columns: MAP_COLUMNS, rows: MAP_ROWS, shares, seen }, lines);
  const { grade } = proposeGrade(part, part === 'shell' ? 'trimetal' : 'unknown', summary);
  return { percent: summary.percent, grade, lines: t.truth['score_lines_wider_than_0.15mm'] };
}

async function read(part, t, how) {
  const { data, info } = await sharp(join(values.folder, FOLDER[part], t.image))
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const picture = { width: info.width, height: info.height, data: new Uint8ClampedArray(data) };
  const from = performance.now();
  const given = how === 'none' ? null : how === 'off' ? movedOff(cornersOf(part, t), OFF, drawsFor(t.id)) : cornersOf(part, t);
  const found = given ?? findOutline(part, picture);
  const corners = Array.isArray(found) ? found : found.ok ? found.value : null;
  const c = t.card?.corners_px;
  const reading = corners
    ? readSurface(
        part,
        picture,
        corners,
        { radiusMm: part === 'shell' ? t.part_mm.inner_radius : t.part_mm.dia / 2, widthMm: null },
        {
          construction: 'trimetal',
          cornersProposed: how === 'none',
          ...(values.card && c ? { card: [c.top_left, c.top_right, c.bottom_right, c.bottom_left] } : {}),
        },
      )
    : found;
  return { reading, took: performance.now() - from };
}

const figures = (f, digits = 0) => Number(f.toFixed(digits));
for (const part of values.part ? [values.part] : Object.keys(FOLDER)) {
  const folder = join(values.folder, FOLDER[part]);
  if (!values.folder || !existsSync(folder)) continue;
  const all = readdirSync(folder)
    .filter((f) => f.endsWith('.json') && (!values.only || values.only.split(',').includes(f.slice(0, 3))))
    .map((f) => JSON.parse(readFileSync(join(folder, f), 'utf8')));
  for (const how of values.corners ? [values.corners] : ['given', 'off', 'none']) {
    const rows = [];
    for (const t of all) {
      const truth = truthOf(part, t);
      const { reading, took } = await read(part, t, how);
      const r = reading.ok ? reading.value : null;
      const lines = r?.lines.filter((l) => l.widthMm >= 0.15).length ?? null;
      const error = r ? Math.max(...SHARES[part].map((c) => Math.abs(r.summary.percent[c] - truth.percent[c]))) : null;
      rows.push({ truth, r, lines, error, took });
      if (values.list)
        console.error(
          `${t.id} ${how.padEnd(5)}`,
          r
            ? `${error <= 3 ? ' ' : '!'} ${[...SHARES[part], ...(part === 'shell' ? ['steel', 'embedded'] : [])].map((c) => `${c} ${r.summary.percent[c].toFixed(1)}/${truth.percent[c].toFixed(1)}`).join(' ')}  lines ${lines}/${truth.lines}${Math.abs(lines - truth.lines) > 1 ? '!' : ''}  grade ${r.grade}/${truth.grade}${r.grade !== null && r.grade !== truth.grade ? '!' : ''} conf ${r.confidence.toFixed(2)}`
            : `! ${reading.problem.code}`,
          t.description,
        );
    }
    const share = (list, f) => (list.length === 0 ? null : figures((100 * list.filter(f).length) / list.length, 1));
    const graded = rows.filter((x) => x.r && x.r.grade !== null);
    const lined = rows.filter((x) => x.truth.lines > 0);
    const sure = graded.filter((x) => x.r.confidence >= 0.8);
    console.log(
      JSON.stringify({
        part,
        corners: how,
        pictures: rows.length,
        shares: share(rows, (x) => x.error !== null && x.error <= 3),
        lines: share(lined, (x) => x.lines !== null && Math.abs(x.lines - x.truth.lines) <= 1),
        falseLines: share(
          rows.filter((x) => x.truth.lines === 0),
          (x) => x.lines > 1,
        ),
        graded: share(rows, (x) => graded.includes(x)),
        equal: share(graded, (x) => x.r.grade === x.truth.grade),
        withinOne: share(graded, (x) => Math.abs(x.r.grade - x.truth.grade) <= 1),
        sure: sure.length,
        sureTwoOff: sure.filter((x) => Math.abs(x.r.grade - x.truth.grade) > 1).length,
        ms: figures(rows.reduce((s, x) => s + x.took, 0) / rows.length),
      }),
    );
  }
}
