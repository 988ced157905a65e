// Computes the film maps core ships (core/src/film/filmMaps.ts) from Reynolds' equation: node scripts/filmMaps.mjs. Takes a quarter of an hour; run it when the solver or the grids change. Needs a built core.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { availableParallelism } from 'node:os';
import { Worker, isMainThread, parentPort, workerData } from 'node:worker_threads';
import {
  eccentricityAt,
  FILM_MAPS,
  gathered,
  KEPT,
  keptOf,
  shortBeta,
  shortImpedance,
  shortPeak,
  solveFilm,
  spread,
} from '@true-ledger/core/film';
import { ROOT, say } from './lib.mjs';

const { widthRatios, depth, anglesDeg, unit } = FILM_MAPS;
const ANGLES = Math.round(180 / anglesDeg) + 1;
/** Two grids whose difference tells what a grid without end would give (Richardson, second order). */
const GRIDS = [
  { round: 120, along: 8 },
  { round: 180, along: 12 },
];
const ORDER = (GRIDS[1].round / GRIDS[0].round) ** 2;
/** Nearest to the line of centres that is solved, degrees of the spread angle: on it the film is symmetric. */
const NEAREST = 2;

/** A film at the velocity angle `beta`: where its load lies, and what is kept of it. */
function film(model, widthRatio, eccentricity, beta) {
  if (model === 'short') {
    const force = shortImpedance(eccentricity, beta);
    const peak = shortPeak(eccentricity, beta) / Math.hypot(...force);
    return { phi: Math.atan2(force[1], force[0]), kept: keptOf(1, eccentricity, beta, force, peak) };
  }
  const [coarse, fine] = GRIDS.map((grid) => {
    const { force, peak } = solveFilm(widthRatio, eccentricity, beta, model, grid);
    return [...force, peak];
  });
  const [x, y, peak] = fine.map((f, k) => f + (f - coarse[k]) / (ORDER - 1));
  // The force of the solver is in 12 μ V R³ L / c³, the kept one in μ V L³ R / c³; a peak of 12 μ V R² / c³ over a load of the same is a pressure over F / (L D) by D / R.
  const scale = 3 / (widthRatio * widthRatio);
  return { phi: Math.atan2(y, x), kept: keptOf(widthRatio, eccentricity, beta, [x * scale, y * scale], (2 * peak) / Math.hypot(x, y)) };
}

/** Kept figures at all angles for one width ratio and eccentricity. */
function rowOf(model, widthRatio, eccentricity) {
  const solved = Array.from({ length: ANGLES }, (_, i) => {
    const wanted = Math.min(180 - NEAREST, Math.max(NEAREST, i * anglesDeg)) * (Math.PI / 180);
    // The short bearing tells which velocity brings the load about where it is wanted.
    const { phi, kept } = film(model, widthRatio, eccentricity, shortBeta(eccentricity, gathered(eccentricity, wanted)));
    return { at: spread(eccentricity, phi), kept };
  });
  // Even at both ends.
  const samples = [
    ...solved.slice(0, 3).map((s) => ({ ...s, at: -s.at })),
    ...solved,
    ...solved.slice(-3).map((s) => ({ ...s, at: 2 * Math.PI - s.at })),
  ].sort((a, b) => a.at - b.at);
  const figure = (at, k) => {
    const next = samples.findIndex((s) => s.at >= at);
    const taken = samples.slice(next - 2, next + 2);
    return taken.reduce(
      (sum, s, i) => sum + s.kept[k] * taken.reduce((w, o, j) => (j === i ? w : (w * (at - o.at)) / (s.at - o.at)), 1),
      0,
    );
  };
  return Array.from({ length: ANGLES }, (_, i) =>
    Array.from({ length: KEPT }, (_, k) => figure((i * anglesDeg * Math.PI) / 180, k)),
  ).flat();
}

if (!isMainThread) {
  const { model, widthRatio } = workerData;
  const rows = Array.from({ length: depth.count }, (_, d) =>
    rowOf(model, widthRatio, Math.max(1e-3, eccentricityAt((d * depth.last) / (depth.count - 1)))),
  );
  parentPort.postMessage(rows.flat());
} else {
  const maps = {};
  const jobs = [
    { model: 'short', widthRatio: 1 },
    ...['gumbel', 'reynolds'].flatMap((model) => widthRatios.map((widthRatio) => ({ model, widthRatio }))),
  ];
  const lane = async () => {
    for (let job = jobs.shift(); job; job = jobs.shift()) {
      const from = Date.now();
      const values = await new Promise((done, fail) => {
        const worker = new Worker(new URL(import.meta.url), { workerData: job });
        worker.once('message', done);
        worker.once('error', fail);
      });
      (maps[job.model] ??= new Map()).set(job.widthRatio, values);
      say(
        `${job.model}, width ${job.widthRatio} of the diameter: ${Math.round((Date.now() - from) / 1000)} s; ${Math.min(...values).toFixed(2)} to ${Math.max(...values).toFixed(2)}`,
      );
    }
  };
  await Promise.all(Array.from({ length: availableParallelism() }, lane));
  const coded = (model) => {
    const values = [...maps[model]].sort(([a], [b]) => a - b).flatMap(([, v]) => v);
    const bytes = Buffer.alloc(values.length * 2);
    values.forEach((v, i) => bytes.writeInt16LE(Math.round(v / unit), 2 * i));
    return bytes.toString('base64');
  };
  writeFileSync(
    join(ROOT, 'core/src/film/filmMaps.ts'),
    `/** Films as data, by model: made by scripts/filmMaps.mjs, read by mobility.ts, which says what is kept. Widths over the diameter; depths are −ln (1 − ε), evenly from 0; spread angles evenly from 0 to 180°. */
export const FILM_MAPS = {
  widthRatios: [${widthRatios.join(', ')}],
  depth: { last: ${depth.last}, count: ${depth.count} },
  anglesDeg: ${anglesDeg},
  unit: ${unit},
${['reynolds', 'gumbel', 'short'].map((model) => `  // prettier-ignore\n  ${model}: '${coded(model)}',`).join('\n')}
} as const;
`,
  );
}
