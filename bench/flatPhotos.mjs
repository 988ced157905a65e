// How well crowns and thrust washers are found and read from pictures with exact truth, by the same two sets as half shells.
// node bench/flatPhotos.mjs [--part crown|thrust] [--set tune|report] [--count 60] [--list]
import { parseArgs } from 'node:util';
import { proposeGrade, summariseMap } from '@true-ledger/core/damage';
import { findOutline, readSurface } from '@true-ledger/core/photo';
import { surfaceMaps, takeFlat } from '@true-ledger/core/specimen';
import { FLAT_KINDS, flatSpecimen } from './flats.mjs';
import { compressed, SETS, truthOf } from './sets.mjs';

const { values } = parseArgs({
  options: {
    part: { type: 'string', default: 'crown' },
    set: { type: 'string', default: 'report' },
    count: { type: 'string', default: '60' },
    list: { type: 'boolean', default: false },
  },
});
const { part } = values;
const set = SETS[values.set];
if (!set) throw new Error(`no set ${values.set}`);
const MAIN = part === 'crown' ? ['deposit', 'missing', 'rust'] : ['lining', 'heat', 'rust'];
const rows = [];
let spent = 0;

/** Worst of the four corners, share of the side, whichever way round the square lies. */
function cornersOff(found, truth) {
  const side = Math.hypot(truth[3][0] - truth[0][0], truth[3][1] - truth[0][1]);
  // What counts is the circle: its centre, and how wide it is across and along.
  const middle = (c) => [0, 1].map((k) => c.reduce((s, p) => s + p[k], 0) / 4);
  const [a, b] = [middle(found), middle(truth)];
  const wide = (c) => Math.sqrt(Math.abs(c.reduce((s, p, k) => s + p[0] * c[(k + 1) % 4][1] - p[1] * c[(k + 1) % 4][0], 0)) / 2);
  return Math.max(Math.hypot(a[0] - b[0], a[1] - b[1]) / side, Math.abs(wide(found) / wide(truth) - 1) / 2);
}

for (let n = 0; n < Number(values.count); n++) {
  const { kind, s, shot, quality, form } = flatSpecimen(part, set, n);
  const maps = form === 'disc' ? surfaceMaps(s, 1000, 1000) : surfaceMaps(s, 2400, 160);
  const taken = takeFlat(s, maps, shot, form);
  const picture = await compressed(taken.pixels, quality);
  const truth = truthOf(maps, (arc, axial) => {
    const u = arc / maps.spanDeg;
    return form === 'disc' && Math.hypot(u - 0.5, axial - 0.5) > 0.5 ? null : 180 * u;
  });
  const lines = { hair: 0, probe: 0, nail: 0, through: 0 };
  for (const d of s.damages) if (d.kind === 'score') lines[d.through ? 'through' : d.widthMm >= 0.15 ? 'probe' : 'hair']++;
  const { grade } = proposeGrade(part, 'trimetal', summariseMap(truth.map, lines));
  const size = { radiusMm: s.radiusMm, widthMm: part === 'thrust' ? s.widthMm : null };
  const from = performance.now();
  const reading = readSurface(part, picture, taken.corners, size);
  spent += performance.now() - from;
  const found = findOutline(part, picture);
  const row = { kind, truth: grade, ok: reading.ok, off: found.ok ? cornersOff(found.value, taken.corners) : null };
  if (reading.ok) {
    const { percent } = reading.value.summary;
    row.error = Math.max(...MAIN.map((c) => Math.abs(percent[c] - truth.percent(c))));
    row.grade = reading.value.grade;
    row.confidence = reading.value.confidence;
    row.lineError = Math.abs(reading.value.lines.filter((l) => l.widthMm >= 0.15).length - maps.lines);
  }
  rows.push(row);
  if (values.list)
    console.error(
      n,
      kind,
      reading.ok
        ? `${MAIN.map((c) => `${c} ${reading.value.summary.percent[c].toFixed(1)}/${truth.percent(c).toFixed(1)}`).join('  ')}  lines ${reading.value.lines.length}/${maps.lines}  grade ${row.grade}/${grade} conf ${row.confidence}  found ${row.off === null ? 'no' : (100 * row.off).toFixed(1)}`
        : reading.problem.sentence,
    );
}

const say = (figure, value, limit) =>
  console.log(
    JSON.stringify({
      figure: `rendered, ${values.set} set, ${rows.length} pictures of ${part}: ${figure}`,
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
if (part === 'thrust')
  say(
    'score lines from 0.15 mm within one',
    share(rows, (r) => r.ok && r.lineError <= 1),
    80,
  );
const graded = rows.filter((r) => r.ok && r.grade !== null);
say(
  'graded',
  share(rows, (r) => r.ok && r.grade !== null),
  93,
);
say(
  'of graded: equal',
  share(graded, (r) => r.grade === r.truth),
  90,
);
say(
  'of graded: within one',
  share(graded, (r) => Math.abs(r.grade - r.truth) <= 1),
  99.5,
);
say(
  'found',
  share(rows, (r) => r.off !== null),
  85,
);
say(
  'found within 2 % of its width',
  share(rows, (r) => r.off !== null && r.off <= 0.02),
  85,
);
for (const kind of FLAT_KINDS[part]) {
  const own = rows.filter((r) => r.kind === kind && r.ok);
  if (own.length > 0)
    console.log(
      JSON.stringify({
        figure: `rendered, ${values.set} set, ${part}: ${kind}`,
        pictures: own.length,
        errorMean: Number((own.reduce((s, r) => s + r.error, 0) / own.length).toFixed(2)),
        errorWorst: Number(Math.max(...own.map((r) => r.error)).toFixed(2)),
        gradeEqual: Math.round(share(own, (r) => r.grade === r.truth)),
      }),
    );
}
console.log(
  JSON.stringify({
    figure: `rendered, ${values.set} set, ${part}: time of a reading`,
    unit: 'ms',
    value: Math.round(spent / rows.length),
    limit: 1500,
  }),
);
