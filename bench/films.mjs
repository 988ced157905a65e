// How well the surface all round a turned journal is read from a film with exact truth. Films are rendered once and kept in .data/films.
// node bench/films.mjs [--set tune|report] [--first 0] [--count 6] [--frames 110] [--width 720]
import { existsSync, mkdirSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { unroll } from '../cli/dist/unroll.js';
import { surfaceMaps } from '@true-ledger/core/specimen';
import { encoded, turningJournal } from './filmSpecimens.mjs';
import { SETS, truthOf } from './sets.mjs';

const { values } = parseArgs({
  options: {
    set: { type: 'string', default: 'report' },
    first: { type: 'string', default: '0' },
    count: { type: 'string', default: '6' },
    frames: { type: 'string', default: '110' },
    width: { type: 'string', default: '720' },
  },
});
const MAIN = ['heat', 'transfer', 'rust'];
const DIR = '.data/films';
mkdirSync(DIR, { recursive: true });
const rows = [];
const [first, count, frames, width] = [values.first, values.count, values.frames, values.width].map(Number);
for (let n = first; n < first + count; n++) {
  const path = `${DIR}/${values.set}-${n}-${frames}-${width}.webm`;
  const specimen = turningJournal(SETS[values.set], n, { frames, width });
  if (!existsSync(path)) {
    const film = specimen.film();
    let k = 0;
    const all = (function* () {
      for (const f of specimen.frames) yield film.frame(f, 1000 * n + k++);
    })();
    await encoded(path, all, { width, height: 0.75 * width });
  }
  const { s, corners, kind } = specimen;
  const from = performance.now();
  const facing = (specimen.frames[0].facingDeg[0] + specimen.frames[0].facingDeg[1]) / 2;
  const args = [
    path,
    '--part',
    'journal',
    '--turn',
    '--corners',
    corners.flat().join(),
    '--radius',
    `${s.radiusMm}`,
    '--facing',
    `${((facing % 360) + 360) % 360}`,
  ];
  const done = await unroll(
    [...args, '--out', path.replace('.webm', '.png')],
    () => 25,
    () => {},
  );
  const seconds = (performance.now() - from) / 1000;
  const truth = truthOf(surfaceMaps(s, 2880, 400), (arc) => arc / 2);
  const wanted = s.damages.filter((d) => d.kind === 'score' && d.widthMm >= 0.15).length;
  const row = { n, kind, ok: done.ok, seconds };
  if (done.ok) {
    const { percent, turn, linesFrom015mm: lines, grade, confidence } = done.json;
    row.error = Math.max(...MAIN.map((c) => Math.abs(percent[c] - truth.percent(c))));
    row.lineError = Math.abs(lines - wanted);
    row.closing = turn.closingErrorPercent;
    const at = (t) => specimen.frames[Math.min(frames - 1, Math.round(t * 15))];
    const mid = (f) => (f.facingDeg[0] + f.facingDeg[1]) / 2;
    row.worst = Math.max(...turn.frames.map((f) => Math.abs(f.turnedDeg - (mid(at(f.timeS)) - mid(specimen.frames[0])))));
    console.error(
      n,
      kind,
      MAIN.map((c) => `${c} ${percent[c].toFixed(1)}/${truth.percent(c).toFixed(1)}`).join(' '),
      `lines ${lines}/${wanted} grade ${grade} conf ${confidence} turned ${turn.turnedDeg}/${specimen.turned.toFixed(0)} closing ${turn.closingErrorDeg} worst ${row.worst.toFixed(1)}° guessed ${turn.guessed.reduce((a, g) => a + g.deg, 0).toFixed(0)}° ${seconds.toFixed(0)} s for ${(frames / 15).toFixed(1)} s`,
    );
  } else console.error(n, kind, done.sentence);
  rows.push(row);
}
const share = (f) => (100 * rows.filter(f).length) / rows.length;
const say = (figure, value, limit, unit = '%') =>
  console.log(
    JSON.stringify({ figure: `${rows.length} films of turned journals: ${figure}`, unit, value: Number(value.toFixed(1)), limit }),
  );
say(
  'heat, transfer, rust within 3 points, all round',
  share((r) => r.ok && r.error <= 3),
  95,
);
say(
  'score lines from 0.15 mm within one, all round',
  share((r) => r.ok && r.lineError <= 1),
  90,
);
say(
  'turn closed within 1 % of the circumference',
  share((r) => r.ok && r.closing !== null && r.closing <= 1),
  100,
);
say(
  'time over the length of the film, median',
  rows.map((r) => r.seconds / (frames / 15)).sort((a, b) => a - b)[rows.length >> 1],
  3,
  'times',
);
