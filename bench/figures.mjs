import { readFileSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import { engineTemplate, stationsOf } from '@true-ledger/core/engine';
import { PATTERNS, patternsFor } from '@true-ledger/core/damage';
import { FEATURES } from '@true-ledger/core/cause';
import { surfaceFinish } from '@true-ledger/core/measure';
import { FIRST_PREV, emptyCase, sealEntry, verifyChain } from '@true-ledger/core/ledger';
import { applyEntry, foldEntries } from '@true-ledger/core/entries';
import { caseView } from '@true-ledger/core/case';
import { develop, projectShell, shellCamera, shellPose } from '@true-ledger/core/photo';
import { diagnose } from '@true-ledger/core/diagnosis';
import { routesOf, simulateRoute, standingDispositions, tasksOf } from '@true-ledger/core/salvage';
import { readCaseFile } from '@true-ledger/core/bundle';

/** Median, least and greatest of `runs` timings after two warm-up runs, ms. */
function time(work, runs = 9) {
  const took = [];
  for (let k = 0; k < runs + 2; k++) {
    const from = performance.now();
    work();
    if (k >= 2) took.push(performance.now() - from);
  }
  took.sort((a, b) => a - b);
  return { median: took[runs >> 1], min: took[0], max: took.at(-1) };
}

function print(figure, { median, min, max }, more = {}) {
  const round = (x) => Number(x.toFixed(3));
  console.log(JSON.stringify({ figure, unit: 'ms', median: round(median), min: round(min), max: round(max), ...more }));
}

const BENCH_CASE = randomUUID();
const author = { id: randomUUID(), name: 'Bench' };
const layout = engineTemplate('inline-4-petrol').layout;
const stations = stationsOf(layout);

/** A case of 5 000 entries: marks, grades, states, remarks over all places, as a long strip would leave it. */
function longLedger(count) {
  const entries = [];
  const add = (kind, station, body) => {
    entries.push(
      sealEntry(
        { id: randomUUID(), kind, station, body, basedOn: null },
        {
          caseId: BENCH_CASE,
          seq: entries.length + 1,
          prev: entries.at(-1)?.hash ?? FIRST_PREV,
          time: '2026-11-24T08:00:00.000Z',
          salt: 'be',
          author,
          supersedes: null,
        },
      ),
    );
  };
  add('case-opened', null, { number: 'B', title: 'Bench' });
  add('layout-set', null, { layout });
  for (let k = 0; entries.length < count; k++) {
    const s = stations[k % stations.length];
    if (s.surface && k % 3 === 0)
      add('mark-made', s.id, {
        mark: {
          id: `m${k}`,
          shape: 'stroke',
          class: 'lining',
          points: Array.from({ length: 12 }, (_, i) => [i / 12, ((k * 7) % 100) / 100]),
          radiusMm: 1,
          made: 'found-so',
        },
      });
    else if (k % 3 === 1) add('grade-confirmed', s.id, { grade: k % 5, proposed: null, reason: '', book: '1' });
    else add('remark', s.id, { remark: `r${k}`, text: `Remark ${k} on ${s.name}` });
  }
  return entries;
}

const ledger = longLedger(5000);
print(
  'fold of a 5 000-entry case',
  time(() => foldEntries(emptyCase('bench'), ledger)),
  { limit: 100 },
);
print(
  'fold of the same case entry by entry (peer)',
  time(() => ledger.reduce(applyEntry, emptyCase('bench')), 5),
);
print(
  'verification of the same chain',
  time(() => verifyChain(ledger), 5),
);
const state = foldEntries(emptyCase('bench'), ledger);
print(
  'view of the same case from nothing',
  time(() => caseView({ ...state, groups: Object.fromEntries(Object.entries(state.groups).map(([k, g]) => [k, { ...g }])) }), 5),
);

const file = JSON.parse(readFileSync(new URL('../docs/formats/examples/fire-pump.case.json', import.meta.url), 'utf8'));
const read = () => readCaseFile(file).value.view;
read();
const views = Array.from({ length: 12 }, read);
let at = 0;
print(
  `differential of the example case (${diagnose(read()).causes.length} causes, sets up to three)`,
  time(() => diagnose(views[at++]), 9),
  { limit: 50 },
);

// A twelve-cylinder with every place graded and a pattern named at each, and every third of the other features observed: one more pattern named, then the differential anew.
const twelve = stationsOf(engineTemplate('vee-12-petrol').layout);
const crowded = readCaseFile({
  format: 'true-ledger/case',
  version: 1,
  engine: { template: 'vee-12-petrol' },
  findings: twelve.map((s, k) => ({
    station: s.id,
    grade: k % 4,
    patterns: patternsFor(s.part)
      .slice(k % 3, (k % 3) + 2)
      .map((p) => p.id),
  })),
  evidence: FEATURES.filter((f, k) => f.kind !== 'seen' && f.kind !== 'spread' && k % 3 === 0).map((f, k) => ({
    feature: f.id,
    present: k % 2 === 0,
  })),
});
let crowd = crowded.value.state;
const shellPatterns = PATTERNS.filter((p) => p.parts.includes('shell'));
const changed = Array.from({ length: 20 }, (_, k) => {
  const seq = crowd.seq + 1;
  const body = { pattern: shellPatterns[k % shellPatterns.length].id, present: true };
  crowd = applyEntry(crowd, {
    id: `n${k}`,
    kind: 'pattern-set',
    station: `main.${1 + (k % 7)}.shell.lower`,
    body,
    author,
    time: '',
    seq,
    hash: '',
  });
  return crowd;
});
let turn = 0;
print(
  `view and differential after one change, V12, ${twelve.length} places, ${diagnose(caseView(crowd)).evidence.length} pieces of evidence`,
  time(() => diagnose(caseView(changed[turn++])), 15),
  { limit: 50 },
);

// The route with the most lines of the example case.
{
  const view = read();
  const routes = routesOf(view, diagnose(view), standingDispositions(view), view.prices);
  const longest = routes.reduce((a, b) => (b.lines.length > a.lines.length ? b : a));
  const options = {
    seed: 1,
    draws: 10_000,
    tasks: tasksOf(view, longest, view.prices),
    calendar: { from: '2026-11-30', hoursPerDay: 6, workdays: [1, 2, 3, 4, 5] },
    hourCost: { low: 74, likely: 78, high: 86 },
    deadlineDays: 21,
  };
  print(
    `Monte Carlo of a route of ${longest.lines.length} lines and ${options.tasks.length} tasks on the calendar, 10 000 draws`,
    time(() => simulateRoute(longest.lines, longest.hours, options), 7),
    { limit: 300 },
  );
}

// A plateau-honed liner: fine noise, grooves at two spacings, a long wave; 50 mm at 0.5 µm.
const trace = {
  stepMm: 0.0005,
  z: Float64Array.from({ length: 100_000 }, (_, i) => {
    const x = i * 0.0005;
    const groove = (pitch, depth) => -depth * Math.max(0, 1 - (Math.abs(((x % pitch) - pitch / 2) * 2) / pitch) * 8);
    return 0.1 * Math.sin(x * 977) * Math.cos(x * 3001) + groove(0.137, 2) + groove(0.091, 1) + 2 * Math.sin(x / 3);
  }),
};
print(
  'surface finish of a trace of 100 000 points, both filters and all parameters',
  time(() => surfaceFinish(trace, 0.8)),
  { limit: 150 },
);

const size = { width: 1600, height: 1200 };
const picture = { ...size, data: new Uint8ClampedArray(size.width * size.height * 4).fill(128) };
const corners = [
  [365, 822],
  [383, 370],
  [1276, 400],
  [1265, 869],
];
print(
  'flattening of a shell, 1600 × 1200 to 720 wide',
  time(() => develop(shellCamera(shellPose(corners, size, 25, 20).value), picture)),
  { limit: 1500 },
);

// Accuracy of the flattening geometry on the eight sample shell pictures, from their four corners alone.
const shells = JSON.parse(readFileSync(new URL('../core/test-data/shell-geometry.json', import.meta.url), 'utf8'));
const errors = shells.flatMap((s) => {
  const pose = shellPose(s.corners, { width: s.size[0], height: s.size[1] }, s.part.inner_radius, s.part.running_face_length).value;
  const span = Math.hypot(s.corners[0][0] - s.corners[3][0], s.corners[0][1] - s.corners[3][1]);
  return s.nodes.map(([a, b, [x, y]]) => {
    const [px, py] = projectShell(pose, a * 5, b / 12);
    return (Math.hypot(px - x, py - y) / span) * 100;
  });
});
errors.sort((a, b) => a - b);
console.log(
  JSON.stringify({
    figure: 'flattening: node error on 8 sample shells, not held back',
    unit: '% of the opening',
    median: Number(errors[errors.length >> 1].toFixed(2)),
    p95: Number(errors[Math.floor(errors.length * 0.95)].toFixed(2)),
    max: Number(errors.at(-1).toFixed(2)),
  }),
);
