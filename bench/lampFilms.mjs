// How well a half shell is read from a film in which a lamp is led over it, beside its first frame alone. Films are rendered once and kept in .data/films.
// node bench/lampFilms.mjs [--set tune|report] [--first 0] [--count 11] [--frames 30] [--width 800]
import { existsSync, mkdirSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { readSurface } from '@true-ledger/core/photo';
import { handLed, lampFrame, seeded, surfaceMaps } from '@true-ledger/core/specimen';
import { unroll } from '../cli/dist/unroll.js';
import { encoded } from './filmSpecimens.mjs';
import { compressed, SETS, truthOf } from './sets.mjs';
import { shellSpecimen } from './shells.mjs';

const { values } = parseArgs({
  options: {
    set: { type: 'string', default: 'report' },
    first: { type: 'string', default: '0' },
    count: { type: 'string', default: '11' },
    frames: { type: 'string', default: '30' },
    width: { type: 'string', default: '800' },
  },
});
const [first, count, frames, width] = [values.first, values.count, values.frames, values.width].map(Number);
const MAIN = ['lining', 'heat', 'rust'];
const FPS = 5;
const DIR = '.data/films';
mkdirSync(DIR, { recursive: true });
const rows = [];
for (let n = first; n < first + count; n++) {
  const set = SETS[values.set];
  const { s, shot: usual, kind } = shellSpecimen(set, n);
  const shot = { ...usual, width, height: 0.75 * width };
  const maps = surfaceMaps(s, 1440, 480);
  const r = seeded(set.from + 31 * n);
  const led = handLed(frames, { wide: 0.3 + 0.4 * r(), shakePx: 3 * r() }, r);
  const one = lampFrame(s, maps, shot, { ...led[0], strayed: [0, 0, 0] }, 500 + n);
  const path = `${DIR}/lamp-${values.set}-${n}-${frames}-${width}.webm`;
  if (!existsSync(path)) {
    let k = 0;
    const all = (function* () {
      for (const f of led) yield lampFrame(s, maps, shot, f, 1000 * n + k++).pixels;
    })();
    await encoded(path, all, { width, height: shot.height, fps: FPS });
  }
  const truth = truthOf(maps, (arc) => arc);
  const wanted = s.damages.filter((d) => d.kind === 'score' && d.widthMm >= 0.15).length;
  const judged = (percent, lines) => ({
    error: Math.max(...MAIN.map((c) => Math.abs(percent[c] - truth.percent(c)))),
    lineError: Math.abs(lines - wanted),
  });
  const alone = readSurface('shell', await compressed(one.pixels, 90), one.corners, { radiusMm: s.radiusMm, widthMm: s.widthMm });
  const from = performance.now();
  const done = await unroll(
    [path, '--part', 'shell', '--lamp', '--corners', one.corners.flat().join(), '--radius', `${s.radiusMm}`, '--width', `${s.widthMm}`],
    () => 25,
    () => {},
  );
  const seconds = (performance.now() - from) / 1000;
  rows.push({
    kind,
    seconds,
    film: done.ok ? judged(done.json.percent, done.json.linesFrom015mm) : null,
    picture: alone.ok ? judged(alone.value.summary.percent, alone.value.lines.filter((l) => l.widthMm >= 0.15).length) : null,
    wanted,
    walls: done.ok ? done.json.lamp.walls : [],
  });
  const row = rows.at(-1);
  console.error(
    n,
    kind,
    done.ok
      ? `${MAIN.map((c) => `${c} ${done.json.percent[c].toFixed(1)}/${alone.ok ? alone.value.summary.percent[c].toFixed(1) : '–'}/${truth.percent(c).toFixed(1)}`).join('  ')}  lines ${done.json.linesFrom015mm}/${alone.ok ? alone.value.lines.filter((l) => l.widthMm >= 0.15).length : '–'}/${wanted}  glare ${alone.ok ? alone.value.glarePercent.toFixed(1) : '–'}  walls ${JSON.stringify(row.walls)} conf ${done.json.confidence} lost ${done.json.lamp.framesLost} ${seconds.toFixed(0)} s`
      : done.sentence,
  );
}
const share = (list, f) => (list.length === 0 ? 0 : (100 * list.filter(f).length) / list.length);
const say = (figure, value, limit, unit = '%') =>
  console.log(
    JSON.stringify({
      figure: `${rows.length} lamp films of half shells: ${figure}`,
      unit,
      value: Number(value.toFixed(1)),
      ...(limit === null ? {} : { limit }),
    }),
  );
const lined = rows.filter((x) => x.wanted > 0);
say(
  'lining, heat, rust within 3 points',
  share(rows, (x) => x.film && x.film.error <= 3),
  97,
);
say(
  'the same, from the first frame alone',
  share(rows, (x) => x.picture && x.picture.error <= 3),
  null,
);
say(
  'lines from 0.15 mm within one, on faces that have some',
  share(lined, (x) => x.film && x.film.lineError <= 1),
  92,
);
say(
  'the same, from the first frame alone',
  share(lined, (x) => x.picture && x.picture.lineError <= 1),
  null,
);
say(
  'time over the length of the film, median',
  rows.map((x) => x.seconds / (frames / FPS)).sort((a, b) => a - b)[rows.length >> 1],
  3,
  'times',
);
