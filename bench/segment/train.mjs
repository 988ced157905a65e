// Trains the classifier of a part's surface on surfaces that `extract.mjs` wrote, and judges it on those of another renderer it has not seen (cross-validated by picture).
// node bench/segment/train.mjs DIR --part shell [--scene] [--folds 5 --fold 0] [--out FILE]
// With --scene it is the classifier that tells surface from what lies beside it in whole pictures; --against journal,skirt shows it pictures of those, in which nothing is; --others 3 takes three times the rows of pictures of another renderer. With a fold and a file what is kept was trained without that fold.
import { readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import {
  ASKED,
  contextOf,
  FEATURE_NAMES,
  pixelFeatures,
  probabilitiesOf,
  SCENE_FEATURES,
  SCENE_SCALE,
  sceneFeatures,
  SURROUNDED_FEATURES,
} from '@true-ledger/core/photo';
import { seeded } from '@true-ledger/core/specimen';
import { CLASSES, load } from './extract.mjs';
import { train } from './mlp.mjs';

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    part: { type: 'string', default: 'shell' },
    folds: { type: 'string', default: '5' },
    fold: { type: 'string' },
    out: { type: 'string' },
    epochs: { type: 'string', default: '8' },
    rows: { type: 'string', default: '700' },
    hidden: { type: 'string', default: '32,16' },
    studio: { type: 'string', default: '400' },
    scene: { type: 'boolean', default: false },
    against: { type: 'string' },
    others: { type: 'string', default: '1' },
  },
});
const names = values.scene ? ['sound', 'void'] : CLASSES[values.part];
const C = names.length;
const VOID = C - 1;
/** Round parts are full metal that mirrors its bench: there it is told too. */
const SURROUNDED = values.part !== 'shell';
const NAMES = values.scene ? SCENE_FEATURES : SURROUNDED ? SURROUNDED_FEATURES : FEATURE_NAMES;
const F = NAMES.length;
const hidden = values.hidden.split(',').map(Number);
/** White balance is off by up to this, in the logarithm of a channel over the next. */
const CAST = 0.13;
// What is told over another place of the same picture does not change with its cast.
const columns = (word) => NAMES.flatMap((n, i) => (n.startsWith(word) && !/share|over the border/.test(n) ? [i] : []));
const RED = columns('redness');
const YELLOW = columns('yellowness');
const KNOWN = NAMES.indexOf('white is known');

function featuresOf(path, card) {
  const d = load(path);
  // Of whole pictures an oil hole is neither surface nor what lies beside it.
  if (values.scene) {
    const f = sceneFeatures(d.pixels);
    const other = !path.includes(`/${values.part}-scene/`);
    const truth = Uint8Array.from({ length: f.width * f.height }, (_, i) => {
      const t = d.truth[ASKED * Math.floor(i / f.width) * d.width + ASKED * (i % f.width)];
      return other ? 1 : t;
    });
    return { ...d, truth, pxPerMm: SCENE_SCALE, f: { ...f, there: truth.map((t) => (t === 2 ? 0 : 1)) } };
  }
  return { ...d, f: pixelFeatures(d.pixels, d.pxPerMm, d.cosine, card ? d.white : null, SURROUNDED ? d.surroundings : null) };
}

/** Rows of a surface, of each class as many as the root of its share asks for; a row weighs what it stands for, so that chances stay chances. */
function sampled({ truth, f }, rows, n, r) {
  const by = names.map(() => []);
  for (let i = 0; i < truth.length; i++) if (f.there[i]) by[truth[i]].push(i);
  const root = by.map((list) => Math.sqrt(list.length));
  const sum = root.reduce((a, b) => a + b, 0);
  const X = [];
  const Y = [];
  const W = [];
  by.forEach((list, c) => {
    const want = Math.min(list.length, Math.round((n * root[c]) / sum));
    for (let k = 0; k < want; k++) {
      const i = list[Math.floor(r() * list.length)];
      X.push(rows.data.slice(i * rows.count, (i + 1) * rows.count));
      Y.push(c);
      W.push(list.length / truth.length / (root[c] / sum));
    }
  });
  return { X, Y, W };
}

function packed(parts) {
  const X = parts.flatMap((p) => p.X);
  const count = X[0].length;
  const flat = new Float32Array(X.length * count);
  X.forEach((row, k) => flat.set(row, k * count));
  return { count, X: flat, Y: Uint8Array.from(parts.flatMap((p) => p.Y)), W: Float32Array.from(parts.flatMap((p) => p.W)) };
}

function network({ count, X, Y, W }, cast, seed) {
  const n = Y.length;
  const mean = new Float32Array(count);
  const spread = new Float32Array(count);
  for (let k = 0; k < count; k++) {
    let [s, q] = [0, 0];
    for (let i = k; i < X.length; i += count) s += X[i];
    for (let i = k; i < X.length; i += count) q += (X[i] - s / n) ** 2;
    mean[k] = s / n;
    spread[k] = Math.sqrt(q / n) + 1e-3;
  }
  for (let i = 0; i < X.length; i += count) for (let k = 0; k < count; k++) X[i + k] = (X[i + k] - mean[k]) / spread[k];
  const jitter = (x, r) => {
    const most = KNOWN >= 0 && x[KNOWN] * spread[KNOWN] + mean[KNOWN] > 0.5 ? 0.25 * cast : cast;
    const [red, yellow] = [most * (2 * r() - 1), most * (2 * r() - 1)];
    for (const k of RED) x[k] += red / spread[k];
    for (const k of YELLOW) x[k] += yellow / spread[k];
  };
  return { mean, spread, layers: train({ sizes: [count, ...hidden, C], X, Y, W, epochs: Number(values.epochs), jitter, seed }) };
}

function fit(list) {
  const r = seeded(11);
  const first = network(
    packed(
      list.map(([path, card, times = 1]) => {
        const p = featuresOf(path, card);
        return sampled(p, { count: F, data: p.f.data }, times * Number(values.rows), r);
      }),
    ),
    CAST,
    1,
  );
  const second = network(
    packed(
      list.map(([path, card, times = 1]) => {
        const p = featuresOf(path, card);
        return sampled(p, contextOf(p.f, probabilitiesOf(first, { count: F, data: p.f.data }), p.pxPerMm), times * Number(values.rows), r);
      }),
    ),
    CAST / 2,
    2,
  );
  return [first, second];
}

function judged([first, second], p) {
  const planes = probabilitiesOf(second, contextOf(p.f, probabilitiesOf(first, { count: F, data: p.f.data }), p.pxPerMm));
  const said = new Float32Array(C);
  const truth = new Float32Array(C);
  let sure = 0;
  for (let i = 0; i < p.truth.length; i++) {
    if (!p.f.there[i] || p.cosine[i % p.width] < 0.2) continue;
    let best = 0;
    for (let c = 1; c < C; c++) if (planes[c][i] > planes[best][i]) best = c;
    said[best]++;
    sure += planes[best][i];
    truth[p.truth[i]]++;
  }
  const of = (v) => v.map((x, c) => (c === VOID ? 0 : (100 * x) / v.reduce((s, y, k) => s + (k === VOID ? 0 : y), 0)));
  return { said: of(said), truth: of(truth), sure: sure / said.reduce((a, b) => a + b, 0) };
}

/** How much of surface and of what was taken for it is both, %. */
function overlap([first, second], p) {
  const [surface] = probabilitiesOf(second, contextOf(p.f, probabilitiesOf(first, { count: F, data: p.f.data }), p.pxPerMm));
  let [both, either] = [0, 0];
  surface.forEach((q, i) => {
    if (p.truth[i] === 2) return;
    if (q > 0.5 && p.truth[i] === 0) both++;
    if (q > 0.5 || p.truth[i] === 0) either++;
  });
  return (100 * both) / either;
}

const dir = join(positionals[0], values.scene ? `${values.part}-scene` : values.part);
const files = readdirSync(dir).sort();
const studio = files.filter((f) => f[0] === 't').slice(0, Number(values.studio));
const others = files.filter((f) => f[0] !== 't');
const pictures = [...new Set(others.map((f) => f.slice(0, 3)))];
const listOf = (kept) => [
  ...others
    .filter((f) => kept.includes(f.slice(0, 3)))
    .flatMap((f) => [
      [join(dir, f), false],
      ...(!values.scene && f.includes('-2') && load(join(dir, f)).white ? [[join(dir, f), true]] : []),
    ]),
  ...studio.map((f) => [join(dir, f), false]),
  // What is none of this part in pictures of other parts: all of it.
  ...(values.against ?? '')
    .split(',')
    .filter(Boolean)
    .flatMap((part) => readdirSync(join(positionals[0], `${part}-scene`)).map((f) => [join(positionals[0], `${part}-scene`, f), false]))
    .filter((_, i) => i % 16 === 0),
];
if (values.out) {
  const heldOut = (_, i) => values.fold !== undefined && i % Number(values.folds) === Number(values.fold);
  const stages = fit(listOf(pictures.filter((id, i) => !heldOut(id, i))));
  const figures = stages.flatMap(({ mean, spread, layers }) => [...mean, ...spread, ...layers.flatMap((l) => [...l.weights, ...l.bias])]);
  const kept = { classes: names, hidden, figures: Buffer.from(Float32Array.from(figures).buffer).toString('base64') };
  writeFileSync(
    values.out,
    `// Made by bench/segment/train.mjs; not written by hand.\nimport type { KeptClassifier } from '../classifier.js';\n\n/** What tells ${values.scene ? `a ${values.part} from what lies beside it` : `the surface of a ${values.part} apart`}. */\nexport const ${values.part.toUpperCase()}${values.scene ? '_SCENE' : ''}: KeptClassifier = ${JSON.stringify(kept)};\n`,
  );
} else {
  const folds = Number(values.folds);
  for (let k = 0; k < folds; k++) {
    if (values.fold !== undefined && k !== Number(values.fold)) continue;
    const held = pictures.filter((_, i) => i % folds === k);
    const model = fit(listOf(pictures.filter((id) => !held.includes(id))));
    if (values.scene) {
      for (const id of held) console.log(id, overlap(model, featuresOf(join(dir, `${id}-0.bin`), false)).toFixed(1));
      continue;
    }
    for (const id of held)
      for (const off of [0, 2]) {
        const { said, truth, sure } = judged(model, featuresOf(join(dir, `${id}-${off}.bin`), false));
        const wrong = Math.max(...names.map((_, c) => (c === 0 || c === VOID ? 0 : Math.abs(said[c] - truth[c]))));
        console.log(
          id,
          off ? 'off  ' : 'given',
          wrong > 3 ? '!' : ' ',
          names
            .slice(1, -1)
            .map((n, c) => `${n} ${said[c + 1].toFixed(1)}/${truth[c + 1].toFixed(1)}`)
            .join(' '),
          `sure ${sure.toFixed(3)}`,
        );
      }
  }
}
