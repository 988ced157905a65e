// How well the wall of a bore is followed, stacked and read from films of a borescope drawn out of it. Films are rendered once and kept in .data/films.
// node bench/boreFilms.mjs [--set tune|report] [--first 0] [--count 12] [--frames 36] [--width 640]
import { existsSync, mkdirSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { boreFrame, handDrawn, MAP_CLASSES, seeded, surfaceMaps } from '@true-ledger/core/specimen';
import { unroll } from '../cli/dist/unroll.js';
import { encoded } from './filmSpecimens.mjs';
import { SETS, shotOf } from './sets.mjs';

const { values } = parseArgs({
  options: {
    set: { type: 'string', default: 'report' },
    first: { type: 'string', default: '0' },
    count: { type: 'string', default: '12' },
    frames: { type: 'string', default: '36' },
    width: { type: 'string', default: '640' },
  },
});
const [first, count, frames, width] = [values.first, values.count, values.frames, values.width].map(Number);
const FPS = 8;
const DIR = '.data/films';
mkdirSync(DIR, { recursive: true });

const KINDS = ['sound', 'scuffed', 'rusted', 'glazed', 'both', 'all round'];
const MAIN = ['scuffed', 'rust'];

function damagesOf(kind, r) {
  const arc = 360 * r();
  const scuff = (at, half) => ({
    kind: 'scuff',
    arc: at,
    halfDeg: half,
    from: 0.15 + 0.2 * r(),
    to: 0.6 + 0.35 * r(),
    amount: 0.8 + 0.6 * r(),
  });
  const rust = { kind: 'rust', arc: (arc + 150) % 360, halfDeg: 15 + 30 * r(), amount: 0.4 + 0.6 * r() };
  switch (kind) {
    case 'scuffed':
      return [scuff(arc, 10 + 25 * r())];
    case 'rusted':
      return [rust];
    case 'glazed':
      return [{ kind: 'glaze', from: 0, to: 0.3 + 0.6 * r(), amount: 0.7 + 0.3 * r() }];
    case 'both':
      return [scuff(arc, 10 + 20 * r()), rust];
    case 'all round':
      return [0, 1, 2, 3].map((k) => scuff((arc + 90 * k) % 360, 22));
    default:
      return [];
  }
}

const rows = [];
for (let n = first; n < first + count; n++) {
  const set = SETS[values.set];
  const kind = KINDS[n % KINDS.length];
  const r = seeded(set.from + 57 * n);
  const radiusMm = 36 + 16 * r();
  const s = {
    seed: set.from + n,
    radiusMm,
    widthMm: radiusMm * (2.2 + 0.8 * r()),
    spanDeg: 360,
    finish: 'honed-iron',
    damages: damagesOf(kind, r),
  };
  const { shot: usual } = shotOf(set, n, r, [0.4, 0.6]);
  const viewDeg = 75 + 35 * r();
  const shot = { ...usual, width, height: 0.75 * width, focal: 0.5 / Math.tan((viewDeg * Math.PI) / 360) };
  const deep = s.widthMm / radiusMm;
  const hand = { uneven: 0.6 * r(), strays: 0.06 * r(), tilts: 0.05 * r(), rolls: 0.15 * r(), exposed: 0.5 * r() };
  const poses = handDrawn(frames, deep - 0.9 - 0.4 * r(), -0.7 * r(), hand, r);
  const path = `${DIR}/bore-${values.set}-${n}-${frames}-${width}.webm`;
  const maps = surfaceMaps(s, 2400, 1000);
  if (!existsSync(path)) {
    let k = 0;
    const all = (function* () {
      for (const p of poses) yield boreFrame(s, maps, shot, p, 1000 * n + k++);
    })();
    await encoded(path, all, { width, height: shot.height, fps: FPS });
  }
  const from = performance.now();
  const done = await unroll(
    [path, '--part', 'bore', '--drawn', '--radius', `${radiusMm}`, '--view', `${viewDeg}`, '--facing', '270'],
    () => 43,
    () => {},
  );
  const seconds = (performance.now() - from) / 1000;
  const truthMm = (poses[0][1].depth - poses.at(-1)[1].depth) * radiusMm;
  // What was stacked reaches from the end at the piston upwards.
  const low = done.ok && done.json.drawn.farEndSeen ? Math.max(0, 1 - done.json.surface.lengthMm / s.widthMm) : 0;
  const share = (name) => {
    const at = MAP_CLASSES.indexOf(name);
    let [own, all] = [0, 0];
    for (let y = Math.floor(low * maps.rows); y < maps.rows; y++)
      for (let x = 0; x < maps.columns; x++) {
        all++;
        if (maps.truth[y * maps.columns + x] === at) own++;
      }
    return (100 * own) / all;
  };
  const truth = Object.fromEntries(MAIN.map((c) => [c, share(c)]));
  rows.push({
    kind,
    seconds,
    way: done.ok ? (100 * Math.abs(done.json.drawn.byMm - truthMm)) / truthMm : null,
    error: done.ok ? Math.max(...MAIN.map((c) => Math.abs(done.json.percent[c] - truth[c]))) : null,
    graded: done.ok && done.json.grade !== null,
    ends: done.ok && done.json.drawn.farEndSeen,
  });
  const row = rows.at(-1);
  console.error(
    n,
    kind,
    done.ok
      ? `way ${row.way.toFixed(2)} % off  ${MAIN.map((c) => `${c} ${done.json.percent[c].toFixed(1)}/${truth[c].toFixed(1)}`).join('  ')}  grade ${done.json.grade} conf ${done.json.confidence} far end ${row.ends} seen ${done.json.drawn.seenPercent} ${seconds.toFixed(0)} s`
      : done.sentence,
  );
}
const say = (figure, value, unit, limit) =>
  console.log(
    JSON.stringify({
      figure: `bores from a film, ${values.set} set, ${rows.length} films: ${figure}`,
      value: value === null ? null : Number(value.toFixed(2)),
      unit,
      ...(limit ? { limit } : {}),
    }),
  );
const read = rows.filter((r) => r.way !== null);
const median = (list) => (list.length === 0 ? null : [...list].sort((a, b) => a - b)[list.length >> 1]);
say('followed', (100 * read.length) / rows.length, '%', 95);
say('way off, median', median(read.map((r) => r.way)), '%');
say('way off, worst', read.length === 0 ? null : Math.max(...read.map((r) => r.way)), '%');
say('scuffing and rust within 3 points', (100 * read.filter((r) => r.error <= 3).length) / rows.length, '%', 90);
say('graded', (100 * read.filter((r) => r.graded).length) / rows.length, '%', 95);
say('time over the length of the film, median', median(rows.map((r) => r.seconds / (frames / FPS))), 'times', 3);
