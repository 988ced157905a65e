// Finds what the likeness of found to predicted wear is worth as evidence, on worlds that are drawn: node scripts/wearLikeness.mjs. Takes some minutes; prints the figures core/src/running/likenessOdds.ts holds and what they give on other engines. Needs a built core.
import { engineTemplate } from '@true-ledger/core/engine';
import { formsAt, likened, runEngine, shutFeed, triedAll, usualSetting, WEAR_FORMS } from '@true-ledger/core/running';
import { seeded } from '@true-ledger/core/specimen';
import { say } from './lib.mjs';

const COLUMNS = 36;
const ROWS = 12;
const HALF = COLUMNS * ROWS;
/** Engines the figures are found on, and engines they are tried on. */
const FIND = ['inline-4-petrol', 'vee-8-diesel', 'inline-6-diesel'];
const TRY = ['inline-3-petrol', 'vee-6-90-petrol', 'inline-4-diesel'];
const BEARINGS = ['rod.1', 'rod.2', 'main.2', 'main.3'];
/** Worlds of each form at each bearing. */
const EACH = Number(process.argv[2] ?? 8);

const between = (random, low, high) => low + (high - low) * random();
const normal = (random) => Math.sqrt(-2 * Math.log(Math.max(1e-9, random()))) * Math.cos(2 * Math.PI * random());

/** A way of running drawn for a form: none of those that are tried, and with inputs nobody knows so well. */
function drawnSetting(random, layout, from, clearanceMm, form) {
  const clearance = clearanceMm * between(random, 0.8, 1.3);
  const own = {
    combustion: () =>
      random() < 0.6
        ? { speedRpm: layout.peakRpm * between(random, 0.18, 0.35) }
        : { speedRpm: layout.peakRpm * between(random, 0.4, 0.6), loadShare: 1.5 },
    'over-speed': () => ({ speedRpm: layout.peakRpm * between(random, 1, 1.35), loadShare: between(random, 0, 1) }),
    'thin-film': () => ({
      speedRpm: layout.peakRpm * between(random, 0.45, 0.85),
      loadShare: between(random, 0.5, 1),
      fuelShare: between(random, 0, 0.2),
    }),
    dry: () => ({
      speedRpm: layout.peakRpm * between(random, 0.2, 1),
      loadShare: between(random, 0.2, 1),
      faults: [shutFeed(layout, from.bearing)],
    }),
  }[form]?.() ?? { aslant: { kind: form, amountM: clearanceMm * 1e-3 * between(random, 0.2, 0.6) } };
  return {
    ...from,
    speedRpm: Math.max(1, Math.round(layout.peakRpm * between(random, 0.45, 0.75))),
    oilTemperatureC: between(random, 95, 160),
    ...own,
    clearancesMm: { [from.bearing]: clearance },
  };
}

/** Wear that none of the forms leaves, over both halves. */
function strange(random) {
  const out = new Float64Array(2 * HALF);
  const each = (fill) => {
    for (let h = 0; h < 2; h++)
      for (let row = 0; row < ROWS; row++)
        for (let c = 0; c < COLUMNS; c++) out[h * HALF + row * COLUMNS + c] = fill(h, (row + 0.5) / ROWS, (c + 0.5) / COLUMNS);
  };
  const one = random() < 0.5 ? 0 : 1;
  const kind = Math.floor(random() * 7);
  const [centre, width, high] = [between(random, 0.2, 0.8), between(random, 0.1, 0.5), between(random, 0.2, 0.8)];
  const rows = Array.from({ length: ROWS }, () => (random() < 0.35 ? random() : 0));
  const blots = Array.from({ length: 1 + Math.floor(random() * 6) }, () => [
    random() < 0.5 ? 0 : 1,
    random(),
    random(),
    between(random, 0.03, 0.2),
  ]);
  const both = random() < 0.5;
  each((h, y, x) => {
    if (kind === 0) return 1;
    if (kind === 1) return both || h === one ? rows[Math.floor(y * ROWS)] : 0;
    if (kind === 2) return Math.max(...blots.map(([at, bx, by, r]) => (at === h && Math.hypot(x - bx, (y - by) / 2) < r ? 1 : 0)));
    if (kind === 3) return h === one ? Math.max(0, 1 - ((x - centre) / width) ** 2) : both ? 0.3 : 0;
    if (kind === 4) return h === one ? 1 : both ? 0.4 : 0;
    if (kind === 5) return Math.abs(y - (one ? 0.04 : 0.96)) < 0.15 ? 1 : 0;
    return h === one && Math.abs(x - centre) < width / 2 && Math.abs(y - high) < 0.3 ? 1 : 0;
  });
  return out;
}

/** What a builder's pictures would show of a field of wear: it saturates, is a little out of place, lies among other wear, and is not all seen. */
function foundOf(random, field) {
  const strength = Math.exp(between(random, Math.log(0.7), Math.log(12)));
  const shift = Math.round(1.2 * normal(random));
  const lift = Math.round(0.6 * normal(random));
  const background = random() < 0.5 ? 0 : between(random, 0, 0.25);
  const besides = random() < 0.4 ? strange(random) : null;
  const beside = between(random, 0.1, 0.7);
  const hidden = between(random, 0, 0.35);
  const half = (h) => {
    const worn = new Float64Array(HALF);
    const seen = new Float64Array(HALF);
    for (let row = 0; row < ROWS; row++)
      for (let c = 0; c < COLUMNS; c++) {
        const from =
          field[h * HALF + Math.min(ROWS - 1, Math.max(0, row + lift)) * COLUMNS + Math.min(COLUMNS - 1, Math.max(0, c + shift))];
        const i = row * COLUMNS + c;
        const share = Math.max(1 - Math.exp(-strength * from), background, besides ? beside * besides[h * HALF + i] : 0);
        worn[i] = Math.min(1, Math.max(0, share + 0.05 * normal(random)));
        seen[i] = (h === 0 ? c : COLUMNS - 1 - c) < hidden * COLUMNS ? 0 : 1;
      }
    return { worn, seen };
  };
  return random() < 0.2 ? { [random() < 0.5 ? 'upper' : 'lower']: half(0) } : { upper: half(0), lower: half(1) };
}

/** Best likeness of every form, by form; those that predict no wear are left out. */
function byForm(tried, found) {
  const best = new Map();
  for (const { form, alike } of likened(tried, found)) if (form !== null && alike !== null && !best.has(form)) best.set(form, alike);
  return best;
}

function worlds(random, engines) {
  const out = [];
  for (const id of engines) {
    const { layout } = engineTemplate(id);
    for (const bearing of BEARINGS) {
      const from = usualSetting(layout, bearing, {});
      const clearanceMm = runEngine(layout, from).value?.clearanceMm;
      if (!clearanceMm) continue;
      const tried = triedAll(layout, from);
      const add = (truth, found) => out.push({ truth, bearing, likest: byForm(tried, found) });
      for (const form of formsAt(bearing)) {
        let made = 0;
        for (let tries = 0; made < EACH && tries < 4 * EACH; tries++) {
          const run = runEngine(layout, drawnSetting(random, layout, from, clearanceMm, form));
          const wear = run.ok ? run.value.wear : null;
          if (!wear || wear.dry !== (form === 'dry')) continue;
          made++;
          const field = Float64Array.from([...wear.upper, ...wear.lower]);
          for (let k = 0; k < 4; k++) add(form, foundOf(random, field));
        }
      }
      for (let k = 0; k < 4 * EACH * formsAt(bearing).length; k++) add(null, foundOf(random, strange(random)));
      say(`${id} ${bearing}: ${out.length} worlds`);
    }
  }
  return out;
}

/** A row for each form of each world: how alike it is, by how much it leads the others, and is it the truth. */
function rowsOf(all) {
  return all.flatMap(({ truth, likest }) =>
    [...likest].map(([form, alike]) => {
      const rival = Math.max(0, ...[...likest].filter(([f]) => f !== form).map(([, a]) => a));
      return { form, alike, lead: alike - rival, is: truth === form ? 1 : 0 };
    }),
  );
}

/** Logistic regression by Newton's steps, each truth weighed so that it is as likely as not. */
function fit(rows) {
  const n1 = rows.filter((r) => r.is).length;
  const weight = (r) => (r.is ? 0.5 / n1 : 0.5 / (rows.length - n1));
  let b = [0, 0, 0];
  for (let step = 0; step < 50; step++) {
    const g = [0, 0, 0];
    const h = [1e-9, 0, 0, 0, 1e-9, 0, 0, 0, 1e-9];
    for (const r of rows) {
      const x = [1, r.alike, r.lead];
      const p = 1 / (1 + Math.exp(-(b[0] + b[1] * x[1] + b[2] * x[2])));
      for (let i = 0; i < 3; i++) {
        g[i] += weight(r) * (r.is - p) * x[i];
        for (let j = 0; j < 3; j++) h[3 * i + j] += weight(r) * p * (1 - p) * x[i] * x[j];
      }
    }
    b = b.map((v, i) => v + solve3(h, g)[i]);
  }
  return b;
}

function solve3(a, y) {
  const m = [0, 1, 2].map((i) => [a[3 * i], a[3 * i + 1], a[3 * i + 2], y[i]]);
  for (let i = 0; i < 3; i++)
    for (let k = 0; k < 3; k++)
      if (k !== i) {
        const f = m[k][i] / m[i][i];
        for (let j = 0; j < 4; j++) m[k][j] -= f * m[i][j];
      }
  return m.map((row, i) => row[3] / row[i]);
}

const found = rowsOf(worlds(seeded(1849), FIND));
const figures = new Map(WEAR_FORMS.map((form) => [form, fit(found.filter((r) => r.form === form))]));
say('\nLog-odds = a + b · likeness + c · lead over the likest other form');
for (const [form, b] of figures) say(`  '${form}': [${b.map((v) => v.toFixed(2)).join(', ')}],`);
const tried = worlds(seeded(77), TRY);
const rows = rowsOf(tried);
const odds = ({ form, alike, lead }) => {
  const [a, b, c] = figures.get(form);
  return a + b * alike + c * lead;
};
say('\nOn other engines: log-odds said, in decibans, against what was so (each form as likely as not)');
const n1 = rows.filter((r) => r.is).length;
for (const [low, high] of [
  [-99, -10],
  [-10, -5],
  [-5, 0],
  [0, 5],
  [5, 8],
  [8, 10],
  [10, 13],
  [13, 99],
]) {
  const here = rows.filter((r) => 4.343 * odds(r) >= low && 4.343 * odds(r) < high);
  const [yes, no] = [here.filter((r) => r.is).length / n1, here.filter((r) => !r.is).length / (rows.length - n1)];
  say(
    `  ${low} to ${high}: ${here.length} rows, ${(100 * yes).toFixed(1)} % of what is so, ${(100 * no).toFixed(1)} % of what is not, in truth ${(10 * Math.log10(yes / no)).toFixed(1)} decibans`,
  );
}
say('\nLikest form, of worlds of each form (rows) and of none');
for (const truth of [...WEAR_FORMS, null]) {
  const own = tried.filter((w) => w.truth === truth && w.likest.size > 0);
  const leads = (w) => [...w.likest].sort((x, y) => y[1] - x[1])[0][0];
  say(
    `  ${String(truth).padEnd(12)} ${WEAR_FORMS.map((f) => `${f} ${((100 * own.filter((w) => leads(w) === f).length) / own.length).toFixed(0)} %`).join(', ')}  (${own.length})`,
  );
}
