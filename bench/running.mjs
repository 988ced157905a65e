// Loads, films and the oil circuit of running engines: times against their limits, and against a straightforward numpy account of the same orbit in the same run. Run by `npm run bench`.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { engineFilms, loadsOf, readEngine } from '@true-ledger/core/loads';
import { bearingFilm } from '@true-ledger/core/film';
import { oilVerdict, readCircuit } from '@true-ledger/core/oil';
import { needPackages, ROOT } from '../scripts/lib.mjs';

const median = (work, runs = 9) => {
  const took = [];
  for (let k = 0; k < runs + 3; k++) {
    const from = performance.now();
    work();
    if (k >= 3) took.push(performance.now() - from);
  }
  return took.sort((a, b) => a - b)[runs >> 1];
};
const print = (figure, value, more) => console.log(JSON.stringify({ figure, value: Number(value.toPrecision(3)), ...more }));
const running = (template, speedRpm) => {
  const engine = readEngine({ format: 'true-ledger/engine', version: 1, engine: { template }, operating: { speedRpm } });
  if (!engine.ok) throw new Error(engine.problem.sentence);
  return engine.value;
};

const four = running('inline-4-petrol', 5500);
const loads = loadsOf(four);
print(
  'loads of an inline four over a cycle, 0.5° steps',
  median(() => loadsOf(four)),
  { unit: 'ms' },
);
const [rod] = engineFilms(four, loads, ['rod.1']).value;
const one = median(() => bearingFilm(rod.bearing, rod.load));
print('film of one bearing to a periodic orbit, 0.5° steps', one, { unit: 'ms', limit: 30 });

const eight = running('vee-8-petrol', 5500);
const names = [...Array.from({ length: 8 }, (_, i) => `rod.${i + 1}`), ...Array.from({ length: 5 }, (_, i) => `main.${i + 1}`)];
print(
  'loads and films of an engine of eight big ends and five mains',
  median(() => engineFilms(eight, loadsOf(eight), names), 5),
  { unit: 'ms', limit: 400 },
);
const circuit = readCircuit(eight, { faults: [{ kind: 'shut-feed', at: 'main.3' }] }).value;
print(
  'oil circuit with a fault and without it',
  median(() => oilVerdict(circuit)),
  { unit: 'ms', limit: 5 },
);

const hasNumpy = (python) => spawnSync(python, ['-c', 'import numpy']).status === 0;
let python = ['python3', '/usr/bin/python3'].find(hasNumpy);
if (!python) {
  needPackages({ 'python3-numpy': () => hasNumpy('/usr/bin/python3') });
  python = '/usr/bin/python3';
}
const given = { ...rod.bearing, periodS: rod.load.periodS, x: [...rod.load.x], y: [...rod.load.y], speed: [...rod.load.speed] };
const done = spawnSync(python, [join(ROOT, 'bench', 'orbitPeer.py')], { input: JSON.stringify(given), encoding: 'utf8', maxBuffer: 1e7 });
if (done.status !== 0) throw new Error(done.stderr);
const peer = JSON.parse(done.stdout);
const shortMs = median(() => bearingFilm(rod.bearing, rod.load, 'short'));
const own = bearingFilm(rod.bearing, rod.load, 'short').least.filmM * 1e6;
print('orbit of the short bearing, times as fast as a straightforward numpy account', (peer.seconds * 1000) / shortMs, {
  unit: '×',
  least: 50,
});
print('thinnest film of the short bearing, off that of the numpy account', 100 * (own / peer.filmUm - 1), { unit: '%', limit: 3 });
