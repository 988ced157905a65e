// How well shells are read from pictures with exact truth. Two sets of rendered specimens: one to tune on, one to report on, with other seeds, lamps, benches, lenses, noise and
// compression.
// node bench/photos.mjs [--set tune|report] [--count 60] [--list]
import { parseArgs } from 'node:util';
import { proposeGrade, summariseMap } from '@true-ledger/core/damage';
import { NOT_SEEN_COSINE, readSurface, viewCosine } from '@true-ledger/core/photo';
import { surfaceMaps, takeShell } from '@true-ledger/core/specimen';
import { compressed, SETS, truthOf } from './sets.mjs';
import { KINDS, shellSpecimen } from './shells.mjs';

const { values } = parseArgs({
  options: {
    set: { type: 'string', default: 'report' },
    count: { type: 'string', default: '60' },
    list: { type: 'boolean', default: false },
  },
});

const results = [];
function judge(id, kind, truth, reading) {
  const row = { id, kind, truth, ok: reading.ok };
  if (reading.ok) {
    const v = reading.value;
    row.error = Math.abs(v.summary.percent.lining - truth.lining);
    row.lines = v.lines.filter((l) => l.widthMm >= 0.15).length;
    row.lineError = Math.abs(row.lines - truth.lines);
    row.lining = v.summary.percent.lining;
    row.rust = v.summary.percent.rust;
    row.heat = v.summary.percent.heat;
    row.grade = v.grade;
    row.confidence = v.confidence;
    // Copper and rust told apart: of what is truly one of them, how much is called the other.
    row.swapped = truth.map ? swapped(truth.map, v.map) : null;
  } else row.problem = reading.problem.code;
  results.push(row);
  if (values.list)
    console.error(
      id,
      kind,
      reading.ok
        ? `lining ${row.lining.toFixed(1)} / ${truth.lining.toFixed(1)}  lines ${row.lines} / ${truth.lines}  heat ${row.heat.toFixed(0)} / ${truth.heat.toFixed(0)}  rust ${row.rust.toFixed(1)} / ${truth.rust.toFixed(1)}  grade ${row.grade} / ${truth.grade}  conf ${row.confidence}`
        : reading.problem.sentence,
    );
}

function swapped(truth, read) {
  let [wrong, of] = [0, 0];
  for (let c = 0; c < truth.seen.length; c++) {
    const copper = truth.shares.lining[c];
    const rust = truth.shares.rust[c];
    if (copper + rust < 0.15) continue;
    of++;
    const [rc, rr] = [read.shares.lining[c], read.shares.rust[c]];
    if (rc + rr > 0.05 && copper > rust !== rc > rr) wrong++;
  }
  return of === 0 ? null : wrong / of;
}

let spent = 0;
let megapixels = 0;
let started = performance.now();
await renderedSet(values.set, Number(values.count));

function timed(picture, corners, size) {
  const from = performance.now();
  const reading = readSurface('shell', picture, corners, size);
  spent += performance.now() - from;
  megapixels += (picture.width * picture.height) / 1e6;
  return reading;
}

async function renderedSet(name, count) {
  const set = SETS[name];
  if (!set) throw new Error(`no set ${name}`);
  for (let n = 0; n < count; n++) {
    const { kind, s, shot, quality } = shellSpecimen(set, n);
    const maps = surfaceMaps(s);
    const taken = takeShell(s, maps, shot);
    const picture = await compressed(taken.pixels, quality);
    const truth = truthOf(maps, (arc, axial) => (viewCosine(taken.pose, arc, axial) < NOT_SEEN_COSINE ? null : arc));
    const lines = { hair: 0, probe: 0, nail: 0, through: 0 };
    for (const d of s.damages) if (d.kind === 'score') lines[d.through ? 'through' : d.widthMm >= 0.15 ? 'probe' : 'hair']++;
    const { grade } = proposeGrade('shell', 'trimetal', summariseMap(truth.map, lines));
    const reading = timed(picture, taken.corners, {
      radiusMm: s.radiusMm,
      widthMm: s.widthMm,
    });
    judge(
      `${name}-${n}`,
      kind,
      {
        lining: truth.percent('lining'),
        heat: truth.percent('heat'),
        rust: truth.percent('rust'),
        lines: maps.lines,
        grade,
        map: truth.map,
      },
      reading,
    );
  }
  report(`rendered, ${name} set`);
}

function report(name) {
  const say = (figure, unit, value, limit) =>
    console.log(
      JSON.stringify({
        figure: `${name}, ${results.length} pictures: ${figure}`,
        unit,
        value: Number(value.toFixed(1)),
        ...(limit === undefined ? {} : { limit }),
      }),
    );
  const good = results.filter((r) => r.ok);
  const share = (list, f) => (list.length === 0 ? 0 : (100 * list.filter(f).length) / list.length);
  say(
    'lining share within 3 points',
    '%',
    share(results, (r) => r.ok && r.error <= 3),
    90,
  );
  say(
    'score lines from 0.15 mm within one',
    '%',
    share(results, (r) => r.ok && r.lineError <= 1),
    85,
  );
  const told = good.filter((r) => r.swapped !== null);
  if (told.length > 0)
    say('copper and rust told apart, cells', '%', 100 - (100 * told.reduce((s, r) => s + r.swapped, 0)) / told.length, 95);
  const graded = good.filter((r) => r.grade !== null && r.truth.grade !== null);
  if (graded.length > 0) {
    say(
      'proposed grade equal to truth',
      '%',
      share(graded, (r) => r.grade === r.truth.grade),
      80,
    );
    say(
      'proposed grade within one',
      '%',
      share(graded, (r) => Math.abs(r.grade - r.truth.grade) <= 1),
      99,
    );
    const matrix = Array.from({ length: 5 }, (_, t) =>
      Array.from({ length: 5 }, (__, g) => graded.filter((r) => r.truth.grade === t && r.grade === g).length),
    );
    console.log(JSON.stringify({ figure: `${name}: grades, row true, column proposed`, matrix }));
    for (const kind of KINDS) {
      const own = results.filter((r) => r.kind === kind && r.ok);
      if (own.length > 0)
        console.log(
          JSON.stringify({
            figure: `${name}: ${kind}`,
            pictures: own.length,
            liningErrorMean: Number((own.reduce((s, r) => s + r.error, 0) / own.length).toFixed(2)),
            liningErrorWorst: Number(Math.max(...own.map((r) => r.error)).toFixed(2)),
            linesWithinOne: Math.round(share(own, (r) => r.lineError <= 1)),
            gradeEqual: Math.round(share(own, (r) => r.grade === r.truth.grade)),
          }),
        );
    }
  }
  say(
    'refused or no grade proposed',
    '%',
    share(results, (r) => !r.ok || r.grade === null),
  );
  console.log(
    JSON.stringify({
      figure: `${name}: time of a reading`,
      unit: 'ms',
      value: Math.round(spent / results.length),
      limit: 1500,
      perMegapixel: Math.round(spent / megapixels),
      peakMemoryMb: Math.round(process.resourceUsage().maxRSS / 1024),
      wholeSeconds: Math.round((performance.now() - started) / 1000),
    }),
  );
  results.length = 0;
  spent = 0;
  megapixels = 0;
  started = performance.now();
}
