// How well causes are found: made-up cases with expected answers (twenty and more to tune on, as many sealed), and cases sampled from the model with evidence hidden and wrong.
// node bench/cases.mjs [--set tuning|sealed|sampled|all] [--count 2000] [--list]
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { engineTags, engineTemplate } from '@true-ledger/core/engine';
import { featureProbability, posterior } from '@true-ledger/core/cause';
import { applicableModel, diagnose } from '@true-ledger/core/diagnosis';
import { readCaseFile } from '@true-ledger/core/bundle';

const { values } = parseArgs({
  options: {
    set: { type: 'string', default: 'all' },
    count: { type: 'string', default: '1000' },
    list: { type: 'boolean', default: false },
  },
});
const here = new URL('./cases/', import.meta.url).pathname;
const print = (figure) => console.log(JSON.stringify(figure));

/** Expected calibration error over ten bins (Guo et al. 2017): mean gap of stated chance and observed share, weighed by how many fall in the bin. */
function calibration(pairs) {
  const bins = Array.from({ length: 10 }, () => ({ n: 0, p: 0, hit: 0 }));
  for (const [p, hit] of pairs) {
    const b = bins[Math.min(9, Math.floor(p * 10))];
    b.n++;
    b.p += p;
    b.hit += hit ? 1 : 0;
  }
  const ece = bins.reduce((sum, b) => sum + (b.n === 0 ? 0 : Math.abs(b.p - b.hit)), 0) / pairs.length;
  return { ece, curve: bins.map((b) => (b.n === 0 ? null : { n: b.n, said: +(b.p / b.n).toFixed(3), was: +(b.hit / b.n).toFixed(3) })) };
}

function folder(name) {
  const expected = JSON.parse(readFileSync(join(here, name, 'expected.json'), 'utf8'));
  let one = 0;
  let three = 0;
  let named = 0;
  let endings = 0;
  let stated = 0;
  let brier = 0;
  for (const file of readdirSync(join(here, name)).filter((f) => f.endsWith('.json') && f !== 'expected.json')) {
    const id = file.replace('.json', '');
    const want = expected[id];
    const read = readCaseFile(JSON.parse(readFileSync(join(here, name, file), 'utf8')));
    if (!read.ok) throw new Error(`${file}: ${read.problem.sentence}`);
    const d = diagnose(read.value.view);
    const order = d.causes.map((c) => c.id).filter((c) => c !== 'something-else');
    const rank = want.causes.map((c) => order.indexOf(c) + 1);
    const first = want.causes.length > 0 && rank.every((r) => r >= 1 && r <= want.causes.length);
    const among = want.causes.length > 0 && rank.every((r) => r >= 1 && r <= 3);
    if (want.causes.length > 0) {
      named++;
      one += first ? 1 : 0;
      three += among ? 1 : 0;
      brier += d.causes.reduce((s, c) => s + (c.probability - (want.causes.includes(c.id) ? 1 : 0)) ** 2, 0);
    }
    const ending = want.ending ?? (want.causes.length > 1 ? 'two or more independent causes' : null);
    const endingHit = ending === null || ending === d.ending.kind;
    if (want.ending || want.causes.length > 1) {
      stated++;
      endings += endingHit ? 1 : 0;
    }
    if (values.list && (!endingHit || (want.causes.length > 0 && !first)))
      console.log(
        `${id}: wanted ${want.causes.join(' + ') || ending} (rank ${rank.join(', ')}); ${d.ending.kind}; ${d.causes
          .slice(0, 4)
          .map((c) => `${c.id} ${(c.probability * 100).toFixed(0)}`)
          .join(', ')}`,
      );
  }
  print({ figure: `cases ${name}: leading cause right`, value: +((100 * one) / named).toFixed(1), unit: '%', of: named, aim: 85 });
  print({ figure: `cases ${name}: among the first three`, value: +((100 * three) / named).toFixed(1), unit: '%', of: named, aim: 97 });
  print({ figure: `cases ${name}: stated ending reached`, value: +((100 * endings) / stated).toFixed(1), unit: '%', of: stated });
  print({ figure: `cases ${name}: Brier, sum over causes`, value: +(brier / named).toFixed(3), of: named });
}

/** A generator with a seed, so that two runs sample the same cases (mulberry32). */
function random(seed) {
  return () => {
    seed = (seed + 0x6d2b79f5) | 0;
    let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

function sampled(count) {
  const r = random(20261127);
  const templates = ['inline-4-petrol', 'inline-6-diesel', 'vee-8-petrol', 'single-splash', 'twin-premix'];
  const calib = [];
  let one = 0;
  let three = 0;
  let brier = 0;
  for (let k = 0; k < count; k++) {
    const { causes, odds, features } = applicableModel(engineTags(engineTemplate(templates[k % templates.length]).layout));
    // One cause drawn by its odds, a second one in every sixth case; the model's own prior over sets is independent odds.
    const draw = (not) => {
      const w = odds.map((o, i) => (i === not ? 0 : o));
      let at = r() * w.reduce((a, b) => a + b, 0);
      return w.findIndex((x) => (at -= x) <= 0);
    };
    const first = draw(-1);
    const set = r() < 1 / 6 ? [first, draw(first)] : [first];
    const hide = 0.1 + 0.2 * r();
    const observations = [];
    for (const f of features.values()) {
      if (f.group && observations.some((o) => features.get(o.feature).group === f.group)) continue;
      const present =
        r() <
        featureProbability(
          f,
          set.map((i) => causes[i]),
        );
      if (r() < hide) continue;
      const said = r() < 0.05 ? !present : present;
      observations.push({ feature: f.id, ifPresent: said ? 0.95 : 0.05, ifAbsent: said ? 0.05 : 0.95 });
    }
    const post = posterior(causes, odds, observations, features);
    const order = causes.map((_, i) => i).sort((a, b) => post.marginal[b] - post.marginal[a]);
    if (set.every((i) => order.indexOf(i) < set.length)) one++;
    if (set.every((i) => order.indexOf(i) < 3)) three++;
    causes.forEach((_, i) => {
      const hit = set.includes(i);
      brier += (post.marginal[i] - (hit ? 1 : 0)) ** 2;
      if (post.marginal[i] > 0.02 || hit) calib.push([post.marginal[i], hit]);
    });
  }
  const { ece, curve } = calibration(calib);
  print({ figure: 'cases sampled: leading cause right', value: +((100 * one) / count).toFixed(1), unit: '%', of: count });
  print({ figure: 'cases sampled: among the first three', value: +((100 * three) / count).toFixed(1), unit: '%', of: count });
  print({ figure: 'cases sampled: Brier, sum over causes', value: +(brier / count).toFixed(3), of: count });
  print({ figure: 'cases sampled: expected calibration error', value: +ece.toFixed(4), limit: 0.05, ok: ece <= 0.05, curve });
}

if (values.set === 'tuning' || values.set === 'all') folder('tuning');
if (values.set === 'sealed' || values.set === 'all') folder('sealed');
if (values.set === 'sampled' || values.set === 'all') sampled(Number(values.count));
