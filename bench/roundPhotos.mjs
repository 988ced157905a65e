// How well journals and piston skirts are read from pictures with exact truth, by the same two sets as half shells.
// node bench/roundPhotos.mjs [--part journal|skirt] [--set tune|report] [--count 60] [--list]
import { parseArgs } from 'node:util';
import { proposeGrade, summariseMap } from '@true-ledger/core/damage';
import { NOT_SEEN_COSINE, readSurface } from '@true-ledger/core/photo';
import { surfaceMaps, takeRound } from '@true-ledger/core/specimen';
import { FACING, ROUND_KINDS, roundSpecimen } from './rounds.mjs';
import { compressed, SETS, truthOf } from './sets.mjs';

const { values } = parseArgs({
  options: {
    part: { type: 'string', default: 'journal' },
    set: { type: 'string', default: 'report' },
    count: { type: 'string', default: '60' },
    list: { type: 'boolean', default: false },
  },
});
const { part } = values;
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
  for (const kind of ROUND_KINDS[part]) {
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
  const { kind, s, shot, quality } = roundSpecimen(part, set, n);
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
